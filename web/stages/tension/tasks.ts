import type { Drive } from '@emery/core/drive';
import { markedMisfitOf } from '@emery/core/size';
import { readWav, type Sound } from '@emery/core/sound';
import { tensionOf } from '@emery/core/loads';
import { hearPluck, type MapAsk, marginMap, type PluckAsk } from '@emery/core/tension';

/** What is drawn of a sound: the least and most of each column, and the strength by frequency. */
export interface SoundPicture {
  seconds: number;
  columns: { min: number; max: number }[];
  spectrum: { hz: number; strength: number }[];
}

const COLUMNS = 380;
/** Strongest over weakest that is drawn, as powers of ten. */
const DECADES = 5;

/** The long sums of Tension. */
export const tensionTasks = {
  /** Size's answer on the marked length. */
  tensionMisfit: ({ drive, belt }: { drive: Drive; belt: string }) => markedMisfitOf(drive, belt),
  /** Dry and wet. */
  tensionMap: ({ drive, ask }: { drive: Drive; ask: MapAsk }) => {
    const tension = tensionOf(drive);
    const mapOf = (wet: boolean) => marginMap(tension, { ...ask, running: { ...ask.running, wet } });
    const [dry, wet] = [mapOf(false), mapOf(true)];
    return dry && wet && { dry, wet };
  },
  pluck: ({ source, ask }: { source: Sound | Uint8Array; ask: PluckAsk }, onProgress: (fraction: number) => void) => {
    const reading = source instanceof Uint8Array ? readWav(source) : { ok: true as const, sound: source };
    if (!reading.ok) return { ok: false as const, message: reading.message };
    const heard = hearPluck(reading.sound, ask, onProgress);
    const top = 8 * Math.max(heard.frequencyHz ?? 100, 50);
    return {
      ok: true as const,
      heard: { ...heard, spectrum: null },
      picture: pictureOf(reading.sound, heard.spectrum, top),
    };
  },
};

function pictureOf(
  { rate, samples }: Sound,
  spectrum: { step: number; power: Float64Array } | null,
  top: number,
): SoundPicture {
  const width = Math.max(1, Math.floor(samples.length / COLUMNS));
  const columns = Array.from({ length: Math.min(COLUMNS, samples.length) }, (_, c) => {
    let [min, max] = [0, 0];
    for (let k = c * width; k < (c + 1) * width; k += 1) {
      min = Math.min(min, samples[k]!);
      max = Math.max(max, samples[k]!);
    }
    return { min, max };
  });
  const points: SoundPicture['spectrum'] = [];
  if (spectrum) {
    const last = Math.min(spectrum.power.length, Math.ceil(top / spectrum.step));
    const group = Math.max(1, Math.ceil(last / 700));
    const strongest = spectrum.power.slice(0, last).reduce((max, value) => Math.max(max, value), 1e-30);
    for (let k = 1; k < last; k += group) {
      const max = spectrum.power.slice(k, k + group).reduce((high, value) => Math.max(high, value), 0);
      const decades = Math.log10(Math.max(max / strongest, 10 ** -DECADES));
      points.push({ hz: (k + (group - 1) / 2) * spectrum.step, strength: 1 + decades / DECADES });
    }
  }
  return { seconds: samples.length / rate, columns, spectrum: points };
}
