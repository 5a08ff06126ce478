import { travelOf } from '../adjuster';
import { type Drive, newPulley, type Pulley, type Station } from '../drive';
import { solveDrive, type DriveSolution } from '../path';

/** What a drive that is being drawn wants next; always one thing. */
export type NextAsk =
  | { code: 'crank' | 'pulleys' }
  | { code: 'diameter'; pulley: string }
  | { code: 'tape'; left: number }
  | { code: 'route' | 'route-open' | 'adjuster' | 'length'; belt: string };

export interface NextOptions {
  solution?: DriveSolution;
  /** True where somebody said that the pulleys stand where they are drawn. */
  placed?: boolean;
  /** Pulleys that somebody said have the size they are drawn with. */
  sized?: readonly string[];
}

/**
 * The one thing to do next on the way to a belt's length, in the order of the work: crank, pulleys, their sizes, tapes
 * between them, each belt's route, what tightens it, its length. Null once every belt has its length.
 */
export function nextAsk(
  drive: Drive,
  { solution = solveDrive(drive), placed = false, sized = [] }: NextOptions = {},
): NextAsk | null {
  const { stations, belts } = drive;
  if (!stations.some(({ role }) => role === 'crankshaft')) return { code: 'crank' };
  const open = belts.filter(({ length }) => (length ?? null) === null);
  if (belts.length > 0 && open.length === 0) return null;
  if (stations.length < 2) return { code: 'pulleys' };
  const unread = unmeasured(drive).find((id) => !sized.includes(id));
  if (unread !== undefined) return { code: 'diameter', pulley: unread };
  const left = tapesLeft(drive);
  if (left > 0 && !placed) return { code: 'tape', left };
  for (const { id: belt, route } of open) {
    if (route.length < 2) return { code: 'route', belt };
    if (solution.belts.find(({ id }) => id === belt)?.closed === false) return { code: 'route-open', belt };
  }
  const loose = open.find((belt) => !travelOf(drive, belt) && !fixed(drive, belt.route));
  if (loose) return { code: 'adjuster', belt: loose.id };
  return open[0] ? { code: 'length', belt: open[0].id } : null;
}

/** The pulleys that still have the size they started with, which nobody has measured. */
export function unmeasured(drive: Drive): string[] {
  return drive.stations.flatMap((station) =>
    station.pulleys.filter((pulley) => stillStarting(drive, station, pulley)).map(({ id }) => id),
  );
}

/** A pulley of its role's starting size whose diameter nobody has read, nor seen in a picture. */
function stillStarting(drive: Drive, station: Station, pulley: Pulley): boolean {
  const section = drive.belts[0]?.section ?? 'PK';
  const { survey } = drive;
  const read =
    survey?.diameters?.some((reading) => reading.pulley === pulley.id) ||
    survey?.photos?.some(({ rims }) => rims?.some((rim) => rim.pulley === pulley.id));
  if (read) return false;
  const fresh = newPulley({ ...drive, stations: [] }, 'any', station.role, section);
  return pulley.surface === 'toothed'
    ? fresh.surface === 'toothed' && fresh.teeth === pulley.teeth
    : (fresh.diameter ?? 0) === pulley.diameter;
}

/**
 * Readings still wanted before every shaft's place is known: two for each beyond the crank, less one for the way the
 * whole is turned. None where a picture shows the pulleys.
 */
function tapesLeft({ stations, survey }: Drive): number {
  if ((survey?.photos?.length ?? 0) > 0) return 0;
  return Math.max(0, 2 * (stations.length - 1) - 1 - (survey?.readings?.length ?? 0));
}

const fixed = (drive: Drive, route: Drive['belts'][number]['route']) =>
  drive.stations.some(
    ({ adjuster, pulleys }) =>
      adjuster?.kind === 'fixed' && pulleys.some(({ id }) => route.some(({ pulley }) => pulley === id)),
  );
