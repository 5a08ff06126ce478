import type { SpeedFrom } from '../drive';
import { floorOf, forFrames, peakBetween, powerOfTwo, type Sound } from '../sound';

/** A steady line of a sound's spectrum. */
export interface Line {
  hz: number;
  /** One standard deviation, Hz. */
  sigma: number;
  /** How far it stands above what is beside it, dB. */
  aboveDb: number;
}

/** Lines are looked for between these, Hz. */
const LOWEST_HZ = 12;
const HIGHEST_HZ = 5200;
/** Window of a look, s: long enough to part an idling engine's half-orders. */
const WINDOW_S = 0.7;
/** A line stands this far above the middle of its neighbours, dB; so far to either side, Hz. */
const STANDS_OUT_DB = 5;
const NEIGHBOURS_HZ = 45;
/** No more lines than these are kept, the plainest. */
const MOST_LINES = 320;
/** Below this an engine's own orders are plain, and no belt chirps: so many of these lines tell its speed, Hz. */
const SAYING_HZ = 1000;
const SAYING = 48;

/** The steady lines of a sound, the plainest first. */
export function linesIn(sound: Sound): Line[] {
  let size = powerOfTwo(sound.rate * WINDOW_S);
  while (size > 1024 && size > sound.samples.length) size /= 2;
  const step = sound.rate / size;
  const count = Math.max(1, Math.floor((2 * (sound.samples.length - size)) / size) + 1);
  const mean = new Float64Array(Math.min(size / 2, Math.ceil(HIGHEST_HZ / step)));
  const starts = Array.from({ length: count }, (_, k) => (k * size) / 2);
  forFrames(sound, size, starts, (power) => {
    for (let bin = 0; bin < mean.length; bin += 1) mean[bin]! += power[bin]! / count;
  });
  const floor = floorOf(mean, Math.max(4, Math.round(NEIGHBOURS_HZ / step)));
  const lines: Line[] = [];
  for (let bin = Math.max(2, Math.ceil(LOWEST_HZ / step)); bin < mean.length - 2; bin += 1) {
    const value = mean[bin]!;
    if (!(value > mean[bin - 1]! && value >= mean[bin + 1]! && value > mean[bin - 2]! && value > mean[bin + 2]!))
      continue;
    const aboveDb = 10 * Math.log10(value / (floor[bin]! + 1e-30));
    if (aboveDb > STANDS_OUT_DB) lines.push({ hz: peakBetween(mean, bin) * step, sigma: LINE_SIGMA * step, aboveDb });
  }
  return lines.sort((a, b) => b.aboveDb - a.aboveDb).slice(0, MOST_LINES);
}

/** Of a bin of the spectrum, how well the top of a line is told. */
const LINE_SIGMA = 0.3;
/** An engine's speed wavers while one listens: one standard deviation of an order, as a part of it; which fits best. */
const WAVERS = [0.0015, 0.004, 0.008] as const;
/** Of the lines under an engine, so many are its own orders; a default. */
const OWN_SHARE = 0.6;

/**
 * How much likelier lines are where they stand at every multiple of `spacing`, Hz, give or take, than where they stand
 * anywhere: the logarithm of the ratio.
 */
function combOver(lines: readonly Line[], spacing: number, wavers: number): number {
  let sum = 0;
  for (const { hz, sigma } of lines) {
    const order = Math.round(hz / spacing);
    if (order < 1) {
      sum += Math.log(1 - OWN_SHARE);
      continue;
    }
    const spread = Math.hypot(sigma, wavers * hz);
    const off = (hz - order * spacing) / spread;
    const ratio = (spacing / spread) * NORMAL_TOP * Math.exp(-0.5 * off * off);
    // Orders that run into one another say nothing.
    sum += Math.log(1 - OWN_SHARE + OWN_SHARE * Math.max(ratio, spread > 0.3 * spacing ? 1 : 0));
  }
  return sum;
}
const NORMAL_TOP = 1 / Math.sqrt(2 * Math.PI);

/** What the lines of a sound have in common: the widest spacing whose multiples they stand at. */
export interface Comb {
  /** Hz from one order to the next, with one standard deviation. */
  hz: number;
  plusMinusHz: number;
  /** How much likelier the lines are so than anywhere, the logarithm. */
  sure: number;
}

const SPACINGS = { min: 4.5, max: 140, step: 0.0012 };
/** A spacing counts from here on: its place was looked for among thousands. */
const SURE_COMB = 12;
/** Lines at every order of a wide spacing stand at orders of its halves and thirds as well; the widest is taken. */
const NEARLY = 0.8;

