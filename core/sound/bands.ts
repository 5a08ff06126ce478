import { hann, powerOfTwo, transformOf } from './spectrum';
import type { Sound } from './wav';

/** How strong a sound is in several bands over time: `levels[b][k]` is the power of band `b` at `k` / `rate` s. */
export interface BandLevels {
  /** Levels a second. */
  rate: number;
  levels: Float64Array[];
  /** The bands that the sound's own rate lets be told apart: from, to, Hz. */
  bands: readonly (readonly [number, number])[];
}

/**
 * The power of a sound in bands between `edges`, Hz, `rate` times a second, each over a window of about `windowS`
 * seconds. Bands that the sound cannot hold are left out.
 */
export function bandLevels(sound: Sound, edges: readonly number[], rate: number, windowS: number): BandLevels {
  const size = powerOfTwo(sound.rate * windowS);
  const step = sound.rate / size;
  const spans = edges.slice(1).flatMap((to, k) => {
    const [from, last] = [Math.max(1, Math.round(edges[k]! / step)), Math.min(size / 2, Math.round(to / step))];
    return last > from ? [{ from, last, band: [edges[k]!, to] as const }] : [];
  });
  const count = Math.max(0, Math.floor(((sound.samples.length - size) * rate) / sound.rate) + 1);
  const levels = spans.map(() => new Float64Array(count));
  const starts = Array.from({ length: count }, (_, k) => Math.round((k * sound.rate) / rate));
  forFrames(sound, size, starts, (power, k) => {
    for (const [b, { from, last }] of spans.entries()) {
      let sum = 0;
      for (let bin = from; bin < last; bin += 1) sum += power[bin]!;
      levels[b]![k] = sum;
    }
  });
  return { rate, levels, bands: spans.map(({ band }) => band) };
}

/** Power by frequency of the windows that start at those samples; `power` is used again for the next. */
export function forFrames(
  { samples }: Sound,
  size: number,
  starts: readonly number[],
  each: (power: Float64Array, k: number) => void,
): void {
  const fft = transformOf(size);
  const window = Float64Array.from({ length: size }, (_, k) => hann(k, size));
  const data = new Float64Array(size);
  const out = fft.createComplexArray();
  const power = new Float64Array(size / 2);
  for (const [k, from] of starts.entries()) {
    for (let j = 0; j < size; j += 1) data[j] = (samples[from + j] ?? 0) * window[j]!;
    fft.realTransform(out, data);
    for (let bin = 0; bin < power.length; bin += 1) power[bin] = out[2 * bin]! ** 2 + out[2 * bin + 1]! ** 2;
    each(power, k);
  }
}

/**
 * How alike a row of figures is to itself so many places further on, from 1 at none; each lag by the pairs it has.
 * Lags from 0 to `max`. All 0 for a row that does not vary.
 */
export function autocorrelation(row: Float64Array, max: number): Float64Array {
  const size = powerOfTwo(row.length + max + 1);
  const fft = transformOf(size);
  const data = new Float64Array(size);
  data.set(row);
  const out = fft.createComplexArray();
  fft.realTransform(out, data);
  // The spectrum of the power is the autocorrelation; it is even, so its upper half is the lower one again.
  for (let k = 0; k <= size / 2; k += 1) {
    const power = out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
    data[k] = power;
    data[(size - k) % size] = power;
  }
  fft.realTransform(out, data);
  const atZero = out[0]! / row.length;
  return Float64Array.from({ length: Math.min(max + 1, row.length) }, (_, lag) =>
    atZero > 0 ? out[2 * lag]! / (row.length - lag) / atZero : 0,
  );
}
