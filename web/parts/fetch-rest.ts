import { runCore } from '../state/run-core';
import { fetchParts } from './lazy-part';

/** Time the first page has to itself before the rest is fetched, ms. */
const FIRST_MS = 1500;

/** Once the page is idle: the code of every other part, and of the worker, while the server is there to give it. */
export function fetchRest(): void {
  const idle = typeof requestIdleCallback === 'function' ? requestIdleCallback : setTimeout;
  setTimeout(
    () =>
      idle(async () => {
        await fetchParts();
        await runCore('nothing', null).catch(() => undefined);
      }),
    FIRST_MS,
  );
}
