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
  const groups = new Map<string, Observation[]>();
  for (const observation of observations)
    groups.set(observation.id, [...(groups.get(observation.id) ?? []), observation]);
  // A large slip can pull a fit flat, where nothing seems to check anything; the sketch is not bent so.
  const sketched = describedAt(observations, starts.sketch, network);
  const checked = new Map(
    observations.map((observation, k) => [observation, Math.max(base.redundancy[k]!, sketched.redundancy[k]!)]),
  );
  const off = (id: string, places: Places) =>
    Math.max(
      ...groups.get(id)!.map((observation) => Math.abs(misfitOf(observation, places, network)) / observation.sigma),
    );
  const byOff = (ids: readonly string[], places: Places) =>
    ids
      .map((id) => ({ id, far: off(id, places) }))
      .sort((a, b) => b.far - a.far)
      .map(({ id }) => id);
  const able = [...groups.keys()].filter((id) =>
    groups.get(id)!.some((observation) => checked.get(observation)! > 1e-3),
  );
  const candidates = [
    ...new Set([base.places, starts.many].flatMap((places) => byOff(able, places).slice(0, MOST_TRIED / 2))),
  ];

  const crossed = crossedOver(observations, starts.sketch, network, SKETCHED_CLEARLY);
  const suppose = (wrong: readonly string[], from: readonly Places[], steps: number): Supposition => {
    const rest = observations.filter(({ id }) => !wrong.includes(id));
    const enough = rest.length + 4 * Math.sqrt(rest.length);
    let best: (Supposition & { total: number }) | null = null;
    for (const start of from) {
      const fit = quickFit(rest, start, network, steps);
      const sides = crossed(fit.places).length;
      const total = fit.cost - 2 * sides * Math.log(CROSSED_FRACTION);
      if (!best || total < best.total - 1e-9) best = { wrong, fit, crossed: sides, weight: 0, total };
      if (sides === 0 && total < enough) break;
    }
    return best!;
  };
  const everywhere = [starts.sketch, starts.many, ...(starts.sides ? [starts.sides] : [])];
  // A short look at each set; those that promise most are fitted to the end from everywhere.
  const looked = (sets: readonly { wrong: readonly string[]; from: Places }[]) => {
    const short = sets
      .map(({ wrong, from }) => suppose(wrong, [starts.sketch, from], LOOK_STEPS))
      .sort((a, b) => a.fit.cost - b.fit.cost);
    return short
      .map((one, k) => (k < TAKEN_FURTHER ? suppose(one.wrong, [one.fit.places, ...everywhere], 40) : one))
      .sort((a, b) => a.fit.cost - b.fit.cost);
  };

  const all: Supposition[] = [];
  let level = looked(candidates.map((id) => ({ wrong: [id], from: base.places })));
  for (let count = 1; level.length > 0; count += 1) {
    all.push(...level);
    if (level[0]!.fit.cost < explained(observations, base, level[0]!.wrong)) break;
    if (count >= Math.min(MOST_WRONG, Math.floor(able.length / 3))) {
      all.push(...leavingTheGross());
      break;
    }
    const sets = new Map(
      level.slice(0, TAKEN_FURTHER).flatMap(({ wrong, fit }) =>
        byOff(
          candidates.filter((id) => !wrong.includes(id)),
          fit.places,
        )
          .slice(0, EXTENSIONS)
          .map((id) => {
            const set = [...wrong, id].sort();
            return [set.join('|'), { wrong: set, from: fit.places }] as const;
          }),
      ),
    );
    level = looked([...sets.values()]);
  }
  return judged(all, observations, base, groups, checked, network);

  /**
   * Where more are wrong than can be tried in every combination: all that are grossly off beside the many, then one
   * more at a time while one stands out.
   */
  function leavingTheGross(): Supposition[] {
    let wrong = able.filter((id) => off(id, starts.many) >= GROSS);
    if (wrong.length === 0 || wrong.length > able.length / 3) return [];
    for (;;) {
      const one = suppose(wrong, everywhere, 40);
      const next = byOff(
        able.filter((id) => !wrong.includes(id)),
        one.fit.places,
      )[0];
      if (
        next === undefined ||
        one.fit.cost < explained(observations, base, wrong) ||
        wrong.length + 1 > able.length / 3
      )
        return [one];
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
  const best = all.reduce((least, next) => (next.fit.cost < least.fit.cost ? next : least));
  // Readings that all disagree by more than they say are worth less than they say, here too.
  const bound = explained(observations, base, best.wrong);
  const inflation = Math.max(1, best.fit.cost / Math.max(1e-9, bound));
  if (inflation > MOST_INFLATION) return { wrong: [], unclear: [], places: base.places };
  const weighed = all.map((one) => ({
    ...one,
    weight:
      -one.fit.cost / (2 * inflation) +
      one.crossed * Math.log(CROSSED_FRACTION) +
      one.wrong.reduce(
        (sum, id) =>
          sum +
          groups
            .get(id)!
            .reduce(
              (part, observation) =>
                part + mistakeWeight(observation, one.fit.places, checked.get(observation)!, network),
              0,
            ),
        0,
      ),
  }));
  const most = Math.max(...weighed.map(({ weight }) => weight));
  const total = weighed.reduce((sum, { weight }) => sum + Math.exp(weight - most), 0);
  const chances = new Map<string, number>();
  for (const { wrong, weight } of weighed)
    for (const id of wrong) chances.set(id, (chances.get(id) ?? 0) + Math.exp(weight - most) / total);
  // How often a kind of slip happens may tell between readings that explain nearly as much, but not on its own.
  const cost = ({ fit, crossed, wrong: set }: Supposition) =>
    fit.cost / inflation -
    2 * crossed * Math.log(CROSSED_FRACTION) +
    PER_LEFT_OUT * set.reduce((sum, id) => sum + groups.get(id)!.length, 0);
  const likeliest = weighed.reduce((one, next) => (next.weight > one.weight ? next : one));
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
        weighed.some((one) => one.wrong.includes(id) && cost(one) < cost(likeliest) + 2 * LEAST_MARGIN),
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
