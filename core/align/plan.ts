import { type AlignMove, type Drive, findPulley, type GrooveMove, type MoveKind, stationOf } from '../drive';
import { type Alignment, alignmentOf, pitchOf, type Run, type Shift, worstDeg } from '../planes';
import { angleWith, between, type RunLimits, runLimits } from './constraints';
import { likelyWorst, type LikelyWorst } from './likely';
import { toRadians } from '../numeric';

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
  /**
   * What the worst run will likely be, by the ± of the readings; the worst of several doubtful runs is worse than any.
   */
  likely: LikelyWorst;
  after: readonly Run[];
  /** The other belts on the shafts that are moved: their worst run before and after, degrees. */
  others: readonly { belt: string; beforeDeg: number; afterDeg: number }[];
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

/**
 * The fewest of the drive's moves that bring all runs of a belt to good, or where that cannot be had from wrong to
 * watch. Sets of moves are tried in order of their number. Runs only ever limit how far two pulleys may stand apart, so
 * a set is judged by shortest paths (a system of difference constraints), and pressed pulleys go where the worst angle
 * of the runs they touch is least. No plan where nothing is wrong. `onProgress` hears the share of the trials spent;
 * `given` are moves that are done besides, and that `alignment` has in it already.
 */
export function planFor(
  drive: Drive,
  alignment: Alignment,
  onProgress: (share: number) => void = () => undefined,
  given: readonly Shift[] = [],
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
    const plans = found.sets.map(({ moves }) => planOf(drive, alignment, moves, given));
    return {
      plans: ranked(plans)
        .slice(0, MOST_PLANS)
        .map((plan) => withOutcome(drive, alignment, plan, given)),
      limitDeg,
      worstDeg: worst,
      stopped,
    };
  }
  return { plans: [], limitDeg: null, worstDeg: worst, stopped };
}

/** A plan as it is ranked: what it makes of the runs. */
type BarePlan = Pick<Plan, 'moves' | 'worstDeg' | 'after'>;

function planOf(
  drive: Drive,
  { belt, solution }: Alignment,
  moves: readonly PlannedMove[],
  given: readonly Shift[],
): BarePlan {
  const { runs: after } = alignmentOf(drive, belt.id, { shifts: [...given, ...moves.map(shiftOf)], solution })!;
  return { moves, after, worstDeg: worstDeg(after) };
}

/** The same with what it will likely come to, and what it does to the other belts. */
function withOutcome(drive: Drive, { belt, solution }: Alignment, plan: BarePlan, given: readonly Shift[]): Plan {
  const shifts = [...given, ...plan.moves.map(shiftOf)];
  const shafts = new Set(
    plan.moves.flatMap((move) => (movesShaft(move) ? (stationOf(drive, move.pulley)?.id ?? []) : [])),
  );
  const others = drive.belts.flatMap((other) => {
    const moved = other.route.some(({ pulley }) => shafts.has(stationOf(drive, pulley)?.id ?? ''));
    const [before, after] =
      moved && other.id !== belt.id ? [given, shifts].map((by) => alignmentOf(drive, other.id, { shifts: by })) : [];
    return before && after
      ? [{ belt: other.id, beforeDeg: worstDeg(before.runs), afterDeg: worstDeg(after.runs) }]
      : [];
  });
  return { ...plan, others, likely: likelyWorst(drive, alignmentOf(drive, belt.id, { shifts, solution })!) };
}

const travelled = ({ moves }: BarePlan) => moves.reduce((sum, { mm = 0 }) => sum + Math.abs(mm), 0);

/** The least angle first; what comes to the same, by how little has to be moved. */
function ranked(plans: BarePlan[]): BarePlan[] {
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
  /** The shaft it moves; null for a cure of the belt's groove, which moves no shaft. */
  shaft: string | null;
  kind: MoveKind;
  range: readonly [number, number] | null;
  settings: readonly { mm: number; move: PlannedMove }[];
}

/** Whether a move takes a whole shaft along, with every sheave on it. */
export const movesShaft = ({ kind }: { kind: MoveKind }): boolean => kind !== 'groove';

