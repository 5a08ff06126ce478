import type { Matrix } from 'ml-matrix';
import type { Drive } from '../drive/types';
import { adjust, gradientOf, misfitOf, predictedBy, type Adjusted, type Places } from './least-squares';
import { isTape, observationsOf, type Observation, type SurveyReading } from './readings';
import { slipOf } from './slips';
import type { SurveyFinding } from './survey-finding';

export interface FittedStation {
  id: string;
  x: number;
  y: number;
  /** One standard deviation, mm; null while the readings leave the shaft free. */
  plusMinusX: number | null;
  plusMinusY: number | null;
}

export interface FittedReading {
  id: string;
  /** The reading less what the fitted places give, mm or degrees. */
  residual: number;
  /** The residual over its own standard deviation; null where no other reading checks this one. */
  normalised: number | null;
  suspect: boolean;
}

export interface TapeWanted {
  from: string;
  to: string;
}

export interface SurveyFit {
  stations: FittedStation[];
  readings: FittedReading[];
  findings: SurveyFinding[];
  /** The rim-to-rim tape that would tell the most. */
  next: TapeWanted | null;
}

/** A reading this many standard deviations off is taken for a slip: one in a thousand honest ones is (data snooping, Baarda). */
const SUSPECT_AT = 3.29;
/** This many standard deviations off is no matter of degree. */
const GROSS = 8;
/** Readings whose normalised residuals are this alike cannot be told apart. */
const ALIKE = 0.985;
/** A place this uncertain stands for one nothing is known of, mm. */
const UNKNOWN_MM = 400;

/**
 * Fits the shafts of a drive to its survey readings, from its drawing as the sketch. The crank (or the first shaft) is at 0, 0. Direction comes from angle,
 * x and y readings, and from the sketch where there are none. Readings that the others contradict are named and left
 * out of the fit. Never throws on a drive that `readDrive` accepts.
 */
export function fitSurvey(drive: Drive, readings: readonly SurveyReading[]): SurveyFit {
  const datum = Math.max(0, drive.stations.findIndex(({ role }) => role === 'crankshaft'));
  const origin = drive.stations[datum] ?? { x: 0, y: 0 };
  const sketch = drive.stations.flatMap(({ x, y }) => [x - origin.x, y - origin.y]);
  const observations = observationsOf(drive, readings);
  const findings: SurveyFinding[] = [];
  const pulleyOf = (station: number) => drive.stations[station]!.pulleys[0]!.id;

  const sketched = adjust(observations, sketch, datum);
  const { kept, fit: cleaned, contradictory } = withoutSlips(observations, onEitherSide(observations, sketched, datum).best, sketch, datum);
  // Looked at again without the slips, which had their say in which side fits.
  const { best: fit, others } = onEitherSide(kept, cleaned, datum);
  const aligned = fit.turned ? turnedToSketch(fit, sketch, datum) : fit;
  const degrees = Math.max(0, kept.length - rankOf(aligned));
  // Readings that disagree by more than they say are worth less than they say, and the ± of the places grows with them.
  const excess = degrees > 0 && aligned.cost > degrees + 3.1 * Math.sqrt(2 * degrees) ? Math.sqrt(aligned.cost / degrees) : 1;

  if (observations.length === 0) findings.push({ code: 'no-readings', severity: 'note' });
  for (const [station, free] of aligned.free.entries()) {
    if (free && station !== datum && observations.length > 0) findings.push({ code: 'undetermined', severity: 'watch', pulley: pulleyOf(station) });
  }
  for (const observation of observations) {
    if (kept.includes(observation)) continue;
    const predicted = predictedBy(observation, aligned.places);
    const spread = spreadOf(observation, aligned);
    const slip = slipOf(observation, predicted, 3 * spread);
    findings.push({
      code: 'suspect',
      severity: 'fault',
      reading: observation.reading.id,
      figures: { value: observation.value, shouldBe: predicted, ...(slip && { slip: slip.slip }) },
    });
  }
  if (contradictory.length > 0) {
    findings.push({ code: 'contradictory', severity: 'fault', reading: contradictory[0]!.reading.id, readings: contradictory.map(({ reading }) => reading.id) });
  } else if (excess > 1) findings.push({ code: 'disagree', severity: 'watch', figures: { factor: excess } });
  if (kept.length > 0 && degrees === 0) findings.push({ code: 'unchecked', severity: 'note' });
  for (const { station, fit: other } of others) {
    if (aligned.free[station]) continue;
    findings.push({ code: 'mirrored', severity: 'watch', pulley: pulleyOf(station), figures: { x: other.places[2 * station]!, y: other.places[2 * station + 1]! } });
  }

  const fitted = new Map(kept.map((observation, k) => [observation, k]));
  const next = nextTape(drive, aligned, datum);
  return {
    stations: drive.stations.map(({ id }, k) => ({
      id,
      x: aligned.places[2 * k]!,
      y: aligned.places[2 * k + 1]!,
      plusMinusX: spreadAt(aligned, 2 * k, k === datum, excess),
      plusMinusY: spreadAt(aligned, 2 * k + 1, k === datum, excess),
    })),
    readings: observations.map((observation) => {
      const k = fitted.get(observation);
      const residual = misfitOf(observation, aligned.places);
      if (k === undefined) return { id: observation.reading.id, residual, normalised: residual / spreadOf(observation, aligned), suspect: true };
      const redundancy = aligned.redundancy[k]!;
      return { id: observation.reading.id, residual, normalised: redundancy > 1e-6 ? residual / (observation.sigma * Math.sqrt(redundancy)) : null, suspect: false };
    }),
    findings,
    next,
  };
}

