import { autocorrelation, bandLevels, type Sound } from '../sound';
import { topBeside } from '../numeric';

/** Something that comes again and again in a sound. */
export interface Repeat {
  hz: number;
  /** One standard deviation, Hz. */
  plusMinusHz: number;
  /** How alike one time is to the next, 0 to 1. */
  likeness: number;
  /** The same over what chance would make of it. */
  sureness: number;
  /** The band it is plainest in, Hz. */
  band: readonly [number, number];
  /** How far the loudest part of a turn stands above the quietest, dB, and what part of the turn is loud. */
  contrastDb: number;
  loudPart: number;
  /** How alike the mean turns of every other stretch are to those between, −1 to 1: chance makes none. */
  held: number;
  /** When in the sound the loudest part of each turn comes, s. */
  times: readonly number[];
}

/** Bands that bursts are looked for in, Hz: a burst is plain where little else is. */
const EDGES = [150, 400, 700, 1000, 1400, 1900, 2500, 3200, 4000, 5000, 6300, 8000, 10_500, 14_000] as const;
/** Levels a second, and the window of one, s: short enough for 250 turns a second. */
const RATE = 1000;
const WINDOW_S = 0.005;
/** Repeats slower than this are told from no other change of a sound's loudness, Hz. */
export const SLOWEST_HZ = 1;
export const FASTEST_HZ = 260;
/** Loudness that changes over longer than this is not what repeats, s. */
const DRIFT_S = 1.2;
/** Of the places where a sound is like itself, the first that is nearly as good as the best is the turn. */
const NEARLY = 0.65;
/** A repeat is told from chance beyond so many of chance's own deviations, and so much likeness. */
const SURE = 6;
const LIKE = 0.1;
/** The turns of one half of the sound are so alike to those of the other, or it was chance. */
const HELD = 0.75;
/** Two repeats that lie within this of one another, or of a multiple, are one. */
const SAME = 0.02;
/** Parts of a turn that its loudness is averaged over. */
const PARTS = 48;
/** A band's quiet level is the one that so much of the time lies below; a burst's over it counts up to so much. */
const QUIET_PART = 0.2;
const MOST_OVER = 3000;

/** A band's loudness: logarithms of its level over its quiet one, without slow changes. */
interface Envelope {
  band: readonly [number, number];
  values: Float64Array;
}

/**
 * What repeats in a sound, the surest first: the loudness of each band is laid over itself (autocorrelation), and the
 * shortest turn at which it is nearly as like itself as ever counts. Several may be there at once: an engine's beat in
 * the low bands, a chirp in a high one.
 */
export function repeatsIn(sound: Sound): Repeat[] {
  const { levels, bands } = bandLevels(withoutHum(sound), EDGES, RATE, WINDOW_S);
  const single = levels.map((level, b): Envelope => ({ band: bands[b]!, values: envelopeOf(level) }));
  const wide = [
    [0, 3],
    [2, 6],
    [5, 9],
    [8, 13],
  ].flatMap(([from, to]) => {
    const some = single.slice(from, to);
    return some.length > 1 ? [together(some)] : [];
  });
  const found = [...single, ...wide].flatMap((envelope) => periodsOf(envelope));
  const kept: Repeat[] = [];
  for (const repeat of found.sort((a, b) => b.sureness - a.sureness)) {
    const same = kept.findIndex((other) => Math.abs(repeat.hz / other.hz - 1) < SAME);
    if (same < 0) kept.push(repeat);
    // The surest band tells the rate, the plainest how it sounds.
    else if (plainness(repeat) > plainness(kept[same]!)) {
      const { hz, plusMinusHz, sureness } = kept[same]!;
      kept[same] = { ...repeat, hz, plusMinusHz, sureness };
    }
  }
  return kept;
}

/** How far a repeat stands out, and how alike its turns are. */
export const plainness = ({ contrastDb, likeness }: Repeat) => contrastDb * likeness;

/** Mains hum and the low notes of an engine leak into the lowest bands: what is below is taken out first, Hz. */
const NO_LOWER_HZ = 180;

/** The sound without what lies below, by two second-order sections in a row (Butterworth). */
function withoutHum({ rate, samples }: Sound): Sound {
  const w = Math.tan((Math.PI * NO_LOWER_HZ) / rate);
  const sections = [0.541196, 1.306563].map((q) => {
    const norm = 1 / (1 + w / q + w * w);
    return { gain: norm, a1: 2 * (w * w - 1) * norm, a2: (1 - w / q + w * w) * norm };
  });
  let row = samples;
  for (const { gain, a1, a2 } of sections) {
    let [x1, x2, y1, y2] = [0, 0, 0, 0];
    row = row.map((x) => {
      const y = gain * (x - 2 * x1 + x2) - a1 * y1 - a2 * y2;
      [x2, x1, y2, y1] = [x1, x, y1, y];
      return y;
    });
  }
  return { rate, samples: row };
}

