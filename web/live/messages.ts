import { newSaveId } from '../api/shop';
import { browserStorage } from '../state/draft-store';
import { createStore } from '../state/store';
import type { DeviceKind, LiveMessage } from '@emery/core/api';

/*
 * What is told live, to whichever part of the page follows it; where it comes from (`connection.ts`) is fetched once
 * the page stands.
 */

/** True while what happens elsewhere is told as it happens: nothing has to be asked for again and again then. */
export const live = createStore(false);

type Listener = (message: LiveMessage) => void;
const listeners = new Set<Listener>();

/** Calls back with every message. Returns what ends that. */
export function onLive(listener: Listener): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

export function tellLive(message: LiveMessage): void {
  for (const listener of [...listeners]) listener(message);
}

const KEY = 'emery-device';

/** This device's name among those of the shop, one for all its tabs. */
function nameOfDevice(): string {
  const storage = browserStorage();
  const kept = storage?.getItem(KEY);
  if (kept && /^[\w-]{8,36}$/.test(kept)) return kept;
  const made = newSaveId();
  try {
    storage?.setItem(KEY, made);
  } catch {
    // Full or forbidden: another name with every page.
  }
  return made;
}

let device: string | null = null;
export const thisDevice = (): string => (device ??= nameOfDevice());
let tab: string | null = null;
export const thisTab = (): string => (tab ??= newSaveId());

/** By what it is held and how wide it is. */
export function kindOfDevice(): DeviceKind {
  const isTouched = typeof window.matchMedia === 'function' && window.matchMedia('(pointer: coarse)').matches;
  if (!isTouched) return 'computer';
  return Math.min(window.screen.width, window.screen.height) < 600 ? 'phone' : 'tablet';
}
