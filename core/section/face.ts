export const SURFACES = ['ribbed', 'vee', 'smooth', 'toothed'] as const;
/** What a pulley shows the belt. */
export type Surface = (typeof SURFACES)[number];

/** The side of the belt that lies on a pulley. */
export type Side = 'drive' | 'back';

/**
 * As much of a pulley as its radii rest on: `diameter` as callipers read it, `ride` the height of
 * the belt above the rim, mm.
 */
export interface Face {
  readonly surface: Surface;
  readonly diameter?: number;
  readonly teeth?: number;
  readonly ride?: number;
  readonly grooveAngle?: number;
}
