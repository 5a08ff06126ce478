import type { Drive, NoiseKind } from '../drive';
import { normals } from '../numeric';
import type { Sound } from '../sound';
import type { BearingPart } from './bearings';
import { type Rate, ratesOf } from './rates';

/** A noise to be made: what it sounds like, how often it comes, and in what room. */
interface NoiseToMake {
  kind: NoiseKind;
  /** Of a bearing: its strikes a turn of the shaft. */
  strikes?: number;
  /** How often the part comes round, Hz; the teeth's mesh for a whine. */
  hz: number;
  /** Of a chirp or a squeal, Hz. */
  pitchHz: number;
  seconds: number;
  /** How unevenly it comes, as a part of a turn. */
  jitter: number;
  /** Beside the noise's own loudness of 1: mains hum, hiss, somebody who talks, the engine's beat. */
  hum: number;
  hiss: number;
  talk: number;
  engine: number;
  /** The engine's firing, Hz. */
  firingHz: number;
}

const { abs, exp, max, min, PI, round, sin } = Math;
const RATE = 22_050;
const TAU = 2 * PI;

/**
 * The sound of a noise in an engine bay, made up of sines and random numbers, the same for the same seed: a stand-in
 * for a microphone, and what an apprentice learns by. It measures nothing.
 */
function makeNoise(asked: NoiseToMake, seed: number): Sound {
  const normal = normals(seed);
  const samples = new Float64Array(round(RATE * asked.seconds));
  if (asked.strikes === undefined) NOISES[asked.kind](samples, asked, normal);
  else addStrikes(samples, { ...asked, strikes: asked.strikes }, normal);
  addEngine(samples, asked, normal);
  addTalk(samples, asked.talk, normal);
  for (let k = 0; k < samples.length; k += 1)
    samples[k]! += asked.hum * sin((TAU * 50 * k) / RATE) + asked.hiss * normal();
  const highest = samples.reduce((top, value) => max(top, abs(value)), 0);
  return { rate: RATE, samples: highest > 0.9 ? samples.map((value) => (0.9 * value) / highest) : samples };
}

type Maker = (samples: Float64Array, asked: NoiseToMake, normal: () => number) => void;
const NOISES: Record<NoiseKind, Maker> = {
  chirp: (samples, { hz, pitchHz, jitter }, normal) => {
    const long = min(0.045, 0.35 / hz);
    for (let turn = 0; ; turn += 1) {
      const from = round(((turn + 0.3 + jitter * normal()) * RATE) / hz);
      if (from >= samples.length) break;
      const [size, off] = [0.45 * (1 + 0.2 * normal()), 1 + 0.01 * normal()];
      const count = round(long * RATE);
      for (let k = 0; k < count && from + k < samples.length; k += 1) {
        if (from + k < 0) continue;
        const swell = sin((PI * k) / count) ** 2;
        const phase = (TAU * pitchHz * off * (k - (0.06 * k * k) / count)) / RATE;
        samples[from + k]! += size * swell * (sin(phase) + 0.35 * sin(2 * phase));
      }
    }
  },
  squeal: (samples, { hz, pitchHz }, normal) => {
    let [phase, waver] = [0, 0];
    for (let k = 0; k < samples.length; k += 1) {
      waver = 0.9995 * waver + 0.0004 * normal();
      phase += (TAU * pitchHz * (1 + 0.1 * waver)) / RATE;
      const swell = 1 + 0.35 * sin((TAU * hz * k) / RATE);
      samples[k]! += 0.28 * swell * (sin(phase) + 0.3 * sin(2 * phase + 1) + 0.15 * sin(3 * phase));
    }
  },
  rumble: (samples, { hz }, normal) => {
    let [low, lower] = [0, 0];
    for (let k = 0; k < samples.length; k += 1) {
      // Noise between about 90 and 700 Hz, that swells once a turn.
      low += 0.18 * (normal() - low);
      lower += 0.025 * (low - lower);
      samples[k]! += 0.6 * (low - lower) * (1 + 0.85 * sin((TAU * hz * k) / RATE));
    }
  },
  whine: (samples, { hz }) => {
    for (let k = 0; k < samples.length; k += 1)
      for (let h = 1; h <= 4; h += 1) samples[k]! += (0.3 / h) * sin((TAU * hz * h * k) / RATE + h);
  },
  none: () => {},
};

/** Balls on a worn race: strikes that ring, each a little early or late, waxing and waning with the shaft. */
function addStrikes(
  samples: Float64Array,
  { hz, strikes, pitchHz }: NoiseToMake & { strikes: number },
  normal: () => number,
): void {
  const every = RATE / (hz * strikes);
  for (let from = 0.3 * every; from < samples.length; from += every * (1 + 0.01 * normal())) {
    const size = 0.5 * (1 + 0.2 * normal()) * (0.75 + 0.25 * sin((TAU * hz * from) / RATE));
    for (let k = 0; k < 0.012 * RATE && from + k < samples.length; k += 1)
      samples[round(from) + k]! += size * exp((-k / RATE) * 550) * sin((TAU * pitchHz * k) / RATE);
  }
}

