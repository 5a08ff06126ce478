import type { Matrix } from 'ml-matrix';
import type { Drive, SurveyReading } from '../drive';
import { mostOfSound } from '../numeric';
import { uncertainRadii } from './diameters';
import {
  adjust,
  type Adjusted,
  gradientOf,
  misfitOf,
  type Network,
  pictureAt,
  type Places,
  predictedBy,
} from './least-squares';
import { searchMistakes, SUSPECT_AT } from './mistake-search';
import { mistakeOf } from './mistakes';
import { bestSides, mirrorImages, otherWayRound } from './other-sides';
import type { PhotoFit } from './photo';
import { type Pictures, picturesOf } from './pictures';
import { quickFit } from './quick-fit';
import { type Observation, observationsOf, radiusObservations } from './readings';
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

/** A circle of a picture in the fit. */
export interface FittedCircle {
  photo: string;
  pulley: string;
  /** From where the picture has the centre to where the fit has it, mm. */
  residual: number;
  normalised: number | null;
  suspect: boolean;
}

/**
 * How a picture's frame lies on the drive: a point of the drive is turned by `turn` (radians), then shifted, to be
 * where the picture has it.
 */
export interface FittedPicture {
  shiftX: number;
  shiftY: number;
  turn: number;
}

export interface TapeWanted {
  from: string;
  to: string;
}

export interface SurveyFit {
  stations: FittedStation[];
  readings: FittedReading[];
  circles: FittedCircle[];
  /** By picture, what it came to and how it lies on the drive. */
  pictures: (PhotoFit & FittedPicture)[];
  findings: SurveyFinding[];
  /** The rim-to-rim tape that would tell the most. */
  next: TapeWanted | null;
}

/** A place this uncertain stands for one nothing is known of, mm. */
const UNKNOWN_MM = 400;

/**
 * Fits the shafts of a drive to its survey readings and the circles of its pictures, from its drawing as the sketch.
 * The crank (or the first shaft) is at 0, 0. Direction comes from angle, x and y readings; where there are none from
 * the upright of the first picture, and without pictures from the sketch. Readings that the others contradict are named
 * and left out of the fit. Never throws on a drive that `readDrive` accepts.
 */
export function fitSurvey(drive: Drive, readings: readonly SurveyReading[]): SurveyFit {
  const { network, observations, pictures, sketch } = networkOf(drive, readings);
  const { kept, fit, contradictory } = withoutMistakes(observations, sketch, network);
  const aligned = fit.turned ? turnedToSketch(fit, sketch, network) : fit;
  const degrees = Math.max(0, kept.length - rankOf(aligned));
  // Readings that disagree by more than they say are worth less than they say, and the ± of the places grows with them.
  const excess =
    degrees > 0 && aligned.cost > degrees + 3.1 * Math.sqrt(2 * degrees) ? Math.sqrt(aligned.cost / degrees) : 1;
  const circles = circlesOf(pictures, observations, kept, aligned, network);
  const settled: Settled = { drive, network, observations, kept, contradictory, fit: aligned, degrees, excess };
  return {
    stations: drive.stations.map(({ id }, k) => ({
      id,
      x: aligned.places[2 * k]!,
      y: aligned.places[2 * k + 1]!,
      plusMinusX: spreadAt(aligned, 2 * k, k === network.datum, excess),
      plusMinusY: spreadAt(aligned, 2 * k + 1, k === network.datum, excess),
    })),
    readings: fittedReadings(settled),
    circles,
    pictures: pictures.fits.map((picture, k) => {
      const [shiftX, shiftY, turn] = aligned.places.slice(pictureAt(network, k), pictureAt(network, k) + 3) as [
        number,
        number,
        number,
      ];
      return { ...picture, shiftX, shiftY, turn };
    }),
    findings: [
      ...undetermined(settled),
      ...circles
        .filter(({ suspect }) => suspect)
        .map(({ photo, pulley, residual }): SurveyFinding => ({
          code: 'circle-suspect',
          severity: 'fault',
          photo,
          pulley,
          figures: { off: residual },
        })),
      ...suspects(settled),
      ...disagreements(settled),
      ...otherWays(settled),
    ],
    next: nextTape(drive, aligned, network, kept),
  };
}

