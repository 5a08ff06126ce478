import { weightedLine, weightedMean } from '../numeric';
import { floorOf, hann, peakBetween, powerOf, powerOfTwo, powerSpectrum, type Sound, type Spectrum } from '../sound';
import { tensionOfPluck } from './ways';

/** The span that was plucked, and the tension that is likely there. */
export interface PluckAsk {
  lengthMm: number;
  kgPerMetre: number;
  /** N; where it is not known, what belts are commonly set to. */
  expectN?: number;
}

/** Why a sound gives no note. */
export type NoPluck = 'silence' | 'no-pluck' | 'too-short';

/** One pluck of a sound. */
export interface PluckHeard {
  /** s from the beginning. */
  at: number;
  hz: number;
  plusMinusHz: number;
}

/** What was heard. */
export interface PluckReadingOfSound {
  frequencyHz: number | null;
  plusMinusHz: number | null;
  tensionN: number | null;
  /** One standard deviation by the sound alone; the mass and the length of the span have doubts of their own. */
  plusMinusN: number | null;
  /** Probability that it is a string's own note: no overtone of it, and no clang, voice or engine; 0 to 1. */
  confidence: number;
  plucks: PluckHeard[];
  /** Other notes it could be, likeliest first. */
  others: { hz: number; tensionN: number; probability: number }[];
  why: NoPluck | null;
  /** Of the plucks together, for drawing. */
  spectrum: Spectrum | null;
}

/** Tensions a belt may have at all, N: nothing outside is looked for. */
const POSSIBLE_N = { least: 15, most: 6000 };
/** Without a tension to expect: what belts are commonly set to, and how widely they differ (natural logarithms). */
const COMMON = { tensionN: 400, spread: 0.9 };
/**
 * How far a belt may be from what is expected of it, as a logarithm's scale; with heavy tails, for a belt that is set
 * wrongly is what one plucks for (Student's t).
 */
const EXPECTED_SPREAD = 0.5;
const EXPECTED_FREEDOM = 3;
/** With less than this of a note's sound in the overtones between, only multiples of some of them are there. */
const BETWEEN = 0.1;
/** No overtone beyond this is looked for under a note. */
const MOST_OVERTONES = 24;
/** A partial stands so far out of the noise, as a ratio of powers. Noise alone comes to a third of it. */
const STANDS_OUT = 40;
/** Seconds after a pluck that are listened to; the first are the finger's. */
const LISTEN = { skip: 0.012, most: 0.7, least: 0.06 };
/** No note is told closer than this, as a fraction. */
const FINEST = 0.00025;
const OVERTONES = 6;
/** So far to either side of a peak the floor is looked for, Hz: a note held back is wide, and no floor of itself. */
const FLOOR_REACH = 200;
/** A pluck is as loud as it gets within so long, s, or so many periods of its note: a voice or an engine swells. */
const ATTACK = { seconds: 0.025, periods: 2.5 };
/** It dies away as one exponential: its loudness lies this near to a straight line in its logarithm, rms. */
const STRAIGHT = 0.5;
/** What rings besides and is no overtone is less than this, as a share of the note's own sound: a bar has others. */
const RINGS_BESIDES = 0.35;
/** Less like a string than this it is none, 0 to 1. */
const LEAST_LIKE = 0.5;
/** The middle of a note is known to this part of its width at best. */
const OF_WIDTH = 0.03;
/** A note that is less likely than this is not told at all. */
const LEAST_CONFIDENCE = 0.15;
/** A note that is not known closer than this is none, as a fraction. */
const WIDEST = 0.03;