function envelopeOf(level: Float64Array): Float64Array {
  const low = level.slice().sort()[Math.floor(QUIET_PART * level.length)] ?? 0;
  const scale = low > 0 ? low : (level.reduce((sum, value) => sum + value, 0) / Math.max(1, level.length)) * 1e-3;
  if (!(scale > 1e-18)) return new Float64Array(level.length);
  return withoutDrift(level.map((value) => Math.log(1 + Math.min(MOST_OVER, value / scale))));
}

/** Less its own running mean. */
function withoutDrift(values: Float64Array): Float64Array {
  const half = Math.round((DRIFT_S * RATE) / 2);
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, k) => (sums[k + 1] = sums[k]! + value));
  return values.map((value, k) => {
    const [from, to] = [Math.max(0, k - half), Math.min(values.length, k + half + 1)];
    return value - (sums[to]! - sums[from]!) / (to - from);
  });
}

/** Several bands as one: each weighs by its own spread, and the whole spreads as they do on the average. */
function together(some: readonly Envelope[]): Envelope {
  const spreads = some.map(({ values: row }) =>
    Math.sqrt(row.reduce((sum, value) => sum + value * value, 0) / Math.max(1, row.length)),
  );
  const mean = spreads.reduce((sum, spread) => sum + spread, 0) / some.length;
  const values = new Float64Array(some[0]!.values.length);
  some.forEach(({ values: row }, b) => {
    const weight = spreads[b]! > 0 ? mean / spreads[b]! / some.length : 0;
    row.forEach((value, k) => (values[k]! += weight * value));
  });
  return { band: [some[0]!.band[0], some.at(-1)!.band[1]], values };
}

/** In one band so many things at once are told apart. */
const MOST_AT_ONCE = 3;

/** The turns of one band's loudness, one after the other taken out of it; none where it is not like itself at any. */
function periodsOf({ band, values }: Envelope): Repeat[] {
  const found: Repeat[] = [];
  let left = values;
  for (let round = 0; round < MOST_AT_ONCE; round += 1) {
    const period = periodOf({ band, values: left });
    // What chance made of it is not worth looking behind.
    if (!period || period.held < HELD) break;
    found.push(period);
    const turn = turnsOver(left, period.hz, 0, left.length);
    left = left.map((value, k) => value - turn[partOf(k, period.hz)]!);
  }
  return found;
}

function periodOf({ band, values }: Envelope): Repeat | null {
  const max = Math.min(Math.round(RATE / SLOWEST_HZ), values.length >> 1);
  const like = autocorrelation(values, max);
  let lobe = 0;
  while (lobe < like.length && like[lobe]! > 0.05) lobe += 1;
  // What is alike over the length of one burst says nothing new: so many figures are there of themselves.
  let width = 1;
  for (let lag = 1; lag < lobe; lag += 1) width += 2 * like[lag]! ** 2;
  const sure = (lag: number) => like[lag]! * Math.sqrt((values.length - lag) / width);
  const first = Math.max(Math.floor(RATE / FASTEST_HZ), Math.min(lobe, 400));
  const tops: number[] = [];
  for (let lag = Math.max(2, first); lag < like.length - 1; lag += 1)
    if (like[lag]! > like[lag - 1]! && like[lag]! >= like[lag + 1]!) tops.push(lag);
  const best = tops.reduce((top, lag) => Math.max(top, like[lag]!), 0);
  const lag = tops.find((top) => like[top]! >= NEARLY * best && sure(top) > SURE * NEARLY);
  if (lag === undefined || best < LIKE || sure(lag) < SURE) return null;
  const hz = refined(like, lag);
  return turnOf(values, { hz, likeness: like[lag]!, sureness: sure(lag), band });
}

/** The rate of a top of the likeness, from as many turns on as are still tops. */
function refined(like: Float64Array, lag: number): number {
  let turn = between(like, lag);
  for (let times = 2; times * turn < like.length - 2; times += 1) {
    const about = Math.round(times * turn);
    const reach = Math.max(1, Math.round(0.2 * turn));
    let top = about;
    for (let k = Math.max(1, about - reach); k <= Math.min(like.length - 2, about + reach); k += 1)
      if (like[k]! > like[top]!) top = k;
    if (like[top]! < 0.5 * like[lag]! || Math.abs(top - about) >= reach) break;
    turn = between(like, top) / times;
  }
  return RATE / turn;
}

/** Where a top lies between whole places, by a parabola. */
function between(row: Float64Array, k: number): number {
  return k + topBeside(row[k - 1] ?? 0, row[k]!, row[k + 1] ?? 0);
}

/**
 * One turn as it sounds on the average, and the rate again from how it drifts: the sound is cut into stretches, each
 * laid on the mean turn, and a line through their shifts gives what the rate was off by, and its ±.
 */
