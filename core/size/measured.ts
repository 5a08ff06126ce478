import { cordLengthOf, type LengthCurve, pathLength } from '../adjuster';
import { type AdjusterState, type Belt, type Drive, type Lay, LAYS, type Measurement, pulleysById } from '../drive';
import { againstTheOthers, deviationsApart, type Figure, weightedMean } from '../numeric';
import { type LoopCircle, loopRound, solveBelt } from '../path';
import { markedLengthMm, sectionFor } from '../section';
import { FINEST } from '../survey';
import {
  corrected,
  filledIn,
  liesEitherWay,
  middleOf,
  tellsLength,
  type ToldByTool,
  toldOffTheDrive,
  toolRadius,
  toolRadiusDoubt,
} from './told';

export interface MeasuredLength extends ToldByTool {
  id: string;
  /**
   * The correction by pulley, then the straight pieces, then from cord to marked line; empty where the tool was not
   * laid on the drive.
   */
  parts: { pulley?: string; part: 'pulley' | 'spans' | 'marked-line'; mm: number }[];
  /** Marked length less that of the drawing at the same adjuster state, mm; null where the drawing has none. */
  againstDrawing: number | null;
  /** How a string lay, as said or as all else says; null for what lies one way only, and where it is not known. */
  lay: Lay | null;
  /** The marked length either way, mm, while nobody and nothing says how it lay; both are then as likely. */
  eitherWay: Readonly<Record<Lay, number>> | null;
  /**
   * The other witnesses of the length say how it lay: so it is taken where nobody said, and told where somebody said
   * otherwise.
   */
  layTold: boolean;
  suspect: boolean;
}

export interface CombinedLength {
  measured: MeasuredLength[];
  /** Added to every length the drawing gives, mm, and how sure that is. */
  shiftMm: number;
  plusMinus: number;
  /** They disagree by more than their ±, the drawing included. */
  disagree: boolean;
  /** By how much that widens the ±; 1 where they agree. */
  widen: number;
}

/** The fraction of the travel a state stands for; null for where the drawing has it. */
export function fractionOf(state: AdjusterState, { travel: { marks } }: Pick<LengthCurve, 'travel'>): number | null {
  if (state === 'slack') return 0;
  if (state === 'tight') return 1;
  if (state === 'short-mark') return marks?.short ?? 0;
  if (state === 'long-mark') return marks?.long ?? 1;
  return null;
}

/**
 * What a measurement says of the belt's marked length on this layout. A laid-on tool gets its own path over these
 * pulleys; the difference between that and the belt's is the correction. Of a string that may have lain either way it
 * is the middle of both, with a ± that holds both. Null where the layout gives no path, or the tool's figures do not
 * tell.
 */
export function measuredLength(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  measurement: Measurement,
): MeasuredLength | null {
  if (!tellsLength(measurement)) return null;
  if (!liesEitherWay(measurement.tool) || measurement.lay !== undefined)
    return lengthLaid(drive, belt, curve, measurement);
  const [groove, rim] = LAYS.map((lay) => lengthLaid(drive, belt, curve, { ...measurement, lay }));
  return groove && rim ? eitherWay(groove, rim) : null;
}

/** A string that lay one way or the other, as likely: their middle. */
function eitherWay(groove: MeasuredLength, rim: MeasuredLength): MeasuredLength {
  const { markedMm, plusMinus } = middleOf(groove, rim);
  const by = markedMm - groove.markedMm;
  return {
    ...groove,
    markedMm,
    plusMinus,
    correctionMm: groove.correctionMm + by,
    rules: groove.rules.map((rule) => ({ ...rule, offMm: rule.offMm - by })),
    parts: groove.parts.map((part, k) => ({ ...part, mm: (part.mm + rim.parts[k]!.mm) / 2 })),
    againstDrawing: groove.againstDrawing === null ? null : groove.againstDrawing + by,
    lay: null,
    eitherWay: { groove: groove.markedMm, rim: rim.markedMm },
  };
}

