import { type Belt, type Drive, pulleysById, type RouteStop } from '../drive';
import {
  beltClearances,
  type BeltSolution,
  bodiesInPlane,
  clearanceToPulley,
  clearOf,
  directedTangent,
  distance,
  distanceToSegment,
  leastWrapDeg,
  segmentsCross,
  solveBelt,
  type Tangent,
  wrapBetween,
} from '../path';
import { bodyRadiusMm, cordRadiusMm, facingDepthMm, type Section, sectionFor } from '../section';
import { type Carried, carriedBy } from './carried';

/** What a tensioner is worth by its place behind the crank, where the belt is slack; and a drive without one. */
const TENSIONER_WORTH: Readonly<Record<number, number>> = { 1: 1, 2: 0.4 };
const NO_TENSIONER_WORTH = 0.5;

/** Why a route stands where it does; the words are made in `core/words`. */
export interface RouteReason {
  code:
    | 'wrap-good'
    | 'wrap-low'
    | 'tensioner-slack'
    | 'tensioner-elsewhere'
    | 'clear'
    | 'close'
    | 'left-off'
    | 'only-without'
    | 'cannot-turn'
    | 'drive-side-smooth';
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
  /**
   * True where every route there is was looked at; false where the search came to an end of its own first, or was
   * stopped.
   */
  complete: boolean;
  /**
   * Ways to leave optional parts off: those looked at through and through, fewest left off first, and how many there
   * are.
   */
  sets: { looked: number; of: number };
}

/**
 * A search ends after so many steps, and so many belts solved: some seconds. Those of a drive with a few optional parts
 * take far fewer.
 */
const MOST = { steps: 10_000_000, routes: 2000 };
/** What looking at a set at all is worth, in steps. */
const STEPS_A_SET = 100;
const NONE: RouteSearch = { searched: 0, routes: [], cancelled: false, complete: true, sets: { looked: 0, of: 0 } };

