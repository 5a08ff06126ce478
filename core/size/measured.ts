import { cordLengthOf, type LengthCurve, pathLength } from '../adjuster';
import { type AdjusterState, type Belt, type Drive, type Lay, type Measurement, pulleysById } from '../drive';
import { againstTheOthers, deviationsApart, type Figure, weightedMean } from '../numeric';
import { type LoopCircle, loopRound, solveBelt } from '../path';
import { markedLengthMm, sectionFor } from '../section';
import { FINEST } from '../survey';
import { corrected, filledIn, liesEitherWay, type ToldByTool, toldOffTheDrive, toolRadius } from './told';

export interface MeasuredLength extends ToldByTool {
  id: string;
  /**
   * The correction by pulley, then the straight pieces, then from cord to marked line; empty where the tool was not
   * laid on the drive.
   */
  parts: { pulley?: string; part: 'pulley' | 'spans' | 'marked-line'; mm: number }[];
  /** Marked length less that of the drawing at the same adjuster state, mm; null where the drawing has none. */
  againstDrawing: number | null;
  /** How a string was taken to lie; null for what lies one way only. */
  lay: Lay | null;
  /**
   * The other witnesses of the length say that it lay the other way: so it is taken where nobody said, and told where
   * somebody did.
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
}

/** The fraction of the travel a state stands for; null for where the drawing has it. */
function fractionOf(state: AdjusterState, curve: LengthCurve): number | null {
  const { marks } = curve.travel;
  if (state === 'slack') return 0;
  if (state === 'tight') return 1;
  if (state === 'short-mark') return marks?.short ?? 0;
  if (state === 'long-mark') return marks?.long ?? 1;
  return null;
}

/**
 * What a measurement says of the belt's marked length on this layout. A laid-on tool gets its own path over these
 * pulleys; the difference between that and the belt's is the correction. Null where the layout gives no path.
 */
export function measuredLength(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  measurement: Measurement,
): MeasuredLength | null {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const { tool } = measurement;
  const { thickness } = filledIn(measurement);
  const fraction = curve ? fractionOf(measurement.state ?? 'as-drawn', curve) : null;
  const there = curve && fraction !== null ? curve.travel.at(fraction) : drive;
  const drawn = pathLength(there, belt);
  const told = (by: ToldByTool, parts: MeasuredLength['parts']): MeasuredLength => ({
    ...by,
    id: measurement.id,
    parts,
    againstDrawing: drawn === null ? null : by.markedMm - drawn,
    lay: liesEitherWay(tool) ? (measurement.lay ?? 'groove') : null,
    layTold: false,
    suspect: false,
  });
  const apart = toldOffTheDrive(section, measurement);
  if (apart) return told(apart, []);
  const solved = solveBelt(there, belt.id)!;
  const cord = cordLengthOf(solved);
  const pulleys = pulleysById(there);
  const line = lineRound(
    solved.contacts.map(({ pulley, side, centre, turn, wrapDeg }) => ({
      ...centre,
      turn,
      radius: toolRadius(pulleys.get(pulley)!.pulley, side, section, tool, thickness, measurement.lay),
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
  return told(
    corrected(
      measurement,
      parts.reduce((sum, part) => sum + part.mm, 0),
    ),
    parts,
  );
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
    const most = beyond.indexOf(Math.max(...beyond));
    if (beyond[most]! <= Math.PI || touched.length <= 2) {
      const arcs = circles.map((_, k) => (touched.includes(k) ? line.arcs[touched.indexOf(k)]! : 0));
      return { arcs, spansMm: line.spans.reduce((sum, one) => sum + one, 0) };
    }
    touched.splice(most, 1);
  }
}

/** A measurement this many standard deviations from all the others is to be taken again. */
const SUSPECT_AT = 3;

/**
 * All measurements of a belt, weighed by their ±, with the drawing (good to `drawnSigma`) as one more witness. The
 * outcome is how much longer every path is than the drawing makes it.
 */
export function combinedLength(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  drawnSigma: number,
): CombinedLength {
  const sigma0 = Math.max(0.1, drawnSigma);
  const plain = (belt.measurements ?? []).flatMap((measurement) => {
    const result = measuredLength(drive, belt, curve, measurement);
    return result ? [{ measurement, result }] : [];
  });
  const measured = plain.map(({ measurement, result }) => {
    const witnesses = [
      ...plain.filter((other) => other.measurement !== measurement).flatMap(({ result: other }) => witnessOf(other)),
      { at: 0, sigma: sigma0 },
    ];
    return layTold(drive, belt, curve, measurement, result, witnesses);
  });
  const all = [
    ...measured.flatMap((one, k) => witnessOf(one).map((witness) => ({ ...witness, k }))),
    { at: 0, sigma: sigma0, k: -1 },
  ];
  const { at: shiftMm, sigma } = weightedMean(all);
  const scores = againstTheOthers(all).map((apart, k) => ({ one: all[k]!, score: Math.abs(apart ?? 0) }));
  const worst = scores.reduce((most, next) => (next.score > most.score ? next : most));
  const disagree = worst.score > SUSPECT_AT;
  return {
    measured: measured.map((one, k) => ({ ...one, suspect: disagree && all.length > 2 && worst.one.k === k })),
    shiftMm,
    disagree,
    plusMinus: disagree ? (sigma * worst.score) / SUSPECT_AT : sigma,
  };
}

/** How much longer a path is than drawn by one witness, and how sure that is, mm. */
function witnessOf({ againstDrawing, plusMinus }: MeasuredLength): Figure[] {
  return againstDrawing === null ? [] : [{ at: againstDrawing, sigma: Math.max(FINEST, plusMinus) }];
}

/**
 * A string that lay on the rims reads many mm more than one in the grooves. Where the other witnesses contradict the
 * way it is taken to lie and agree with the other way, it is taken so if nobody said how it lay; what somebody said
 * stands, and is told.
 */
function layTold(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve | null,
  measurement: Measurement,
  result: MeasuredLength,
  others: readonly Figure[],
): MeasuredLength {
  if (result.lay === null) return result;
  const [own] = witnessOf(result);
  const turned = measuredLength(drive, belt, curve, {
    ...measurement,
    lay: result.lay === 'groove' ? 'rim' : 'groove',
  });
  const [other] = turned ? witnessOf(turned) : [];
  if (!own || !other) return result;
  const rest = weightedMean(others);
  const apart = (one: Figure) => Math.abs(deviationsApart(one, rest));
  if (apart(own) <= SUSPECT_AT || apart(other) > SUSPECT_AT) return result;
  return { ...(measurement.lay === undefined ? turned! : result), layTold: true };
}
