import { browserStorage } from '../state/draft-store';

const KEY = 'emery-who';
const storage = browserStorage('localStorage');

/** Who works at this device, as it was last written; empty where nobody said. */
export const whoIsThere = (): string => storage?.getItem(KEY)?.slice(0, 80) ?? '';

export function sayWho(name: string): void {
  try {
    storage?.setItem(KEY, name.slice(0, 80));
  } catch {
    // Full or forbidden: it is asked for again.
  }
}
