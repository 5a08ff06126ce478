import { type AlignDatum, type AlignReading, type AlignTool, type Drive, pulleysById, stationOf } from '../drive';
import type { Point } from '../path';
import { bodyRadiusMm, sectionFor } from '../section';
import { fitPlane, type PlaneReading, TILT_SIGMA } from './fit-plane';
import { withoutWobble, type Wobble, wobbleOf } from './wobble';

/** One standard deviation of a reading by each tool, mm, where none was written. Defaults. */
export const TOOL_SIGMA: Record<AlignTool, number> = {
  straightedge: 0.5,
  laser: 0.3,
  calliper: 0.2,
  feeler: 0.1,
  camera: 0.5,
};
/** How far off its drawn plane a pulley may be that nobody has read, one standard deviation, mm. A default. */
export const UNREAD_SIGMA = 2;
/** One standard deviation of a straightedge's seat at either end of where it bears, mm. A default. */
export const SEAT_SIGMA = 0.1;
/** A straightedge that bears on less than this of the crank's face is taken to bear on this much, mm. */
const LEAST_BEARING = 5;

/** A pulley's plane against the crank's: z = offset + tilt·(place − centre). Lengths mm, tilts as slopes. */
export interface Plane {
  pulley: string;
  station: string;
  centre: Point;
  offset: number;
  tilt: readonly [number, number];
  /** Of offset, tilt along x and tilt along y, row by row. */
  covariance: readonly number[];
  wobble: Wobble | null;
  /** The readings that it comes from, by id; none where it is as drawn. */
  readings: readonly string[];
  /** Half of a straightedge does not reach it: see `bearingOf`. */
  outOfReach: boolean;
  /** How many directions of the tilt the readings tell of, of two. */
  tiltsSeen: number;
}

/** Which set of readings: at rest, or with the engine pulling. */
export type ReadingSet = 'rest' | 'load';

/** The readings that count for a pulley, in the order of the file. */
export function readingsOf({ align }: Pick<Drive, 'align'>, pulley: string, set: ReadingSet = 'rest'): AlignReading[] {
  return (align?.readings ?? []).filter(
    (reading) => reading.pulley === pulley && !reading.past && (reading.load ?? false) === (set === 'load'),
  );
}

export const sigmaOf = ({ plusMinus, tool }: Pick<AlignReading, 'plusMinus' | 'tool'>): number =>
  plusMinus ?? TOOL_SIGMA[tool];

/** The pulley that a belt's planes are told against: the crank's on it, else the crank's first; null without one. */
export function datumOf(drive: Drive, beltId: string): string | null {
  const crank = drive.stations.find(({ role }) => role === 'crankshaft');
  if (!crank) return null;
  const route = drive.belts.find(({ id }) => id === beltId)?.route ?? [];
  return (crank.pulleys.find(({ id }) => route.some(({ pulley }) => pulley === id)) ?? crank.pulleys[0])?.id ?? null;
}

/** How much of the crank's face the straightedge bears on when it reaches so far, mm; null where nobody said. */
export function bearingOf(
  { faceMm, straightedgeMm }: AlignDatum,
  reach: number,
): { bears: number; outOfReach: boolean } | null {
  if (!faceMm) return null;
  const left = straightedgeMm ? straightedgeMm - reach + faceMm / 2 : faceMm;
  return { bears: Math.min(faceMm, Math.max(LEAST_BEARING, left)), outOfReach: left < LEAST_BEARING };
}

/** Readings of a belt's pulleys as sums need them. */
export function asSums(drive: Drive, readings: readonly AlignReading[], beltId: string): PlaneReading[] {
  const pulleys = pulleysById(drive);
  const { section, sectionOverrides } = drive.belts.find(({ id }) => id === beltId)!;
  const known = sectionFor(section, sectionOverrides);
  return readings.map((reading) => {
    const radius = bodyRadiusMm(pulleys.get(reading.pulley)!.pulley, known);
    return {
      mm: reading.mm,
      // A pulley that is not measured yet has no rim to read at.
      at: reading.at === undefined || radius < 1 ? null : (reading.at * Math.PI) / 180,
      radius,
      sigma: Math.max(sigmaOf(reading), 1e-3),
      turned: ((reading.turned ?? 0) * Math.PI) / 180,
    };
  });
}

/**
 * The plane of one pulley of a belt. The datum's is the plane itself, exactly; one with readings is fitted through
 * them; one without stands as it is drawn, `UNREAD_SIGMA` either way.
 */
export function planeOf(drive: Drive, beltId: string, pulley: string, set: ReadingSet = 'rest'): Plane {
  const station = stationOf(drive, pulley)!;
  const datum = datumOf(drive, beltId);
  const centre = { x: station.x, y: station.y };
  const own = readingsOf(drive, pulley, set);
  const sums = asSums(drive, own, beltId);
  const wobble = wobbleOf(sums);
  const named = { pulley, station: station.id, centre, wobble, readings: own.map(({ id }) => id) };
  if (pulley === datum) return { ...named, ...FLAT, offset: 0, outOfReach: false };
  if (own.length === 0) {
    const drawn = (id: string | null) => (id === null ? 0 : (pulleysById(drive).get(id)?.pulley.plane ?? 0));
    const covariance = [UNREAD_SIGMA ** 2, 0, 0, 0, TILT_SIGMA ** 2, 0, 0, 0, TILT_SIGMA ** 2];
    const offset = drawn(pulley) - drawn(datum);
    return { ...named, offset, tilt: [0, 0], covariance, outOfReach: false, tiltsSeen: 0 };
  }
  const { offset, tilt, covariance, tiltsSeen } = fitPlane(wobble ? withoutWobble(sums, wobble) : sums);
  const byEdge = own.some(({ tool }) => tool === 'straightedge');
  const held = byEdge ? datumDoubt(drive, centre) : null;
  return {
    ...named,
    offset,
    tilt,
    covariance: held ? covariance.map((part, k) => part + held.covariance[k]!) : covariance,
    outOfReach: held?.outOfReach ?? false,
    tiltsSeen,
  };
}

const FLAT = { tilt: [0, 0], covariance: [0, 0, 0, 0, 0, 0, 0, 0, 0], tiltsSeen: 2 } as const;

/**
 * What a straightedge that is not held true adds to the doubt of a plane: laid anew for each pulley, it leans by its
 * seats over where it bears, which moves the far end and tilts it along the line from the crank.
 */
function datumDoubt(drive: Drive, { x, y }: Point): { covariance: number[]; outOfReach: boolean } | null {
  const crank = drive.stations.find(({ role }) => role === 'crankshaft');
  const datum = drive.align?.datum;
  if (!crank || !datum) return null;
  const [dx, dy] = [x - crank.x, y - crank.y];
  const bearing = bearingOf(datum, Math.hypot(dx, dy));
  if (!bearing) return null;
  const lean = ((datum.plusMinus ?? SEAT_SIGMA) * Math.SQRT2) / bearing.bears;
  const reach = Math.hypot(dx, dy) || 1;
  const along = [reach, dx / reach, dy / reach];
  return { covariance: along.flatMap((a) => along.map((b) => a * b * lean * lean)), outOfReach: bearing.outOfReach };
}
