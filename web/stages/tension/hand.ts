import { browserStorage } from '../../state/draft-store';
import { createStore, type Store } from '../../state/store';
import { DEFAULT_HAND, type Hand } from '@emery/core/tension';

const KEY = 'emery-hand';

function kept(): Hand {
  try {
    const read = JSON.parse(browserStorage()?.getItem(KEY) ?? '{}') as Partial<Hand>;
    const good = Object.entries(read).filter(
      ([key, value]) => key in DEFAULT_HAND && Number.isFinite(value) && value > 0,
    );
    return { ...DEFAULT_HAND, ...Object.fromEntries(good) };
  } catch {
    return DEFAULT_HAND;
  }
}

/** What the thumb and fingers of whoever works with this device can do; the default until they are calibrated. */
export const hand: Store<Hand> = createStore<Hand>(kept());
hand.subscribe(() => {
  try {
    browserStorage()?.setItem(KEY, JSON.stringify(hand.get()));
  } catch {
    // Full or forbidden: it holds until the page goes.
  }
});