/** The lines that say how fast an engine turns. */
const saying = (lines: readonly Line[]) => lines.filter(({ hz }) => hz < SAYING_HZ).slice(0, SAYING);

/** The spacing of a sound's lines; null where they have none in common. */
export function combIn(all: readonly Line[]): Comb | null {
  const lines = saying(all);
  if (lines.length < LEAST_LINES) return null;
  const count = Math.ceil(Math.log(SPACINGS.max / SPACINGS.min) / SPACINGS.step);
  const at = (k: number) => SPACINGS.min * Math.exp(k * SPACINGS.step);
  const sure = Float64Array.from({ length: count }, (_, k) => combOver(lines, at(k), WAVERS[0]));
  const best = sure.reduce((top, value) => Math.max(top, value), -Infinity);
  if (best < SURE_COMB) return null;
  let found = -1;
  for (let k = count - 2; k > 0 && found < 0; k -= 1)
    if (sure[k]! >= NEARLY * best && sure[k]! >= sure[k - 1]! && sure[k]! >= sure[k + 1]!) found = k;
  if (found < 0) return null;
  return { ...middleOf(lines, at(found), 2 * SPACINGS.step), sure: sure[found]! };
}

/** Fewer lines than these have nothing in common but by chance. */
const LEAST_LINES = 4;

/** The spacing near `about` by the lines, and one standard deviation, each place weighed by how likely it is. */
function middleOf(lines: readonly Line[], about: number, within: number): { hz: number; plusMinusHz: number } {
  const places = Array.from({ length: 81 }, (_, k) => about * (1 + within * (k / 40 - 1)));
  return weighed(
    places,
    places.map((hz) => combOver(lines, hz, WAVERS[0])),
  );
}

function weighed(places: readonly number[], logs: readonly number[]): { hz: number; plusMinusHz: number } {
  const max = Math.max(...logs);
  let [total, first] = [0, 0];
  const weights = logs.map((log) => Math.exp(log - max));
  weights.forEach((weight, k) => {
    total += weight;
    first += weight * places[k]!;
  });
  const hz = first / total;
  const spread = weights.reduce((sum, weight, k) => sum + weight * (places[k]! - hz) ** 2, 0) / total;
  return { hz, plusMinusHz: Math.max(Math.sqrt(spread), LEAST_DOUBT * hz) };
}

/** No engine speed is told better than this, as a part of it. */
const LEAST_DOUBT = 0.0007;

/**
 * How well an engine's speed is known by how it was read, one standard deviation, as a part of it: a scan tool, the
 * needle of a tachometer, an idle figure from a book. Defaults.
 */
export const SPEED_DOUBT: Record<SpeedFrom, number> = { scan: 0.005, needle: 0.025, idle: 0.04 };

/** An engine speed, and how well it is known: one error that all rates of a drive share. */
export interface EngineSpeed {
  rpm: number;
  /** One standard deviation, rev/min. */
  plusMinus: number;
  /** Whether an engine that turns about so fast is heard in the sound. */
  heard: boolean;
  /** How much it wavers while one listens: one standard deviation of an order, as a part of it. */
  wavers: number;
  /** Of the engine. */
  cylinders: number;
}

/** An engine is heard where its orders make the lines so much likelier, the logarithm. */
const HEARD = 5;
/** Told speeds are looked at this many of their standard deviations to either side. */
const REACH = 3;

/**
 * The engine's speed by what was told and what is heard: each place within the doubt of what was told, weighed by how
 * well the sound's lines stand at half-orders of it (a four-stroke's cycle is two turns).
 */
export function speedHeard(
  { lines: all, comb }: { lines: readonly Line[]; comb: Comb | null },
  rpm: number,
  from: SpeedFrom,
  cylinders: number,
): EngineSpeed {
  const doubt = SPEED_DOUBT[from];
  const known: EngineSpeed = { rpm, plusMinus: doubt * rpm, heard: false, wavers: WAVERS[0], cylinders };
  const lines = saying(all);
  if (lines.length < LEAST_LINES) return known;
  const count = Math.max(40, Math.ceil((2 * REACH * doubt) / 0.0006));
  // From one end of the doubt to the other, in its standard deviations, each as likely as it is by what was told.
  const off = Array.from({ length: count + 1 }, (_, k) => REACH * ((2 * k) / count - 1));
  const places = off.map((by) => (rpm / 120) * (1 + by * doubt));
  const before = off.map((by) => -0.5 * by * by);
  const ways = WAVERS.map((wavers) => {
    const logs = places.map((hz, k) => combOver(lines, hz, wavers) + before[k]!);
    return { wavers, logs, whole: logOfSum(logs) - logOfSum(before) };
  });
  const best = ways.reduce((top, way) => (way.whole > top.whole ? way : top));
  if (best.whole < HEARD || clashes(comb, rpm, doubt, cylinders)) return known;
  const { hz, plusMinusHz } = weighed(places, best.logs);
  return { rpm: hz * 120, plusMinus: plusMinusHz * 120, heard: true, wavers: best.wavers, cylinders };
}

