import { forFrames, powerOfTwo, type Sound } from '../sound';

/** A steady tone: there most of the time. */
export interface Tone {
  hz: number;
  plusMinusHz: number;
  /** How far it stands above what is beside it, dB. */
  aboveDb: number;
  /** Its power, in the unit of the sound's own bands. */
  power: number;
  /** How far its mean power stands above its middle one, dB: much for what comes and goes, else little. */
  comesAndGoesDb: number;
}

/** Window and pace of the looks, s. */
const WINDOW_S = 0.08;
const EVERY_S = 0.05;
/** Bands of tones are so wide, as a part of their pitch, so that one that wavers stays in its own. */
const WIDE = 0.02;
const LOWEST_HZ = 180;
const HIGHEST_HZ = 14_000;
/** A tone stands this far above its neighbours, half of the time or more, dB. */
const STANDS_OUT_DB = 9;
/** So many bands to either side are its neighbours. */
const NEIGHBOURS = 12;

/** Mean and middle power by frequency over a sound. */
export interface Colours {
  /** Hz from one bin to the next. */
  step: number;
  mean: Float64Array;
  bands: readonly { from: number; to: number; middle: number; mean: number }[];
}

/** The steady colours of a sound: of each narrow band the mean and the middle of its power over time. */
export function coloursOf(sound: Sound): Colours {
  const size = powerOfTwo(sound.rate * WINDOW_S);
  const step = sound.rate / size;
  const count = Math.max(1, Math.floor((sound.samples.length - size) / (sound.rate * EVERY_S)) + 1);
  const edges: number[] = [];
  for (
    let hz = LOWEST_HZ;
    hz < Math.min(HIGHEST_HZ, 0.48 * sound.rate);
    hz = Math.max(hz * (1 + WIDE), hz + 1.5 * step)
  )
    edges.push(hz);
  const spans = edges.slice(1).map((to, k) => [Math.round(edges[k]! / step), Math.round(to / step)] as const);
  const rows = spans.map(() => new Float64Array(count));
  const mean = new Float64Array(size / 2);
  const starts = Array.from({ length: count }, (_, k) => Math.round(k * EVERY_S * sound.rate));
  forFrames(sound, size, starts, (power, k) => {
    for (let bin = 0; bin < mean.length; bin += 1) mean[bin]! += power[bin]! / count;
    for (const [b, [from, to]] of spans.entries()) {
      let sum = 0;
      for (let bin = from; bin < to; bin += 1) sum += power[bin]!;
      rows[b]![k] = sum / Math.max(1, to - from);
    }
  });
  const bands = rows.map((row, b) => ({
    from: edges[b]!,
    to: edges[b + 1]!,
    middle: row.slice().sort()[count >> 1]!,
    mean: row.reduce((sum, value) => sum + value, 0) / count,
  }));
  return { step, mean, bands };
}

/** The steady tones of a sound, the strongest first. */
export function tonesIn({ step, mean, bands }: Colours): Tone[] {
  const level = bands.map(({ middle }) => middle + 1e-30);
  return bands
    .flatMap((band, b): Tone[] => {
      if ([1, 2].some((by) => (level[b - by] ?? 0) > level[b]! || (level[b + by] ?? 0) >= level[b]!)) return [];
      const near = level.slice(Math.max(0, b - NEIGHBOURS), b + NEIGHBOURS + 1).sort((x, y) => x - y);
      const aboveDb = 10 * Math.log10(level[b]! / near[near.length >> 1]!);
      if (!(aboveDb > STANDS_OUT_DB)) return [];
      const { at, spread } = middleOf(mean, Math.floor(band.from / step) - 1, Math.ceil(band.to / step) + 1);
      return [
        {
          hz: at * step,
          plusMinusHz: Math.max(0.1 * step, 0.2 * spread * step),
          aboveDb,
          power: band.mean,
          comesAndGoesDb: 10 * Math.log10(band.mean / level[b]!),
        },
      ];
    })
    .sort((a, b) => b.power - a.power);
}

/** Where the power of some bins lies: their strongest, and what is beside it. */
function middleOf(power: Float64Array, from: number, to: number): { at: number; spread: number } {
  let top = Math.max(1, from);
  for (let k = top; k <= Math.min(power.length - 2, to); k += 1) if (power[k]! > power[top]!) top = k;
  let [sum, first, second] = [0, 0, 0];
  for (let k = Math.max(1, top - 3); k <= Math.min(power.length - 1, top + 3); k += 1) {
    sum += power[k]!;
    first += power[k]! * k;
    second += power[k]! * k * k;
  }
  const at = first / (sum || 1);
  return { at, spread: Math.sqrt(Math.max(0, second / (sum || 1) - at * at)) };
}

/**
 * The pitch of something that comes at those times, s: where the spectrum at them stands furthest above the one half a
 * turn away, Hz; and how far, dB. `within` bounds where it is looked for, Hz.
 */
export function pitchAt(
  sound: Sound,
  times: readonly number[],
  turnS: number,
  within: readonly [number, number],
): { hz: number; aboveDb: number; tonalDb: number } | null {
  const size = powerOfTwo(sound.rate * Math.min(0.04, Math.max(0.006, turnS / 2)) * 0.7);
  const step = sound.rate / size;
  const at = spectrumAt(sound, times, size);
  const apart = spectrumAt(
    sound,
    times.map((time) => time + turnS / 2),
    size,
  );
  if (!at || !apart) return null;
  const [from, to] = [Math.max(2, Math.ceil(within[0] / step)), Math.min(size / 2 - 2, Math.floor(within[1] / step))];
  if (to <= from) return null;
  const more = at.map((value, k) => Math.max(0, value - apart[k]!));
  let top = from;
  for (let k = from; k <= to; k += 1) if (more[k]! > more[top]!) top = k;
  const near = Array.from(more.slice(Math.max(1, top - 40), top + 41)).sort((x, y) => x - y);
  if (!(more[top]! > 0)) return null;
  const { at: middle } = middleOf(more, top - 1, top + 1);
  return {
    hz: middle * step,
    aboveDb: 10 * Math.log10((at[top]! + 1e-30) / (apart[top]! + 1e-30)),
    tonalDb: 10 * Math.log10((more[top]! + 1e-30) / (near[near.length >> 1]! + 1e-3 * more[top]! + 1e-30)),
  };
}

/** More bursts tell no more of their pitch. */
const MOST_BURSTS = 80;

/** The mean spectrum of windows about those times; null where none of them lies in the sound. */
function spectrumAt(sound: Sound, times: readonly number[], size: number): Float64Array | null {
  const mean = new Float64Array(size / 2);
  const starts = times
    .map((time) => Math.round(time * sound.rate - size / 2))
    .filter((from) => from >= 0 && from + size <= sound.samples.length)
    .slice(0, MOST_BURSTS);
  forFrames(sound, size, starts, (power) => {
    for (let k = 0; k < mean.length; k += 1) mean[k]! += power[k]! / starts.length;
  });
  return starts.length === 0 ? null : mean;
}
