import type { Drive } from '../drive';
import { frontsOf, type InFront } from '../seating';

/** In which order belts come off and go on. */
export interface BeltOrder {
  off: string[];
  /** The other way round. */
  on: string[];
  /** Of each that has to come off for another's sake: the first that it is in front of, of those taken off. */
  gives: ReadonlyMap<string, { belt: string; station: string | null }>;
  /** Belts of which each runs in front of another of them: no order takes them off one by one. */
  tangled: string[];
}

/**
 * The order of belts from the outside in: each comes off before any that it runs in front of, and of those that are
 * free the foremost first. For one belt: only those that have to come off before it, and it. All belts where none is
 * named; no belt where the drive has none of that name.
 */
export function beltOrder(drive: Drive, beltId?: string): BeltOrder {
  const fronts = frontsOf(drive);
  const wanted = beltId === undefined ? new Set(fronts.keys()) : outTo(beltId, fronts);
  const byPlane = [...wanted].sort((a, b) => foremost(drive, b) - foremost(drive, a));
  const off: string[] = [];
  const tangled: string[] = [];
  while (off.length < byPlane.length) {
    const left = byPlane.filter((id) => !off.includes(id));
    const free = left.find((id) => fronts.get(id)!.every(({ belt }) => !left.includes(belt)));
    // Where each that is left has another in front of it, one has to be worked off past that: the foremost.
    if (free === undefined) tangled.push(...inCircle(left, fronts).filter((id) => !tangled.includes(id)));
    off.push(free ?? left[0]!);
  }
  const gives = new Map(
    off.flatMap((id) => {
      const behind = off.find((other) => fronts.get(other)!.some(({ belt }) => belt === id));
      if (behind === undefined) return [];
      const { station } = fronts.get(behind)!.find(({ belt }) => belt === id)!;
      return [[id, { belt: behind, station }] as const];
    }),
  );
  return { off, on: [...off].reverse(), gives, tangled };
}

type Fronts = ReadonlyMap<string, readonly InFront[]>;

/** A belt with all that run in front of it, and in front of those. */
function outTo(belt: string, fronts: Fronts): Set<string> {
  const found = new Set<string>(fronts.has(belt) ? [belt] : []);
  // A set grows while it is walked, and the walk goes on to what came in.
  for (const id of found) for (const front of fronts.get(id)!) found.add(front.belt);
  return found;
}

/** Those from which, going from each to one in front of it, one comes back to where one began. */
const inCircle = (ids: readonly string[], fronts: Fronts) =>
  ids.filter((id) => fronts.get(id)!.some(({ belt }) => outTo(belt, fronts).has(id)));

/** The plane of a belt's foremost pulley; behind all others where it has none. */
function foremost(drive: Drive, beltId: string): number {
  const on = new Set(drive.belts.find(({ id }) => id === beltId)!.route.map(({ pulley }) => pulley));
  const planes = drive.stations.flatMap(({ pulleys }) =>
    pulleys.filter(({ id }) => on.has(id)).map(({ plane = 0 }) => plane),
  );
  return planes.length === 0 ? -Number.MAX_VALUE : Math.max(...planes);
}