/** The note of a plucked span in a sound, and the tension that it means. `onProgress` gets the fraction done. */
export function hearPluck(
  { rate, samples }: Sound,
  ask: PluckAsk,
  onProgress: (fraction: number) => void = () => undefined,
): PluckReadingOfSound {
  const range = {
    from: Math.max(12, noteOf(ask, POSSIBLE_N.least)),
    to: Math.min(rate / 2.5, noteOf(ask, POSSIBLE_N.most)),
  };
  if (samples.length < LISTEN.least * 2 * rate || range.from >= range.to) return nothing('too-short');
  const mean = samples.reduce((sum, value) => sum + value, 0) / samples.length;
  const level = samples.map((value) => value - mean);
  if (powerOf(level) < 1e-10) return nothing('silence');
  const thin = thinned({ rate, samples: level }, Math.max(4000, 4 * range.to));
  const clean = { rate: thin.rate, samples: withoutHum(thin, onProgress) };
  // What is left of a tone alone is rounding.
  if (powerOf(clean.samples) < 1e-5 * powerOf(thin.samples)) return nothing('no-pluck');
  const segments = plucksIn(clean).map((pluck) => segmentOf(clean, pluck));
  const listened = segments.filter(({ samples: part }) => part.length >= LISTEN.least * clean.rate);
  if (listened.length === 0) return nothing('no-pluck');
  const spectrum = together(listened, clean.rate);
  const peaks = peaksOf(spectrum, range.from * 0.9, Math.min(clean.rate / 2.2, OVERTONES * range.to));
  if (peaks.length === 0) return nothing('no-pluck', spectrum);
  const notes = likelyNotes(peaks, range, ask);
  for (const { hz, probability } of notes.slice(0, 3)) {
    const plucks = listened.flatMap((segment) => {
      const heard = heardIn(segment, clean.rate, hz, peaks);
      return heard ? [heard] : [];
    });
    if (plucks.length === 0) continue;
    const mean = meanOf(plucks);
    // What it is at all comes before which note it is: a clang, a voice and an engine have notes, too.
    const like = likeAString(clean, listened, peaks, hz);
    const confidence = probability * like;
    if (like < LEAST_LIKE || confidence < LEAST_CONFIDENCE || mean.sigma > WIDEST * mean.at) continue;
    const tensionN = tensionOfPluck(ask, mean.at);
    const others = notes.filter((note) => note.hz !== hz);
    return {
      frequencyHz: mean.at,
      plusMinusHz: mean.sigma,
      tensionN,
      plusMinusN: (2 * tensionN * mean.sigma) / mean.at,
      confidence,
      plucks,
      others: others.slice(0, 3).map((note) => ({ ...note, tensionN: tensionOfPluck(ask, note.hz) })),
      why: null,
      spectrum,
    };
  }
  return nothing('no-pluck', spectrum);
}

const nothing = (why: NoPluck, spectrum: Spectrum | null = null): PluckReadingOfSound => ({
  frequencyHz: null,
  plusMinusHz: null,
  tensionN: null,
  plusMinusN: null,
  confidence: 0,
  plucks: [],
  others: [],
  why,
  spectrum,
});

const noteOf = ({ lengthMm, kgPerMetre }: PluckAsk, tensionN: number) =>
  Math.sqrt(tensionN / kgPerMetre) / (2 * (lengthMm / 1000));

