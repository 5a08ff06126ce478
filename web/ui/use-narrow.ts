import { useSyncExternalStore } from 'react';

/** Up to this width a page is held in the hand, CSS px; the style sheets say the same. */
const NARROW = '(max-width: 700px)';

const query = (): MediaQueryList | null => (typeof window.matchMedia === 'function' ? window.matchMedia(NARROW) : null);

function subscribe(listener: () => void): () => void {
  const narrow = query();
  narrow?.addEventListener('change', listener);
  return () => narrow?.removeEventListener('change', listener);
}

export const isNarrow = (): boolean => query()?.matches ?? false;

/** True on a phone held upright: the answer comes first there. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, isNarrow);