/** From a fit, and with shafts put on the other side of the line between two they are taped to: distances cannot tell the sides apart. */
function onEitherSide(observations: readonly Observation[], first: Adjusted, datum: number): { best: Adjusted; others: { station: number; fit: Adjusted }[] } {
  const degrees = Math.max(1, observations.length - rankOf(first));
  const poor = first.cost > degrees + 6 * Math.sqrt(2 * degrees);
  let best = first;
  const others: { station: number; fit: Adjusted }[] = [];
  for (let station = 0; station < first.places.length / 2; station += 1) {
    if (station === datum) continue;
    const neighbours = neighboursOf(station, observations);
    // With many neighbours only one side fits well; the other is worth a try only where the first fit is bad.
    if (neighbours.length < 2 || (neighbours.length > 2 && !poor)) continue;
    const start = mirrored(best.places, station, neighbours[0]!, neighbours[1]!);
    if (!start) continue;
    const fit = adjust(observations, start, datum);
    if (movedMm(fit.places, best.places, station) < 2) continue;
    if (fit.cost < best.cost - 9) {
      best = fit;
      others.length = 0;
    } else if (fit.cost < best.cost + 9) others.push({ station, fit });
  }
  return { best, others };
}

function neighboursOf(station: number, observations: readonly Observation[]): number[] {
  const found = observations.flatMap(({ kind, from, to }) => (!isTape(kind) ? [] : from === station ? [to] : to === station ? [from] : []));
  return [...new Set(found)].filter((other) => other >= 0 && other !== station);
}

function mirrored(places: Places, station: number, a: number, b: number): number[] | null {
  const [ax, ay] = [places[2 * a]!, places[2 * a + 1]!];
  const [dx, dy] = [places[2 * b]! - ax, places[2 * b + 1]! - ay];
  const squared = dx * dx + dy * dy;
  if (squared < 1) return null;
  const [px, py] = [places[2 * station]! - ax, places[2 * station + 1]! - ay];
  const along = (px * dx + py * dy) / squared;
  const start = [...places];
  start[2 * station] = ax + 2 * along * dx - px;
  start[2 * station + 1] = ay + 2 * along * dy - py;
  return start;
}

