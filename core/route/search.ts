import type { Belt, Drive, RouteStop } from '../drive/types';
import { pulleysById } from '../drive/look-up';
import { bodiesInPlane, clearOf, type Body } from '../path/bodies';
import { beltClearances } from '../path/clearance';
import { solveBelt } from '../path/solve';
import type { BeltSolution } from '../path/solution';
import { directedTangent, distance, distanceToSegment, segmentsCross, wrapBetween, type Tangent } from '../path/tangent';
import { leastWrapDeg } from '../path/wrap-limits';
import { bodyRadiusMm, cordRadiusMm, facingDepthMm, sectionFor, type Section } from '../section';
import { carriedBy, type Carried } from './carried';

/** Why a route stands where it does; the words are made in `core/words`. */
export interface RouteReason {
  code: 'wrap-good' | 'wrap-low' | 'tensioner-slack' | 'tensioner-elsewhere' | 'clear' | 'close' | 'left-off' | 'cannot-turn' | 'drive-side-smooth';
  pulley?: string;
  figures?: Readonly<Record<string, number>>;
}

export interface RouteFound {
  route: RouteStop[];
  lengthMm: number;
  leastWrapDeg: number;
  /** 0 to 100, higher is better. */
  score: number;
  reasons: RouteReason[];
}

export interface RouteSearch {
  /** Steps of the search that were looked at: partial routes, not only whole ones. */
  searched: number;
  routes: RouteFound[];
  /** True where `shouldStop` ended the search early. */
  cancelled: boolean;
}

export interface SearchControl {
  top?: number;
  /** Called now and then with the share done, 0 to 1. */
  onProgress?: (share: number) => void;
  shouldStop?: () => boolean;
}

/** A pulley on one side of the belt, as the search handles it. */
interface Node {
  carried: Carried;
  stop: RouteStop;
  turn: 1 | -1;
  radius: number;
  body: number;
  x: number;
  y: number;
}

/**
 * All routes on which a belt can run over the pulleys it carries, best first. A span depends on its two ends alone, so pairs whose span runs through a third pulley
 * are struck out first, and a partial route is left as soon as two of its spans cross: both are faults of every route that continues it, so
 * nothing that can be run is missed. An existing route is ignored.
 */
export function searchRoutes(drive: Drive, beltId: string, control: SearchControl = {}): RouteSearch {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return { searched: 0, routes: [], cancelled: false };
  const { carried, sense } = carriedBy(drive, belt);
  if (carried.length < 2 || carried.some(({ sides, optional }) => sides.length === 0 && !optional)) return { searched: 0, routes: [], cancelled: false };

  const found: RouteFound[] = [];
  const sets = subsets(carried);
  let searched = 0;
  let cancelled = false;
  sets.forEach((set, index) => {
    if (cancelled) return;
    const left = carried.filter((one) => !set.includes(one));
    const part = searchSet(drive, belt, section, sense, set, left, (share) => control.onProgress?.((index + share) / sets.length), control.shouldStop);
    searched += part.searched;
    cancelled ||= part.cancelled;
    found.push(...part.routes);
  });
  // The last 10: of the belts that can run, the shortest is the plainest.
  const shortest = Math.min(...found.map(({ lengthMm }) => lengthMm));
  for (const route of found) route.score = Math.max(0, Math.round((route.score + 10 * (shortest / route.lengthMm) ** 2) * 10) / 10);
  found.sort((a, b) => b.score - a.score || a.lengthMm - b.lengthMm);
  return { searched, routes: found.slice(0, control.top ?? 20), cancelled };
}

/** Every choice of optional pulleys, all of them first. One that would turn the wrong way on either side is always left off. */
function subsets(carried: readonly Carried[]): Carried[][] {
  const able = carried.filter(({ sides }) => sides.length > 0);
  const optional = able.filter(({ optional: may, station }) => may && station.role !== 'crankshaft');
  return Array.from({ length: 2 ** optional.length }, (_, bits) => able.filter((one) => !optional.includes(one) || !(bits & (1 << optional.indexOf(one)))));
}

