import { stretchTension } from '../adjuster';
import type { Belt, Drive } from '../drive';
import { hundredth } from '../numeric';
import {
  type Candidate,
  type LastOn,
  markedMisfit,
  type MarkedMisfit,
  puttingOn,
  type PuttingOn,
  sizeBelt,
  type SizeFinding,
  type SizeOptions,
  type Sizing,
  type Window,
} from '../seating';
import { askFor, type AskFor, markedLengthMm, sectionFor } from '../section';
import { fitSurvey } from '../survey';
import { combinedLength, type CombinedLength } from './measured';
import { DEFAULT_UNCERTAINTY } from './defaults';
import { responseOf, type Uncertainty, uncertaintyOf } from './uncertainty';

/** The answer to which belt to bring home, as plain data. */
export interface SizeAnswer {
  window: Window;
  /** `chance` that it fits; null where nobody said how the belt is tightened. */
  candidates: (Candidate & { chance: number | null })[];
  findings: SizeFinding[];
  lastOn: LastOn | null;
  /** Of a sprung arm: which way a wrench turns it to let the belt off. */
  release: PuttingOn['release'];
  /**
   * Path length against what the adjuster reads, from its slack end; `sigma` is one standard deviation of the path, mm.
   */
  curve: { fraction: number; reading: number; lengthMm: number; sigma: number }[];
  /** On fixed centres, of a belt that is chosen by its tension; null of every other. */
  stretch: StretchCurve | null;
  reads: 'armAngle' | 'travel' | null;
  kind: string | null;
  marks: { short: number; long: number } | null;
  /** Where the adjuster stands now, as a fraction of its travel. */
  now: number | null;
  /** By place in `candidates`: the one to bring home, and the two of which one surely fits. */
  best: number | null;
  pair: Uncertainty['pair'];
  /** What was measured of the length itself, and how far it moves all of the above from the drawing. */
  measured: CombinedLength;
}

/** Tension at rest that each marked length makes on fixed centres. */
export interface StretchCurve extends Pick<NonNullable<Sizing['tension']>, 'leastN' | 'setN' | 'mostN'> {
  points: { lengthMm: number; tensionN: number }[];
  /** One standard deviation of the path, mm. */
  sigma: number;
}

/** Points of that curve: it bends so little that more would not show. */
const STRETCH_POINTS = 24;

/**
 * Sizes a belt, with what was measured of its length and the chance of each candidate. Null where the drive has no such
 * belt.
 */
export function answerFor(
  drive: Drive,
  beltId: string,
  options: Pick<SizeOptions, 'lengths' | 'also' | 'stock'> & {
    draws?: number;
    onProgress?: (fraction: number) => void;
  } = {},
): SizeAnswer | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const plain = sizeBelt(drive, beltId, { lengths: [] });
  if (!plain || !belt) return null;
  const surveyed = (drive.survey?.readings?.length ?? 0) + (drive.survey?.photos?.length ?? 0) > 0;
  const fit = surveyed ? fitSurvey(drive, drive.survey?.readings ?? []) : null;
  const response = responseOf(drive, belt, plain, fit);
  const drawnSpread = uncertaintyOf(drive, belt, plain, { response, draws: 0 }).spread;
  const middle = drawnSpread[drawnSpread.length >> 1] ?? DEFAULT_UNCERTAINTY.placeMm;
  const measured = combinedLength(drive, belt, plain.curve, middle);
  const shift = measured.shiftMm;
  // Every path is `shift` longer than drawn; so a belt of L sits where one of L − shift would by the drawing.
  const asDrawn = (list: readonly number[] | undefined) => list?.map((mm) => mm - shift);
  const [also, asked] = [asDrawn(options.also), asDrawn(options.lengths)];
  const sizing = sizeBelt(drive, beltId, {
    ...options,
    ...(also && { also }),
    ...(asked && { lengths: asked }),
    shiftMm: shift,
    curve: plain.curve,
  })!;
  const certainty = middle > 0 ? measured.plusMinus / middle : 1;
  const doubt = uncertaintyOf(drive, belt, sizing, {
    response,
    certainty,
    ...(options.draws !== undefined && { draws: options.draws }),
    ...(options.onProgress && { onProgress: options.onProgress }),
  });
  const travel = sizing.curve?.travel ?? null;
  const candidates = sizing.candidates.map((candidate, k) => ({
    ...candidate,
    lengthMm: options.lengths?.[k] ?? hundredth(candidate.lengthMm + shift),
    chance: candidate.verdict === 'not-known' ? null : (doubt.chances[k] ?? 0),
  }));
  return {
    window: shifted(sizing.window, shift),
    candidates,
    findings: sizing.findings,
    release: puttingOn(drive, beltId)!.release,
    lastOn: sizing.lastOn && { ...sizing.lastOn, needsMm: sizing.lastOn.needsMm + shift },
    curve: curvePoints(sizing.curve, shift, doubt.spread),
    stretch: stretchOf(belt, sizing, shift, doubt.spread[0] ?? 0),
    reads: travel?.reads ?? null,
    kind: travel?.kind ?? null,
    marks: travel?.marks ?? null,
    now: travel?.now ?? null,
    best: bestOf(candidates),
    pair: doubt.pair,
    measured,
  };
}

