import { forFrames } from './bands';
import { powerOfTwo } from './spectrum';
import type { Sound } from './wav';

/** How loud a sound is by time and pitch, as a picture: rows from the lowest pitch up, each by time; 0 to 255. */
export interface Spectrogram {
  seconds: number;
  columns: number;
  rows: number;
  /** The lowest and highest pitch, Hz; rows lie between them by their logarithm. */
  from: number;
  to: number;
  level: Uint8Array;
}

/** Window of one look, s. */
const WINDOW_S = 0.04;
/** From the loudest down so far, dB. */
const RANGE_DB = 60;

/** The picture of a sound, with no more columns than that; each row by the strongest of what falls in it. */
export function spectrogram(
  sound: Sound,
  { columns: max = 420, rows = 72, from = 100, to = 12_000 } = {},
): Spectrogram {
  const size = powerOfTwo(sound.rate * WINDOW_S);
  const step = sound.rate / size;
  const top = Math.min(to, 0.48 * sound.rate);
  const columns = Math.max(1, Math.min(max, Math.floor(sound.samples.length / (size / 4))));
  const edge = (row: number) => from * (top / from) ** (row / rows);
  const spans = Array.from({ length: rows }, (_, row) => {
    const first = Math.max(1, Math.round(edge(row) / step));
    return [first, Math.max(first + 1, Math.round(edge(row + 1) / step))] as const;
  });
  const power = new Float64Array(columns * rows);
  const starts = Array.from({ length: columns }, (_, k) =>
    Math.round((k * Math.max(0, sound.samples.length - size)) / Math.max(1, columns - 1)),
  );
  forFrames(sound, size, starts, (spectrum, k) => {
    for (const [row, [first, last]] of spans.entries()) {
      let strongest = 0;
      for (let bin = first; bin < last; bin += 1) strongest = Math.max(strongest, spectrum[bin] ?? 0);
      power[row * columns + k] = strongest;
    }
  });
  const loudest = power.reduce((high, value) => Math.max(high, value), 0);
  const level = Uint8Array.from(power, (value) => {
    const db = loudest > 0 && value > 0 ? 10 * Math.log10(value / loudest) : -RANGE_DB;
    return Math.max(0, Math.round(255 * (1 + db / RANGE_DB)));
  });
  return { seconds: sound.samples.length / sound.rate, columns, rows, from, to: top, level };
}
