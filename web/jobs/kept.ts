import { browserStorage } from '../state/draft-store';
import { createStore } from '../state/store';

/** True once anything of a job is kept on this device, or waits in this page: its sending is fetched then. */
export const outboxWanted = createStore(somethingKept());

function somethingKept(): boolean {
  const storage = browserStorage();
  for (let k = 0; k < (storage?.length ?? 0); k += 1) if (/^emery-(job|refused):/.test(storage!.key(k)!)) return true;
  return false;
}
