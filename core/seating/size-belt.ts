import {
  adjustersOf,
  armTension,
  cordLengthOf,
  fractionFor,
  lengthAt,
  lengthCurve,
  type LengthCurve,
  type LongerThanDrawn,
  measuredCurve,
  pathLength,
  stretchTension,
} from '../adjuster';
import { type Belt, changePulley, type Drive } from '../drive';
import type { Figures, FindingOf } from '../finding';
import { beltClearances, solveBelt } from '../path';
import { halfGrooveAngle, markedLengthMm, type Section, sectionFor } from '../section';
import { centresAreFixed, fixedWindowOf } from './fixed-centres';
import type { FixedWindow } from './fixed-window';
import { lengthsAbout } from './lengths';
import { easiestLast, type LastOn } from './putting-on';

/** `not-known`: nobody said yet how the belt is tightened. */
export type Verdict = 'fits' | 'tight' | 'slack' | 'will-not-go-on' | 'out-of-travel' | 'rubs' | 'not-known';

/** How a belt would sit, and what of its adjuster stands in the way. */
/** Tension at rest, and what a new belt is set to, N; `byLoads` is 1 where this drive's loads ask for it. */
type Setting = { tensionN: number; setN: number; byLoads: number };
/** Degrees for a sprung arm, mm from the slack end for the others. */
type At = { at: number };

/** What sizing has to tell, by code. Figures: mm, N, degrees; `share` of 1. */
interface SizeCodes {
  'no-adjuster': Figures<{ lengthMm: number }>;
  'no-path': object;
  'past-best-push': Figures<At & { lengthMm: number }>;
  'lets-go': Figures<At & { lengthMm: number }>;
  'window-outside': object;
  'marks-swapped': object;
  'past-end': Figures<At>;
  /** `long` is 1 past the long mark, 0 past the short one. */
  'past-mark': Figures<At & { long: number }>;
  'little-reserve': Figures<{ reserveMm: number; wantedMm: number }>;
  'uses-most': Figures<{ share: number }>;
  'over-shaft': Figures<Setting & { limitN: number }>;
  'over-setting': Figures<Setting>;
  'under-setting': Figures<Setting>;
  'two-adjusters': object;
  /** A marking that is none of the belt's section. */
  'tried-unread': Figures<{ marking: string; section: string }>;
  /** What is likely wrong, a label with its length; how likely that is, and what else it may be. */
  'tried-contradicts': Figures<Contradicting & { or: Contradicting | null }>;
}

/** Evidence of a length that is likely wrong; `lengthMm` is a label's. */
export type Contradicting = { what: 'label' | 'measurement' | 'drawing'; lengthMm: number; chance: number };

export type SizeFinding = FindingOf<SizeCodes>;
export type SizeFindingCode = SizeFinding['code'];

export interface Candidate {
  lengthMm: number;
  verdict: Verdict;
  /** Degrees for a sprung arm, mm from the slack end for the others; null where the belt finds no place. */
  armAngle?: number | null;
  travel?: number | null;
  /** 0 at the short mark or slack end, 1 at the long mark or tight end. */
  position: number | null;
  /** At rest, N. */
  tensionN: number | null;
  /**
   * Where that is: as the belt sits, by a sprung arm or its own stretch on fixed centres; or the most there is, with
   * the adjuster at its tight end.
   */
  tensionAt: 'as-it-sits' | 'tight-end';
  leastClearanceMm: number | null;
  /** Length left to the long mark or tight end, for seating and stretch, mm. */
  reserveMm: number;
  findings: SizeFinding[];
  /** Share of the whole travel, for drawing. */
  fraction: number | null;
  /** Of a V-belt: how much deeper it rides once worn by `WORN_WIDTH_MM`, and its position then, null past the end. */
  worn?: { deeperMm: number; position: number | null };
}

/** Marked lengths in mm at the states of the adjuster. */
export interface Window {
  full?: number | null;
  shortMark?: number | null;
  longMark?: number | null;
  free?: number | null;
  slackEnd?: number | null;
  tightEnd?: number | null;
  /** As drawn, where nobody said how the belt is tightened. */
  drawn?: number | null;
}

export interface Sizing {
  window: Window;
  candidates: Candidate[];
  findings: SizeFinding[];
  /** The pulley a belt is easiest slipped over last, and the marked length it needs for that at the slack end. */
  lastOn: LastOn | null;
  curve: LengthCurve | null;
  /**
   * Shares of the travel between which a belt fits; on fixed centres the marked lengths, mm, between which one does.
   * Null where there is no path, or nobody said how the belt is tightened.
   */
  fits: { from: number; to: number } | null;
  /** On fixed centres, of a belt that is chosen by its tension at rest: what is right, N. */
  tension?: FixedWindow['tension'];
  /** On fixed centres, the shortest marked length that goes on at all, mm. */
  shortest?: number;
}

