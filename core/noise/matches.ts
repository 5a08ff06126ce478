import { type BearingPart, bearingAt } from './bearings';
import type { EngineSpeed } from './engine';
import type { Rate, RateKind } from './rates';

/** What a rate that was heard may be: what comes round in the drive, a bearing's strikes, or nothing of it. */
export type MatchKind = RateKind | 'bearing' | 'none';

/** A part whose rate may be the one that was heard: heard = `hz` × `harmonic`. */
export interface RateMatch {
  what: MatchKind;
  /** A belt or a pulley; `firing`, `crank` or `order` of the engine; `none` for what is no part of the drive. */
  id: string;
  /** How often the part itself comes round, Hz; of `none` the rate that was heard. */
  hz: number;
  /** How often it is heard a turn: of a bearing its strikes a turn of the shaft, and no whole number. */
  harmonic: number;
  probability: number;
  /** Of a rolling bearing: what of it is the likeliest to be worn, and which shafts it may be of; sums to one. */
  bearing?: { part: BearingPart; shafts: readonly { id: string; hz: number; times: number; chance: number }[] };
}

/** What a repeat sounds like, which says something of what makes it, whatever its rate. */
export interface RepeatCharacter {
  /** A burst with a pitch of its own, as rubber makes it. */
  tonal: boolean;
  /** Whether an engine that turns as fast as was told is heard in the sound. */
  engine: boolean;
  /** Other repeats of the same sound, Hz: a shaft that is heard by itself speaks for what else it is heard by. */
  others: readonly number[];
}

/** How likely a part is to be heard so many times a turn: once, or at two places of it. A default. */
const BY_HARMONIC = [1, 0.06] as const;
/** Teeth sound on in overtones. */
const BY_OVERTONE = [1, 0.22, 0.08, 0.04] as const;
/** What is less likely than this is not told, but for what is no part of the drive. */
const LEAST_TOLD = 1e-4;
/**
 * Before a rate is known: that the sound is the drive's belts and pulleys, a bearing's, the engine's own, or nothing
 * of these. Defaults, by whether it has a pitch of its own, and whether an engine is heard with it.
 */
const BEFORE = {
  tonal: { parts: 0.4, bearing: 0.06, engine: 0.04, none: 0.5 },
  plain: { parts: 0.14, bearing: 0.24, engine: 0.28, none: 0.34 },
} as const;
/** Without an engine in it a sound is so much likelier to be nothing of a belt drive. */
const NO_ENGINE = 3;
/** A shaft that is less likely than this is not told. */
const LEAST_SHAFT = 0.02;
/** A rate of nothing lies anywhere in this range, as ln Hz. */
const LN_RANGE = Math.log(260);
/** A belt creeps, and pulleys are measured to so much: one standard deviation of a rate, as a part of it. */
export const RATE_DOUBT = 0.006;
/** A shaft that is heard by itself as well is so much likelier to be the one. */
const HEARD_ALSO = 6;

/** Which of the engine's half-orders beat, and how often. Its firing most; each other one now and then. */
function engineBeats(rpm: number, cylinders: number): { id: string; order: number; share: number }[] {
  const beats = new Map<number, number>();
  const add = (order: number, share: number) => beats.set(order, (beats.get(order) ?? 0) + share);
  add(cylinders, 0.35);
  add(2 * cylinders, 0.08);
  // Every other firing, where the cylinders are an odd number.
  add(cylinders / 2, 0.02);
  add(1, 0.15);
  add(2, 0.2);
  const max = Math.max(8, Math.min(40, Math.floor(260 / (rpm / 120))));
  for (let order = 1; order <= max; order += 1) add(order, 0.2 / max);
  return [...beats].map(([order, share]) => ({
    id: orderName(order, cylinders),
    order,
    share,
  }));
}

/**
 * What comes round at a rate that was heard, the likeliest first, with a row for nothing of the drive; probabilities
 * sum to one. All rates of a drive share the error of the engine's speed, and each has a little of its own.
 */