function turnOf(
  values: Float64Array,
  { hz: about, ...rest }: Pick<Repeat, 'hz' | 'likeness' | 'sureness' | 'band'>,
): Repeat {
  let hz = about;
  let plusMinusHz = about;
  for (let round = 0; round < 3; round += 1) {
    const line = driftOf(values, hz);
    if (!line) break;
    hz += line.slope;
    plusMinusHz = line.sigma;
  }
  const seconds = values.length / RATE;
  // No better than a hundredth of what so many seconds can tell apart.
  plusMinusHz = Math.max(plusMinusHz, 0.01 / seconds);
  const profile = turnsOver(values, hz, 0, values.length);
  const low = Math.min(...profile);
  const high = Math.max(...profile);
  const half = (low + high) / 2;
  const loudest = profile.indexOf(high);
  const turns = Math.floor(seconds * hz);
  return {
    ...rest,
    hz,
    plusMinusHz,
    held: heldOver(values, hz),
    contrastDb: (10 / Math.LN10) * (high - low),
    loudPart: profile.filter((value) => value > half).length / PARTS,
    times: Array.from({ length: turns }, (_, k) => (k + (loudest + 0.5) / PARTS) / hz),
  };
}

/** The part of its turn in which a place lies. */
function partOf(k: number, hz: number): number {
  const turns = (k * hz) / RATE;
  // Cut off by bits, for this is asked by the million.
  return ((turns - (turns | 0)) * PARTS) | 0;
}

/** The mean loudness in each part of a turn, between two places. */
function turnsOver(values: Float64Array, hz: number, from: number, to: number): number[] {
  const sums = new Float64Array(PARTS);
  const counts = new Float64Array(PARTS);
  for (let k = from; k < to; k += 1) {
    const part = partOf(k, hz);
    sums[part]! += values[k]!;
    counts[part]! += 1;
  }
  return Array.from(sums, (sum, part) => (counts[part]! > 0 ? sum / counts[part]! : 0));
}

/** How alike the turns of the odd stretches of a sound are to those of the even ones. */
function heldOver(values: Float64Array, hz: number): number {
  const size = Math.max(Math.round((3 * RATE) / hz), Math.round(values.length / 16));
  const halves = [0, 1].map((odd) => {
    const sum = new Float64Array(PARTS);
    for (let s = odd; (s + 1) * size <= values.length; s += 2)
      turnsOver(values, hz, s * size, (s + 1) * size).forEach((value, part) => (sum[part]! += value));
    const mean = sum.reduce((total, value) => total + value, 0) / PARTS;
    return sum.map((value) => value - mean);
  });
  const product = (a: Float64Array, b: Float64Array) => a.reduce((total, value, k) => total + value * b[k]!, 0);
  const [a, b] = halves as [Float64Array, Float64Array];
  const scale = Math.sqrt(product(a, a) * product(b, b));
  return scale > 0 ? product(a, b) / scale : 0;
}

const MOST_STRETCHES = 12;

/** How the phase of a turn of that rate drifts over the sound: turns a second, with one standard deviation. */
function driftOf(values: Float64Array, hz: number): { slope: number; sigma: number } | null {
  const turns = (values.length * hz) / RATE;
  const stretches = Math.min(MOST_STRETCHES, Math.floor(turns / 2));
  if (stretches < 3) return null;
  const average = turnsOver(values, hz, 0, values.length);
  const size = values.length / stretches;
  const shifts = Array.from({ length: stretches }, (_, s) => {
    const own = turnsOver(values, hz, Math.round(s * size), Math.round((s + 1) * size));
    return { at: ((s + 0.5) * size) / RATE, ...shiftBetween(average, own) };
  });
  // A stretch that is like the mean turn says more than one that is not.
  const weight = shifts.map(({ like }) => Math.max(1e-6, like) ** 2);
  const total = weight.reduce((sum, value) => sum + value, 0);
  const mean = (value: (point: (typeof shifts)[number]) => number) =>
    shifts.reduce((sum, shift, k) => sum + weight[k]! * value(shift), 0) / total;
  const [at, shift] = [mean((point) => point.at), mean((point) => point.shift)];
  const spread = mean((point) => (point.at - at) ** 2);
  if (!(spread > 0)) return null;
  const slope = mean((point) => (point.at - at) * (point.shift - shift)) / spread;
  const left = mean((point) => (point.shift - shift - slope * (point.at - at)) ** 2);
  // A turn that comes later and later is longer than was thought.
  return { slope: -slope, sigma: Math.sqrt(left / spread / (stretches - 2)) };
}

/** How far one turn is shifted against another, −½ to ½ turns, + later, and how alike they then are, 0 to 1. */
function shiftBetween(average: readonly number[], own: readonly number[]): { shift: number; like: number } {
  const likes = new Float64Array(PARTS);
  const size = (row: readonly number[]) => Math.sqrt(row.reduce((sum, value) => sum + value * value, 0)) || 1;
  const scale = size(average) * size(own);
  for (let by = 0; by < PARTS; by += 1)
    for (let k = 0; k < PARTS; k += 1) likes[by]! += (average[k]! * own[(k + by) % PARTS]!) / scale;
  let top = 0;
  likes.forEach((likeness, by) => {
    if (likeness > likes[top]!) top = by;
  });
  const ring = Float64Array.from([likes[(top + PARTS - 1) % PARTS]!, likes[top]!, likes[(top + 1) % PARTS]!]);
  const shift = (top + between(ring, 1) - 1) / PARTS;
  return { shift: shift > 0.5 ? shift - 1 : shift, like: likes[top]! };
}
