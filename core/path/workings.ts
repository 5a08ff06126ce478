import type { Drive, PlacedPulley } from '../drive';
import type { Shafts } from './shafts';

/** Everything a solve shares between belts. */
export interface Workings {
  drive: Drive;
  pulleys: ReadonlyMap<string, PlacedPulley>;
  shafts: Shafts;
}