/**
 * Leaves out, one at a time, the reading that stands out most, for as long as one does. Readings that stand out alike cannot be told apart: then none
 * is accused and all of them are returned as contradictory.
 */
function withoutSlips(observations: readonly Observation[], start: Adjusted, sketch: Places, datum: number): { kept: Observation[]; fit: Adjusted; contradictory: Observation[] } {
  let { kept, fit } = withoutGrossSlips(observations, start, sketch, datum);
  for (let round = 0; round < Math.max(1, Math.floor(observations.length / 3)); round += 1) {
    const scores = kept.map((observation, k) => (fit.redundancy[k]! > 1e-3 ? Math.abs(fit.residuals[k]!) / (observation.sigma * Math.sqrt(fit.redundancy[k]!)) : 0));
    const worst = Math.max(0, ...scores);
    if (worst < SUSPECT_AT) return readmitted(observations, kept, fit, datum);
    const alike = kept.filter((_, k) => scores[k]! > ALIKE * worst);
    if (alike.length > 1) return { kept, fit, contradictory: alike };
    kept = kept.filter((_, k) => scores[k] !== worst);
    fit = adjust(kept, fit.places, datum);
  }
  return { kept, fit, contradictory: [] };
}

/**
 * A slip of hundreds of mm bends a least-squares fit until honest readings look wrong. So where the fit is bad, a start that listens to the many rather
 * than the loud (least absolute residuals, by reweighting) says which readings are grossly off; the others go on to be looked at one by one.
 */
function withoutGrossSlips(observations: readonly Observation[], start: Adjusted, sketch: Places, datum: number): { kept: Observation[]; fit: Adjusted } {
  const all = { kept: [...observations], fit: start };
  const degrees = observations.length - rankOf(start);
  if (degrees < 1 || start.cost < degrees * GROSS ** 2) return all;
  let places: Places = sketch;
  const share = (observation: Observation) => Math.abs(misfitOf(observation, places)) / observation.sigma;
  for (let round = 0; round < 25; round += 1) {
    const softened = observations.map((observation) => ({ ...observation, sigma: observation.sigma * Math.sqrt(Math.max(1, share(observation))) }));
    ({ places } = adjust(softened, places, datum));
  }
  const kept = observations.filter((observation) => share(observation) < GROSS);
  if (kept.length === observations.length || kept.length <= rankOf(start)) return all;
  return { kept, fit: adjust(kept, places, datum) };
}

/** A reading left out early, while a worse one still pulled at the fit, comes back where it agrees after all. */
function readmitted(observations: readonly Observation[], kept: Observation[], fit: Adjusted, datum: number): { kept: Observation[]; fit: Adjusted; contradictory: Observation[] } {
  const all = observations.filter((observation) => kept.includes(observation) || Math.abs(misfitOf(observation, fit.places)) < SUSPECT_AT * spreadOf(observation, fit));
  return all.length === kept.length ? { kept, fit, contradictory: [] } : { kept: all, fit: adjust(all, fit.places, datum), contradictory: [] };
}

/** Turns the whole about the datum so that it lies as the sketch does: the least squared distance between the two (Procrustes). */
function turnedToSketch(fit: Adjusted, sketch: Places, datum: number): Adjusted {
  const [cx, cy] = [fit.places[2 * datum]!, fit.places[2 * datum + 1]!];
  let sine = 0;
  let cosine = 0;
  for (let k = 0; k < sketch.length / 2; k += 1) {
    const [x, y] = [fit.places[2 * k]! - cx, fit.places[2 * k + 1]! - cy];
    const [u, v] = [sketch[2 * k]! - cx, sketch[2 * k + 1]! - cy];
    sine += x * v - y * u;
    cosine += x * u + y * v;
  }
  const length = Math.hypot(sine, cosine);
  if (length < 1e-9) return fit;
  const [s, c] = [sine / length, cosine / length];
  const turn = (x: number, y: number): [number, number] => [cx + c * (x - cx) - s * (y - cy), cy + s * (x - cx) + c * (y - cy)];
  const places = [...fit.places];
  for (let k = 0; k < sketch.length / 2; k += 1) [places[2 * k], places[2 * k + 1]] = turn(fit.places[2 * k]!, fit.places[2 * k + 1]!);
  return { ...fit, places, covariance: turnedCovariance(fit.covariance, s, c) };
}

