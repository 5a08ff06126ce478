import type { AlignMove, Drive, GrooveMove, MoveKind } from '../drive';
import { type Alignment, alignmentOf, pitchOf, type Run, type Shift, worstDeg } from '../planes';
import { angleWith, between, type RunLimits, runLimits } from './constraints';

/** One step of a plan. `mm` moves the pulley out (+), `steps` is grooves outward. */
export interface PlannedMove {
  pulley: string;
  kind: MoveKind;
  mm?: number;
  steps?: number;
  /** Of another hub: which. */
  name?: string;
}

/** Cures that bring every run within a limit, with what each run comes to. */
export interface Plan {
  moves: readonly PlannedMove[];
  worstDeg: number;
  after: readonly Run[];
}

export interface PlanSearch {
  /** The fewest cures, the ones with the least angle after them first. */
  plans: readonly Plan[];
  /** The limit they keep, degrees; null where nothing is wrong, or nothing brings the runs within one. */
  limitDeg: number | null;
  worstDeg: number;
  /** The search came to its own limit before it had tried everything. */
  stopped: boolean;
}

/** So many plans are told. */
const MOST_PLANS = 6;
/** Sets of cures that are tried in full before the search gives up. */
const MOST_TRIALS = 300_000;
/** Bisections of an angle: to a billionth of where they start. */
const HALVINGS = 34;

const toRadians = (degrees: number) => (degrees * Math.PI) / 180;

/**
 * The fewest of the drive's moves that bring all runs of a belt to good, or where that cannot be had from wrong to
 * watch. Sets of moves are tried in order of their number. Runs only ever limit how far two pulleys may stand apart, so
 * a set is judged by shortest paths (a system of difference constraints), and pressed pulleys go where the worst angle
 * of the runs they touch is least. No plan where nothing is wrong. `onProgress` hears the share of the trials spent.
 */
export function planFor(
  drive: Drive,
  alignment: Alignment,
  onProgress: (share: number) => void = () => undefined,
): PlanSearch {
  const worst = worstDeg(alignment.runs);
  const cures = curesOf(drive, alignment);
  const runs = runLimits(alignment);
  let stopped = false;
  // To good, and where that is not to be had, to watch.
  for (const limitDeg of [alignment.limits.good, alignment.limits.watch]) {
    if (worst <= limitDeg + 1e-9) break;
    const search = { runs, cures, limit: toRadians(limitDeg), onProgress };
    const found = fewest(search);
    stopped ||= found.stopped;
    if (found.sets.length === 0) continue;
    const plans = found.sets.map(({ moves }): Plan => {
      const { runs: after } = alignmentOf(drive, alignment.belt.id, {
        shifts: moves.map(shiftOf),
        solution: alignment.solution,
      })!;
      return { moves, after, worstDeg: worstDeg(after) };
    });
    return { plans: ranked(plans).slice(0, MOST_PLANS), limitDeg, worstDeg: worst, stopped };
  }
  return { plans: [], limitDeg: null, worstDeg: worst, stopped };
}

const travelled = ({ moves }: Plan) => moves.reduce((sum, { mm = 0 }) => sum + Math.abs(mm), 0);

/** The least angle first; what comes to the same, by how little has to be moved. */
function ranked(plans: Plan[]): Plan[] {
  return plans.sort((a, b) =>
    Math.abs(a.worstDeg - b.worstDeg) > 1e-6 ? a.worstDeg - b.worstDeg : travelled(a) - travelled(b),
  );
}

/** A planned move, as the sums on planes take it. */
export function shiftOf({ pulley, kind, mm, steps }: PlannedMove): Shift {
  return { pulley, ...(mm !== undefined && { mm }), ...(steps !== undefined && { steps }), square: kind === 'square' };
}

/** One thing that can be done to a pulley: pressed anywhere in a range, one of several settings, or squared. */
interface Cure {
  pulley: string;
  kind: MoveKind;
  range: readonly [number, number] | null;
  settings: readonly { mm: number; move: PlannedMove }[];
}

