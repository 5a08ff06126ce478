import * as wavefile from 'wavefile';

// Bundlers take the package's module, whose parts have names; Node takes its other build, whole, as the default.
const { WaveFile } = 'WaveFile' in wavefile ? wavefile : (wavefile as { default: typeof wavefile }).default;

/** A sound as one row of samples from −1 to 1. */
export interface Sound {
  /** Samples a second. */
  rate: number;
  samples: Float64Array;
}

/** Sounds longer than this are cut: what is listened for is over in seconds, s. */
const LONGEST_S = 60;
/** A file of more bytes than this is refused. */
export const MOST_WAV_BYTES = 64 * 1024 * 1024;

export type WavReading = { ok: true; sound: Sound } | { ok: false; message: string };

/**
 * Reads a WAV file: whole numbers of 8 to 32 bits or floating point, any rate; of several channels the loudest. What is
 * none is told in words that follow the file's name.
 */
export function readWav(bytes: Uint8Array): WavReading {
  if (bytes.length > MOST_WAV_BYTES) return { ok: false, message: 'is over 64 MB; shorten it' };
  if (!['RIFF', 'RIFX', 'RF64'].includes(String.fromCharCode(...bytes.subarray(0, 4))))
    return { ok: false, message: 'is not a WAV file; record or export the sound as WAV' };
  try {
    const wav = new WaveFile(bytes);
    const format = wav.fmt as { sampleRate: number; numChannels: number; audioFormat: number; subformat: number[] };
    const { sampleRate: rate, numChannels: channels } = format;
    if (!(rate >= 1000 && rate <= 768_000))
      return { ok: false, message: `says ${rate} samples a second; from 1000 is read` };
    if (!(channels >= 1 && channels <= 64))
      return { ok: false, message: `says ${channels} channels; from 1 to 64 are read` };
    // The extensible kind of header tells floating point in another place.
    const floating = format.audioFormat === 0xfffe && format.subformat[0] === FLOATING && wav.bitDepth === '32';
    const known = floating ? SCALES['32f'] : SCALES[wav.bitDepth];
    if (!known) return { ok: false, message: `has samples of kind ${wav.bitDepth}; 8 to 32 bits are read` };
    const raw = wav.getSamples(false, Float64Array) as unknown as Float64Array | Float64Array[];
    const rows = Array.isArray(raw) ? raw : [raw];
    const max = Math.round(rate * LONGEST_S);
    const scaled = rows.map((row) => centred(floating ? asFloats(row, max) : row.subarray(0, max), known));
    const loudest = scaled.reduce((best, next) => (powerOf(next) > powerOf(best) ? next : best));
    return { ok: true, sound: { rate, samples: loudest } };
  } catch (error) {
    return { ok: false, message: `cannot be read as WAV: ${(error as Error).message}` };
  }
}

/** By the bit depth of the file: what stands for silence, and for full scale above it. */
const SCALES: Record<string, { zero: number; full: number } | undefined> = {
  '8': { zero: 128, full: 128 },
  '16': { zero: 0, full: 2 ** 15 },
  '24': { zero: 0, full: 2 ** 23 },
  '32': { zero: 0, full: 2 ** 31 },
  '32f': { zero: 0, full: 1 },
  '64': { zero: 0, full: 1 },
};

/** The code that a subformat begins with for floating point. */
const FLOATING = 3;

/** Whole numbers of 32 bits that were floating point all along. */
function asFloats(row: Float64Array, max: number): Float64Array {
  return Float64Array.from(new Float32Array(Int32Array.from(row.subarray(0, max)).buffer));
}

function centred(row: Float64Array, { zero, full }: { zero: number; full: number }): Float64Array {
  const scaled = row.map((value) => (Number.isFinite(value) ? (value - zero) / full : 0));
  const mean = scaled.reduce((sum, value) => sum + value, 0) / Math.max(1, scaled.length);
  return scaled.map((value) => value - mean);
}

export function powerOf(samples: Float64Array): number {
  return samples.reduce((sum, value) => sum + value * value, 0) / Math.max(1, samples.length);
}

/** A sound as a WAV file of 16 bits, one channel. */
export function writeWav({ rate, samples }: Sound): Uint8Array {
  const wav = new WaveFile();
  const words = Int16Array.from(samples, (value) => Math.round(Math.max(-1, Math.min(1, value)) * 32_767));
  wav.fromScratch(1, rate, '16', words);
  return wav.toBuffer();
}

/** Rate and length of a small clip. */
const SMALL_RATE = 11_025;
const SMALL_S = 4;

/** The middle of a sound as a small WAV file of 8 bits, 4 s at most, in base64: 60 kB of text. */
export function smallWav({ rate, samples }: Sound): string {
  const count = Math.min(samples.length, Math.round(SMALL_S * rate));
  const from = (samples.length - count) >> 1;
  const wav = new WaveFile(writeWav({ rate, samples: samples.slice(from, from + count) }));
  if (rate > SMALL_RATE) wav.toSampleRate(SMALL_RATE);
  wav.toBitDepth('8');
  return wav.toBase64();
}

/** The file that `smallWav` wrote as text; empty where it is none. */
export function wavOfText(text: string): Uint8Array {
  try {
    const wav = new WaveFile();
    wav.fromBase64(text);
    return wav.toBuffer();
  } catch {
    return new Uint8Array();
  }
}
