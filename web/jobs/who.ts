import { useSyncExternalStore } from 'react';
import { browserStorage } from '../state/draft-store';
import { Listeners } from '../state/listeners';

const KEY = 'emery-who';
const storage = browserStorage('localStorage');
const listeners = new Listeners();
let who = storage?.getItem(KEY)?.slice(0, 80) ?? '';

/** Who works at this device, as it was last written; empty where nobody said. */
export const whoIsThere = (): string => who.trim();

export function sayWho(name: string): void {
  who = name.slice(0, 80);
  try {
    storage?.setItem(KEY, who);
  } catch {
    // Full or forbidden: it is asked for again.
  }
  listeners.tell();
}

/** The same as it is written. */
export const useWho = (): string =>
  useSyncExternalStore(
    (listener) => listeners.add(listener),
    () => who,
  );