export function matchesOf(
  rates: readonly Rate[],
  heard: { hz: number; plusMinusHz: number },
  speed: EngineSpeed,
  { tonal, engine, others }: RepeatCharacter,
): RateMatch[] {
  const shared = speed.plusMinus / speed.rpm;
  const before = tonal ? BEFORE.tonal : BEFORE.plain;
  const parts = rates.filter(({ what }) => what === 'belt' || what === 'pulley');
  const spread = Math.hypot(shared, RATE_DOUBT);
  const ways: Omit<RateMatch, 'probability'>[] = [];
  const weights: number[] = [];
  const put = (weight: number, way: Omit<RateMatch, 'probability'>) => {
    ways.push(way);
    weights.push(weight);
  };
  for (const { what, id, hz } of parts) {
    let [best, weight] = [{ harmonic: 1, weight: 0 }, 0];
    BY_HARMONIC.forEach((share, k) => {
      const expected = hz * (k + 1);
      const value = share * near(heard, expected, spread * expected);
      weight += value;
      if (value > best.weight) best = { harmonic: k + 1, weight: value };
    });
    put((before.parts * weight) / parts.length, { what, id, hz, harmonic: best.harmonic });
  }
  const shafts = parts.filter(({ what, id }) => what === 'pulley' && !isCrank(rates, id));
  const bearing = bearingWay(shafts, heard, { before: before.bearing, spread, others });
  if (bearing) put(bearing.weight, bearing.way);
  for (const { id, order, share } of engineBeats(speed.rpm, speed.cylinders)) {
    const hz = (order * speed.rpm) / 120;
    put(before.engine * share * near(heard, hz, Math.hypot(shared, ENGINE_DOUBT) * hz), {
      what: 'engine',
      id,
      hz,
      harmonic: 1,
    });
  }
  const none = before.none * (engine ? 1 : NO_ENGINE);
  put(none / (heard.hz * LN_RANGE), { what: 'none', id: 'none', hz: heard.hz, harmonic: 1 });
  return shares(ways, weights);
}

/** A rolling bearing of one of the shafts, and of which with what chance; null where none comes near. */
function bearingWay(
  shafts: readonly Rate[],
  heard: { hz: number; plusMinusHz: number },
  { before, spread, others }: { before: number; spread: number; others: readonly number[] },
): { weight: number; way: Omit<RateMatch, 'probability'> } | null {
  const also = shafts.map(({ hz }) => (others.some((other) => Math.abs(other / hz - 1) < 2 * spread) ? HEARD_ALSO : 1));
  const alsoInAll = also.reduce((sum, share) => sum + share, 0);
  const doubt = Math.hypot(heard.plusMinusHz, spread * heard.hz);
  const bearings = shafts
    .map(({ id, hz }, k) => {
      const { density, part, times } = bearingAt(hz, heard.hz, doubt);
      return { id, hz, part, times, weight: (before * density * also[k]!) / alsoInAll };
    })
    .sort((a, b) => b.weight - a.weight);
  const weight = bearings.reduce((sum, bearing) => sum + bearing.weight, 0);
  const [likeliest] = bearings;
  if (!likeliest || weight <= 0) return null;
  const { id, hz, times, part } = likeliest;
  const chances = bearings
    .map((bearing) => ({ id: bearing.id, hz: bearing.hz, times: bearing.times, chance: bearing.weight / weight }))
    .filter(({ chance }) => chance >= LEAST_SHAFT);
  return { weight, way: { what: 'bearing', id, hz, harmonic: times, bearing: { part, shafts: chances } } };
}

/** An engine's own beat wavers, and nothing of it creeps. */
const ENGINE_DOUBT = 0.0015;

/** The crank has no rolling bearings. */
const isCrank = (rates: readonly Rate[], id: string) => rates.some((rate) => rate.id === id && rate.crank === true);