export interface SearchControl {
  top?: number;
  /** Called now and then with the share done, 0 to 1. */
  onProgress?: (share: number) => void;
  shouldStop?: () => boolean;
  /** How much is looked at at most; what anybody waits for where it is not given. */
  most?: { steps: number; routes: number };
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
 * All routes on which a belt can run over the pulleys it carries, best first. A span depends on its two ends alone, so
 * pairs whose span runs through a third pulley are struck out first, and a partial route is left as soon as two of its
 * spans cross: both are faults of every route that continues it, so nothing that can be run is missed. An existing
 * route is ignored. Where there is too much to look at, the sets that leave off fewest parts go first and `complete` is
 * false.
 */
export function searchRoutes(drive: Drive, beltId: string, control: SearchControl = {}): RouteSearch {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return NONE;
  const { carried, sense } = carriedBy(drive, belt);
  if (carried.length < 2 || carried.some(({ sides, optional }) => sides.length === 0 && !optional)) return NONE;

  const able = carried.filter(({ sides }) => sides.length > 0);
  const nodes = able.map((carried) => nodeOf(carried, sense, section));
  const table = spansBetween(drive, belt, section, nodes);
  const optional = nodes.flatMap(({ carried: { optional: may, station } }, k) =>
    may && station.role !== 'crankshaft' ? [k] : [],
  );
  const max = control.most ?? MOST;
  const budget: Budget = { ...max, stopped: false };
  const { shouldStop } = control;
  const ground: Ground = { drive, belt, section, sense, nodes, spans: table, budget, shouldStop };
  const total = 2 ** optional.length;
  const found: RouteFound[] = [];
  let sets = 0;
  for (const off of leavingOff(optional)) {
    if (budget.stopped || budget.steps <= 0 || budget.routes <= 0) break;
    const set = nodes.map((_, k) => k).filter((k) => !off.includes(k));
    const left = carried.filter((carried) => !set.some((k) => nodes[k]!.carried === carried));
    const used = 1 - budget.steps / max.steps;
    found.push(
      ...searchSet(ground, set, left, (share) => control.onProgress?.(Math.max(used, (sets + share) / total))),
    );
    sets += 1;
  }
  const complete = !budget.stopped && budget.steps > 0 && budget.routes > 0 && sets === total;
  // The last 10: of the belts that can run, the shortest is the plainest.
  const shortest = Math.min(...found.map(({ lengthMm }) => lengthMm));
  for (const route of found)
    route.score = Math.max(0, Math.round((route.score + 10 * (shortest / route.lengthMm) ** 2) * 10) / 10);
  found.sort((a, b) => b.score - a.score || a.lengthMm - b.lengthMm);
  return {
    searched: max.steps - budget.steps,
    routes: found.slice(0, control.top ?? 20),
    cancelled: budget.stopped,
    complete,
    sets: { looked: complete ? total : Math.max(0, sets - 1), of: total },
  };
}

/**
 * Every choice of optional pulleys to leave off: none first, then one, then two. Made as it is asked for: of forty
 * there are a million million.
 */
function* leavingOff(optional: readonly number[]): Generator<readonly number[]> {
  function* some(many: number, from: number): Generator<readonly number[]> {
    if (many === 0) yield [];
    else
      for (let k = from; k + many <= optional.length; k += 1)
        for (const rest of some(many - 1, k + 1)) yield [optional[k]!, ...rest];
  }
  for (let many = 0; many <= optional.length; many += 1) yield* some(many, 0);
}

function nodeOf(carried: Carried, sense: 1 | -1, section: Section): Node {
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
}

/** What may still be spent on a search. */
interface Budget {
  steps: number;
  routes: number;
  stopped: boolean;
}

/** What all sets of pulleys have in common that a search goes through. */
interface Ground {
  drive: Drive;
  belt: Belt;
  section: Section;
  sense: 1 | -1;
  nodes: readonly Node[];
  spans: Spans;
  budget: Budget;
  shouldStop: (() => boolean) | undefined;
}

function searchSet(
  ground: Ground,
  set: readonly number[],
  left: readonly Carried[],
  onProgress: (share: number) => void,
): RouteFound[] {
  const { nodes, budget, shouldStop } = ground;
  const { tangents, blockers, crossing } = ground.spans;
  const all = nodes.length;
  const count = set.length;
  budget.steps -= STEPS_A_SET;
  if (count < 2 || overlap(set.map((k) => nodes[k]!))) return [];
  const on = new Set(set);
  const open = (span: number) => tangents[span] && !blockers[span]!.some((k) => on.has(k));
  const routes: RouteFound[] = [];
  const start = set[0]!;
  const path = [start];
  const used = new Array<boolean>(all).fill(false);
  used[start] = true;
  const spans: number[] = [];
  let first = 0;

  const finish = () => {
    const closing = path[count - 1]! * all + start;
    if (!open(closing) || spans.some((span) => crossing.has(span * all * all + closing))) return;
    if (Math.round((ground.sense * turning(path, nodes, tangents, all)) / (2 * Math.PI)) !== 1) return;
    const found = routeAlong(ground, path, left);
    budget.routes -= 1;
    if (found) routes.push(found);
  };
  const extend = () => {
    if (path.length === count) {
      finish();
      return;
    }
    const last = path[path.length - 1]!;
    for (let k = 1; k < count; k += 1) {
      const next = set[k]!;
      if (used[next]) continue;
      if (budget.stopped || budget.steps <= 0 || budget.routes <= 0) return;
      budget.steps -= 1;
      if (path.length === 1) first = k;
      if ((budget.steps & 255) === 0) {
        if (shouldStop?.()) budget.stopped = true;
        onProgress((first - 1) / (count - 1));
      }
      const span = last * all + next;
      if (!open(span) || spans.some((other) => crossing.has(other * all * all + span))) continue;
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
  return routes;
}

/** The belt laid round those pulleys in that order, judged; null where it does not close. */
function routeAlong(
  { drive, belt, section, nodes }: Ground,
  path: readonly number[],
  left: readonly Carried[],
): RouteFound | null {
  const route = path.map((k) => nodes[k]!.stop);
  const there = {
    ...drive,
    belts: drive.belts.map((otherBelt) => (otherBelt.id === belt.id ? { ...otherBelt, route } : otherBelt)),
  };
  const solved = solveBelt(there, belt.id)!;
  if (!solved.closed) return null;
  const { least } = beltClearances(there, solved);
  return judge(route, solved, section.kind, nodes, leftOff(there, solved, left), path, least);
}

/** A pulley that is left off the belt; `roomMm` between it and the belt while it stays on the engine. */
type LeftOff = Carried & { roomMm: number | null };

function leftOff(there: Drive, solved: BeltSolution, left: readonly Carried[]): LeftOff[] {
  return left.map((carried) => ({ ...carried, roomMm: clearanceToPulley(there, solved, carried.pulley.id) }));
}

function overlap(nodes: readonly Node[]): boolean {
  return nodes.some((a, k) => nodes.slice(k + 1).some((b) => distance(a, b) < a.body + b.body - 1e-6));
}

/** The spans between all pulleys that may be on the belt: worked out once, whichever of them are left off. */
interface Spans {
  /**
   * From each node to each other; null where there is none, or it runs through what cannot be left off: an obstacle.
   */
  tangents: (Tangent | null)[];
  /** The pulleys that a span runs through: it is open where they are left off. */
  blockers: number[][];
  /** Pairs of spans that cross, as one number each. */
  crossing: Set<number>;
}

function spansBetween(drive: Drive, belt: Belt, section: Section, nodes: readonly Node[]): Spans {
  const obstacles = bodiesInPlane(
    belt,
    section,
    nodes.map(({ carried }) => ({ pulley: carried.pulley.id, station: carried.station.id })),
    { pulleys: pulleysById(drive), drive },
  ).filter(({ station }) => station === null);
  // Whichever side faces an obstacle, the belt reaches at least this far.
  const depth = Math.min(facingDepthMm('drive', section), facingDepthMm('back', section));
  const tangents = nodes.flatMap((from, i) =>
    nodes.map((to, j) => {
      const tangent = i === j ? null : directedTangent(from, from.radius, from.turn, to, to.radius, to.turn);
      return tangent && obstacles.some((body) => clearOf(body, tangent.start, tangent.end) < depth) ? null : tangent;
    }),
  );
  const blockers = tangents.map((tangent, span) => {
    const [i, j] = [Math.floor(span / nodes.length), span % nodes.length];
    return tangent
      ? nodes.flatMap((other, k) =>
          k !== i && k !== j && distanceToSegment(other, tangent.start, tangent.end) < other.body - 1e-6 ? [k] : [],
        )
      : [];
  });
  const crossing = new Set<number>();
  tangents.forEach((a, i) => {
    if (!a) return;
    tangents.forEach((b, j) => {
      if (b && i !== j && segmentsCross(a.start, a.end, b.start, b.end))
        crossing.add(i * nodes.length * nodes.length + j);
    });
  });
  return { tangents, blockers, crossing };
}

function turning(
  path: readonly number[],
  nodes: readonly Node[],
  tangents: readonly (Tangent | null)[],
  count: number,
): number {
  return path.reduce((sum, k, at) => {
    const into = tangents[path[(at + path.length - 1) % path.length]! * count + k]!;
    const out = tangents[k * count + path[(at + 1) % path.length]!]!;
    const { turn } = nodes[k]!;
    return sum + turn * wrapBetween(turn, into.direction, out.direction);
  }, 0);
}

/** How much an accessory's wrap counts: slip shows first where most power is taken through the smallest pulley. */
const WEIGHT: Record<string, number> = {
  alternator: 1.4,
  'ac-compressor': 1.3,
  crankshaft: 1.2,
  supercharger: 1.3,
  idler: 0.5,
  tensioner: 0.5,
};

/**
 * The score but for its part for length: 50 for wraps (the worst weighted spare over Emery's default least wrap), 25
 * for a tensioner on the slack span just after the crank, 15 for room between the belt and all it may touch, itself
 * included; 8 off for every drive side run on a smooth pulley.
 */
function judge(
  route: RouteStop[],
  solved: BeltSolution,
  kind: Section['kind'],
  nodes: readonly Node[],
  left: readonly LeftOff[],
  path: readonly number[],
  room: number | null,
): RouteFound {
  const reasons: RouteReason[] = [];
  let worst = Infinity;
  let worstAt = 0;
  let min = Infinity;
  solved.contacts.forEach((contact, k) => {
    const { role } = nodes[path[k]!]!.carried.station;
    const wanted = leastWrapDeg(role, kind);
    const spare = contact.wrapDeg! / wanted - 1;
    const weight = WEIGHT[role] ?? 1;
    // A shortfall weighs more, and a surplus less, where slip shows first.
    const margin = spare < 0 ? spare * weight : spare / weight;
    min = Math.min(min, contact.wrapDeg!);
    if (margin < worst) [worst, worstAt] = [margin, k];
  });
  const atWorst = solved.contacts[worstAt]!;
  reasons.push({
    code: worst < 0 ? 'wrap-low' : 'wrap-good',
    pulley: atWorst.pulley,
    figures: { wrapDeg: atWorst.wrapDeg! },
  });

  const tensioner = solved.contacts.findIndex((_, k) => nodes[path[k]!]!.carried.station.role === 'tensioner');
  const slack = tensioner < 0 ? NO_TENSIONER_WORTH : (TENSIONER_WORTH[tensioner] ?? 0);
  if (tensioner >= 0)
    reasons.push({
      code: tensioner === 1 ? 'tensioner-slack' : 'tensioner-elsewhere',
      pulley: solved.contacts[tensioner]!.pulley,
    });

  // What is left off the belt still stands on the engine unless somebody takes it off.
  const inTheWay = left.filter(({ roomMm }) => roomMm !== null && roomMm < 0);
  if (room !== null)
    reasons.push({ code: room < 8 ? 'close' : 'clear', figures: { roomMm: room, besides: inTheWay.length } });
  const odd = path
    .map((k) => nodes[k]!)
    .filter(
      ({ stop, carried }) =>
        stop.side === 'drive' && carried.pulley.surface === 'smooth' && carried.station.role !== 'crankshaft',
    );
  for (const { stop } of odd) reasons.push({ code: 'drive-side-smooth', pulley: stop.pulley });
  for (const { pulley, sides } of left)
    reasons.push({ code: sides.length > 0 ? 'left-off' : 'cannot-turn', pulley: pulley.id });
  for (const { pulley, roomMm } of inTheWay)
    reasons.push({ code: 'only-without', pulley: pulley.id, figures: { roomMm: roomMm! } });

  const score = 50 * clamp(0.6 + worst) + 25 * slack + 15 * clamp((room ?? Infinity) / 25) - 8 * odd.length;
  return { route, lengthMm: solved.length.mm!, leastWrapDeg: min, score, reasons };
}

function clamp(value: number): number {
  return Math.min(1, Math.max(0, value));
}
