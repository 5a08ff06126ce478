import { createStore } from '../state/store';
import type { EndedWhy } from '@emery/core/api';

/** True on the machine that Emery runs on, which needs no sign-in. */
export const onMachine = (): boolean => /^(127\.0\.0\.1|localhost|\[::1\])$/.test(window.location.hostname);

/** Why this device is not signed in, as it was last told; null while it is, or nobody said otherwise. */
export const signedOut = createStore<{ why: EndedWhy | 'none'; words: string } | null>(
  null,
  (a, b) => a?.words === b?.words,
);

/** Minutes that the clock of this device is ahead of the server's; 0 while it is about right. */
export const clockOff = createStore(0);

/** True once the server serves another version of the interface than this page is. */
export const newVersion = createStore(false);

/** So far the two clocks may differ: a request takes its time, and the server tells whole seconds. */
const MOST_OFF_MINUTES = 3;

let version: string | null = null;

/** Takes in what every answer of the server says besides its body. */
export function heard(headers: Headers | undefined, now = Date.now()): void {
  const build = headers?.get('emery-build') ?? null;
  if (build !== null) {
    version ??= build;
    newVersion.set(build !== version);
  }
  const date = Date.parse(headers?.get('date') ?? '');
  if (Number.isNaN(date)) return;
  const minutes = Math.round((now - date) / 60_000);
  clockOff.set(Math.abs(minutes) > MOST_OFF_MINUTES ? minutes : 0);
}

/** Why a server that should be there does not answer, as far as this device can tell. */
export function noAnswerWords(): string {
  if (!navigator.onLine) return 'This device has no network. Connect it to the network of the shop.';
  if (onMachine()) return 'The Emery server does not answer. Is it running?';
  const { host, port } = window.location;
  const named = window.location.hostname === 'emery.local' ? '' : ` or try https://emery.local:${port}`;
  return `Emery does not answer at ${host}. Is it running, and is this device on the network of the shop? If the address has changed, see the page Devices at the machine${named}.`;
}
