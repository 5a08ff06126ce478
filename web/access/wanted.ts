import { clockOff, newVersion, signedOut } from './here';
import type { Readable } from '../state/store';

const stores: readonly Readable<unknown>[] = [signedOut, clockOff, newVersion];

/** True once there is something to say over the page: its code is fetched then. */
export const accessWanted: Readable<boolean> = {
  get: () => signedOut.get() !== null || clockOff.get() !== 0 || newVersion.get(),
  subscribe: (listener) => {
    const ends = stores.map((store) => store.subscribe(listener));
    return () => ends.forEach((end) => end());
  },
};
