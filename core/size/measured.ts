import { cordLengthOf, type LengthCurve, pathLength } from '../adjuster';
import {
  type AdjusterState,
  type Belt,
  type Drive,
  type Lay,
  type Measurement,
  type Pulley,
  pulleysById,
  type Tool,
} from '../drive';
import { againstTheOthers, deviationsApart, type Figure, weightedMean } from '../numeric';
import { type LoopCircle, loopRound, solveBelt } from '../path';
import { bodyRadiusMm, halfGrooveAngle, markedLengthMm, type Section, sectionFor } from '../section';
import { FINEST } from '../survey';

/** What can lie either way; a strap always bridges the grooves. */
export function liesEitherWay(tool: Tool): boolean {
  return tool === 'string' || tool === 'rope' || tool === 'wire';
}

/** What each tool is by default: thickness in mm, ± in mm, stretch and wear as fractions. */
export const TOOL_DEFAULTS: Record<Tool, { thickness: number; plusMinus: number; stretch: number; worn: number }> = {
  string: { thickness: 2, plusMinus: 3, stretch: 0.003, worn: 0 },
  rope: { thickness: 6, plusMinus: 5, stretch: 0.005, worn: 0 },
  wire: { thickness: 1.5, plusMinus: 2, stretch: 0, worn: 0 },
  strap: { thickness: 1, plusMinus: 3, stretch: 0.002, worn: 0 },
  'old-belt': { thickness: 0, plusMinus: 4, stretch: 0, worn: 0.003 },
  gauge: { thickness: 0, plusMinus: 1.5, stretch: 0, worn: 0 },
  marking: { thickness: 0, plusMinus: 3, stretch: 0, worn: 0 },
};

/** A V groove is as deep as the belt is thick, and this much more, mm. Default. */
const VEE_CLEARANCE = 2;

export interface MeasuredLength {
  id: string;
  /** The marked length it speaks for, with the adjuster where it stood then, mm; and one standard deviation. */
  markedMm: number;
  plusMinus: number;
  /** What is added to the tape's reading, once doubled and stretch are allowed for. */
  correctionMm: number;
  /**
   * The correction by pulley, then the straight pieces, then from cord to marked line; empty where the tool was not
   * laid on the drive.
   */
  parts: { pulley?: string; part: 'pulley' | 'spans' | 'marked-line'; mm: number }[];
  /** Rules of thumb, and how far each would have been wrong here, mm. */
  rules: { rule: 'as-read' | 'less-half-inch' | 'plus-inch' | 'less-one-percent'; offMm: number }[];
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
 * The line in the middle of a tool laid on one pulley: into a groove a string drops, a strap bridges it, and so does a
 * string that stays on the rims; on a smooth face either lies as the belt's back would.
 */
export function toolRadius(
  pulley: Pulley,
  side: 'drive' | 'back',
  section: Section,
  tool: Tool,
  thickness: number,
  lay: Lay = 'groove',
): number {
  const rim = bodyRadiusMm(pulley, section);
  if (
    side === 'back' ||
    pulley.surface === 'smooth' ||
    pulley.surface === 'toothed' ||
    tool === 'strap' ||
    lay === 'rim'
  )
    return rim + thickness / 2;
  const vee = pulley.surface === 'vee';
  const { open, depth } =
    vee || !section.groove ? { open: section.width, depth: section.thickness + VEE_CLEARANCE } : section.groove;
  const half = halfGrooveAngle({
    grooveAngle: vee ? (pulley.grooveAngle ?? section.grooveAngle) : section.grooveAngle,
  });
  const floor = rim - depth + thickness / 2;
  // A round one touches the flanks a little inside its own width; where they end before that it rides on their two
  // edges.
  if ((thickness / 2) * Math.cos(half) > open / 2)
    return Math.max(floor, rim + Math.sqrt((thickness / 2) ** 2 - (open / 2) ** 2));
  return Math.max(floor, rim - open / 2 / Math.tan(half) + thickness / 2 / Math.sin(half));
}

/** What a tool tells of a marked length before any pulley is looked at. */
export type ToldByTool = Pick<MeasuredLength, 'markedMm' | 'plusMinus' | 'correctionMm' | 'rules'>;

/** A measurement with what it leaves open filled in by its tool's defaults. */
function filledIn({ tool, mm, doubled = false, circumference = 0, ...own }: Omit<Measurement, 'id'>) {
  const {
    thickness = TOOL_DEFAULTS[tool].thickness,
    stretch = TOOL_DEFAULTS[tool].stretch,
    worn = TOOL_DEFAULTS[tool].worn,
    plusMinus = TOOL_DEFAULTS[tool].plusMinus,
  } = own;
  return { tool, mm, doubled, circumference, thickness, stretch, worn, plusMinus };
}

/** What is told by a reading that a correction in mm is added to, once it is doubled and pulled as it was laid. */
function corrected(measurement: Omit<Measurement, 'id'>, correction: number): ToldByTool {
  const { mm, doubled, stretch, plusMinus } = filledIn(measurement);
  const read = mm * (doubled ? 2 : 1);
  const markedMm = read * (1 + stretch) + correction;
  return { markedMm, plusMinus, correctionMm: markedMm - read, rules: rulesOfThumb(read, markedMm) };
}

function rulesOfThumb(read: number, markedMm: number): MeasuredLength['rules'] {
  return [
    { rule: 'as-read', offMm: read - markedMm },
    { rule: 'less-half-inch', offMm: read - 12.7 - markedMm },
    { rule: 'plus-inch', offMm: read + 25.4 - markedMm },
    { rule: 'less-one-percent', offMm: 0.99 * read - markedMm },
  ];
}

/** What a tool that is not laid on the drive says of the marked length; null for one that is. */
export function toldOffTheDrive(section: Section, measurement: Omit<Measurement, 'id'>): ToldByTool | null {
  const { tool, mm, doubled, worn, circumference, plusMinus } = filledIn(measurement);
  const read = mm * (doubled ? 2 : 1);
  switch (tool) {
    case 'marking':
      return { markedMm: read, plusMinus, correctionMm: 0, rules: [] };
    case 'gauge': {
      const markedMm = 2 * mm + circumference;
      return { markedMm, plusMinus, correctionMm: circumference + mm, rules: rulesOfThumb(read, markedMm) };
    }
    case 'old-belt': {
      // Taped round its back; what it has grown in use is taken off.
      const markedMm = (read - 2 * Math.PI * section.backOffset) / (1 + worn) + 2 * Math.PI * section.markedOffset;
      return { markedMm, plusMinus, correctionMm: markedMm - read, rules: rulesOfThumb(read, markedMm) };
    }
    default:
      return null;
  }
}

/**
 * What a laid-on tool says where only its bends are known: the cord lies `away` mm further from the pulleys' metal than
 * the tool's middle over so many radians, by the faces it met. Line and cord are then taken to be parallel.
 */
export function toldByBends(
  section: Section,
  measurement: Omit<Measurement, 'id'>,
  bends: readonly { away: number; radians: number }[],
): ToldByTool {
  const correction = bends.reduce((sum, { away, radians }) => sum + away * radians, markedLengthMm(0, section));
  return corrected(measurement, correction);
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
