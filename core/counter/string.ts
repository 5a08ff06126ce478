import { type Lay, type Measurement, type Pulley, SURFACE_OF } from '../drive';
import { cordRadiusMm, type Section, type Side, type Surface } from '../section';
import {
  liesEitherWay,
  middleOf,
  tellsLength,
  toldByBends,
  toldOffTheDrive,
  type ToldByTool,
  TOOL_DEFAULTS,
  toolRadius,
  toolRadiusDoubt,
} from '../size';
import { toRadians } from '../numeric';

/** How far a belt bends round a pulley, as a mechanic sees it. */
export const BENDS = ['kisses', 'quarter', 'half', 'more'] as const;
export type Bend = (typeof BENDS)[number];

/** What each takes in, degrees: between these any bend is taken as likely as another. Defaults. */
export const BEND_RANGES: Record<Bend, readonly [least: number, most: number]> = {
  kisses: [0, 45],
  quarter: [45, 135],
  half: [135, 225],
  more: [225, 315],
};
/** One standard deviation of a bend told in degrees. A default. */
const TOLD_DEGREES = 8;
/** A drive has about so many V pulleys, each with a groove of a depth of its own. A default. */
const DEEP_GROOVES = 3;
/** Where line and cord are not parallel they cross on spans of about this length, mm. A default. */
const CROSSING_SPAN_MM = 120;

/**
 * A pulley that calls for a correction of its own: one that the belt's back rides on, or a smooth one that its drive
 * side rides on. `bend` is how far the belt bends round it, told or in degrees.
 */
export interface Riding {
  on: 'back' | 'smooth';
  bend: Bend | number;
}

/** So much a length measured without a drive needs: the tool and what it read, and the pulleys that bend it back. */
export interface StringAsk {
  section: Section;
  measurement: Omit<Measurement, 'id' | 'state' | 'at'>;
  riding: readonly Riding[];
}

export interface StringAnswer extends ToldByTool {
  /** One standard deviation by what it comes from, mm; `plusMinus` is all of it. */
  doubts: { reading: number; bends: number; lay: number };
  /** How a string lay, as said; null for what lies one way only, and where nobody looked. */
  lay: Lay | null;
  /** What it comes to either way, while nobody looked: both are as likely, and `markedMm` is their middle. */
  eitherWay: Readonly<Record<Lay, LengthTold>> | null;
}

/** A marked length with one standard deviation, mm. */
export type LengthTold = Pick<ToldByTool, 'markedMm' | 'plusMinus'>;

/**
 * The marked length behind a measured one, with no drive known. A closed belt turns one full turn more on its drive
 * side than on its back; so the line of a string differs from the belt's by what lies between them on a drive-side
 * face over one turn and all of the back's bends, and by what lies between them on the back over the latter. That is
 * the length's change to the first order; lines that are not parallel add doubt. A string that nobody looked at may
 * have lain in the grooves or on the rims: both are told. A drive that is known gives the whole sum: `measuredLength`.
 * Throws for a gauge without the way round its wheels: ask `tellsLength` first.
 */
export function stringLength({ section, measurement, riding }: StringAsk): StringAnswer {
  if (!tellsLength(measurement)) throw new RangeError('enter the circumference of the gauge’s wheels');
  const apart = toldOffTheDrive(section, measurement);
  if (apart) return { ...apart, doubts: { reading: apart.plusMinus, bends: 0, lay: 0 }, lay: null, eitherWay: null };
  const laid = (lay: Lay | null) => byBends(section, measurement, riding, lay);
  if (!liesEitherWay(measurement.tool) || measurement.lay !== undefined) {
    const lay = measurement.lay ?? null;
    return { ...laid(lay), lay, eitherWay: null };
  }
  const [groove, rim] = [laid('groove'), laid('rim')];
  const middle = middleOf(groove, rim);
  const figuresOf = ({ markedMm, plusMinus }: LengthTold): LengthTold => ({ markedMm, plusMinus });
  const by = middle.markedMm - groove.markedMm;
  return {
    ...groove,
    ...middle,
    correctionMm: groove.correctionMm + by,
    rules: groove.rules.map((rule) => ({ ...rule, offMm: rule.offMm - by })),
    doubts: { ...groove.doubts, lay: Math.abs(by) },
    lay: null,
    eitherWay: { groove: figuresOf(groove), rim: figuresOf(rim) },
  };
}

