import { stretchTension } from '../adjuster';
import type { Belt, Drive } from '../drive';
import { figureAt, hundredth } from '../numeric';
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
import type { CombinedLength } from './measured';
import type { GrowthDefaults } from './growth';
import { drawnLayout, type KnownLayout, knownLayout, type KnowOptions, withEvidence } from './known-layout';
import { serviceForecast, type ServiceForecast } from './forecast';
import { LIKELY, shownTried, type ShownTried, triedFindings } from './shown-tried';
import { beltFractionOf, chancesOf, spreadOf, type Uncertainty } from './uncertainty';

/** Marked lengths that are less apart than this are one, mm. */
const SAME_LENGTH_MM = 0.5;

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
  /** What was measured of the length itself, and how far all evidence moves the above from the drawing. */
  measured: CombinedLength;
  /** How much longer the path truly is than drawn, by all evidence, in the middle of the travel; null without one. */
  layout: { offsetMm: number; plusMinusMm: number } | null;
  /** The belts that were tried on, in the order of the file. */
  tried: ShownTried[];
  /** How the belt that was kept goes on from here; null where none was. */
  service: ServiceForecast | null;
}

/** Tension at rest that each marked length makes on fixed centres. */
export interface StretchCurve extends Pick<NonNullable<Sizing['tension']>, 'leastN' | 'setN' | 'mostN'> {
  points: { lengthMm: number; tensionN: number }[];
  /** One standard deviation of the path, mm. */
  sigma: number;
}

/** Points of that curve: it bends so little that more would not show. */
const STRETCH_POINTS = 24;

/** Which lengths to look at, and how closely. */
type AnswerOptions = Pick<SizeOptions, 'lengths' | 'also' | 'stock'> &
  Pick<KnowOptions, 'draws'> & {
    /** How belts of this section grow in this shop: the forecast alone goes by it, for the shop is not in the file. */
    growth?: GrowthDefaults | null;
    onProgress?: (fraction: number) => void;
  };

/**
 * Sizes a belt, with what was measured of its length, what the belts showed that were tried on, and the chance of each
 * candidate. Null where the drive has no such belt.
 */
export function answerFor(
  drive: Drive,
  beltId: string,
  { growth = null, onProgress, ...options }: AnswerOptions = {},
): SizeAnswer | null {
  const drawn = drawnLayout(drive, beltId);
  if (!drawn) return null;
  const known = withEvidence(drawn, drawn.belt, options);
  onProgress?.(0.5);
  const answer = answerFrom(known, options);
  if (!growth || !answer.service) return answer;
  return { ...answer, service: serviceForecast(withEvidence(drawn, drawn.belt, { ...options, growth })) };
}

/** The answer by a layout that is known. */
export function answerFrom(known: KnownLayout, options: Omit<AnswerOptions, 'onProgress' | 'growth'> = {}): SizeAnswer {
  const { drive, belt, layout, edges, drawn, measured, longer } = known;
  const sizing = sizeBelt(drive, belt.id, { ...options, curve: drawn.curve, ...(longer && { longer }) })!;
  const travel = sizing.curve?.travel ?? null;
  const tried = shownTried(known);
  // A wrong label says nothing of the belts that are truly of that length.
  const failed = tried
    .filter(({ chance, mislabelled }) => chance !== null && chance < LIKELY && mislabelled < LIKELY)
    .map(({ lengthMm }) => lengthMm);
  const isOpen = (mm: number) => failed.every((other) => Math.abs(other - mm) > SAME_LENGTH_MM);
  const lengths = sizing.candidates.map(({ lengthMm }) => lengthMm);
  const { chances, pair } = edges
    ? chancesOf(lengths, layout, edges, beltFractionOf(belt), isOpen)
    : { chances: lengths.map(() => 0), pair: null };
  const candidates = sizing.candidates.map((candidate, k) => ({
    ...candidate,
    lengthMm: options.lengths?.[k] ?? hundredth(candidate.lengthMm),
    chance: candidate.verdict === 'not-known' ? null : figureAt(chances, k),
  }));
  const spread = spreadOf(sizing, layout);
  const middle = layout.offsetAt((drawn.curve?.end ?? 0) / 2);
  const hasPath = Object.values(sizing.window).some((mm) => typeof mm === 'number');
  return {
    window: sizing.window,
    candidates,
    findings: [...sizing.findings, ...triedFindings(known)],
    release: puttingOn(drive, belt.id)!.release,
    lastOn: sizing.lastOn,
    curve: curvePoints(sizing.curve, spread),
    stretch: stretchOf(belt, sizing, spread[0] ?? 0),
    reads: travel?.reads ?? null,
    kind: travel?.kind ?? null,
    marks: travel?.marks ?? null,
    now: travel?.now ?? null,
    best: bestOf(candidates, isOpen),
    pair,
    measured: { ...measured, shiftMm: middle.mm, plusMinus: middle.sigma },
    layout: hasPath ? { offsetMm: middle.mm, plusMinusMm: middle.sigma } : null,
    tried,
    service: serviceForecast(known),
  };
}

/** Where on its travel the adjuster takes which length, and one standard deviation of that. */
function curvePoints(curve: Sizing['curve'], spread: readonly number[]): SizeAnswer['curve'] {
  if (!curve) return [];
  const last = curve.lengths.length - 1;
  return curve.lengths.flatMap((lengthMm, k) => {
    if (lengthMm === null) return [];
    const fraction = k / last;
    return [{ fraction, reading: curve.travel.readingAt(fraction), lengthMm, sigma: spread[k] ?? 0 }];
  });
}

/** From the shortest length looked at to the one that lies without tension. */
function stretchOf(belt: Belt, sizing: Sizing, sigma: number): StretchCurve | null {
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
      return { lengthMm, tensionN: stretchTension(belt, path - basis, lengthMm - basis) };
    }),
    sigma,
  };
}

/**
 * A belt that fits, surely, with reserve enough and none of the travel wasted: most chance first, then no finding, then
 * the shorter one, which lasts longer. One that was tried on and does not fit is not brought again.
 */
function bestOf(candidates: SizeAnswer['candidates'], isOpen: (mm: number) => boolean): number | null {
  const fitting = candidates
    .map((candidate, k) => ({ candidate, k }))
    .filter(({ candidate }) => candidate.verdict === 'fits' && isOpen(candidate.lengthMm));
  if (fitting.length === 0) return null;
  const worth = ({ candidate: { chance, findings } }: (typeof fitting)[number]) =>
    Math.round((chance ?? 0) * 20) / 20 - 0.3 * findings.length;
  return fitting.reduce((best, next) => (worth(next) > worth(best) + 1e-9 ? next : best)).k;
}

/**
 * A belt's marked length that cannot be fitted, with what was measured of the length and tried on taken into account;
 * null where it can.
 */
export function markedMisfitOf(drive: Drive, beltId: string): MarkedMisfit | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt?.length) return null;
  const evidence = (belt.measurements ?? []).length + (belt.tried ?? []).length > 0;
  return markedMisfit(drive, beltId, (evidence && knownLayout(drive, beltId, { draws: 1000 })?.longer) || undefined);
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