/** Fewer samples a second, as many as the notes need, through a low-pass (Hann-weighed sinc). */
function thinned({ rate, samples }: Sound, wanted: number): Sound {
  const by = Math.floor(rate / wanted);
  if (by <= 1) return { rate, samples };
  const reach = 4 * by;
  const taps = Array.from({ length: 2 * reach + 1 }, (_, k) => {
    const x = (k - reach) / by;
    return (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * hann(k, 2 * reach + 1);
  });
  const total = taps.reduce((sum, tap) => sum + tap, 0);
  const out = new Float64Array(Math.floor(samples.length / by));
  for (let n = 0; n < out.length; n += 1) {
    let sum = 0;
    for (let k = 0; k < taps.length; k += 1) sum += taps[k]! * (samples[n * by + k - reach] ?? 0);
    out[n] = sum / total;
  }
  return { rate: rate / by, samples: out };
}

/** At most so many steady tones are taken out. */
const MOST_HUMS = 24;

/**
 * The sound without tones that last all through it as loud as they began: mains hum, a fan. Each is fitted by least
 * squares, at its own frequency, and taken away.
 */
function withoutHum({ rate, samples }: Sound, onProgress: (fraction: number) => void): Float64Array {
  const count = samples.length;
  if (count < 0.4 * rate) return samples;
  const size = powerOfTwo(2 * count);
  const window = hannWindow(count);
  const weighed = samples.map((value, k) => value * window[k]!);
  const { power, step } = powerSpectrum(weighed, rate, size);
  const floor = floorOf(power, Math.round(25 / step));
  const tops: { at: number; power: number }[] = [];
  for (let k = 2; k < power.length - 2; k += 1) {
    if (power[k]! > 12 * floor[k]! && power[k]! >= power[k - 1]! && power[k]! > power[k + 1]!)
      tops.push({ at: peakBetween(power, k) * step, power: power[k]! });
  }
  const out = Float64Array.from(samples);
  let taken = 0;
  const looked = tops.sort((a, b) => b.power - a.power).slice(0, 2 * MOST_HUMS);
  for (const [k, { at }] of looked.entries()) {
    onProgress((0.9 * k) / looked.length);
    const tone = steadyTone(out, rate, at);
    if (!tone) continue;
    const step = (2 * Math.PI * tone.hz) / rate;
    const [stepCos, stepSin] = [Math.cos(step), Math.sin(step)];
    let [cosine, sine] = [tone.cosine, tone.sine];
    for (let k = 0; k < count; k += 1) {
      out[k]! -= cosine;
      const turned = cosine * stepCos + sine * stepSin;
      sine = sine * stepCos - cosine * stepSin;
      cosine = turned;
    }
    taken += 1;
    if (taken === MOST_HUMS) break;
  }
  return out;
}

/** A tone as loud in every eighth of the sound; null where it is not. */
function steadyTone(samples: Float64Array, rate: number, near: number) {
  const blocks = 8;
  const length = Math.floor(samples.length / blocks);
  if (near * (length / rate) < 3) return null;
  const parts = Array.from({ length: blocks }, (_, b) => demodulated(samples, rate, near, b * length, length));
  const sizes = parts.map(([re, im]) => Math.hypot(re, im)).sort((a, b) => a - b);
  // Plucks may stand on it for a while; the quieter half of the blocks tells.
  if (!(sizes[0]! > 0.7 * sizes[3]!)) return null;
  // What its phase drifts by puts its frequency right.
  const drift = parts.slice(1).map(([re, im], k) => {
    const [a, b] = parts[k]!;
    return Math.atan2(im * a - re * b, re * a + im * b);
  });
  const middle = [...drift].sort((a, b) => a - b)[drift.length >> 1]!;
  if (drift.filter((value) => Math.abs(value - middle) < 0.35).length < drift.length - 2) return null;
  const hz = near + (middle * rate) / (2 * Math.PI * length);
  const quiet = parts
    .map((_, b) => demodulated(samples, rate, hz, b * length, length))
    .sort((a, b) => Math.hypot(...a) - Math.hypot(...b))
    .slice(0, 5);
  const [re, im] = [0, 1].map((axis) => quiet.reduce((sum, point) => sum + point[axis as 0 | 1], 0) / quiet.length);
  return { hz, cosine: 2 * re!, sine: -2 * im! };
}

/** The Hann-weighed mean of samples turned back at a frequency: half a tone's amplitude, its phase from the start. */
function demodulated(samples: Float64Array, rate: number, hz: number, from: number, length: number): [number, number] {
  let [re, im] = [0, 0];
  // Turned on from sample to sample, for a sine a sample would cost ten times as much.
  const step = (2 * Math.PI * hz) / rate;
  const [stepCos, stepSin] = [Math.cos(step), Math.sin(step)];
  let [cosine, sine] = [Math.cos(step * from), Math.sin(step * from)];
  const window = hannWindow(length);
  for (let k = 0; k < length; k += 1) {
    const value = window[k]! * (samples[from + k] ?? 0);
    re += value * cosine;
    im -= value * sine;
    const turned = cosine * stepCos - sine * stepSin;
    sine = sine * stepCos + cosine * stepSin;
    cosine = turned;
  }
  // Hann's weights sum to half of their number.
  return [(2 * re) / length, (2 * im) / length];
}

const windows = new Map<number, Float64Array>();
function hannWindow(length: number): Float64Array {
  const known = windows.get(length);
  if (known) return known;
  if (windows.size > 40) windows.clear();
  const made = Float64Array.from({ length }, (_, k) => hann(k, length));
  windows.set(length, made);
  return made;
}

interface Onset {
  from: number;
  to: number;
}

/** Where the sound suddenly grows, and how long each pluck lasts: to the next, or to the end of what is listened to. */
function plucksIn({ rate, samples }: Sound): Onset[] {
  const hop = Math.max(1, Math.round(0.005 * rate));
  const frames = Math.floor(samples.length / hop);
  const energy = Array.from({ length: frames }, (_, f) => {
    let sum = 0;
    for (let k = f * hop; k < (f + 1) * hop; k += 1) sum += samples[k]! ** 2;
    return sum / hop;
  });
  const mean = (from: number, to: number) => {
    const [a, b] = [Math.max(0, from), Math.min(frames, to)];
    return b > a ? energy.slice(a, b).reduce((sum, value) => sum + value, 0) / (b - a) : 0;
  };
  const quiet = [...energy].sort((a, b) => a - b)[Math.floor(frames * 0.15)]! + 1e-12;
  // Over longer than a low note's period, or each of its swings would be a pluck.
  const [reach, back] = [12, 20];
  const rises = energy.map((_, f) => mean(f, f + reach) / (mean(f - back, f - 1) + quiet));
  const starts: number[] = [];
  rises.forEach((rise, f) => {
    const near = rises.slice(Math.max(0, f - reach), f + reach + 1);
    if (rise > 2 && mean(f, f + reach) > 2 * quiet && rise === Math.max(...near)) starts.push(f);
  });
  // One that was under way when the recording began.
  if (starts.length === 0 && mean(0, reach) > 1.4 * quiet) starts.push(0);
  return starts.flatMap((f, n) => {
    const from = f === 0 ? 0 : f + 1;
    const to = Math.min(frames, from + LISTEN.most / 0.005, (starts[n + 1] ?? Infinity) - 2);
    const third = Math.floor((to - from) / 3);
    const [first, last] = [mean(from, from + third) - quiet, mean(to - third, to) - quiet];
    // A string dies away; a voice or an engine goes on.
    if (third < 1 || first < 0.4 * quiet || last > 0.6 * first) return [];
    return [{ from: from * hop + Math.round(LISTEN.skip * rate), to: Math.min(samples.length, Math.round(to * hop)) }];
  });
}

interface Segment {
  at: number;
  samples: Float64Array;
}

function segmentOf({ rate, samples }: Sound, { from, to }: Onset): Segment {
  return { at: from / rate, samples: samples.slice(from, Math.max(from, to)) };
}

/** The plucks' spectra, each by its own size, added up. */
function together(segments: readonly Segment[], rate: number): Spectrum {
  const longest = Math.max(...segments.map(({ samples }) => samples.length));
  const size = powerOfTwo(Math.max(2 * longest, rate));
  const sum = new Float64Array(size / 2);
  for (const { samples } of segments) {
    const fade = Math.min(samples.length >> 2, Math.round(0.005 * rate));
    const weighed = samples.map((value, k) => {
      const out = 0.5 + 0.5 * Math.cos((Math.PI * k) / samples.length);
      return value * out * (k < fade ? 0.5 - 0.5 * Math.cos((Math.PI * k) / fade) : 1);
    });
    const { power } = powerSpectrum(weighed, rate, size);
    power.forEach((value, k) => (sum[k]! += value / segments.length));
  }
  return { step: rate / size, power: sum };
}

interface Peak {
  hz: number;
  power: number;
  /** Power over the floor about it. */
  over: number;
}

/** What stands out of a spectrum between two frequencies, the strongest first. */
function peaksOf({ power, step }: Spectrum, from: number, to: number): Peak[] {
  const floor = floorOf(power, Math.round(Math.max(FLOOR_REACH, from * 1.5) / step));
  const found: Peak[] = [];
  for (let k = Math.max(1, Math.floor(from / step)); k < Math.min(power.length - 1, to / step); k += 1) {
    if (power[k]! < power[k - 1]! || power[k]! <= power[k + 1]!) continue;
    const over = power[k]! / (floor[k]! + 1e-300);
    if (over > STANDS_OUT) found.push({ hz: peakBetween(power, k) * step, power: power[k]!, over });
  }
  const strongest = Math.max(0, ...found.map((peak) => peak.power));
  // What is a thousandth of the strongest is its skirt.
  return found
    .filter((peak) => peak.power > 1e-3 * strongest)
    .sort((a, b) => b.power - a.power)
    .slice(0, 24);
}

/** A peak belongs to an overtone within this fraction of its place; stiff belts ring sharp. */
const NEAR = 0.022;

/**
 * The notes whose overtones the peaks could be, likeliest first: by how much of the sound each explains, how many of
 * its overtones are there, and how likely its tension is.
 */
function likelyNotes(
  peaks: readonly Peak[],
  range: { from: number; to: number },
  ask: PluckAsk,
): { hz: number; probability: number }[] {
  const sizes = peaks.reduce((sum, { power }) => sum + Math.sqrt(power), 0);
  const middle = ask.expectN ?? COMMON.tensionN;
  const spread = ask.expectN === undefined ? COMMON.spread : EXPECTED_SPREAD;
  const candidates: number[] = [];
  for (const { hz } of peaks.slice(0, 8))
    for (let h = 1; h <= 5; h += 1) {
      const note = hz / h;
      if (note < range.from || note > range.to) continue;
      if (candidates.every((other) => Math.abs(other / note - 1) > NEAR / 2)) candidates.push(note);
    }
  const scored = candidates.flatMap((hz) => {
    const explainedBy = explainedPeaks(peaks, hz);
    if (onlyMultiples(explainedBy)) return [];
    const teeth = Array.from({ length: OVERTONES }, (_, k) => explainedBy.some(({ h }) => h === k + 1));
    // Without its own note a string has at least two overtones side by side.
    if (!teeth[0] && !teeth.some((there, k) => there && teeth[k + 1])) return [];
    const last = teeth.lastIndexOf(true) + 1;
    const explained = explainedBy.reduce((sum, { size }) => sum + size, 0);
    const filled = teeth.filter(Boolean).length / Math.max(1, last);
    const first = teeth[0] ? 1 : 0.35;
    const away = Math.log(tensionOfPluck(ask, hz) / middle) / spread;
    const likely =
      ask.expectN === undefined
        ? -(away ** 2) / 2
        : -((EXPECTED_FREEDOM + 1) / 2) * Math.log(1 + away ** 2 / EXPECTED_FREEDOM);
    const score = 5 * Math.log(explained / sizes) + 3 * Math.log(filled) + 1.5 * Math.log(first) + likely;
    return Number.isFinite(score) ? [{ hz, score }] : [];
  });
  if (scored.length === 0) return [];
  const best = Math.max(...scored.map(({ score }) => score));
  const sum = scored.reduce((total, { score }) => total + Math.exp(score - best), 0);
  return scored
    .map(({ hz, score }) => ({ hz, probability: Math.exp(score - best) / sum }))
    .sort((a, b) => b.probability - a.probability);
}

/** The peaks that are overtones of a note, with which one each is, and its size. */
function explainedPeaks(peaks: readonly Peak[], hz: number): { h: number; size: number; peak: Peak }[] {
  return peaks.flatMap((peak) => {
    const h = Math.round(peak.hz / hz);
    const near = Math.min(NEAR, 0.2 / h);
    return h >= 1 && h <= MOST_OVERTONES && Math.abs(peak.hz / (h * hz) - 1) < near
      ? [{ h, size: Math.sqrt(peak.power), peak }]
      : [];
  });
}

/** A note that is borne out by every second, third or fifth of its overtones alone is so many times as high. */
function onlyMultiples(explained: readonly { h: number; size: number }[]): boolean {
  const total = explained.reduce((sum, { size }) => sum + size, 0);
  return [2, 3, 5].some((k) => {
    const between = explained.reduce((sum, { h, size }) => sum + (h % k === 0 ? 0 : size), 0);
    return between < BETWEEN * total;
  });
}

/**
 * How like a plucked string a sound is, whatever its note, 0 to 1: the share of its plucks that begin at once and die
 * away straight, and 0 where something rings that is no overtone of it.
 */
function likeAString({ rate, samples }: Sound, plucks: readonly Segment[], peaks: readonly Peak[], hz: number): number {
  const explained = explainedPeaks(peaks, hz);
  const own = explained.reduce((sum, { size }) => sum + size, 0);
  const besides = peaks.filter(
    (peak) =>
      !explained.some(({ peak: other }) => other === peak) &&
      plucks.some((pluck) => partialOf(pluck.samples, rate, peak.hz, hz) !== null),
  );
  const rings = besides.reduce((sum, { power }) => sum + Math.sqrt(power), 0);
  if (rings > RINGS_BESIDES * own) return 0;
  const plucked = plucks.filter((pluck) => beginsAndDies(samples, rate, pluck, hz)).length / plucks.length;
  return plucked * (1 - rings / own);
}

/** Whether a pluck's loudness, period by period of its note, jumps up and then falls as one exponential. */
function beginsAndDies(samples: Float64Array, rate: number, pluck: Segment, hz: number): boolean {
  const period = Math.max(1, Math.round(rate / hz));
  const before = 12;
  const start = Math.round(pluck.at * rate) - before * period;
  const count = before + Math.max(2, Math.floor(pluck.samples.length / period));
  const loudness = Array.from({ length: count }, (_, k) => {
    let sum = 0;
    for (let i = start + k * period; i < start + (k + 1) * period; i += 1) sum += (samples[i] ?? 0) ** 2;
    return sum / period;
  });
  const max = Math.max(...loudness);
  const top = loudness.indexOf(max);
  // Above what is there without it: hiss, or the last pluck's ring.
  const base = [...loudness.slice(0, before - 2)].sort((a, b) => a - b)[(before - 2) >> 1]!;
  const begins = loudness.findIndex((value) => value > base + 0.25 * (max - base));
  if ((top - begins) * (period / rate) > Math.max(ATTACK.seconds, ATTACK.periods / hz)) return false;
  const over = loudness.slice(top).findIndex((value) => value < Math.max(0.01 * max, 1.5 * base));
  const falling = loudness.slice(top, over < 0 ? undefined : top + over);
  if (falling.length < 3) return true;
  const { scatter } = slopeOf(falling.map((value, k) => ({ t: k, y: Math.log(value), weight: 1 })));
  return scatter < STRAIGHT;
}

/**
 * A note's frequency in one pluck: each overtone is turned back at its expected place, and what is left of its phase
 * over time tells how far off that was. Null where it does not ring on and die away as a string does.
 */
function heardIn({ at, samples }: Segment, rate: number, near: number, peaks: readonly Peak[]): PluckHeard | null {
  const partials = Array.from({ length: OVERTONES }, (_, k) => k + 1).flatMap((h) => {
    const peak = peaks.find(({ hz }) => Math.abs(hz / (h * near) - 1) < NEAR);
    const found = peak && partialOf(samples, rate, peak.hz, near);
    return found ? [{ h, ...found }] : [];
  });
  if (partials.length === 0) return null;
  // An overtone's place is a doubtful guide to the note: belts are stiff, and stiff strings ring sharp.
  const figures = partials.map(({ h, hz, sigma }) => ({
    at: hz / h,
    sigma: Math.hypot(sigma / h, 0.002 * (h - 1) * near),
  }));
  const { at: hz, sigma } = weightedMean(figures);
  // Where the overtones disagree on the note, so far may the note itself be out.
  const apart = Math.hypot(...figures.map((figure) => figure.at - hz)) / Math.sqrt(figures.length);
  return { at, hz, plusMinusHz: Math.max(Math.hypot(sigma, apart), FINEST * hz) };
}

/** One overtone's frequency, with its standard deviation; null where its phase wanders or it does not die away. */
function partialOf(
  samples: Float64Array,
  rate: number,
  hz: number,
  spacing: number,
): { hz: number; sigma: number } | null {
  // Two periods of the note: its other overtones fall on the window's zeros.
  const length = Math.min(Math.round((2 * rate) / spacing), samples.length >> 1);
  const hop = Math.max(1, length >> 1);
  const points: { t: number; size: number; phase: number }[] = [];
  for (let from = 0; from + length <= samples.length; from += hop) {
    const [re, im] = demodulated(samples, rate, hz, from, length);
    points.push({ t: (from + length / 2) / rate, size: Math.hypot(re, im), phase: Math.atan2(im, re) });
  }
  const loudest = Math.max(...points.map(({ size }) => size));
  const quiet = points.slice(-3).reduce((sum, { size }) => Math.min(sum, size), Infinity);
  const used = points.filter(({ size }, k) => size > Math.max(0.12 * loudest, 1.8 * quiet) || k < 3);
  const run = used.slice(0, firstGap(used, hop / rate));
  if (run.length < 3) return null;
  for (let k = 1; k < run.length; k += 1)
    run[k]!.phase -= 2 * Math.PI * Math.round((run[k]!.phase - run[k - 1]!.phase) / (2 * Math.PI));
  const { slope, sigma, scatter } = slopeOf(run.map(({ t, phase, size }) => ({ t, y: phase, weight: size ** 2 })));
  const decay = slopeOf(run.map(({ t, size }) => ({ t, y: Math.log(size), weight: size ** 2 })));
  // A string dies away within a second or two; what holds its loudness is a tone, what wanders is noise.
  if (scatter > 0.5 || decay.slope > -0.8) return null;
  // A note that is held back is as wide as it dies away fast, and its middle is known to a part of that.
  const wide = -decay.slope / (2 * Math.PI);
  return { hz: hz + slope / (2 * Math.PI), sigma: Math.hypot(sigma / (2 * Math.PI), OF_WIDTH * wide) };
}

function firstGap(points: readonly { t: number }[], step: number): number {
  const gap = points.findIndex(({ t }, k) => k > 0 && t - points[k - 1]!.t > 1.5 * step);
  return gap < 0 ? points.length : gap;
}

/** A weighted straight line: slope, its standard deviation, and the weighted scatter about it. */
function slopeOf(points: readonly { t: number; y: number; weight: number }[]) {
  const { slope, weight, spread, left } = weightedLine(points.map(({ t, ...point }) => ({ x: t, ...point })));
  // Neighbouring windows share half of their samples, so they count for less than their number.
  const free = Math.max(1, points.length / 1.5 - 2);
  return { slope, sigma: Math.sqrt(left / free / spread), scatter: Math.sqrt(left / weight) };
}

/** Several plucks as one; where they differ by more than they should, so much the less sure. */
function meanOf(plucks: readonly PluckHeard[]): { at: number; sigma: number } {
  const { at, sigma } = weightedMean(plucks.map(({ hz, plusMinusHz }) => ({ at: hz, sigma: plusMinusHz })));
  const chi = plucks.reduce((sum, { hz, plusMinusHz }) => sum + ((hz - at) / plusMinusHz) ** 2, 0);
  const stretch = plucks.length > 1 ? Math.max(1, Math.sqrt(chi / (plucks.length - 1))) : 1;
  return { at, sigma: Math.max(sigma * stretch, FINEST * at) };
}