function searchSet(
  drive: Drive,
  belt: Belt,
  section: Section,
  sense: 1 | -1,
  set: readonly Carried[],
  left: readonly Carried[],
  onProgress: (share: number) => void,
  shouldStop: (() => boolean) | undefined,
): RouteSearch {
  const nodes = set.map((carried): Node => {
    const side = carried.sides[0]!;
    const { pulley, station } = carried;
    return {
      carried,
      stop: { pulley: pulley.id, side },
      turn: (side === 'drive' ? sense : -sense) as 1 | -1,
      radius: cordRadiusMm(pulley, side, section),
      body: bodyRadiusMm(pulley, section),
      x: station.x,
      y: station.y,
    };
  });
  const count = nodes.length;
  if (count < 2 || overlap(nodes)) return { searched: 0, routes: [], cancelled: false };
  const obstacles = bodiesInPlane(belt, section, nodes.map(({ carried }) => ({ pulley: carried.pulley.id, station: carried.station.id })), { pulleys: pulleysById(drive), drive }).filter(({ station }) => station === null);
  const tangents = tangentTable(nodes, obstacles, section);
  const crossing = crossingTable(tangents, count);
  const routes: RouteFound[] = [];
  const path = [0];
  const used = new Array<boolean>(count).fill(false);
  used[0] = true;
  const spans: number[] = [];
  let searched = 0;
  let cancelled = false;

  const finish = () => {
    const closing = path[count - 1]! * count;
    if (!tangents[closing] || spans.some((span) => crossing.has(span * count * count + closing))) return;
    if (Math.round((sense * turning(path, nodes, tangents, count)) / (2 * Math.PI)) !== 1) return;
    const route = path.map((k) => nodes[k]!.stop);
    const there = { ...drive, belts: drive.belts.map((one) => (one.id === belt.id ? { ...one, route } : one)) };
    const solved = solveBelt(there, belt.id)!;
    if (solved.closed) routes.push(judge(route, solved, section.kind, nodes, left, path, beltClearances(there, solved).least));
  };
  const extend = () => {
    if (cancelled) return;
    if (path.length === count) {
      finish();
      return;
    }
    const last = path[path.length - 1]!;
    for (let next = 1; next < count; next += 1) {
      if (used[next]) continue;
      searched += 1;
      if ((searched & 255) === 0) {
        if (shouldStop?.()) cancelled = true;
        onProgress(path.length > 1 ? (path[1]! - 1) / (count - 1) : 0);
      }
      const span = last * count + next;
      if (!tangents[span] || spans.some((other) => crossing.has(other * count * count + span))) continue;
      path.push(next);
      spans.push(span);
      used[next] = true;
      extend();
      used[next] = false;
      spans.pop();
      path.pop();
    }
  };
  extend();
  return { searched, routes, cancelled };
}

function overlap(nodes: readonly Node[]): boolean {
  return nodes.some((a, k) => nodes.slice(k + 1).some((b) => distance(a, b) < a.body + b.body - 1e-6));
}

/** The span from each node to each other, null where there is none or it runs through a third pulley. */
function tangentTable(nodes: readonly Node[], obstacles: readonly Body[], section: Section): (Tangent | null)[] {
  // Whichever side faces an obstacle, the belt reaches at least this far.
  const depth = Math.min(facingDepthMm('drive', section), facingDepthMm('back', section));
  return nodes.flatMap((from, i) =>
    nodes.map((to, j) => {
      if (i === j) return null;
      const tangent = directedTangent(from, from.radius, from.turn, to, to.radius, to.turn);
      const blocked = tangent && nodes.some((other, k) => k !== i && k !== j && distanceToSegment(other, tangent.start, tangent.end) < other.body - 1e-6);
      return blocked || (tangent && obstacles.some((body) => clearOf(body, tangent.start, tangent.end) < depth)) ? null : tangent;
    }),
  );
}