export interface SizeOptions {
  /** Marked lengths to look at, mm; a list of common steps about the window where there are none. */
  lengths?: readonly number[];
  /** Looked at besides, such as what is printed on the old belt; mm. */
  also?: readonly number[];
  /** Lengths that can be had, mm; those about the window are looked at. Common steps where there are none. */
  stock?: readonly number[];
  /** How much longer the path is than drawn, by what was measured; on fixed centres at 0. */
  longer?: LongerThanDrawn;
  /** The length curve of the belt on this very drive, where it is known already. */
  curve?: LengthCurve | null;
}

/** Kept for seating and stretch, as a fraction of the length, where the belt's own `reserve` does not say. Default. */
export const DEFAULT_RESERVE_FRACTION = 0.006;
/** A V-belt that has lost this much of its width is looked at besides the new one, mm. Default. */
export const WORN_WIDTH_MM = 1;
/** An adjuster drawn this fraction of its travel past an end is past it, and not merely rounded. */
const NEAR_END = 0.01;
/** A step that eats this fraction of a slot is called out. */
const HALF = 0.5;

/** Which lengths of belt would do on a drive, and how each would sit. Null where the drive has no such belt. */
export function sizeBelt(drive: Drive, beltId: string, options: SizeOptions = {}): Sizing | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return null;
  const drawn = options.curve === undefined ? lengthCurve(drive, belt) : options.curve;
  const curve = drawn && options.longer ? measuredCurve(drawn, options.longer) : drawn;
  return curve ? adjusted(drive, belt, section, curve, options) : fixedCentres(drive, belt, section, options);
}

function adjusted(drive: Drive, belt: Belt, section: Section, curve: LengthCurve, options: SizeOptions): Sizing {
  const { travel, clear, end } = curve;
  const at = (fraction: number) => (clear !== null && fraction > clear ? null : lengthAt(curve, belt, fraction));
  const [slack, tight] = [at(0), at(1)];
  const arm = travel.reads === 'armAngle';
  const marks = travel.marks;
  // Past its best push, or once its roller has let go, an arm takes up no longer belt, whatever the mark says.
  const window: Window = arm
    ? {
        full: slack,
        shortMark: marks ? at(marks.short) : null,
        longMark: marks ? at(Math.min(marks.long, end)) : null,
        free: tight,
      }
    : { slackEnd: slack, tightEnd: tight };
  const findings = travelFindings(curve, at);
  if (adjustersOf(drive, belt).unclear) findings.push({ code: 'two-adjusters', severity: 'watch' });
  // The window that counts: between the marks or over the whole travel, as far as tightening tightens.
  const [from, to] = marks
    ? [Math.min(marks.short, marks.long), Math.min(end, Math.max(marks.short, marks.long))]
    : [0, end];
  if (marks && marks.short >= marks.long) findings.push({ code: 'marks-swapped', severity: 'fault' });
  const longest = at(to);
  const lengths =
    options.lengths ??
    common(
      section,
      options,
      Math.min(slack ?? Infinity, at(from) ?? Infinity),
      Math.max(longest ?? 0, arm ? (at(end) ?? 0) : 0),
    );
  const worn = section.kind === 'vee' ? wornDown(drive, belt) : null;
  const longerAt = (fraction: number) => curve.longer?.(fraction) ?? 0;
  const lastOn = easiestLast(travel.at(0), belt, section);
  const tightCord = cordLengthOf(solveBelt(travel.at(to), belt.id)!);
  const wornCurve = worn && lengthCurve(worn.drive, belt);
  const seat: Seat = {
    ...{ drive, belt, section, curve, from, to, longest },
    toMark: marks ? Math.max(marks.short, marks.long) : to,
    lastOn: lastOn && { ...lastOn, needsMm: lastOn.needsMm + longerAt(0) },
    tightCord: tightCord === null ? null : tightCord + longerAt(to),
    worn,
    wornCurve: wornCurve && curve.longer ? measuredCurve(wornCurve, curve.longer) : wornCurve,
  };
  const candidates = lengths.map((lengthMm) => candidateOf(seat, lengthMm));
  return { window, candidates, findings, lastOn: seat.lastOn, curve, fits: { from, to } };
}