/** The same of a tool that lies as it is said, or can lie one way only. */
function lengthLaid(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  measurement: Measurement,
): MeasuredLength | null {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const { tool, lay } = measurement;
  const { thickness } = filledIn(measurement);
  const fraction = curve ? fractionOf(measurement.state ?? 'as-drawn', curve) : null;
  const there = curve && fraction !== null ? curve.travel.at(fraction) : drive;
  const drawn = pathLength(there, belt);
  const lengthBy = (by: ToldByTool, parts: MeasuredLength['parts']): MeasuredLength => ({
    ...by,
    id: measurement.id,
    parts,
    againstDrawing: drawn === null ? null : by.markedMm - drawn,
    lay: liesEitherWay(tool) ? (lay ?? null) : null,
    eitherWay: null,
    layTold: false,
    suspect: false,
  });
  const apart = toldOffTheDrive(section, measurement);
  if (apart) return lengthBy(apart, []);
  const solved = solveBelt(there, belt.id)!;
  const cord = cordLengthOf(solved);
  const pulleys = pulleysById(there);
  const on = solved.contacts.map(
    ({ pulley, side }) => [pulleys.get(pulley)!.pulley, side, section, tool, thickness, lay] as const,
  );
  const line = lineRound(
    solved.contacts.map(({ centre, turn, wrapDeg }, k) => ({
      ...centre,
      turn,
      radius: toolRadius(...on[k]!),
      wrapDeg,
    })),
  );
  if (cord === null || !line) return null;
  const parts: MeasuredLength['parts'] = [
    ...solved.contacts.map(({ pulley, arcLength }, k) => ({
      pulley,
      part: 'pulley' as const,
      mm: arcLength! - line.arcs[k]!,
    })),
    { part: 'spans', mm: solved.spans.reduce((sum, { length }) => sum + length!, 0) - line.spansMm },
    { part: 'marked-line', mm: markedLengthMm(0, section) },
  ];
  const correction = parts.reduce((sum, part) => sum + part.mm, 0);
  // A groove that is deeper lengthens the line by its wrap; each pulley's depth is a doubt of its own.
  const doubt = Math.hypot(
    ...solved.contacts.map(({ wrapDeg }, k) => (toolRadiusDoubt(...on[k]!) * (wrapDeg ?? 0) * Math.PI) / 180),
  );
  return lengthBy(corrected(measurement, correction, doubt), parts);
}

/** The line of a tool round the circles that a belt runs round, or past them. */
interface ToolLine {
  /** By circle; 0 for one that the line passes by. */
  arcs: number[];
  spansMm: number;
}

/**
 * The line of a laid-on tool round the circles that the belt bends round. One that the belt only just touches the line
 * may pass by, where it would have to bend the other way; it is then left out, the one by which the line would go
 * furthest round first. Null where two neighbours have no tangent.
 */
function lineRound(circles: readonly (LoopCircle & { wrapDeg: number | null })[]): ToolLine | null {
  const touched = circles.map((_, k) => k);
  for (;;) {
    const line = loopRound(touched.map((k) => circles[k]!));
    if (!line) return null;
    const beyond = touched.map(
      (k, n) => line.arcs[n]! / circles[k]!.radius - ((circles[k]!.wrapDeg ?? 0) * Math.PI) / 180,
    );
    const max = beyond.indexOf(Math.max(...beyond));
    if (beyond[max]! <= Math.PI || touched.length <= 2) {
      const arcs = circles.map((_, k) => (touched.includes(k) ? line.arcs[touched.indexOf(k)]! : 0));
      return { arcs, spansMm: line.spans.reduce((sum, span) => sum + span, 0) };
    }
    touched.splice(max, 1);
  }
}

/** What one measurement says: how much longer the path is than drawn at a fraction of the travel, either way it lay. */
export interface LengthWitness {
  id: string;
  fraction: number;
  ways: Figure[];
}

/** Every measurement of a belt as a witness of its layout; a string that may have lain either way has two ways. */
export function lengthWitnesses(drive: Drive, belt: Belt, curve: LengthCurve | null): LengthWitness[] {
  return (belt.measurements ?? []).flatMap((measurement, k): LengthWitness[] => {
    const { id, tool, state, lay } = measurement;
    if (!tellsLength(measurement)) return [];
    const open = liesEitherWay(tool) && lay === undefined && k < MOST_EITHER_WAY;
    const laid = open
      ? LAYS.map((way) => lengthLaid(drive, belt, curve, { ...measurement, lay: way }))
      : [measuredLength(drive, belt, curve, measurement)];
    const ways = laid.flatMap((length) => (length ? witnessOf(length) : []));
    const fraction = curve ? (fractionOf(state ?? 'as-drawn', curve) ?? curve.travel.now) : 0;
    return ways.length === laid.length ? [{ id, fraction, ways }] : [];
  });
}

/** A measurement this many standard deviations from all the others is to be taken again. */
const SUSPECT_AT = 3;

/** Of strings that nobody said the lie of, so many are weighed both ways against all others; the rest by the middle. */
const MOST_EITHER_WAY = 6;
/** More than this, and a string is taken to have lain so. A default. */
const TAKEN_TO_LIE = 0.95;

/**
 * All measurements of a belt, weighed by their ±, with the drawing (good to `drawnSigma`) as one more witness. The
 * outcome is how much longer every path is than the drawing makes it. A string that may have lain either way is taken
 * both ways, each as likely as all the witnesses together make it: a mixture of normals, told by its mean and spread.
 */