/** How likely a rate is heard where one is expected, a Hz. Tails are wide: a ± is an estimate itself. */
function near(heard: { hz: number; plusMinusHz: number }, expected: number, doubtHz: number): number {
  const sigma = Math.hypot(heard.plusMinusHz, doubtHz);
  const off = (heard.hz - expected) / sigma;
  return TAIL_TOP * ((1 + (off * off) / 6) ** -3.5 / sigma);
}
/** So that it sums to one over all rates: Student's t of six degrees of freedom. */
const TAIL_TOP = 0.3827;

function shares(ways: readonly Omit<RateMatch, 'probability'>[], weights: readonly number[]): RateMatch[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const likely = ways
    .map((way, k) => ({ ...way, probability: weights[k]! / total }))
    .filter(({ what, probability }) => what === 'none' || probability > LEAST_TOLD);
  const toldTotal = likely.reduce((sum, { probability }) => sum + probability, 0);
  return likely
    .map((match) => ({ ...match, probability: match.probability / toldTotal }))
    .sort((a, b) => b.probability - a.probability);
}

/** Whose teeth mesh at a tone, the likeliest first, with a row for nothing of the drive. Teeth do not creep. */
export function meshesOf(
  rates: readonly Rate[],
  tone: { hz: number; plusMinusHz: number },
  speed: EngineSpeed,
): RateMatch[] {
  const meshes = rates.filter(({ what }) => what === 'tooth');
  const shared = Math.hypot(speed.plusMinus / speed.rpm, MESH_DOUBT);
  const ways = meshes.map(({ what, id, hz }) => {
    let [best, weight] = [{ harmonic: 1, weight: 0 }, 0];
    BY_OVERTONE.forEach((share, k) => {
      const value = share * near(tone, hz * (k + 1), shared * hz * (k + 1));
      weight += value;
      if (value > best.weight) best = { harmonic: k + 1, weight: value };
    });
    return { way: { what, id, hz, harmonic: best.harmonic }, weight };
  });
  const none = { what: 'none', id: 'none', hz: tone.hz, harmonic: 1 } as const;
  const weights = ways.map(({ weight }) => (BEFORE_MESH * weight) / Math.max(1, meshes.length));
  return shares(
    [...ways.map(({ way }) => way), none],
    [...weights, (1 - BEFORE_MESH) / (tone.hz * Math.log(14_000 / 180))],
  );
}
const BEFORE_MESH = 0.5;
const MESH_DOUBT = 0.002;

/** The first two lie together where the second is this likely beside the first. */
const TOGETHER = 0.2;
/** Rates this many of their own ± apart are told apart. */
const APART = 4;

/**
 * The engine speed that would part the two likeliest, rev/min: their rates spread as the engine turns faster, while
 * listening for as long tells a rate to the same ±. Null where they are apart already, or no speed up to `max` parts
 * them.
 */
export function rpmToPart(
  matches: readonly RateMatch[],
  { rpm, plusMinusHz, max, shared = 0 }: { rpm: number; plusMinusHz: number; max: number; shared?: number },
): number | null {
  const [first, second] = matches.filter(({ what }) => what === 'belt' || what === 'pulley');
  if (!first || !second || second.probability < TOGETHER * first.probability) return null;
  const at = (match: RateMatch) => (match.hz * match.harmonic) / rpm;
  const gap = Math.abs(at(first) - at(second));
  // Their own doubt grows with the engine as they do: what it hides, no speed shows.
  const own = Math.hypot(RATE_DOUBT * Math.hypot(at(first), at(second)) * 0.5, shared * at(first));
  const left = gap / APART;
  if (left <= own) return null;
  const needed = plusMinusHz / Math.sqrt(left ** 2 - own ** 2);
  const rounded = Math.ceil(Math.max(needed, 1.25 * rpm) / 50) * 50;
  return rounded <= max ? rounded : null;
}

/** Which of an engine's orders that is: of its firing, of the crank, or another. */
function orderName(order: number, cylinders: number): 'firing' | 'crank' | 'order' {
  if (order % cylinders === 0) return 'firing';
  return order === 2 ? 'crank' : 'order';
}
