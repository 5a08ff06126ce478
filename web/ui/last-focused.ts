/** Lists that fall down over the page and are gone once something of theirs is taken. */
const PASSING = '.ant-dropdown, .ant-select-dropdown';

let last: HTMLElement | null = null;

document.addEventListener(
  'focusin',
  ({ target }) => {
    if (target instanceof HTMLElement && !target.closest(PASSING)) last = target;
  },
  true,
);

document.addEventListener(
  'focusout',
  ({ target, relatedTarget }) => {
    // Left for nothing, as by a press beside everything: then nothing is in focus any more.
    if (relatedTarget === null && target instanceof HTMLElement && !target.closest(PASSING)) last = null;
  },
  true,
);

/** What has the focus on the page itself, or opened the list that fell down; null where nothing has. */
export const lastFocused = (): HTMLElement | null => (last?.isConnected ? last : null);