export function combinedLength(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  drawnSigma: number,
): CombinedLength {
  const drawing: Figure = { at: 0, sigma: Math.max(0.1, drawnSigma) };
  const plain = (belt.measurements ?? []).flatMap((measurement) => {
    const result = measuredLength(drive, belt, curve, measurement);
    return result ? [{ measurement, result }] : [];
  });
  const laid = (measurement: Measurement, lay: Lay) => lengthLaid(drive, belt, curve, { ...measurement, lay });
  const open = plain.filter(({ result }) => result.eitherWay !== null).slice(0, MOST_EITHER_WAY);
  const ways = open.map(({ measurement }) => LAYS.map((lay) => laid(measurement, lay)!));
  const sure = [
    drawing,
    ...plain.filter((measured) => !open.includes(measured)).flatMap(({ result }) => witnessOf(result)),
  ];
  const mixture = mixedMean(
    sure,
    ways.map((each) => each.map((length) => witnessOf(length)[0] ?? null)),
  );
  const measured = plain.map((plainWay): MeasuredLength => {
    const { measurement, result } = plainWay;
    const k = open.indexOf(plainWay);
    if (k >= 0) {
      const likely = mixture.chances[k]!.findIndex((chance) => chance > TAKEN_TO_LIE);
      return likely < 0 ? result : { ...ways[k]![likely]!, layTold: true };
    }
    if (result.lay === null) return result;
    const others = plain.filter((other) => other !== plainWay).flatMap(({ result: other }) => witnessOf(other));
    const otherWay = laid(measurement, result.lay === 'groove' ? 'rim' : 'groove');
    return { ...result, layTold: otherWay !== null && contradicted(result, otherWay, [...others, drawing]) };
  });
  const all = [
    ...measured.flatMap((length, k) => witnessOf(length).map((witness) => ({ ...witness, k }))),
    { ...drawing, k: -1 },
  ];
  const scores = againstTheOthers(all).map((apart, k) => ({ k: all[k]!.k, score: Math.abs(apart ?? 0) }));
  const worst = scores.reduce((found, next) => (next.score > found.score ? next : found));
  const disagree = worst.score > SUSPECT_AT;
  return {
    measured: measured.map((length, k) => ({ ...length, suspect: disagree && all.length > 2 && worst.k === k })),
    shiftMm: mixture.at,
    disagree,
    widen: disagree ? worst.score / SUSPECT_AT : 1,
    plusMinus: disagree ? (mixture.sigma * worst.score) / SUSPECT_AT : mixture.sigma,
  };
}

/**
 * The weighted mean of sure figures and of some that are one of two, by every choice of those: each choice counts by
 * how well its figures agree (the evidence of one common value). `chances` by figure and way.
 */
function mixedMean(
  sure: readonly Figure[],
  ways: readonly (readonly (Figure | null)[])[],
): Figure & { chances: number[][] } {
  const choices = ways.reduce<number[][]>(
    (all, way) => all.flatMap((choice) => way.map((_, k) => [...choice, k])),
    [[]],
  );
  const weighed = choices.map((choice) => {
    const figures = [...sure, ...choice.flatMap((k, w) => ways[w]![k] ?? [])];
    const mean = weightedMean(figures);
    const apart = figures.reduce((sum, { at, sigma }) => sum + ((at - mean.at) / sigma) ** 2 / 2 + Math.log(sigma), 0);
    return { choice, mean, log: Math.log(mean.sigma) - apart };
  });
  const best = Math.max(...weighed.map(({ log }) => log));
  const total = weighed.reduce((sum, { log }) => sum + Math.exp(log - best), 0);
  const shares = weighed.map((choice) => ({ ...choice, share: Math.exp(choice.log - best) / total }));
  const at = shares.reduce((sum, { share, mean }) => sum + share * mean.at, 0);
  const variance = shares.reduce((sum, { share, mean }) => sum + share * (mean.sigma ** 2 + (mean.at - at) ** 2), 0);
  return {
    at,
    sigma: Math.sqrt(variance),
    chances: ways.map((way, w) =>
      way.map((_, k) => shares.reduce((sum, { share, choice }) => sum + (choice[w] === k ? share : 0), 0)),
    ),
  };
}

/** How much longer a path is than drawn by one witness, and how sure that is, mm. */
function witnessOf({ againstDrawing, plusMinus }: MeasuredLength): Figure[] {
  return againstDrawing === null ? [] : [{ at: againstDrawing, sigma: Math.max(FINEST, plusMinus) }];
}

/** Whether the other witnesses contradict the way that a string is said to have lain, and agree with the other way. */
function contradicted(said: MeasuredLength, otherWay: MeasuredLength, others: readonly Figure[]): boolean {
  const [[own], [other]] = [witnessOf(said), witnessOf(otherWay)];
  if (!own || !other) return false;
  const rest = weightedMean(others);
  const apart = (figure: Figure) => Math.abs(deviationsApart(figure, rest));
  return apart(own) > SUSPECT_AT && apart(other) <= SUSPECT_AT;
}