/** What is amiss with the adjuster's travel, whatever the belt; `at` gives the length that it takes there. */
function travelFindings({ travel, peak, clear }: LengthCurve, at: (fraction: number) => number | null): SizeFinding[] {
  const findings: SizeFinding[] = [];
  const { marks, now } = travel;
  if (at(0) === null || (at(1) === null && clear === null)) findings.push({ code: 'no-path', severity: 'fault' });
  if (peak !== null)
    findings.push({
      code: 'past-best-push',
      severity: 'watch',
      figures: { at: travel.readingAt(peak), lengthMm: at(peak) ?? 0 },
    });
  if (clear !== null)
    findings.push({
      code: 'lets-go',
      severity: marks && marks.long > clear ? 'fault' : 'watch',
      figures: { at: travel.readingAt(clear), lengthMm: at(clear) ?? 0 },
    });
  if (marks && (Math.min(marks.short, marks.long) < -1e-9 || Math.max(marks.short, marks.long) > 1 + 1e-9))
    findings.push({ code: 'window-outside', severity: 'fault' });
  const past = now < -NEAR_END || now > 1 + NEAR_END;
  if (past) findings.push({ code: 'past-end', severity: 'fault', figures: { at: travel.readingAt(now) } });
  else if (marks && marks.short < marks.long && (now < marks.short - NEAR_END || now > marks.long + NEAR_END))
    findings.push({
      code: 'past-mark',
      severity: 'watch',
      figures: { at: travel.readingAt(now), long: Number(now > marks.long) },
    });
  return findings;
}

/** What a length of belt is held against. */
interface Seat {
  drive: Drive;
  belt: Belt;
  section: Section;
  curve: LengthCurve;
  /** The window that counts, and the mark or end at which an adjuster has used all of it; fractions of the travel. */
  from: number;
  to: number;
  toMark: number;
  /** At `to`, mm. */
  longest: number | null;
  tightCord: number | null;
  lastOn: Sizing['lastOn'];
  worn: { deeperMm: number } | null;
  wornCurve: LengthCurve | null;
}

function verdictOf({ lastOn, from, to }: Seat, lengthMm: number, fraction: number | null): Verdict {
  if (lastOn === null || lengthMm < lastOn.needsMm - 1e-6) return 'will-not-go-on';
  if (fraction === null) return 'out-of-travel';
  if (fraction < from - 1e-9) return 'tight';
  return fraction > to + 1e-9 ? 'slack' : 'fits';
}

/** How a belt of that length would sit. */
function candidateOf(seat: Seat, lengthMm: number): Candidate {
  const { drive, belt, section, curve, from, to, toMark, tightCord, worn, wornCurve } = seat;
  const { travel } = curve;
  const arm = travel.reads === 'armAngle';
  const fraction = fractionFor(curve, belt, lengthMm);
  const reserveMm = (seat.longest ?? lengthMm) - lengthMm;
  const cord = lengthMm - markedLengthMm(0, section);
  const byArm = arm && fraction !== null ? armTension(drive, belt, curve, fraction) : null;
  const byStretch = arm || tightCord === null ? null : stretchTension(belt, tightCord, cord);
  const position = positionOf(fraction, from, toMark);
  const wanted = (belt.reserve ?? DEFAULT_RESERVE_FRACTION) * lengthMm;
  const min =
    fraction === null
      ? null
      : leastClearance(curve, belt, fraction, Math.max(fraction, fractionFor(curve, belt, lengthMm + wanted) ?? to));
  const sits = verdictOf(seat, lengthMm, fraction);
  const findings: SizeFinding[] = [];
  if (sits === 'fits') {
    if (reserveMm < wanted)
      findings.push({ code: 'little-reserve', severity: 'watch', figures: { reserveMm, wantedMm: wanted } });
    if (!arm && position !== null && position > HALF)
      findings.push({ code: 'uses-most', severity: 'watch', figures: { share: position } });
  }
  return {
    lengthMm,
    verdict: sits === 'fits' && min !== null && min < 0 ? 'rubs' : sits,
    ...(arm
      ? { armAngle: fraction === null ? null : travel.readingAt(fraction) }
      : { travel: fraction === null ? null : travel.readingAt(fraction) }),
    position,
    tensionN: byArm ?? byStretch,
    tensionAt: arm ? 'as-it-sits' : 'tight-end',
    leastClearanceMm: min,
    reserveMm,
    findings,
    fraction,
    ...(worn &&
      wornCurve && {
        worn: { deeperMm: worn.deeperMm, position: positionOf(fractionFor(wornCurve, belt, lengthMm), from, toMark) },
      }),
  };
}

/**
 * The drive with a worn V-belt on it: one that has lost Δw of width sits Δw / (2·tan(half groove angle)) deeper in
 * every V.
 */
function wornDown(drive: Drive, belt: Belt): { drive: Drive; deeperMm: number } {
  const on = new Set(belt.route.map(({ pulley }) => pulley));
  const grooves = drive.stations.flatMap(({ pulleys }) =>
    pulleys.filter(({ id, surface }) => surface === 'vee' && on.has(id)),
  );
  const deeper = (pulley: { grooveAngle?: number }) => WORN_WIDTH_MM / (2 * Math.tan(halfGrooveAngle(pulley)));
  return {
    drive: grooves.reduce(
      (worn, groove) => changePulley(worn, groove.id, { ride: (groove.ride ?? 0) - deeper(groove) }),
      drive,
    ),
    deeperMm: deeper(grooves[0] ?? {}),
  };
}