/** Firing of uneven cylinders: thuds that ring and die away, with the breath of the intake. */
function addEngine(samples: Float64Array, { engine, firingHz }: NoiseToMake, normal: () => number): void {
  if (!(engine > 0 && firingHz > 0)) return;
  const sizes = [0, 1, 2, 3].map(() => 1 + 0.15 * normal());
  for (let turn = 0; ; turn += 1) {
    const from = round(((turn + 0.01 * normal()) * RATE) / firingHz);
    if (from >= samples.length) return;
    for (let k = 0; k < 0.06 * RATE && from + k < samples.length; k += 1) {
      if (from + k < 0) continue;
      const fades = exp((-k / RATE) * 70);
      const thud = sin((TAU * 85 * k) / RATE) + 0.4 * sin((TAU * 190 * k) / RATE) + 0.15 * normal() * fades;
      samples[from + k]! += engine * sizes[turn % 4]! * fades * thud;
    }
  }
}

/** Somebody who talks: voiced syllables of uneven length and pitch. */
function addTalk(samples: Float64Array, loud: number, normal: () => number): void {
  if (!(loud > 0)) return;
  const fraction = () => abs(sin(37.1 * normal()));
  for (let from = 0; from < samples.length;) {
    const count = round(RATE * (0.08 + 0.17 * fraction()));
    const [voice, first, second] = [95 + 80 * fraction(), 350 + 400 * fraction(), 900 + 1200 * fraction()];
    const sizes = Array.from({ length: 24 }, (_, h) =>
      [first, second].reduce((sum, formant) => sum + 1 / (1 + (((h + 1) * voice - formant) / 120) ** 2), 0),
    );
    for (let k = 0; k < count && from + k < samples.length; k += 1) {
      let voiced = 0;
      for (let h = 0; h < sizes.length; h += 1) voiced += sizes[h]! * sin((TAU * (h + 1) * voice * k) / RATE);
      samples[from + k]! += 0.5 * loud * sin((PI * k) / count) * voiced;
    }
    from += count + round(RATE * (0.03 + 0.25 * fraction() ** 3));
  }
}

/** A noise that this drive could make, by its own rates. */
export interface Lesson {
  kind: NoiseKind;
  rate: Rate;
  /** Of the bearing of a shaft: what of it is worn, and its strikes a turn. */
  bearing?: { part: BearingPart; times: number };
}

/** How often a lesson's noise is heard, Hz. */
export const heardHz = ({ rate, bearing }: Lesson): number => rate.hz * (bearing?.times ?? 1);

/** A bearing of eight balls, each a fifth of the pitch circle across: what of it strikes how often a turn. */
const EIGHT_BALLS: readonly NonNullable<Lesson['bearing']>[] = [
  { part: 'outer', times: 3.2 },
  { part: 'inner', times: 4.8 },
];

/** Pulleys slower than this are heard as single knocks, faster ones as a tone, Hz. */
const HEARD_ONE_BY_ONE = 90;

/** The noises that an ear can learn in this drive: each belt's and each pulley's, and a whine where teeth mesh. */
export function lessonsOf(drive: Drive, rpm: number): Lesson[] {
  return ratesOf(drive, rpm).flatMap((rate): Lesson[] => {
    switch (rate.what) {
      case 'belt':
        return [
          { kind: 'chirp', rate },
          { kind: 'squeal', rate },
        ];
      case 'pulley': {
        const strikes = rate.crank ? [] : EIGHT_BALLS.map((bearing): Lesson => ({ kind: 'rumble', rate, bearing }));
        const [chirp, rumble] = (['chirp', 'rumble'] as const).map((kind): Lesson => ({ kind, rate }));
        return rate.hz < HEARD_ONE_BY_ONE ? [chirp!, rumble!, ...strikes] : [rumble!, ...strikes];
      }
      case 'tooth':
        return [{ kind: 'whine', rate }];
      case 'engine':
        return [];
    }
  });
}

/** The sound of a lesson at an engine speed: plain for learning, or in an engine bay. */
export function soundOfLesson(
  drive: Drive,
  rpm: number,
  { kind, rate, bearing }: Lesson,
  { seed, seconds = 4, bay = false }: { seed: number; seconds?: number; bay?: boolean },
): Sound {
  const normal = normals(seed + 1);
  const firingHz = ratesOf(drive, rpm).find(({ what }) => what === 'engine')!.hz;
  return makeNoise(
    {
      kind,
      ...(bearing && { strikes: bearing.times }),
      hz: rate.hz,
      pitchHz: kind === 'squeal' ? 1900 + 300 * normal() : 3000 + 400 * normal(),
      seconds,
      jitter: 0.01,
      firingHz,
      // In a bay the engine is as loud as what it hides, and is heard under it.
      ...(bay ? { hum: 0.02, hiss: 0.012, talk: 0.05, engine: 0.5 } : { hum: 0, hiss: 0.003, talk: 0, engine: 0.05 }),
    },
    seed,
  );
}

/** A simulated engine bay that hides one of the drive's noises, or none: what it hid, and how it sounds. */
export function simulatedBay(drive: Drive, rpm: number, seed: number): { hidden: Lesson | null; sound: Sound } {
  const lessons = lessonsOf(drive, rpm).filter(({ rate }) => rate.hz > 1);
  const hidden = lessons[seed % (lessons.length + 1)] ?? null;
  const rate = { what: 'engine', id: 'firing', hz: rpm / 60 } as const;
  return {
    hidden,
    sound: soundOfLesson(drive, rpm, hidden ?? { kind: 'none', rate }, { seed, seconds: 8, bay: true }),
  };
}
