/** More tries than this are not made: a bound that far out leaves its own edge. */
const MOST_TRIES = 200;
/** An interval narrower than this is drawn evenly and thinned by its curve. */
const NARROW = 1.2;

/**
 * A normal deviate of mean 0 and standard deviation 1 between two bounds, either of which may be infinite, by rejection
 * (C. P. Robert, "Simulation of truncated normal variables", 1995).
 */
export function normalBetween(
  from: number,
  to: number,
  random: { normal: () => number; uniform: () => number },
): number {
  if (!(from < to)) return Number.isFinite(from) ? from : to;
  // The side with the tail upwards.
  if (to < 0 || (from < 0 && -from > to)) return -normalBetween(-to, -from, random);
  if (to - from < NARROW) return evenly(from, to, random.uniform);
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const value = from < 0.5 ? random.normal() : tailAbove(from, random.uniform);
    if (value >= from && value <= to) return value;
  }
  return from > 0 ? from : 0;
}

/** Thinned by the curve over its highest place in the interval. */
function evenly(from: number, to: number, uniform: () => number): number {
  const highest = from > 0 ? from : 0;
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const value = from + (to - from) * uniform();
    if (Math.log(uniform()) <= (highest ** 2 - value ** 2) / 2) return value;
  }
  return highest;
}

/** Above a bound on the right: an exponential deviate from it, thinned. */
function tailAbove(from: number, uniform: () => number): number {
  const rate = (from + Math.sqrt(from ** 2 + 4)) / 2;
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const value = from - Math.log(uniform()) / rate;
    if (Math.log(uniform()) <= -((value - rate) ** 2) / 2) return value;
  }
  return from;
}
