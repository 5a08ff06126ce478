import { mostOfSound } from '../numeric';
import { type Adjusted, describedAt, misfitOf, type Network, type Places, predictedBy } from './least-squares';
import { mistakesOf } from './mistakes';
import { crossedOver } from './other-sides';
import { quickFit, type QuickFit } from './quick-fit';
import type { Observation } from './readings';

/** Which readings are wrong, as far as the others can tell. */
export interface MistakesFound {
  /** Ids of the readings that are named: all but certain to be wrong. */
  wrong: string[];
  /** Ids of readings of which one or another is wrong, and nothing tells which. */
  unclear: string[];
  /** Where the rest fits in the likeliest case: a place to fit from. */
  places: Places;
}

/**
 * A reading this many standard deviations off is taken for a slip: one in a thousand honest ones is (data snooping,
 * Baarda).
 */
export const SUSPECT_AT = 3.29;
/** A reading is named once it is this likely to be wrong, and is in question from this likely on. */
const NAMED_AT = 0.95;
const IN_QUESTION_AT = 0.03;
/**
 * How many readings in a hundred are slips before anything is known, and how many of those are of a known kind.
 * Defaults.
 */
const MISTAKE_FRACTION = 0.03;
const KNOWN_FRACTION = 0.6;
/** How many shafts in a hundred are sketched on the wrong side of the line between their neighbours. Default. */
const CROSSED_FRACTION = 0.02;
/** A reading is named only if without it the rest fit better by so much, in sums of squares, than without any other. */
const LEAST_MARGIN = 4;
/**
 * What leaving out a reading costs in that measure: a circle of a picture counts twice, for it leaves the rest two
 * figures freer.
 */
const PER_LEFT_OUT = 6;
/**
 * Where the rest still disagree by more than so much, in sums of squares, nothing has been explained and nobody is
 * named.
 */
const MOST_INFLATION = 6;
/** A slip of no known kind may be of any size up to about this, mm or degrees. */
const WIDE = 500;
/** A shaft sketched nearer than this to the line between two others has no side to speak of, mm. */
const SKETCHED_CLEARLY = 60;
/**
 * No more wrong readings than these are looked for together, and of each number of them so many sets are taken further.
 */
const MOST_WRONG = 4;
const TAKEN_FURTHER = 6;
const EXTENSIONS = 6;
/** Steps of the short look at a set. */
const LOOK_STEPS = 10;
/**
 * Of many readings those that stand out most are tried, in the fit to all of them and to a start that heeds the many.
 */
const MOST_TRIED = 24;
/** Beside the many, a reading this many standard deviations off is no matter of degree. */
const GROSS = 8;

/**
 * Places to begin from: the sketch, what heeds the many readings rather than the loud ones, and where it fits better
 * with shafts put across, that.
 */
export interface Starts {
  sketch: Places;
  many: Places;
  sides: Places | null;
}

/** A set of readings supposed wrong, and what the others then fit. */
interface Supposition {
  wrong: readonly string[];
  fit: QuickFit;
  /** How many shafts lie on another side of their neighbours than in the sketch. */
  crossed: number;
  /** Logarithm of how likely it is, but for a common term. */
  weight: number;
}

/**
 * Looks for readings that contradict the rest. First whether one alone explains everything, then two, then more: each
 * set is left out and the rest fitted afresh, for a large slip bends a fit until honest readings stand out. Sets are
 * weighed by how well the rest fit (likelihood) and by how often such slips happen, those of a known kind more often
 * (Bayes). A reading is named if it is wrong in nearly all that is likely; where several sets explain as much, none is.
 * `base` fits all readings.
 */
export function searchMistakes(
  observations: readonly Observation[],
  base: Adjusted,
  starts: Starts,
  network: Network,
): MistakesFound {
  return new MistakeSearch(observations, base, starts, network).found();
}

class MistakeSearch {
  private readonly groups = new Map<string, Observation[]>();
  /** How much of each reading the others check. */
  private readonly checked: ReadonlyMap<Observation, number>;
  /** Readings that any other checks, and those of them that are tried. */
  private readonly able: readonly string[];
  private readonly candidates: readonly string[];
  private readonly crossed: ReturnType<typeof crossedOver>;
  private readonly everywhere: readonly Places[];

