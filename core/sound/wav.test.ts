import { WaveFile } from 'wavefile';
import { readWav, writeWav } from './index';

const RATE = 16_000;
const COUNT = 2000;
const tone = (size: number) => Array.from({ length: COUNT }, (_, k) => size * Math.sin((2 * Math.PI * 440 * k) / RATE));

/** A file of one tone of half of what it can hold, as another program writes it. */
function written(bits: string, channels = 1): Uint8Array {
  const max = { '8': 127, '16': 2 ** 15 - 1, '24': 2 ** 23 - 1, '32': 2 ** 31 - 1 }[bits] ?? 1;
  const middle = bits === '8' ? 128 : 0;
  const rounded = bits.endsWith('f') || bits === '64' ? (value: number) => value : Math.round;
  const samples = tone(0.5 * max).map((value) => middle + rounded(value));
  const wav = new WaveFile();
  // The loudest of several is read: the others hold nothing.
  const quiet = samples.map(() => middle);
  wav.fromScratch(
    channels,
    RATE,
    bits,
    channels === 1 ? samples : [quiet, samples, ...Array(channels - 2).fill(quiet)],
  );
  return wav.toBuffer();
}

test.each([
  ['8', 1],
  ['16', 1],
  ['24', 1],
  ['32', 1],
  ['32f', 1],
  ['64', 1],
  ['16', 2],
  ['32', 3],
  ['32f', 6],
])('%s bits in %d channels: half of what it holds reads as a half', (bits, channels) => {
  const read = readWav(written(bits, channels));
  if (!read.ok) throw new Error(read.message);
  expect(read.sound.rate).toBe(RATE);
  expect(read.sound.samples).toHaveLength(COUNT);
  const misses = tone(0.5).map((value, k) => Math.abs(value - read.sound.samples[k]!));
  expect(Math.max(...misses)).toBeLessThan(bits === '8' ? 0.01 : 1e-4);
});

test('what is written is read, and what is cut off or none is told', () => {
  const bytes = writeWav({ rate: RATE, samples: Float64Array.from(tone(0.25)) });
  const read = readWav(bytes);
  expect(read.ok && Math.max(...read.sound.samples)).toBeCloseTo(0.25, 3);
  const message = (given: Uint8Array) => {
    const sound = readWav(given);
    return sound.ok ? '' : sound.message;
  };
  expect(message(new Uint8Array(10))).toBe('is not a WAV file; record or export the sound as WAV');
  expect(message(bytes.subarray(0, 30))).not.toBe('');
});

/** The same with the extensible kind of header, which says in another place what its 32 bits are. */
function extensible(floating: boolean): Uint8Array {
  const bytes = new Uint8Array(68 + 4 * COUNT);
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string) => [...word].forEach((sign, k) => view.setUint8(at + k, sign.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  for (const [at, value] of [
    [16, 40],
    [24, RATE],
    [28, 4 * RATE],
    [40, 4],
    [64, 4 * COUNT],
  ] as const)
    view.setUint32(at, value, true);
  for (const [at, value] of [
    [20, 0xfffe],
    [22, 1],
    [32, 4],
    [34, 32],
    [36, 22],
    [38, 32],
    [44, floating ? 3 : 1],
  ] as const)
    view.setUint16(at, value, true);
  bytes.set([0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71], 46);
  text(60, 'data');
  tone(0.5).forEach((value, k) =>
    floating
      ? view.setFloat32(68 + 4 * k, value, true)
      : view.setInt32(68 + 4 * k, Math.round(value * (2 ** 31 - 1)), true),
  );
  return bytes;
}

test.each([true, false])('32 bits under an extensible header, floating point %s, read as a half', (floating) => {
  const read = readWav(extensible(floating));
  if (!read.ok) throw new Error(read.message);
  const misses = tone(0.5).map((value, k) => Math.abs(value - read.sound.samples[k]!));
  expect(Math.max(...misses)).toBeLessThan(1e-4);
});