const shifted = (window: Sizing['window'], shiftMm: number): Sizing['window'] =>
  Object.fromEntries(Object.entries(window).map(([state, mm]) => [state, typeof mm === 'number' ? mm + shiftMm : mm]));

/** Where on its travel the adjuster takes which length, and one standard deviation of that. */
function curvePoints(curve: Sizing['curve'], shiftMm: number, spread: readonly number[]): SizeAnswer['curve'] {
  if (!curve) return [];
  const last = curve.lengths.length - 1;
  return curve.lengths.flatMap((lengthMm, k) => {
    if (lengthMm === null) return [];
    const fraction = k / last;
    return [
      { fraction, reading: curve.travel.readingAt(fraction), lengthMm: lengthMm + shiftMm, sigma: spread[k] ?? 0 },
    ];
  });
}

/** From the shortest length looked at to the one that lies without tension. */
function stretchOf(belt: Belt, sizing: Sizing, shiftMm: number, sigma: number): StretchCurve | null {
  const { tension, window, candidates, fits } = sizing;
  const path = window.slackEnd;
  if (!tension || !fits || typeof path !== 'number') return null;
  const { leastN, setN, mostN } = tension;
  const basis = markedLengthMm(0, sectionFor(belt.section, belt.sectionOverrides)!);
  const shortest = Math.min(fits.from, ...candidates.map(({ lengthMm }) => lengthMm));
  return {
    leastN,
    setN,
    mostN,
    points: Array.from({ length: STRETCH_POINTS + 1 }, (_, k) => {
      const lengthMm = shortest + ((path - shortest) * k) / STRETCH_POINTS;
      return { lengthMm: lengthMm + shiftMm, tensionN: stretchTension(belt, path - basis, lengthMm - basis) };
    }),
    sigma,
  };
}

/**
 * A belt that fits, surely, with reserve enough and none of the travel wasted: most chance first, then no finding, then
 * the shorter one, which lasts longer.
 */
function bestOf(candidates: SizeAnswer['candidates']): number | null {
  const fitting = candidates
    .map((candidate, k) => ({ candidate, k }))
    .filter(({ candidate }) => candidate.verdict === 'fits');
  if (fitting.length === 0) return null;
  const worth = ({ candidate: { chance, findings } }: (typeof fitting)[number]) =>
    Math.round((chance ?? 0) * 20) / 20 - 0.3 * findings.length;
  return fitting.reduce((best, next) => (worth(next) > worth(best) + 1e-9 ? next : best)).k;
}

/**
 * A belt's marked length that cannot be fitted, with what was measured of the length taken into account; null where it
 * can.
 */
export function markedMisfitOf(drive: Drive, beltId: string): MarkedMisfit | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt?.length) return null;
  const measured = (belt.measurements ?? []).length > 0 ? answerFor(drive, beltId, { lengths: [], draws: 0 }) : null;
  return markedMisfit(drive, beltId, measured?.measured.shiftMm ?? 0);
}

/** Another length that fits, by its chance; of those as likely the one nearest to the first, mm. Null without one. */
export function secondTo(lengthMm: number, { candidates }: Pick<SizeAnswer, 'candidates'>): number | null {
  const fitting = candidates.filter(({ verdict, lengthMm: mm }) => verdict === 'fits' && Math.abs(mm - lengthMm) > 0.5);
  const worth = ({ chance, lengthMm: mm }: (typeof fitting)[number]) =>
    Math.round(20 * (chance ?? 0)) - Math.abs(mm - lengthMm) / 1000;
  return fitting.length === 0
    ? null
    : fitting.reduce((best, next) => (worth(next) > worth(best) ? next : best)).lengthMm;
}

/** A belt of a drive in some length, mm, as it is asked for at a counter. */
export function askForBelt({ section: name, ribs, build, sectionOverrides }: Belt, lengthMm: number): AskFor {
  const toothed = sectionFor(name)?.kind === 'toothed';
  return askFor({
    section: name,
    lengthMm,
    ...(ribs !== undefined && { ribs }),
    ...(build !== undefined && { build }),
    ...(toothed && sectionOverrides?.width !== undefined && { widthMm: sectionOverrides.width }),
  });
}