  constructor(
    private readonly observations: readonly Observation[],
    private readonly base: Adjusted,
    private readonly starts: Starts,
    private readonly network: Network,
  ) {
    for (const observation of observations)
      this.groups.set(observation.id, [...(this.groups.get(observation.id) ?? []), observation]);
    // A large slip can pull a fit flat, where nothing seems to check anything; the sketch is not bent so.
    const sketched = describedAt(observations, starts.sketch, network);
    this.checked = new Map(
      observations.map((observation, k) => [observation, Math.max(base.redundancy[k]!, sketched.redundancy[k]!)]),
    );
    this.able = [...this.groups].flatMap(([id, own]) =>
      own.some((observation) => this.checked.get(observation)! > 1e-3) ? [id] : [],
    );
    this.candidates = [
      ...new Set(
        [base.places, starts.many].flatMap((places) => this.byOff(this.able, places).slice(0, MOST_TRIED / 2)),
      ),
    ];
    this.crossed = crossedOver(observations, starts.sketch, network, SKETCHED_CLEARLY);
    this.everywhere = [starts.sketch, starts.many, ...(starts.sides ? [starts.sides] : [])];
  }

  found(): MistakesFound {
    const all: Supposition[] = [];
    let level = this.looked(this.candidates.map((id) => ({ wrong: [id], from: this.base.places })));
    for (let count = 1; level.length > 0; count += 1) {
      all.push(...level);
      if (level[0]!.fit.cost < explained(this.observations, this.base, level[0]!.wrong)) break;
      if (count >= Math.min(MOST_WRONG, Math.floor(this.able.length / 3))) {
        all.push(...this.leavingTheGross());
        break;
      }
      level = this.looked(this.extended(level));
    }
    return judged(all, this.observations, this.base, this.groups, this.checked, this.network);
  }

  private off(id: string, places: Places): number {
    return Math.max(
      ...this.groups
        .get(id)!
        .map((observation) => Math.abs(misfitOf(observation, places, this.network)) / observation.sigma),
    );
  }

  private byOff(ids: readonly string[], places: Places): string[] {
    return ids
      .map((id) => ({ id, far: this.off(id, places) }))
      .sort((a, b) => b.far - a.far)
      .map(({ id }) => id);
  }

  private suppose(wrong: readonly string[], from: readonly Places[], steps: number): Supposition {
    const rest = this.observations.filter(({ id }) => !wrong.includes(id));
    const enough = rest.length + 4 * Math.sqrt(rest.length);
    let best: (Supposition & { total: number }) | null = null;
    for (const start of from) {
      const fit = quickFit(rest, start, this.network, steps);
      const sides = this.crossed(fit.places).length;
      const total = fit.cost - 2 * sides * Math.log(CROSSED_FRACTION);
      if (!best || total < best.total - 1e-9) best = { wrong, fit, crossed: sides, weight: 0, total };
      if (sides === 0 && total < enough) break;
    }
    return best!;
  }

  /** A short look at each set; those that promise most are fitted to the end from everywhere. */
  private looked(sets: readonly { wrong: readonly string[]; from: Places }[]): Supposition[] {
    const short = sets
      .map(({ wrong, from }) => this.suppose(wrong, [this.starts.sketch, from], LOOK_STEPS))
      .sort((a, b) => a.fit.cost - b.fit.cost);
    return short
      .map((supposition, k) =>
        k < TAKEN_FURTHER
          ? this.suppose(supposition.wrong, [supposition.fit.places, ...this.everywhere], 40)
          : supposition,
      )
      .sort((a, b) => a.fit.cost - b.fit.cost);
  }

  /** The best sets, each with one more of those that then lie furthest off. */
  private extended(level: readonly Supposition[]): { wrong: readonly string[]; from: Places }[] {
    const sets = new Map(
      level.slice(0, TAKEN_FURTHER).flatMap(({ wrong, fit }) =>
        this.byOff(
          this.candidates.filter((id) => !wrong.includes(id)),
          fit.places,
        )
          .slice(0, EXTENSIONS)
          .map((id) => {
            const set = [...wrong, id].sort();
            return [set.join('|'), { wrong: set, from: fit.places }] as const;
          }),
      ),
    );
    return [...sets.values()];
  }

  /**
   * Where more are wrong than can be tried in every combination: all that are grossly off beside the many, then one
   * more at a time while one stands out.
   */
  private leavingTheGross(): Supposition[] {
    const { able } = this;
    let wrong = able.filter((id) => this.off(id, this.starts.many) >= GROSS);
    if (wrong.length === 0 || wrong.length > able.length / 3) return [];
    for (;;) {
      const supposition = this.suppose(wrong, this.everywhere, 40);
      const next = this.byOff(
        able.filter((id) => !wrong.includes(id)),
        supposition.fit.places,
      )[0];
      if (
        next === undefined ||
        supposition.fit.cost < explained(this.observations, this.base, wrong) ||
        wrong.length + 1 > able.length / 3
      )
        return [supposition];
      wrong = [...wrong, next];
    }
  }
}