function logOfSum(logs: readonly number[]): number {
  const max = Math.max(...logs);
  return max + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - max), 0));
}

/**
 * Whether the spacing of the lines is none that an engine makes at that speed: its half-orders, its turns, its firing
 * or what lies between two firings.
 */
function clashes(comb: Comb | null, rpm: number, doubt: number, cylinders: number): boolean {
  if (!comb) return false;
  const parts = comb.hz / (rpm / 120);
  return ![1, 2, cylinders / 2, cylinders, 2 * cylinders].some(
    (value) => Math.abs(parts / value - 1) < REACH * Math.hypot(doubt, comb.plusMinusHz / comb.hz, WAVERS[1]),
  );
}

/**
 * What the spacing of the lines may be of an engine's: its half-order, its turn, its firing. Every engine speed that
 * makes it so, between `min` and `max`, rev/min; the likeliest to be meant, nearest to what was told, first.
 */
export function speedsOf(
  comb: Comb | null,
  cylinders: number,
  { told: known, min, max }: { told: number; min: number; max: number },
): { rpm: number; plusMinus: number }[] {
  if (!comb) return [];
  const parts = [...new Set([1, 2, cylinders])];
  return parts
    .map((part) => ({ rpm: (120 * comb.hz) / part, plusMinus: (120 * comb.plusMinusHz) / part }))
    .filter(({ rpm }) => rpm >= min && rpm <= max)
    .sort((a, b) => Math.abs(Math.log(a.rpm / known)) - Math.abs(Math.log(b.rpm / known)));
}

const BESIDE = [-4, -3, -2, -1, 1, 2, 3, 4] as const;
/** Of the four orders to either side of one of the engine's so many are heard as well, or it is none. */
const COMB_BESIDE = 3;
/** The plainest of them stands out by no less than this under it, dB. */
const BESIDE_DB = 20;
/** The engine's own low orders stand out without neighbours, up to this one. */
const LOW_ORDERS = 12;
/** Within this much of its pitch a tone is the plainest line. */
const ONE_TONE = 0.03;
/** A tone that is looked for over short windows is told to no better than this, Hz. */
const TONE_HZ = 1.5;

/**
 * Whether a steady tone is one of the engine's orders: it lies within the doubt of one, which grows with the order; and
 * it is a low one, or has other orders beside it. A tone that stands alone is none of the engine's.
 */
export function isOrder(
  tone: { hz: number; plusMinusHz: number },
  lines: readonly Line[],
  { rpm, plusMinus, wavers, cylinders }: EngineSpeed,
): boolean {
  const half = rpm / 120;
  // Two orders side by side look like one tone between them to a short window: the plainer one is it.
  const near = lines.filter((line) => Math.abs(line.hz / tone.hz - 1) < ONE_TONE);
  const { hz } = near.reduce((top, line) => (line.aboveDb > top.aboveDb ? line : top), { hz: tone.hz, aboveDb: 0 });
  const order = Math.round(hz / half);
  if (order < 1) return false;
  const own = Math.hypot(tone.plusMinusHz, TONE_HZ, wavers * hz);
  if (Math.abs(hz - order * half) > 2.5 * Math.hypot(own, (plusMinus / rpm) * hz)) return false;
  if (order <= LOW_ORDERS) return true;
  const at = (about: number, reach: number) =>
    Math.max(0, ...lines.filter((line) => Math.abs(line.hz - about) < reach).map(({ aboveDb }) => aboveDb));
  const reach = Math.min(2.5 * own, 0.3 * half);
  const level = at(hz, 2 * own) - BESIDE_DB;
  // Its half-orders, its turns, or only its firings may be plain.
  return [1, 2, cylinders].some((every) => {
    const beside = BESIDE.map((by) => at(hz + by * every * half, reach)).filter((value) => value > 0);
    return beside.length >= COMB_BESIDE && Math.max(...beside) > level;
  });
}