/** What can be done to the pulleys of this belt, each thing once. */
function curesOf({ align }: Drive, { belt, section }: Alignment): Cure[] {
  const pitch = pitchOf(section);
  return (align?.moves ?? [])
    .filter(({ pulley }) => belt.route.some((stop) => stop.pulley === pulley))
    .flatMap((move): Cure[] => {
      const { pulley, kind } = move;
      if (move.kind === 'press') {
        const [least, most] = [Math.min(move.min, move.max), Math.max(move.min, move.max)];
        if (most > least) return [{ pulley, kind, range: [least, most], settings: [] }];
        return most === 0
          ? []
          : [{ pulley, kind, range: null, settings: [{ mm: most, move: { pulley, kind, mm: most } }] }];
      }
      const settings = settingsOf(move, pitch);
      return settings.length > 0 ? [{ pulley, kind, range: null, settings }] : [];
    });
}

function settingsOf(move: Exclude<AlignMove, { kind: 'press' }>, pitch: number): Cure['settings'] {
  const { pulley } = move;
  switch (move.kind) {
    case 'shim':
      return [...new Set(move.sizes)].filter(Boolean).map((mm) => ({ mm, move: { pulley, kind: 'shim', mm } }));
    case 'groove': {
      if (pitch === 0) return [];
      return groovesOf(move).map((steps) => ({
        mm: steps * pitch,
        move: { pulley, kind: 'groove', steps },
      }));
    }
    case 'hub':
      return move.options.map(({ name, mm }) => ({ mm, move: { pulley, kind: 'hub', mm, name } }));
    case 'square':
      return [{ mm: 0, move: { pulley, kind: 'square' } }];
  }
}

/** The grooves that a move may go by: each up to its number, or those of its list. */
export function groovesOf({ steps }: Pick<GrooveMove, 'steps'>): number[] {
  if (typeof steps !== 'number') return [...new Set(steps)].filter(Boolean);
  return Array.from({ length: Math.abs(steps) }, (_, k) => Math.sign(steps) * (k + 1));
}

interface Search {
  runs: readonly RunLimits[];
  cures: readonly Cure[];
  limit: number;
  onProgress: (share: number) => void;
}

/** The sets of the fewest cures that keep the limit, each at its best. */
function fewest(search: Search): { sets: { moves: PlannedMove[] }[]; stopped: boolean } {
  const { runs, cures, limit, onProgress } = search;
  const tooSteep = runs.filter((run) => angleWith(run, false, false, 0) > limit + 1e-12);
  const touches = cures.map(({ pulley }) => tooSteep.map(({ from, to }) => from === pulley || to === pulley));
  let trials = 0;
  for (let size = 1; size <= cures.length; size += 1) {
    const sets: { moves: PlannedMove[] }[] = [];
    for (const set of subsets(cures.length, size)) {
      // A run that is too steep is cured at one of its ends, and no pulley is squared twice or pressed twice.
      if (!tooSteep.every((_, r) => set.some((c) => touches[c]![r]))) continue;
      const chosen = set.map((c) => cures[c]!);
      if (new Set(chosen.map(({ pulley, kind }) => `${kind} ${pulley}`)).size < size) continue;
      for (const settings of product(chosen.map((cure) => (cure.range ? [null] : cure.settings)))) {
        trials += 1;
        if (trials % 5000 === 0) onProgress(Math.min(1, trials / MOST_TRIALS));
        if (trials > MOST_TRIALS) return { sets, stopped: true };
        const moves = settle(runs, chosen, settings, limit);
        if (moves) sets.push({ moves });
      }
    }
    if (sets.length > 0) return { sets, stopped: false };
  }
  return { sets: [], stopped: false };
}

/** All ways to take `size` of `count`, in order. */
function* subsets(count: number, size: number, from = 0): Generator<number[]> {
  if (size === 0) {
    yield [];
    return;
  }
  for (let first = from; first <= count - size; first += 1)
    for (const rest of subsets(count, size - 1, first + 1)) yield [first, ...rest];
}

/** One of each list, in every way. */
function* product<T>(lists: readonly (readonly T[])[], from = 0): Generator<T[]> {
  if (from === lists.length) {
    yield [];
    return;
  }
  for (const first of lists[from]!) for (const rest of product(lists, from + 1)) yield [first, ...rest];
}

/** The cures of a set with each pressed pulley where the runs it touches are straightest; null where none keeps it. */
function settle(
  runs: readonly RunLimits[],
  cures: readonly Cure[],
  settings: readonly (Cure['settings'][number] | null)[],
  limit: number,
): PlannedMove[] | null {
  const fixed = new Map<string, number>();
  const squared = new Set<string>();
  cures.forEach(({ pulley, kind }, k) => {
    if (kind === 'square') squared.add(pulley);
    else if (settings[k]) fixed.set(pulley, (fixed.get(pulley) ?? 0) + settings[k].mm);
  });
  const pressed = cures.filter(({ range }) => range !== null);
  const problem: Problem = { runs, fixed, squared, pressed };
  if (!placesWithin(problem, limit)) return null;
  const free = pressed.length === 0 ? new Map<string, number>() : straightest(problem, limit);
  return cures.map(({ pulley, kind }, k): PlannedMove => settings[k]?.move ?? { pulley, kind, mm: free.get(pulley)! });
}