/** All that was measured of a drive, and its drawing to begin from. */
function networkOf(drive: Drive, readings: readonly SurveyReading[]) {
  const datum = Math.max(
    0,
    drive.stations.findIndex(({ role }) => role === 'crankshaft'),
  );
  const origin = drive.stations[datum] ?? { x: 0, y: 0 };
  const drawn = drive.stations.flatMap(({ x, y }) => [x - origin.x, y - origin.y]);
  const pictures = picturesOf(drive);
  const uncertain = uncertainRadii(drive, readings);
  const observations = [
    ...observationsOf(drive, readings, uncertain),
    ...pictures.observations,
    ...radiusObservations(uncertain),
  ];
  const directed = readings.some(({ kind }) => kind === 'angle' || kind === 'x' || kind === 'y');
  const network: Network = {
    count: drive.stations.length,
    datum,
    pictures: pictures.correlations,
    upright: !directed && pictures.observations.some(({ seen }) => seen!.picture === 0),
    radii: uncertain.length,
  };
  const sketch = withPictures(drawn, pictures, network);
  return { network, observations, pictures, sketch };
}

/** What a fit has come to. */
interface Settled {
  drive: Drive;
  network: Network;
  observations: readonly Observation[];
  /** Those that are not named as wrong, in the order of the fit. */
  kept: readonly Observation[];
  contradictory: readonly Observation[];
  fit: Adjusted;
  /** Readings beyond those that the places need. */
  degrees: number;
  /** By how much readings scatter more than they say; 1 where they do not. */
  excess: number;
}

const pulleyAt = ({ stations }: Drive, station: number) => stations[station]!.pulleys[0]!.id;

/** Shafts that nothing holds; that nothing was measured at all. */
function undetermined({ drive, network, observations, fit }: Settled): SurveyFinding[] {
  if (observations.length === network.radii) return [{ code: 'no-readings', severity: 'note' }];
  return [...fit.free.entries()].flatMap(([station, free]) =>
    free && station !== network.datum
      ? [{ code: 'undetermined' as const, severity: 'watch' as const, pulley: pulleyAt(drive, station) }]
      : [],
  );
}

/** Tapes and diameters that were left out as wrong, with what they should have been. */
function suspects({ network, observations, kept, fit }: Settled): SurveyFinding[] {
  return observations
    .filter((observation) => !observation.seen && !kept.includes(observation))
    .map((observation): SurveyFinding => {
      if (observation.kind === 'radius') {
        const off = fit.places.at(observation.over![0]!.radius - network.radii)!;
        return { code: 'diameter-suspect', severity: 'fault', pulley: observation.id, figures: { off: 2 * off } };
      }
      const predicted = predictedBy(observation, fit.places, network);
      const slip = mistakeOf(observation, predicted, 3 * spreadOf(observation, fit, network));
      return {
        code: 'suspect',
        severity: 'fault',
        reading: observation.id,
        figures: { value: observation.value, shouldBe: predicted, ...(slip && { slip: slip.slip }) },
      };
    });
}

/** Readings of which some are wrong and nothing tells which, or which all scatter; that nothing checks them. */
function disagreements({ drive, kept, contradictory, degrees, excess }: Settled): SurveyFinding[] {
  const findings: SurveyFinding[] = [];
  if (contradictory.length > 0) {
    const tapes = contradictory.filter(({ seen, kind }) => !seen && kind !== 'radius').map(({ id }) => id);
    const diameters = contradictory.filter(({ kind }) => kind === 'radius').map(({ id }) => id);
    const circles = [...new Set(contradictory.filter(({ seen }) => seen).map(({ to }) => pulleyAt(drive, to)))];
    findings.push({
      code: 'contradictory',
      severity: 'fault',
      ...(tapes[0] !== undefined && { reading: tapes[0] }),
      readings: tapes,
      ...(diameters.length > 0 && { diameters }),
      ...(circles.length > 0 && { circles }),
    });
  } else if (excess > 1) findings.push({ code: 'disagree', severity: 'watch', figures: { factor: excess } });
  if (kept.length > 0 && degrees === 0) findings.push({ code: 'unchecked', severity: 'note' });
  return findings;
}

