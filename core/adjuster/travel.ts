import type { Adjuster, Belt, Drive, Point, Station } from '../drive';
import { adjusterKind } from './kinds';
import type { Travel } from './kinds/kind';

/**
 * The shafts that could tighten a belt, the one that does first: what the belt's `adjuster` says; else a shaft that
 * tightens no other belt besides, a tensioner before any other, in the order of the file. More than one, with nothing
 * said and none the only one of its kind, is a doubt (`unclear`).
 */
export function adjustersOf(drive: Drive, belt: Belt): { stations: readonly Station[]; unclear: boolean } {
  const onBelt = ({ route }: Belt) => {
    const on = new Set(route.map(({ pulley }) => pulley));
    return drive.stations.filter(
      ({ adjuster, pulleys }) =>
        adjuster && adjusterKind(adjuster.kind).moves !== 'nothing' && pulleys.some(({ id }) => on.has(id)),
    );
  };
  const own = onBelt(belt);
  const said = own.find(({ id }) => id === belt.adjuster);
  if (said) return { stations: [said, ...own.filter((other) => other !== said)], unclear: false };
  // A shaft that other belts must have, for they touch no other one that moves or say so themselves, is theirs first.
  const claimed = new Set(
    drive.belts.flatMap((other) => {
      if (other.id === belt.id) return [];
      const theirs = onBelt(other);
      if (theirs.length === 1) return theirs.map(({ id }) => id);
      return theirs.flatMap(({ id }) => (id === other.adjuster ? [id] : []));
    }),
  );
  const rank = ({ id, role }: Station) => (claimed.has(id) ? 2 : 0) + (role === 'tensioner' ? 0 : 1);
  const stations = [...own].sort((a, b) => rank(a) - rank(b));
  return { stations, unclear: stations.length > 1 && rank(stations[0]!) === rank(stations[1]!) };
}

/** The adjuster that tightens a belt, or null where none does. */
export function travelOf(drive: Drive, belt: Belt): Travel | null {
  const [station] = adjustersOf(drive, belt).stations;
  return station ? travelBy(drive, station, belt) : null;
}

function travelBy(drive: Drive, station: Station, belt: Belt): Travel | null {
  const { adjuster } = station;
  return adjuster ? adjusterKind(adjuster.kind).travel(drive, station, adjuster, belt) : null;
}

/** The same travel with its ends exchanged, where the other end turns out to be the slack one. */
export function reversed(travel: Travel): Travel {
  return {
    ...travel,
    at: (fraction) => travel.at(1 - fraction),
    readingAt: (fraction) => travel.readingAt(fraction),
    now: 1 - travel.now,
  };
}

/** An adjuster of that kind with starting figures about where the shaft stands, to be measured over. */
export const newAdjuster = (kind: Adjuster['kind'], shaft: Point): Adjuster => adjusterKind(kind).start(shaft);

/** Pivot and length of an arm from three places its pulley was seen at; null where they lie on a line. */
export function armThrough(a: Point, b: Point, c: Point): { pivot: Point; length: number } | null {
  const twice = 2 * (a.x * (b.y - c.y) + b.x * (c.y - a.y) + c.x * (a.y - b.y));
  if (Math.abs(twice) < 1e-6) return null;
  const [sa, sb, sc] = [a, b, c].map(({ x, y }) => x * x + y * y) as [number, number, number];
  const pivot = {
    x: (sa * (b.y - c.y) + sb * (c.y - a.y) + sc * (a.y - b.y)) / twice,
    y: (sa * (c.x - b.x) + sb * (a.x - c.x) + sc * (b.x - a.x)) / twice,
  };
  return { pivot, length: Math.hypot(a.x - pivot.x, a.y - pivot.y) };
}