interface Problem {
  runs: readonly RunLimits[];
  fixed: ReadonlyMap<string, number>;
  squared: ReadonlySet<string>;
  pressed: readonly Cure[];
}

/**
 * Where the pressed pulleys may stand so that every run keeps the limit: the middle of the highest and the lowest
 * places, which keeps it as well. Null where there are none. Shortest paths over the pulleys and one node that stands
 * still (Bellman and Ford).
 */
function placesWithin({ runs, fixed, squared, pressed }: Problem, limit: number): Map<string, number> | null {
  const node = new Map(pressed.map(({ pulley }, k) => [pulley, k + 1]));
  const edges: { a: number; b: number; most: number }[] = [];
  for (const run of runs) {
    const [a, b] = [node.get(run.from) ?? 0, node.get(run.to) ?? 0];
    const [least, most] = between(run, squared.has(run.from), squared.has(run.to), limit);
    const stands = (fixed.get(run.to) ?? 0) - (fixed.get(run.from) ?? 0);
    if (a === b) {
      if (least > stands + 1e-9 || most < stands - 1e-9) return null;
      continue;
    }
    if (least > most + 1e-9) return null;
    // Place of b less place of a is at most, and at least.
    edges.push({ a, b, most: most - stands }, { a: b, b: a, most: stands - least });
  }
  pressed.forEach(({ range }, k) => {
    edges.push({ a: 0, b: k + 1, most: range![1] }, { a: k + 1, b: 0, most: -range![0] });
  });
  const high = shortest(edges, pressed.length + 1, false);
  const low = high && shortest(edges, pressed.length + 1, true);
  if (!high || !low) return null;
  return new Map(pressed.map(({ pulley }, k) => [pulley, (high[k + 1]! - low[k + 1]!) / 2]));
}

function shortest(
  edges: readonly { a: number; b: number; most: number }[],
  count: number,
  back: boolean,
): number[] | null {
  const far = Array.from({ length: count }, (_, k) => (k === 0 ? 0 : Infinity));
  for (let round = 0; round <= count; round += 1) {
    let changed = false;
    for (const { a, b, most } of edges) {
      const [from, to] = back ? [b, a] : [a, b];
      if (far[from]! + most < far[to]! - 1e-9) {
        far[to] = far[from]! + most;
        changed = true;
      }
    }
    if (!changed) return far;
  }
  return null;
}

/** Places of the pressed pulleys with the least angle over the runs they touch, then each by itself. */
function straightest(problem: Problem, limit: number): Map<string, number> {
  const of = (pulleys: ReadonlySet<string>) =>
    problem.runs.filter(({ from, to }) => pulleys.has(from) || pulleys.has(to));
  const places = leastAngle({ ...problem, runs: of(new Set(problem.pressed.map(({ pulley }) => pulley))) }, limit);
  // What the worst run leaves open is settled pulley by pulley.
  for (let pass = 0; pass < 2 && problem.pressed.length > 1; pass += 1)
    for (const cure of problem.pressed) {
      const others = new Map(problem.fixed);
      for (const { pulley } of problem.pressed)
        if (pulley !== cure.pulley) others.set(pulley, (others.get(pulley) ?? 0) + places.get(pulley)!);
      const own = { ...problem, fixed: others, pressed: [cure], runs: of(new Set([cure.pulley])) };
      places.set(cure.pulley, leastAngle(own, limit).get(cure.pulley)!);
    }
  return places;
}

function leastAngle(problem: Problem, limit: number): Map<string, number> {
  // Rounding may close the last hair of a limit that was kept; then where the whole set stood is as good.
  let best = placesWithin(problem, limit + 1e-7) ?? new Map(problem.pressed.map(({ pulley }) => [pulley, 0]));
  let [low, high] = [0, limit];
  for (let step = 0; step < HALVINGS; step += 1) {
    const middle = (low + high) / 2;
    const places = placesWithin(problem, middle);
    if (places) [best, high] = [places, middle];
    else low = middle;
  }
  return best;
}
