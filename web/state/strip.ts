import { createStore } from './store';

/** What the strip above the ledger shows on a phone: the drawing, the chart, nothing, or the drawing over it all. */
export type Strip = 'drawing' | 'chart' | 'folded' | 'full';

/** It stays as it was put from stage to stage; on wider screens nothing follows it. */
export const strip = createStore<Strip>('drawing');
