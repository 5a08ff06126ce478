import { runCore } from '../state/run-core';
import { fetchParts } from './lazy-part';

/** Time the first page has to itself before the rest is fetched, ms. */
const FIRST_MS = 1500;

/** After a part that could not be fetched the rest is tried again after this, ms. */
const AGAIN_MS = 8000;

/** Once the page is idle: the code of every other part, and of the worker, while the server is there to give it. */
export function fetchRest(afterMs = FIRST_MS): void {
  const idle = typeof requestIdleCallback === 'function' ? requestIdleCallback : setTimeout;
  setTimeout(
    () =>
      idle(async () => {
        if (await fetchParts()) await runCore('nothing', null).catch(() => undefined);
        else fetchRest(AGAIN_MS);
      }),
    afterMs,
  );
}
