import FFT from 'fft.js';
import { topBeside } from '../numeric';

/** Power by frequency: `power[k]` at k · `step` Hz. */
export interface Spectrum {
  step: number;
  power: Float64Array;
}

const transforms = new Map<number, FFT>();

/** The transform of a size, a power of two; its tables are made once. */
export function transformOf(size: number): FFT {
  const fft = transforms.get(size) ?? new FFT(size);
  transforms.set(size, fft);
  return fft;
}

/** The power spectrum of samples that are weighed already, padded with nothing to `size`, a power of two. */
export function powerSpectrum(samples: ArrayLike<number>, rate: number, size: number): Spectrum {
  const fft = transformOf(size);
  const data = new Array<number>(size).fill(0);
  for (let k = 0; k < Math.min(size, samples.length); k += 1) data[k] = samples[k]!;
  const out = fft.createComplexArray();
  fft.realTransform(out, data);
  const power = new Float64Array(size / 2);
  for (let k = 0; k < power.length; k += 1) power[k] = out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
  return { step: rate / size, power };
}

/** The smallest power of two that is no less. */
export function powerOfTwo(min: number): number {
  return 2 ** Math.ceil(Math.log2(Math.max(2, min)));
}

/** Hann's window, value `k` of `count`. */
export const hann = (k: number, count: number): number => 0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / count);

/** Where the top of a peak lies between bins: a parabola through the logarithms of three. */
export function peakBetween(power: Float64Array, k: number): number {
  const [a, b, c] = [power[k - 1], power[k], power[k + 1]].map((value) => Math.log((value ?? 0) + 1e-300)) as [
    number,
    number,
    number,
  ];
  return k + topBeside(a, b, c);
}

/** The median of each bin's neighbourhood of `reach` bins to either side: what is left of a spectrum without peaks. */
export function floorOf(power: Float64Array, reach: number): Float64Array {
  const floor = new Float64Array(power.length);
  const every = Math.max(1, reach >> 1);
  let last = 0;
  for (let k = 0; k < power.length; k += every) {
    const near = power.slice(Math.max(0, k - reach), Math.min(power.length, k + reach + 1)).sort();
    const middle = near[near.length >> 1]!;
    for (let j = last; j < Math.min(power.length, k + every); j += 1) floor[j] = middle;
    last = k + every;
  }
  return floor;
}
