import type { Section } from '../section';

/** How a new belt of a kind grows: a fraction of its length that it seats by, and one that it grows by. */
export interface GrowthDefaults {
  seat: { fraction: number; plusMinus: number };
  /** For every 10,000 km. */
  rate: { fraction: number; plusMinus: number };
  /** Belts of the shop's own that it was learned from. */
  sittings?: number;
}

/** By kind of section; one standard deviation each. Defaults. */
export const GROWTH_DEFAULTS: Record<Section['kind'], GrowthDefaults> = {
  ribbed: { seat: { fraction: 0.001, plusMinus: 0.0006 }, rate: { fraction: 0.0003, plusMinus: 0.0002 } },
  vee: { seat: { fraction: 0.002, plusMinus: 0.0012 }, rate: { fraction: 0.0004, plusMinus: 0.0003 } },
  toothed: { seat: { fraction: 0.0003, plusMinus: 0.0002 }, rate: { fraction: 0.00005, plusMinus: 0.00005 } },
};

/** Two thirds of its seating a belt does in this distance, km. A default. */
export const SEATING_KM = 200;
/** What `rate` is counted for, km. */
export const RATE_KM = 10_000;

/** What was read of the adjuster after the belt that was kept had run so far. */
export interface ServiceReading {
  /** The belt that was tried on and kept. */
  tried: string;
  km: number;
  seatKm: number;
  /** Where on the travel, the length drawn there, mm, and one standard deviation of that. */
  fraction: number;
  drawnMm: number;
  sigmaMm: number;
}

/** How much of its seating a belt has done after a distance, and how often 10,000 km went by. */
export function grownAfter(km: number, seatKm = SEATING_KM): { seated: number; grown: number } {
  return { seated: 1 - Math.exp(-Math.max(0, km) / seatKm), grown: Math.max(0, km) / RATE_KM };
}
