import { type Drive, pulleysById, type ReadingKind, type SurveyReading } from '../drive';
import { bodyRadiusMm, sectionFor } from '../section';

/**
 * Taken where a reading carries no ± of its own: a sixteenth of an inch on a tape, half a degree on a gauge. Defaults.
 */
export const DEFAULT_PLUS_MINUS = { mm: 1.6, deg: 0.5 };

export function isTape(kind: string): kind is 'outer' | 'gap' | 'centre' {
  return kind === 'outer' || kind === 'gap' || kind === 'centre';
}

/**
 * No reading is better than this, mm or degrees, whatever is written: a weight is the inverse square, and must stay a
 * number.
 */
export const FINEST = 1e-3;

/** A reading of a kind that reads so much, mm or degrees; with the default ± of its kind where none is given. */
export function readingOf(
  { id, kind, from, to, at }: { id: string; kind: ReadingKind; from: string; to: string; at?: string },
  value: number,
  plusMinus = kind === 'angle' ? DEFAULT_PLUS_MINUS.deg : DEFAULT_PLUS_MINUS.mm,
): SurveyReading {
  const rest = { plusMinus, ...(at !== undefined && { at }) };
  if (kind === 'angle') return { id, kind, from, to, deg: value, ...rest };
  if (kind === 'x' || kind === 'y') return { id, kind, to, mm: value, ...rest };
  return { id, kind, from, to, mm: value, ...rest };
}

/** What the reading reads: mm, or degrees for an angle. */
export function valueOf({ kind, mm, deg }: SurveyReading): number {
  return (kind === 'angle' ? deg : mm) ?? 0;
}

export function plusMinusOf({ kind, plusMinus }: SurveyReading): number {
  return Math.max(FINEST, plusMinus ?? (kind === 'angle' ? DEFAULT_PLUS_MINUS.deg : DEFAULT_PLUS_MINUS.mm));
}

/**
 * A reading, one coordinate of a circle seen in a picture, or a radius that was measured with a ± of its own, with what
 * the fit needs of the drawing: the shafts by index and the rims that a tape over them takes in.
 */
export interface Observation {
  /**
   * The reading's id; for a circle that of its picture and pulley, the same for both coordinates; for a radius its
   * pulley.
   */
  id: string;
  kind: ReadingKind | 'seen-x' | 'seen-y' | 'radius';
  /** Index of the shaft, −1 for none. */
  from: number;
  to: number;
  value: number;
  sigma: number;
  /** What is added to the distance of the centres: both radii, less both, or nothing. */
  rims: number;
  radii: [number, number];
  /** Of a circle: its picture, and the row of this coordinate in the picture's correlations. */
  seen?: { picture: number; row: number };
  /** The radii with a ± of their own that it takes in, by their place among the network's, added or taken off. */
  over?: readonly { radius: number; sign: 1 | -1 }[];
}

/** The readings as observations of the drive's shafts, in `drive.stations` order. */
export function observationsOf(
  drive: Drive,
  readings: readonly SurveyReading[],
  uncertain: readonly UncertainRadius[] = [],
): Observation[] {
  const index = indexOfPulleys(drive);
  const pulleys = pulleysById(drive);
  const radius = (id: string | undefined) => {
    const placed = id === undefined ? undefined : pulleys.get(id);
    if (!placed) return 0;
    const belt = drive.belts.find(({ route }) => route.some(({ pulley }) => pulley === id)) ?? drive.belts[0];
    return bodyRadiusMm(placed.pulley, belt ? sectionFor(belt.section, belt.sectionOverrides) : null);
  };
  return readings.map((reading) => {
    const at = (id: string | undefined) => (id === undefined ? -1 : (index.get(id) ?? -1));
    const radii: [number, number] = [radius(reading.from), radius(reading.to)];
    const both = radii[0] + radii[1];
    const rims = { outer: 1, gap: -1 }[reading.kind as string] ?? 0;
    const over = uncertain.flatMap(({ pulley }, at) =>
      rims !== 0 && (reading.from === pulley || reading.to === pulley) ? [{ radius: at, sign: rims as 1 | -1 }] : [],
    );
    return {
      id: reading.id,
      kind: reading.kind,
      from: at(reading.from),
      to: at(reading.to),
      value: valueOf(reading),
      sigma: plusMinusOf(reading),
      rims: rims * both,
      radii,
      ...(over.length > 0 && { over }),
    };
  });
}

/** A pulley whose diameter was read, and one standard deviation of its radius, mm. */
export interface UncertainRadius {
  pulley: string;
  sigma: number;
}

/** What the diameter readings say of those radii themselves: nothing off, give or take their ±. */
export function radiusObservations(uncertain: readonly UncertainRadius[]): Observation[] {
  return uncertain.map(({ pulley, sigma }, radius) => ({
    id: pulley,
    kind: 'radius',
    from: -1,
    to: -1,
    value: 0,
    sigma,
    rims: 0,
    radii: [0, 0],
    over: [{ radius, sign: 1 }],
  }));
}

/** By pulley, which shaft it sits on, counted as in `drive.stations`. */
export function indexOfPulleys(drive: Drive): Map<string, number> {
  return new Map(drive.stations.flatMap(({ pulleys }, at) => pulleys.map(({ id }) => [id, at] as const)));
}
