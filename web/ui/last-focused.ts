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

/** What had the focus last on the page itself: of a list that fell down from a button, that button. */
export const lastFocused = (): HTMLElement | null => (last?.isConnected ? last : null);