/** What can be done to the pulleys of this belt, or to another sheave of their shafts, each thing once. */
function curesOf(drive: Drive, alignment: Alignment): Cure[] {
  const { belt, section, planes } = alignment;
  const pitch = pitchOf(section);
  return (drive.align?.moves ?? [])
    .filter((move) =>
      movesShaft(move)
        ? planes.some(({ station }) => station === stationOf(drive, move.pulley)?.id)
        : belt.route.some((stop) => stop.pulley === move.pulley),
    )
    .flatMap((move): Cure[] => {
      const { pulley, kind } = move;
      const shaft = movesShaft(move) ? stationOf(drive, pulley)!.id : null;
      if (move.kind === 'press') {
        const [min, max] = [Math.min(move.min, move.max), Math.max(move.min, move.max)];
        if (max > min) return [{ pulley, shaft, kind, range: [min, max], settings: [] }];
        return max === 0
          ? []
          : [{ pulley, shaft, kind, range: null, settings: [{ mm: max, move: { pulley, kind, mm: max } }] }];
      }
      const settings = settingsOf(drive, alignment, move, pitch);
      return settings.length > 0 ? [{ pulley, shaft, kind, range: null, settings }] : [];
    });
}

function settingsOf(
  drive: Drive,
  alignment: Alignment,
  move: Exclude<AlignMove, { kind: 'press' }>,
  pitch: number,
): Cure['settings'] {
  const { pulley } = move;
  switch (move.kind) {
    case 'shim':
      return [...new Set(move.sizes)].filter(Boolean).map((mm) => ({ mm, move: { pulley, kind: 'shim', mm } }));
    case 'groove': {
      if (pitch === 0) return [];
      return groovesThere(drive, alignment, move).map((steps) => ({
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

/**
 * The same, of those that are there: the belt's ribs have to find grooves on the pulley. All of them where nobody
 * counted its grooves.
 */
export function groovesThere(
  drive: Drive,
  { belt, section, seatsMm, datumSeat }: Alignment,
  move: Pick<GrooveMove, 'pulley' | 'steps'>,
): number[] {
  const at = belt.route.findIndex(({ pulley }) => pulley === move.pulley);
  const grooves = findPulley(drive, move.pulley)?.grooves;
  const pitch = pitchOf(section);
  if (at < 0 || grooves === undefined || pitch === 0) return groovesOf(move);
  const seat = Math.round(seatsMm[at]! / pitch) + datumSeat;
  return groovesOf(move).filter((steps) => seat + steps >= 0 && seat + steps + (belt.ribs ?? 1) <= grooves);
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
  const touches = cures.map((cure) => tooSteep.map((run) => reaches(cure, run)));
  let trials = 0;
  for (let size = 1; size <= cures.length; size += 1) {
    const sets: { moves: PlannedMove[] }[] = [];
    for (const set of subsets(cures.length, size)) {
      // A run that is too steep is cured at one of its ends, and no pulley is squared twice or pressed twice.
      if (!tooSteep.every((_, r) => set.some((c) => touches[c]![r]))) continue;
      const chosen = set.map((c) => cures[c]!);
      if (new Set(chosen.map(({ pulley, shaft, kind }) => `${kind} ${shaft ?? pulley}`)).size < size) continue;
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

/** Whether a cure moves one of a run's ends. */
const reaches = ({ shaft, pulley }: Cure, { from, to, fromShaft, toShaft }: RunLimits): boolean =>
  shaft === null ? from === pulley || to === pulley : fromShaft === shaft || toShaft === shaft;

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
  cures.forEach(({ pulley, shaft, kind }, k) => {
    const moved = shaft ?? grooveOn(pulley);
    if (kind === 'square') squared.add(moved);
    else if (settings[k]) fixed.set(moved, (fixed.get(moved) ?? 0) + settings[k].mm);
  });
  const pressed = cures.filter(({ range }) => range !== null);
  const problem: Problem = { runs, fixed, squared, pressed };
  if (!placesWithin(problem, limit)) return null;
  const free = pressed.length === 0 ? new Map<string, number>() : straightest(problem, limit);
  return cures.map(
    ({ pulley, shaft, kind }, k): PlannedMove => settings[k]?.move ?? { pulley, kind, mm: free.get(shaft!)! },
  );
}

/** What a belt's groove on a pulley is known by among the shafts. */
const grooveOn = (pulley: string) => `groove of ${pulley}`;

/** How far one end of a run is moved by what is settled: with its shaft, and by the belt's groove. */
const movedBy = (fixed: ReadonlyMap<string, number>, shaft: string, pulley: string) =>
  (fixed.get(shaft) ?? 0) + (fixed.get(grooveOn(pulley)) ?? 0);

interface Problem {
  runs: readonly RunLimits[];
  /** By shaft, or by the belt's groove on a pulley, mm. */
  fixed: ReadonlyMap<string, number>;
  /** Shafts. */
  squared: ReadonlySet<string>;
  pressed: readonly Cure[];
}

/**
 * Where the pressed shafts may stand so that every run keeps the limit: the middle of the highest and the lowest
 * places, which keeps it as well. Null where there are none. Shortest paths over the pulleys and one node that stands
 * still (Bellman and Ford).
 */
function placesWithin({ runs, fixed, squared, pressed }: Problem, limit: number): Map<string, number> | null {
  const node = new Map(pressed.map(({ shaft }, k) => [shaft!, k + 1]));
  const edges: { a: number; b: number; max: number }[] = [];
  for (const run of runs) {
    const { from, to, fromShaft, toShaft } = run;
    const [a, b] = [node.get(fromShaft) ?? 0, node.get(toShaft) ?? 0];
    const [min, max] = between(run, squared.has(fromShaft), squared.has(toShaft), limit);
    const stands = movedBy(fixed, toShaft, to) - movedBy(fixed, fromShaft, from);
    if (a === b) {
      if (min > stands + 1e-9 || max < stands - 1e-9) return null;
      continue;
    }
    if (min > max + 1e-9) return null;
    // Place of b less place of a is at most, and at least.
    edges.push({ a, b, max: max - stands }, { a: b, b: a, max: stands - min });
  }
  pressed.forEach(({ range }, k) => {
    edges.push({ a: 0, b: k + 1, max: range![1] }, { a: k + 1, b: 0, max: -range![0] });
  });
  const high = shortest(edges, pressed.length + 1, false);
  const low = high && shortest(edges, pressed.length + 1, true);
  if (!high || !low) return null;
  return new Map(pressed.map(({ shaft }, k) => [shaft!, (high[k + 1]! - low[k + 1]!) / 2]));
}

function shortest(
  edges: readonly { a: number; b: number; max: number }[],
  count: number,
  back: boolean,
): number[] | null {
  const far = Array.from({ length: count }, (_, k) => (k === 0 ? 0 : Infinity));
  for (let round = 0; round <= count; round += 1) {
    let changed = false;
    for (const { a, b, max } of edges) {
      const [from, to] = back ? [b, a] : [a, b];
      if (far[from]! + max < far[to]! - 1e-9) {
        far[to] = far[from]! + max;
        changed = true;
      }
    }
    if (!changed) return far;
  }
  return null;
}

/** Places of the pressed shafts with the least angle over the runs they touch, then each by itself. */
function straightest(problem: Problem, limit: number): Map<string, number> {
  const runsOf = (cures: readonly Cure[]) => problem.runs.filter((run) => cures.some((cure) => reaches(cure, run)));
  const places = leastAngle({ ...problem, runs: runsOf(problem.pressed) }, limit);
  // What the worst run leaves open is settled shaft by shaft.
  for (let pass = 0; pass < 2 && problem.pressed.length > 1; pass += 1)
    for (const cure of problem.pressed) {
      const others = new Map(problem.fixed);
      for (const { shaft } of problem.pressed)
        if (shaft !== cure.shaft) others.set(shaft!, (others.get(shaft!) ?? 0) + places.get(shaft!)!);
      const own = { ...problem, fixed: others, pressed: [cure], runs: runsOf([cure]) };
      places.set(cure.shaft!, leastAngle(own, limit).get(cure.shaft!)!);
    }
  return places;
}

function leastAngle(problem: Problem, limit: number): Map<string, number> {
  // Rounding may close the last hair of a limit that was kept; then where the whole set stood is as good.
  let best = placesWithin(problem, limit + 1e-7) ?? new Map(problem.pressed.map(({ shaft }) => [shaft!, 0]));
  let [low, high] = [0, limit];
  for (let step = 0; step < HALVINGS; step += 1) {
    const middle = (low + high) / 2;
    const places = placesWithin(problem, middle);
    if (places) [best, high] = [places, middle];
    else low = middle;
  }
  return best;
}