/** Pairs of spans that cross, as one number each. */
function crossingTable(tangents: readonly (Tangent | null)[], count: number): Set<number> {
  const pairs = new Set<number>();
  tangents.forEach((a, i) => {
    if (!a) return;
    tangents.forEach((b, j) => {
      if (b && i !== j && segmentsCross(a.start, a.end, b.start, b.end)) pairs.add(i * count * count + j);
    });
  });
  return pairs;
}

function turning(path: readonly number[], nodes: readonly Node[], tangents: readonly (Tangent | null)[], count: number): number {
  return path.reduce((sum, k, at) => {
    const into = tangents[path[(at + path.length - 1) % path.length]! * count + k]!;
    const out = tangents[k * count + path[(at + 1) % path.length]!]!;
    const { turn } = nodes[k]!;
    return sum + turn * wrapBetween(turn, into.direction, out.direction);
  }, 0);
}

/** How much an accessory's wrap counts: slip shows first where most power is taken through the smallest pulley. */
const WEIGHT: Record<string, number> = { alternator: 1.4, 'ac-compressor': 1.3, crankshaft: 1.2, supercharger: 1.3, idler: 0.5, tensioner: 0.5 };

/**
 * The score but for its part for length: 50 for wraps (the worst weighted spare over Emery's default least wrap), 25 for a tensioner on the slack span just after
 * the crank, 15 for room between the belt and all it may touch, itself included; 8 off for every drive side run on a smooth pulley.
 */
function judge(route: RouteStop[], solved: BeltSolution, kind: Section['kind'], nodes: readonly Node[], left: readonly Carried[], path: readonly number[], room: number | null): RouteFound {
  const reasons: RouteReason[] = [];
  let worst = Infinity;
  let worstAt = 0;
  let least = Infinity;
  solved.contacts.forEach((contact, k) => {
    const { role } = nodes[path[k]!]!.carried.station;
    const wanted = leastWrapDeg(role, kind);
    const spare = contact.wrapDeg! / wanted - 1;
    const weight = WEIGHT[role] ?? 1;
    // A shortfall weighs more, and a surplus less, where slip shows first.
    const margin = spare < 0 ? spare * weight : spare / weight;
    least = Math.min(least, contact.wrapDeg!);
    if (margin < worst) [worst, worstAt] = [margin, k];
  });
  const atWorst = solved.contacts[worstAt]!;
  reasons.push({ code: worst < 0 ? 'wrap-low' : 'wrap-good', pulley: atWorst.pulley, figures: { wrapDeg: atWorst.wrapDeg! } });

  const tensioner = solved.contacts.findIndex((_, k) => nodes[path[k]!]!.carried.station.role === 'tensioner');
  const slack = tensioner < 0 ? 0.5 : tensioner === 1 ? 1 : tensioner === 2 ? 0.4 : 0;
  if (tensioner >= 0) reasons.push({ code: tensioner === 1 ? 'tensioner-slack' : 'tensioner-elsewhere', pulley: solved.contacts[tensioner]!.pulley });

  if (room !== null) reasons.push({ code: room < 8 ? 'close' : 'clear', figures: { roomMm: room } });
  const odd = nodes.filter(({ stop, carried }) => stop.side === 'drive' && carried.pulley.surface === 'smooth' && carried.station.role !== 'crankshaft');
  for (const { stop } of odd) reasons.push({ code: 'drive-side-smooth', pulley: stop.pulley });
  for (const { pulley, sides } of left) reasons.push({ code: sides.length > 0 ? 'left-off' : 'cannot-turn', pulley: pulley.id });

  const score = 50 * clamp(0.6 + worst) + 25 * slack + 15 * clamp((room ?? Infinity) / 25) - 8 * odd.length;
  return { route, lengthMm: solved.length.mm!, leastWrapDeg: least, score, reasons };
}

function clamp(value: number): number {
  return Math.min(1, Math.max(0, value));
}