function turnedCovariance(covariance: Matrix, s: number, c: number): Matrix {
  const turned = covariance.clone();
  const size = covariance.rows / 2;
  for (let i = 0; i < size; i += 1) {
    for (let j = 0; j < size; j += 1) {
      const [xx, xy, yx, yy] = [covariance.get(2 * i, 2 * j), covariance.get(2 * i, 2 * j + 1), covariance.get(2 * i + 1, 2 * j), covariance.get(2 * i + 1, 2 * j + 1)];
      turned.set(2 * i, 2 * j, c * c * xx - c * s * (xy + yx) + s * s * yy);
      turned.set(2 * i, 2 * j + 1, c * s * xx + c * c * xy - s * s * yx - c * s * yy);
      turned.set(2 * i + 1, 2 * j, c * s * xx - s * s * xy + c * c * yx - c * s * yy);
      turned.set(2 * i + 1, 2 * j + 1, s * s * xx + c * s * (xy + yx) + c * c * yy);
    }
  }
  return turned;
}

/** The far-rim tape between two shafts that would shrink the sum of all variances most, counting what is unknown as very uncertain. */
function nextTape(drive: Drive, fit: Adjusted, datum: number): TapeWanted | null {
  const count = drive.stations.length;
  if (count < 2) return null;
  const covariance = fit.covariance.clone();
  for (let k = 0; k < 2 * count; k += 1) if (fit.free[Math.floor(k / 2)] && Math.floor(k / 2) !== datum) covariance.set(k, k, covariance.get(k, k) + UNKNOWN_MM ** 2);
  let best: { gain: number; from: number; to: number } | null = null;
  for (let from = 0; from < count; from += 1) {
    for (let to = from + 1; to < count; to += 1) {
      const gradient = gradientOf({ kind: 'outer', from, to }, fit.places);
      if (gradient.length === 0) continue;
      const effect = Array.from({ length: 2 * count }, (_, k) => gradient.reduce((sum, [at, slope]) => sum + covariance.get(k, at) * slope, 0));
      const variance = gradient.reduce((sum, [at, slope]) => sum + effect[at]! * slope, 0);
      const gain = effect.reduce((sum, value) => sum + value * value, 0) / (variance + 1.6 ** 2);
      if (!best || gain > best.gain * 1.0001) best = { gain, from, to };
    }
  }
  // Under a tenth of a millimetre to be won, another tape is a waste of time.
  if (!best || best.gain < 0.01) return null;
  return { from: drive.stations[best.from]!.pulleys[0]!.id, to: drive.stations[best.to]!.pulleys[0]!.id };
}

function rankOf({ redundancy }: Adjusted): number {
  return Math.round(redundancy.reduce((sum, part) => sum + 1 - part, 0));
}

/** Standard deviation of the difference between a reading that took no part in the fit and what the fit gives for it. */
function spreadOf(observation: Observation, fit: Adjusted): number {
  const gradient = gradientOf(observation, fit.places);
  const variance = gradient.reduce((sum, [i, a]) => sum + gradient.reduce((part, [j, b]) => part + a * b * fit.covariance.get(i, j), 0), 0);
  return Math.sqrt(observation.sigma ** 2 + Math.max(0, variance));
}

function spreadAt(fit: Adjusted, at: number, datum: boolean, factor: number): number | null {
  if (datum) return 0;
  return fit.free[Math.floor(at / 2)] ? null : factor * Math.sqrt(Math.max(0, fit.covariance.get(at, at)));
}

function movedMm(a: Places, b: Places, station: number): number {
  return Math.hypot(a[2 * station]! - b[2 * station]!, a[2 * station + 1]! - b[2 * station + 1]!);
}