/** 0 at one end of a window, 1 at the other; null outside all travel, and for a window without width. */
function positionOf(fraction: number | null, from: number, to: number): number | null {
  return fraction === null || to <= from ? null : (fraction - from) / (to - from);
}

function fixedCentres(drive: Drive, belt: Belt, section: Section, options: SizeOptions): Sizing {
  const longer = options.longer?.(0) ?? 0;
  const drawn = pathLength(drive, belt);
  const path = drawn === null ? null : drawn + longer;
  const said = centresAreFixed(drive, belt);
  const findings: SizeFinding[] = [
    ...(path === null ? [{ code: 'no-path', severity: 'fault' } as const] : []),
    ...(said ? [] : [{ code: 'no-adjuster', severity: 'watch', figures: { lengthMm: path ?? 0 } } as const]),
  ];
  const clear = beltClearances(drive, solveBelt(drive, belt.id)!).least;
  const basis = markedLengthMm(0, section);
  const bare = (lengthMm: number): Candidate => ({
    lengthMm,
    verdict: 'not-known',
    travel: path === null ? null : 0,
    position: path === null ? null : 0,
    tensionN: null,
    tensionAt: 'as-it-sits',
    leastClearanceMm: clear,
    reserveMm: path === null ? 0 : path - lengthMm,
    findings: [],
    fraction: path === null ? null : 0,
  });
  // Nobody said how it is tightened: no length is right or wrong yet.
  if (!said || path === null) {
    const lengths = options.lengths ?? options.also ?? [];
    return { window: { drawn: path }, candidates: lengths.map(bare), findings, lastOn: null, curve: null, fits: null };
  }
  const fit = fixedWindowOf(drive, belt, section, longer)!;
  const lengths = options.lengths ?? common(section, options, fit.from, fit.to);
  const candidates = lengths.map((lengthMm): Candidate => {
    // What a belt that is made to stretch on pulls with, no default of ordinary cords says.
    const tensionN = fit.tension ? stretchTension(belt, path - basis, lengthMm - basis) : null;
    const verdict = fixedVerdict(lengthMm, fit, path, clear);
    const own = fit.tension ? settingFindings(verdict, tensionN ?? 0, fit.tension) : [];
    return { ...bare(lengthMm), verdict, tensionN, findings: own };
  });
  return {
    window: { slackEnd: path, tightEnd: path },
    candidates,
    findings,
    lastOn: null,
    curve: null,
    fits: { from: fit.from, to: fit.to },
    tension: fit.tension,
    shortest: fit.shortest,
  };
}

/** What a new belt's setting has against a belt on fixed centres. */
function settingFindings(
  verdict: Verdict,
  tensionN: number,
  { setN, byLoads, held }: NonNullable<FixedWindow['tension']>,
): SizeFinding[] {
  const figures = { tensionN, setN, byLoads: Number(byLoads) };
  if (verdict === 'slack') return [{ code: 'under-setting', severity: 'watch', figures }];
  if (verdict !== 'tight') return [];
  return held
    ? [{ code: 'over-shaft', severity: 'fault', figures: { ...figures, limitN: held.limitN } }]
    : [{ code: 'over-setting', severity: 'fault', figures }];
}

function fixedVerdict(
  lengthMm: number,
  { from, to, shortest }: FixedWindow,
  path: number,
  clear: number | null,
): Verdict {
  if (lengthMm > path + 1e-9) return 'out-of-travel';
  if (lengthMm < shortest - 1e-9) return 'will-not-go-on';
  if (lengthMm < from - 1e-9) return 'tight';
  if (lengthMm > to + 1e-9) return 'slack';
  return clear !== null && clear < 0 ? 'rubs' : 'fits';
}

/** The least any span clears anything by while the belt wears in, from one fraction of the travel to another; mm. */
function leastClearance({ travel }: LengthCurve, belt: Belt, from: number, to: number): number | null {
  const steps = 4;
  const found = Array.from({ length: steps + 1 }, (_, k) => {
    const drive = travel.at(from + ((Math.min(1, to) - from) * k) / steps);
    return beltClearances(drive, solveBelt(drive, belt.id)!).least;
  }).filter((mm): mm is number => mm !== null);
  return found.length === 0 ? null : Math.min(...found);
}

/** Common lengths and those asked for besides. */
function common(section: Section, { also = [], stock = [] }: SizeOptions, shortest: number, longest: number): number[] {
  const lengths = lengthsAbout(section, shortest, longest, stock);
  return [...lengths, ...also.filter((mm) => lengths.every((other) => Math.abs(other - mm) > 0.005))].sort(
    (a, b) => a - b,
  );
}