/** Other ways the shafts may lie that the readings fit as well. */
function otherWays({ drive, network, kept, fit }: Settled): SurveyFinding[] {
  const mirrored = mirrorImages(kept, fit, network).map(({ station, x, y }): SurveyFinding => ({
    code: 'mirrored',
    severity: 'watch',
    pulley: pulleyAt(drive, station),
    figures: { x, y },
  }));
  const turned = otherWayRound(kept, fit, network);
  if (!turned) return mirrored;
  const { station, deg, x, y } = turned;
  return [
    ...mirrored,
    { code: 'two-ways', severity: 'watch', pulley: pulleyAt(drive, station), figures: { deg, x, y } },
  ];
}

/** Every tape, with how far the fit is from it. */
function fittedReadings({ network, observations, kept, fit }: Settled): FittedReading[] {
  const fitted = new Map(kept.map((observation, k) => [observation, k]));
  return observations
    .filter(({ seen, kind }) => !seen && kind !== 'radius')
    .map((observation) => {
      const { id, sigma } = observation;
      const residual = misfitOf(observation, fit.places, network);
      const k = fitted.get(observation);
      if (k === undefined)
        return { id, residual, normalised: residual / spreadOf(observation, fit, network), suspect: true };
      const redundancy = fit.redundancy[k]!;
      const normalised = redundancy > 1e-6 ? residual / (sigma * Math.sqrt(redundancy)) : null;
      return { id, residual, normalised, suspect: false };
    });
}

/**
 * The sketch, with the shafts that are in a picture where the first such picture has them, and each picture's frame
 * laid on it.
 */
function withPictures(drawn: Places, { fits, observations }: Pictures, { count, datum, radii }: Network): number[] {
  const places = [...drawn];
  const placed = new Set<number>();
  const frames = fits.flatMap((_, picture) => {
    const own = observations.filter(({ seen }) => seen!.picture === picture);
    const seen = own
      .filter(({ kind }) => kind === 'seen-x')
      .map((x, k) => ({ to: x.to, x: x.value, y: own[2 * k + 1]!.value }));
    if (seen.length === 0) return [0, 0, 0];
    const known = seen.filter(({ to }) => to === datum || placed.has(to));
    // On what earlier pictures and the crank fix, or else on the drawing.
    const anchors = known.length > 0 ? known : seen;
    const mean = (value: (point: (typeof seen)[number]) => number) =>
      anchors.reduce((sum, anchor) => sum + value(anchor), 0) / anchors.length;
    const [shiftX, shiftY] = [mean(({ to, x }) => x - places[2 * to]!), mean(({ to, y }) => y - places[2 * to + 1]!)];
    for (const { to, x, y } of seen) {
      if (to === datum || placed.has(to)) continue;
      placed.add(to);
      [places[2 * to], places[2 * to + 1]] = [x - shiftX, y - shiftY];
    }
    return [shiftX, shiftY, 0];
  });
  return [...places.slice(0, 2 * count), ...frames, ...new Array<number>(radii).fill(0)];
}

