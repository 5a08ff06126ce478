/**
 * Taken where nothing was measured: of a place on the drawing, of a diameter, mm; and of a belt's length, as a fraction
 * of it. One standard deviation each. Defaults.
 */
export const DEFAULT_UNCERTAINTY = {
  placeMm: 1.5,
  diameterMm: 0.5,
  beltFraction: { ribbed: 0.0015, vee: 0.0015, toothed: 0.0004 },
};
