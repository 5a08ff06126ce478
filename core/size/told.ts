import type { Lay, Measurement, Pulley, Tool } from '../drive';
import { bodyRadiusMm, halfGrooveAngle, markedLengthMm, type Section } from '../section';

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

/** A V groove is as deep as the belt is thick, and this much more, mm, give or take so much. Defaults. */
const VEE_CLEARANCE = { mm: 2, plusMinus: 1.5 };
/**
 * An old belt laid doubled on the bench bends round at both ends, with half a turn at each that no tape laid along it
 * follows: 20 to 35 mm of it all in all, any of that as likely. A default.
 */
const BENT_ENDS = { mm: (20 + 35) / 2, plusMinus: (35 - 20) / Math.sqrt(12) };

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
  veeClearance = VEE_CLEARANCE.mm,
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
    vee || !section.groove ? { open: section.width, depth: section.thickness + veeClearance } : section.groove;
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

/**
 * How far out that line may be, one standard deviation, mm: a tool that lies on the floor of a V groove lies as deep as
 * the groove, which nobody measured.
 */
export function toolRadiusDoubt(...[pulley, side, section, tool, thickness, lay]: ToolOnPulley): number {
  if (pulley.surface !== 'vee') return 0;
  const at = (deeper: number) =>
    toolRadius(pulley, side, section, tool, thickness, lay, VEE_CLEARANCE.mm + deeper * VEE_CLEARANCE.plusMinus);
  return Math.abs(at(-1) - at(1)) / 2;
}

type ToolOnPulley = [
  pulley: Pulley,
  side: 'drive' | 'back',
  section: Section,
  tool: Tool,
  thickness: number,
  lay?: Lay,
];

/** A rule of thumb. */
export type RuleOfThumb = 'as-read' | 'less-half-inch' | 'plus-inch' | 'less-one-percent';

/** What a tool tells of a marked length. */
export interface ToldByTool {
  /** The marked length it speaks for, with the adjuster where it stood then, mm; and one standard deviation. */
  markedMm: number;
  plusMinus: number;
  /** What is added to the tape's reading, once doubled and stretch are allowed for. */
  correctionMm: number;
  /** Rules of thumb, and how far each would have been wrong here, mm. */
  rules: { rule: RuleOfThumb; offMm: number }[];
}

/** A measurement with what it leaves open filled in by its tool's defaults. */
export function filledIn({ tool, mm, doubled = false, circumference = 0, ...own }: Omit<Measurement, 'id'>) {
  const {
    thickness = TOOL_DEFAULTS[tool].thickness,
    stretch = TOOL_DEFAULTS[tool].stretch,
    worn = TOOL_DEFAULTS[tool].worn,
    plusMinus = TOOL_DEFAULTS[tool].plusMinus,
  } = own;
  return { tool, mm, doubled, circumference, thickness, stretch, worn, plusMinus };
}

/**
 * What is told by a reading that a correction in mm is added to, once it is doubled and pulled as it was laid; `doubt`
 * is the correction's own standard deviation. What the tape is out by, doubling doubles.
 */
export function corrected(measurement: Omit<Measurement, 'id'>, correction: number, doubt = 0): ToldByTool {
  const { mm, doubled, stretch, plusMinus } = filledIn(measurement);
  const read = mm * (doubled ? 2 : 1);
  const markedMm = read * (1 + stretch) + correction;
  return {
    markedMm,
    plusMinus: Math.hypot(plusMinus * (doubled ? 2 : 1), doubt),
    correctionMm: markedMm - read,
    rules: rulesOfThumb(read, markedMm),
  };
}

function rulesOfThumb(read: number, markedMm: number): ToldByTool['rules'] {
  return [
    { rule: 'as-read', offMm: read - markedMm },
    { rule: 'less-half-inch', offMm: read - 12.7 - markedMm },
    { rule: 'plus-inch', offMm: read + 25.4 - markedMm },
    { rule: 'less-one-percent', offMm: 0.99 * read - markedMm },
  ];
}

/**
 * One of two figures, either as likely: their middle, with a standard deviation that holds both. mm.
 */
export function middleOf(
  first: Pick<ToldByTool, 'markedMm' | 'plusMinus'>,
  other: Pick<ToldByTool, 'markedMm' | 'plusMinus'>,
): Pick<ToldByTool, 'markedMm' | 'plusMinus'> {
  return {
    markedMm: (first.markedMm + other.markedMm) / 2,
    plusMinus: Math.hypot(
      Math.SQRT1_2 * Math.hypot(first.plusMinus, other.plusMinus),
      (first.markedMm - other.markedMm) / 2,
    ),
  };
}

/** Whether a measurement says all that its tool needs: a gauge is nothing without the way round its wheels. */
export function tellsLength({ tool, circumference }: Omit<Measurement, 'id'>): boolean {
  return tool !== 'gauge' || (circumference ?? 0) > 0;
}

/** What a tool that is not laid on the drive says of the marked length; null for one that is. */
export function toldOffTheDrive(section: Section, measurement: Omit<Measurement, 'id'>): ToldByTool | null {
  const { tool, mm, doubled, worn, circumference, plusMinus: taped } = filledIn(measurement);
  const read = mm * (doubled ? 2 : 1);
  const plusMinus = taped * (doubled ? 2 : 1);
  switch (tool) {
    case 'marking':
      return { markedMm: read, plusMinus, correctionMm: 0, rules: [] };
    case 'gauge': {
      const markedMm = 2 * mm + circumference;
      return { markedMm, plusMinus: taped, correctionMm: circumference + mm, rules: rulesOfThumb(2 * mm, markedMm) };
    }
    case 'old-belt': {
      // Taped round its back; what it has grown in use is taken off.
      const back = read + (doubled ? BENT_ENDS.mm : 0);
      const markedMm = (back - 2 * Math.PI * section.backOffset) / (1 + worn) + 2 * Math.PI * section.markedOffset;
      return {
        markedMm,
        plusMinus: Math.hypot(plusMinus, doubled ? BENT_ENDS.plusMinus : 0),
        correctionMm: markedMm - read,
        rules: rulesOfThumb(read, markedMm),
      };
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
  doubt = 0,
): ToldByTool {
  const correction = bends.reduce((sum, { away, radians }) => sum + away * radians, markedLengthMm(0, section));
  return corrected(measurement, correction, doubt);
}