function byBends(
  section: Section,
  measurement: StringAsk['measurement'],
  riding: readonly Riding[],
  lay: Lay | null,
): Omit<StringAnswer, 'lay' | 'eitherWay'> {
  const away = (surface: Surface, side: Side) => awayFrom(section, measurement, surface, side, lay);
  const drive = away(SURFACE_OF[section.kind], 'drive');
  const [back, smooth] = [away('smooth', 'back'), away('smooth', 'drive')];
  const [backTurn, smoothTurn] = [turnOn(riding, 'back'), turnOn(riding, 'smooth')];
  const driveRadians = 2 * Math.PI + backTurn.radians - smoothTurn.radians;
  const { thickness = TOOL_DEFAULTS[measurement.tool].thickness } = measurement;
  const depth =
    (toolRadiusDoubt(
      anyPulley(SURFACE_OF[section.kind]),
      'drive',
      section,
      measurement.tool,
      thickness,
      lay ?? undefined,
    ) *
      driveRadians) /
    Math.sqrt(DEEP_GROOVES);
  const length = toldByBends(
    section,
    measurement,
    [
      { away: drive, radians: driveRadians },
      { away: smooth, radians: smoothTurn.radians },
      { away: back, radians: backTurn.radians },
    ],
    depth,
  );
  // The cord crosses over to the other side of the line twice for each bend backward, and leans as it does.
  const leans = (backTurn.count * (drive + back) ** 2) / CROSSING_SPAN_MM / Math.sqrt(3);
  const bends = Math.hypot((drive + back) * backTurn.sigma, (smooth - drive) * smoothTurn.sigma, leans);
  return {
    ...length,
    plusMinus: Math.hypot(length.plusMinus, bends),
    doubts: { reading: length.plusMinus, bends, lay: 0 },
  };
}

/** Any pulley will do: on each kind of face the two lines lie the same way apart, whatever its size. */
export function anyPulley(surface: Surface): Pulley {
  return surface === 'toothed' ? { id: 'any', surface, teeth: 40 } : { id: 'any', surface, diameter: 100 };
}

/** How much further from a pulley's middle the cord lies than the tool's own middle, mm. */
function awayFrom(
  section: Section,
  { tool, thickness = TOOL_DEFAULTS[tool].thickness }: StringAsk['measurement'],
  surface: Surface,
  side: Side,
  lay: Lay | null,
): number {
  const pulley = anyPulley(surface);
  return cordRadiusMm(pulley, side, section) - toolRadius(pulley, side, section, tool, thickness, lay ?? undefined);
}

/** All bends of a kind together, radians, with one standard deviation. */
function turnOn(riding: readonly Riding[], on: Riding['on']): { radians: number; sigma: number; count: number } {
  const bends = riding.filter((rider) => rider.on === on).map(({ bend }) => bendOf(bend));
  return {
    radians: toRadians(bends.reduce((sum, { degrees }) => sum + degrees, 0)),
    sigma: toRadians(Math.hypot(...bends.map(({ sigma }) => sigma))),
    count: bends.length,
  };
}

/** A bend in degrees, with one standard deviation. */
export function bendOf(bend: Bend | number): { degrees: number; sigma: number } {
  if (typeof bend === 'number') return { degrees: bend, sigma: TOLD_DEGREES };
  const [min, max] = BEND_RANGES[bend];
  return { degrees: (min + max) / 2, sigma: (max - min) / Math.sqrt(12) };
}
