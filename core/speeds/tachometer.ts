import type { SpeedCheck } from '../drive';
/**
 * A hand-held optical tachometer with a reflecting mark: so much of the reading, and never better than so many rev/min.
 * Defaults.
 */
export const DEFAULT_TACHOMETER = { share: 0.0005, rpm: 1 };

/** The ± of a diameter by calliper, mm, one standard deviation. A default. */
const DIAMETER_MM = 0.3;

export interface Slip {
  percent: number;
  /** One standard deviation, percent: of both readings and of the diameters the ratio rests on. */
  plusMinus: number;
  verdict: 'none' | 'creep' | 'slips' | 'overruns';
}

/** A belt that pulls creeps so much without slipping, percent; above that it slips. A default. */
export const CREEP_PERCENT = 2;

/**
 * How far a pulley falls behind what its diameters say: slip = 1 − measured/(ratio·crank). Faster than geometry allows
 * beyond the ± means a wrong diameter or a wrong reading, not a belt. `radii` are the cord radii the ratio was made of,
 * mm.
 */
export function slipOf(
  { crankRpm, rpm, plusMinus }: Pick<SpeedCheck, 'crankRpm' | 'rpm' | 'plusMinus'>,
  ratio: number,
  radii: readonly number[],
): Slip | null {
  if (!(crankRpm > 0 && ratio > 0)) return null;
  const share = rpm / (ratio * crankRpm);
  const candidate = (reading: number) =>
    (plusMinus ?? Math.max(DEFAULT_TACHOMETER.rpm, DEFAULT_TACHOMETER.share * reading)) / Math.max(1, reading);
  const geometric = Math.hypot(...radii.map((radius) => DIAMETER_MM / 2 / radius));
  const percent = 100 * (1 - share);
  const sigma = 100 * share * Math.hypot(candidate(crankRpm), candidate(rpm), geometric);
  const verdict = verdictOf(percent, 2 * sigma);
  return { percent, plusMinus: sigma, verdict };
}

/**
 * What a simulated tachometer shows for a true speed: scattered as a real one would, in whole rev/min. `random` gives
 * numbers from 0 to 1.
 */
export function simulatedReading(trueRpm: number, random: () => number): number {
  // Box and Muller.
  const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  return Math.max(0, Math.round(trueRpm + normal * Math.max(0.4, DEFAULT_TACHOMETER.share * trueRpm)));
}

/** What a slip of so many percent is, known to within `doubt`. */
function verdictOf(percent: number, doubt: number): Slip['verdict'] {
  if (percent < -doubt) return 'overruns';
  if (percent <= doubt) return 'none';
  return percent <= CREEP_PERCENT + doubt ? 'creep' : 'slips';
}