function circlesOf(
  { fits }: Pictures,
  observations: readonly Observation[],
  kept: readonly Observation[],
  fit: Adjusted,
  network: Network,
): FittedCircle[] {
  const at = new Map(kept.map((observation, k) => [observation, k]));
  return fits.flatMap(({ photo, circles }) =>
    circles.map(({ pulley }) => {
      const both = observations.filter(({ seen, id }) => seen && id === `${photo} ${pulley}`);
      const residual = Math.hypot(...both.map((observation) => misfitOf(observation, fit.places, network)));
      const normalised = both.flatMap((observation) => {
        const k = at.get(observation);
        return k !== undefined && fit.redundancy[k]! > 1e-3
          ? [Math.abs(fit.weighted[k]!) / Math.sqrt(fit.redundancy[k]!)]
          : [];
      });
      return {
        photo,
        pulley,
        residual,
        normalised: normalised.length > 0 ? Math.max(...normalised) : null,
        suspect: both.some((observation) => !at.has(observation)),
      };
    }),
  );
}

/** The fit, without the readings that are named as wrong. */
function withoutMistakes(
  observations: readonly Observation[],
  sketch: Places,
  network: Network,
): { kept: Observation[]; fit: Adjusted; contradictory: Observation[] } {
  const sketched = adjust(observations, sketch, network);
  const sound = mostOfSound(observations.length - rankOf(sketched));
  // Where the sketch had a shaft on the wrong side, the right one explains everything.
  const sides = sketched.cost > sound ? bestSides(observations, sketched, network) : null;
  const start = sides && sides.cost < sound ? adjust(observations, sides.places, network) : sketched;
  const all = { kept: [...observations], fit: start, contradictory: [] };
  const worst = Math.max(
    0,
    ...observations.map((_, k) =>
      start.redundancy[k]! > 1e-3 ? Math.abs(start.weighted[k]!) / Math.sqrt(start.redundancy[k]!) : 0,
    ),
  );
  if (worst < SUSPECT_AT) return all;
  const starts = { sketch, many: heedingTheMany(observations, sketch, network), sides: sides?.places ?? null };
  const { wrong, unclear, places } = searchMistakes(observations, start, starts, network);
  const contradictory = observations.filter(({ id }) => unclear.includes(id));
  if (wrong.length === 0) return { ...all, contradictory };
  // Both coordinates of a circle go together: it was put round the wrong thing.
  const kept = observations.filter(({ id }) => !wrong.includes(id));
  return { kept, fit: adjust(kept, places, network), contradictory };
}

/** Places that listen to the many readings rather than to the loud ones: least absolute residuals, by reweighting. */
function heedingTheMany(observations: readonly Observation[], sketch: Places, network: Network): Places {
  let places: Places = sketch;
  for (let round = 0; round < 12; round += 1) {
    const softened = observations.map((observation) => ({
      ...observation,
      sigma:
        observation.sigma *
        Math.sqrt(Math.max(1, Math.abs(misfitOf(observation, places, network)) / observation.sigma)),
    }));
    ({ places } = quickFit(softened, places, network, 8));
  }
  return places;
}

/**
 * Turns the whole about the datum so that it lies as the sketch does: the least squared distance between the two
 * (Procrustes).
 */
function turnedToSketch(fit: Adjusted, sketch: Places, { count, datum }: Network): Adjusted {
  const [cx, cy] = [fit.places[2 * datum]!, fit.places[2 * datum + 1]!];
  let sine = 0;
  let cosine = 0;
  for (let k = 0; k < count; k += 1) {
    const [x, y] = [fit.places[2 * k]! - cx, fit.places[2 * k + 1]! - cy];
    const [u, v] = [sketch[2 * k]! - cx, sketch[2 * k + 1]! - cy];
    sine += x * v - y * u;
    cosine += x * u + y * v;
  }
  const length = Math.hypot(sine, cosine);
  if (length < 1e-9) return fit;
  const [s, c] = [sine / length, cosine / length];
  const turn = (x: number, y: number): [number, number] => [
    cx + c * (x - cx) - s * (y - cy),
    cy + s * (x - cx) + c * (y - cy),
  ];
  const places = [...fit.places];
  for (let k = 0; k < count; k += 1)
    [places[2 * k], places[2 * k + 1]] = turn(fit.places[2 * k]!, fit.places[2 * k + 1]!);
  return { ...fit, places, covariance: turnedCovariance(fit.covariance, count, s, c) };
}

