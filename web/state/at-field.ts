let since: number | null = null;

/** Since when somebody is at a field of this page; null while nobody is. */
export const atFieldSince = (): number | null => since;

const isField = (target: EventTarget | null) => target instanceof Element && target.matches('input, textarea');

if (typeof document !== 'undefined') {
  document.addEventListener('focusin', ({ target }) => {
    since = isField(target) ? Date.now() : null;
  });
  // What is written is taken over as the field is left.
  document.addEventListener('focusout', () => {
    const left = since;
    setTimeout(() => {
      if (since === left) since = null;
    }, 0);
  });
}
