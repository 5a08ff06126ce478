import type { Rate, RateKind } from './rates';

/** A part whose rate may be the one that was heard: heard = `hz` × `harmonic`. */
export interface RateMatch {
  what: RateKind;
  id: string;
  /** How often the part itself comes round, Hz. */
  hz: number;
  harmonic: number;
  probability: number;
}

/** How likely a part is to be heard so many times a turn: once, twice (two places of it), more. A default. */
const BY_HARMONIC = [1, 0.22, 0.08, 0.04, 0.02, 0.01] as const;
/** What is less likely than this is not told. */
const LEAST_TOLD = 1e-4;
/** Before anything is known: that the sound is none of the drive's, and the range it would then lie in, as ln Hz. */
const ELSEWHERE = 0.1;
const LN_RANGE = Math.log(260);
/** A belt creeps and an engine's speed is read off a needle: one standard deviation of a rate, as a part of it. */
export const RATE_DOUBT = 0.006;

/**
 * Which parts come round at a rate that was heard, the likeliest first; probabilities sum to one. Empty where something
 * that is not in the drive is likelier than all of them.
 */
export function matchesOf(
  rates: readonly Rate[],
  heard: { hz: number; plusMinusHz: number },
  { doubt = RATE_DOUBT, harmonics = BY_HARMONIC.length }: { doubt?: number; harmonics?: number } = {},
): RateMatch[] {
  const ways = rates.map((rate) => {
    let best = { harmonic: 1, weight: 0 };
    let weight = 0;
    for (let harmonic = 1; harmonic <= harmonics; harmonic += 1) {
      const expected = rate.hz * harmonic;
      const sigma = Math.hypot(heard.plusMinusHz, doubt * expected);
      const off = (heard.hz - expected) / sigma;
      // Tails are wider than a normal curve's: a ± is an estimate itself.
      const density = (1 + (off * off) / 6) ** -3.5 / sigma;
      const one = BY_HARMONIC[harmonic - 1]! * density;
      weight += one;
      if (one > best.weight) best = { harmonic, weight: one };
    }
    return { rate, harmonic: best.harmonic, weight };
  });
  const total = ways.reduce((sum, { weight }) => sum + weight, 0);
  const elsewhere = (ELSEWHERE * Math.max(1, rates.length)) / (heard.hz * LN_RANGE);
  if (!(total > elsewhere)) return [];
  const told = ways.filter(({ weight }) => weight > LEAST_TOLD * total);
  const toldTotal = told.reduce((sum, { weight }) => sum + weight, 0);
  return told
    .map(({ rate, harmonic, weight }) => ({ ...rate, harmonic, probability: weight / toldTotal }))
    .sort((a, b) => b.probability - a.probability);
}

/** The first two lie together where the second is this likely beside the first. */
const TOGETHER = 0.2;
/** Rates this many of their own ± apart are told apart. */
const APART = 4;

/**
 * The engine speed that would part the two likeliest, rev/min: their rates spread as the engine turns faster, while
 * listening for as long tells a rate to the same ±. Null where they are apart already, or no speed up to `most` parts
 * them.
 */
export function rpmToPart(
  [first, second]: readonly RateMatch[],
  { rpm, plusMinusHz, most }: { rpm: number; plusMinusHz: number; most: number },
): number | null {
  if (!first || !second || second.probability < TOGETHER * first.probability) return null;
  const at = (match: RateMatch) => (match.hz * match.harmonic) / rpm;
  const gap = Math.abs(at(first) - at(second));
  // Their own doubt grows with the engine as they do: what it hides, no speed shows.
  const own = RATE_DOUBT * Math.hypot(at(first), at(second)) * 0.5;
  const left = gap / APART;
  if (left <= own) return null;
  const needed = plusMinusHz / Math.sqrt(left ** 2 - own ** 2);
  const rounded = Math.ceil(Math.max(needed, 1.25 * rpm) / 50) * 50;
  return rounded <= most ? rounded : null;
}