/** The covariance of places turned by that sine and cosine, with what is not turned (radii) beside them. */
function turnedCovariance(covariance: Matrix, count: number, s: number, c: number): Matrix {
  const turned = covariance.clone();
  for (let k = 0; k < count; k += 1) {
    const [x, y] = [turned.getRow(2 * k), turned.getRow(2 * k + 1)];
    turned.setRow(
      2 * k,
      x.map((value, at) => c * value - s * y[at]!),
    );
    turned.setRow(
      2 * k + 1,
      x.map((value, at) => s * value + c * y[at]!),
    );
  }
  for (let k = 0; k < count; k += 1) {
    const [x, y] = [turned.getColumn(2 * k), turned.getColumn(2 * k + 1)];
    turned.setColumn(
      2 * k,
      x.map((value, at) => c * value - s * y[at]!),
    );
    turned.setColumn(
      2 * k + 1,
      x.map((value, at) => s * value + c * y[at]!),
    );
  }
  return turned;
}

/**
 * The far-rim tape between two shafts that would shrink the sum of all variances most, counting what is unknown as very
 * uncertain.
 */
function nextTape(drive: Drive, fit: Adjusted, network: Network, kept: readonly Observation[]): TapeWanted | null {
  const { count, datum } = network;
  if (count < 2) return null;
  const covariance = fit.covariance.clone();
  for (let k = 0; k < 2 * count; k += 1)
    if (fit.free[Math.floor(k / 2)] && Math.floor(k / 2) !== datum)
      covariance.set(k, k, covariance.get(k, k) + UNKNOWN_MM ** 2);
  // A shaft that is loose is known along the tapes that reach it all the same: taken again they would tell nothing.
  for (const observation of kept) {
    const reaches = [observation.from, observation.to].some((end) => fit.free[end]);
    if (observation.seen || !reaches) continue;
    const gradient = gradientOf(observation, fit.places, network).filter(([at]) => at < 2 * count);
    const effect = Array.from({ length: covariance.rows }, (_, k) =>
      gradient.reduce((sum, [at, slope]) => sum + covariance.get(k, at) * slope, 0),
    );
    const variance = gradient.reduce((sum, [at, slope]) => sum + effect[at]! * slope, 0) + observation.sigma ** 2;
    for (let i = 0; i < effect.length; i += 1)
      for (let j = 0; j < effect.length; j += 1)
        covariance.set(i, j, covariance.get(i, j) - (effect[i]! * effect[j]!) / variance);
  }
  let best: { gain: number; from: number; to: number } | null = null;
  for (let from = 0; from < count; from += 1) {
    for (let to = from + 1; to < count; to += 1) {
      const gradient = gradientOf({ kind: 'outer', from, to }, fit.places, network);
      if (gradient.length === 0) continue;
      const effect = Array.from({ length: 2 * count }, (_, k) =>
        gradient.reduce((sum, [at, slope]) => sum + covariance.get(k, at) * slope, 0),
      );
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

/**
 * Standard deviation of the difference between a reading that took no part in the fit and what the fit gives for it.
 */
function spreadOf(observation: Observation, fit: Adjusted, network: Network): number {
  const gradient = gradientOf(observation, fit.places, network);
  const variance = gradient.reduce(
    (sum, [i, a]) => sum + gradient.reduce((part, [j, b]) => part + a * b * fit.covariance.get(i, j), 0),
    0,
  );
  return Math.sqrt(observation.sigma ** 2 + Math.max(0, variance));
}

function spreadAt(fit: Adjusted, at: number, datum: boolean, factor: number): number | null {
  if (datum) return 0;
  return fit.free[Math.floor(at / 2)] ? null : factor * Math.sqrt(Math.max(0, fit.covariance.get(at, at)));
}