/**
 * What a set may cost and still explain everything: the sum of squares of the readings that check one another, one in a
 * thousand of which is larger.
 */
function explained(observations: readonly Observation[], { redundancy }: Adjusted, wrong: readonly string[]): number {
  const spare =
    redundancy.reduce((sum, part) => sum + part, 0) - observations.filter(({ id }) => wrong.includes(id)).length;
  return mostOfSound(Math.round(spare));
}

function judged(
  all: readonly Supposition[],
  observations: readonly Observation[],
  base: Adjusted,
  groups: ReadonlyMap<string, readonly Observation[]>,
  checked: ReadonlyMap<Observation, number>,
  network: Network,
): MistakesFound {
  if (all.length === 0) return { wrong: [], unclear: [], places: base.places };
  const best = all.reduce((best, next) => (next.fit.cost < best.fit.cost ? next : best));
  // Readings that all disagree by more than they say are worth less than they say, here too.
  const bound = explained(observations, base, best.wrong);
  const inflation = Math.max(1, best.fit.cost / Math.max(1e-9, bound));
  if (inflation > MOST_INFLATION) return { wrong: [], unclear: [], places: base.places };
  const slips = ({ wrong: set, fit }: Supposition) => {
    const more = (sum: number, observation: Observation) =>
      sum + mistakeWeight(observation, fit.places, checked.get(observation)!, network);
    return set.reduce((sum, id) => sum + groups.get(id)!.reduce(more, 0), 0);
  };
  const weighed = all.map((supposition) => ({
    ...supposition,
    weight:
      -supposition.fit.cost / (2 * inflation) + supposition.crossed * Math.log(CROSSED_FRACTION) + slips(supposition),
  }));
  const max = Math.max(...weighed.map(({ weight }) => weight));
  const total = weighed.reduce((sum, { weight }) => sum + Math.exp(weight - max), 0);
  const chances = new Map<string, number>();
  for (const { wrong, weight } of weighed)
    for (const id of wrong) chances.set(id, (chances.get(id) ?? 0) + Math.exp(weight - max) / total);
  // How often a kind of slip happens may tell between readings that explain nearly as much, but not on its own.
  const cost = ({ fit, crossed, wrong: set }: Supposition) =>
    fit.cost / inflation -
    2 * crossed * Math.log(CROSSED_FRACTION) +
    PER_LEFT_OUT * set.reduce((sum, id) => sum + groups.get(id)!.length, 0);
  const likeliest = weighed.reduce((best, next) => (next.weight > best.weight ? next : best));
  const without = (id: string) =>
    Math.min(
      Infinity,
      ...weighed.filter(({ wrong: set }) => !set.includes(id) && set.length <= likeliest.wrong.length).map(cost),
    );
  const wrong = [...chances]
    .filter(([id, chance]) => chance >= NAMED_AT && without(id) > cost(likeliest) + LEAST_MARGIN)
    .map(([id]) => id);
  const unclear = [...chances]
    .filter(
      ([id, chance]) =>
        !wrong.includes(id) &&
        (chance >= IN_QUESTION_AT || without(id) < Infinity) &&
        weighed.some((fit) => fit.wrong.includes(id) && cost(fit) < cost(likeliest) + 2 * LEAST_MARGIN),
    )
    .sort((a, b) => b[1] - a[1])
    .map(([id]) => id);
  return { wrong, unclear: unclear.length > 1 ? unclear : [], places: likeliest.fit.places };
}

/**
 * Logarithm of how likely a reading is to be wrong by just so much: the density of such a slip, times the room the
 * others leave it.
 */
function mistakeWeight(observation: Observation, places: Places, checked: number, network: Network): number {
  const spread = observation.sigma / Math.sqrt(Math.max(1e-3, checked));
  const predicted = predictedBy(observation, places, network);
  const known = observation.seen || observation.kind === 'radius' ? [] : mistakesOf(observation);
  const near = known.reduce((sum, { value }) => sum + Math.exp(-((value - predicted) ** 2) / (2 * spread * spread)), 0);
  const density =
    known.length === 0
      ? 1 / WIDE
      : (1 - KNOWN_FRACTION) / WIDE + (KNOWN_FRACTION * near) / (known.length * spread * Math.sqrt(2 * Math.PI));
  return Math.log(MISTAKE_FRACTION * density * spread * Math.sqrt(2 * Math.PI));
}
