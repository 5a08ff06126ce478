/**
 * Taken where nothing was measured: of a place on the drawing, of a diameter, mm; and of a belt's length, as a fraction
 * of it. One standard deviation each. Defaults.
 */
export const DEFAULT_UNCERTAINTY = {
  placeMm: 1.5,
  diameterMm: 0.5,
  beltFraction: { ribbed: 0.0015, vee: 0.0015, toothed: 0.0004 },
};

/**
 * What is taken of a belt that was tried on where nobody says more: one standard deviation of each reading in its own
 * unit, how far the length at which a hand still gets a belt over a rim may be off, by what fraction a belt that went
 * on by force is too short at most, and what an old belt has grown. Defaults.
 */
export const TRIED_DEFAULTS = {
  pointerDeg: 1.5,
  travelMm: 2,
  turns: 0.5,
  shims: 0.3,
  goesOnMm: 3,
  forcedFraction: 0.006,
  worn: { fraction: 0.003, plusMinus: 0.002 },
};

/**
 * How often something is simply wrong, and by how much then, mm: the belt in the hand is not of the length that is
 * printed or was written down, the drawing has a slip, a length was measured wrongly. Defaults; they count once a belt
 * was tried on, which is what shows such a thing.
 */
export const MISTAKES = {
  label: { chance: 0.02, mm: 40 },
  drawing: { chance: 0.03, mm: 25 },
  measurement: { chance: 0.03, mm: 25 },
};
