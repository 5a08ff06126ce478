import type { Drive, NoiseCause, NoiseTest } from '../drive';
import { type Answer, type Ask, askKey, asksOf } from './asks';
import { evidenceOf, type EvidenceTold, type Weighed } from './evidence';
import { type DriveFigure, figuresOf, ofSuspect, type PricedSuspect, pricedSuspects } from './figures';
import { COSTS } from './likelihoods';
import { gainBits, type Posterior, posteriorOf, worstAnswer } from './posterior';
import { faultRow, likelihoodOf, looksAt, type Shares, sharesOf } from './weigh';

/** What speaks for a cause or against it: times so much. */
export interface Reason {
  ratio: number;
  answer?: Weighed;
  figure?: DriveFigure;
}

/** A cause at a part, and how likely it makes the noise. */
export interface CauseChance {
  cause: NoiseCause;
  id: string;
  /** That it makes this noise; over all causes they sum to one. */
  probability: number;
  /** That this fault is there, whether it makes the noise or not. */
  present: number;
  /** What counts most for it and against it, the strongest first. */
  reasons: readonly Reason[];
}

/** A test that would tell something. */
export interface NextTest extends Ask {
  /** Expected information on what makes the noise, bits. */
  gainBits: number;
  minutes: number;
  risk: 1 | 2 | 3;
}

/** A cause wherever it may be: all its parts together. */
export interface CauseGroup {
  cause: NoiseCause;
  probability: number;
  /** The likeliest first. */
  parts: readonly CauseChance[];
}

export interface Diagnosis {
  evidence: EvidenceTold;
  figures: readonly DriveFigure[];
  /** The likeliest cause first, whichever part of it: by that what is to be cured is judged. */
  groups: readonly CauseGroup[];
  /** The parts of all groups, group by group. */
  causes: readonly CauseChance[];
  /** That what makes the noise is not in the drive; with all causes it comes to one. */
  elsewhere: number;
  /** What must be put right before the engine runs, each with its part: a hub that weaves, or a belt a rib over. */
  stops: readonly { cause: NoiseCause; id: string }[];
  next: readonly NextTest[];
  posterior: Posterior;
  /** What would lower the likeliest cause the most, and what of its chance would be left. */
  disproof: { answer: Answer; left: number } | null;
}

/** What comes off before a wheel can be spun by hand, minutes. */
const BELT_OFF_MINUTES = 15;
/** How much a minute of each risk weighs: what is safe goes first. */
const RISK_WEIGHS = { 1: 1, 2: 1.5, 3: 2 } as const;
/** A test that tells less is not worth its minute, bits. */
const LEAST_BITS = 1e-3;

/** What makes a drive's noise by all that is known of it, and which test would tell most a minute. */
export function diagnose(drive: Drive, figures: readonly DriveFigure[] = figuresOf(drive)): Diagnosis {
  const evidence = evidenceOf(drive);
  const suspects = pricedSuspects(drive, figures);
  const shares = sharesOf(drive);
  const posterior = posteriorOf(drive, suspects, evidence.counts);
  const base = posteriorOf(drive, suspects, []);
  const all = suspects.map(({ cause, id }, k): CauseChance => ({
    cause,
    id,
    probability: posterior.maker[k]!,
    present: posterior.maker[k]! + (1 - posterior.maker[k]!) * posterior.beside[k]!,
    reasons: reasonsFor(suspects[k]!, k, { evidence: evidence.counts, figures, base, shares }),
  }));
  const groups = groupsOf(all);
  const causes = groups.flatMap(({ parts }) => parts);
  const stops = evidence.counts.flatMap(({ test, outcome, pulley }) => {
    const cause = STOPS[`${test} ${outcome}`];
    return cause && pulley !== undefined ? [{ cause, id: pulley }] : [];
  });
  const next = nextTests(drive, posterior, evidence.counts, { shares, stop: stops.length > 0 });
  const top = suspects.findIndex(({ cause, id }) => cause === causes[0]?.cause && id === causes[0].id);
  return {
    evidence,
    figures,
    groups,
    causes,
    elsewhere: posterior.maker.at(-1)!,
    stops,
    next,
    posterior,
    disproof: disproofOf(drive, posterior, next, top, shares),
  };
}

/** What was seen that stops the engine, and what it is. */
const STOPS: Readonly<Record<string, NoiseCause>> = { 'wobble yes': 'hub-wobble', 'count off': 'wrong-groove' };

/** Causes with all their parts, the likeliest of both first. */
function groupsOf(all: readonly CauseChance[]): CauseGroup[] {
  const byCause = new Map<NoiseCause, CauseChance[]>();
  for (const chance of all) byCause.set(chance.cause, [...(byCause.get(chance.cause) ?? []), chance]);
  return [...byCause]
    .map(([cause, parts]): CauseGroup => ({
      cause,
      probability: parts.reduce((sum, { probability }) => sum + probability, 0),
      parts: parts.sort((a, b) => b.probability - a.probability),
    }))
    .sort((a, b) => b.probability - a.probability);
}

/** What counts for a suspect and against it: an answer by how much likelier it is there than on the whole. */
function reasonsFor(
  suspect: PricedSuspect,
  at: number,
  known: { evidence: readonly Weighed[]; figures: readonly DriveFigure[]; base: Posterior; shares: Shares },
): Reason[] {
  const { evidence, figures, base, shares } = known;
  const byAnswer = evidence.map((answer): Reason => {
    const fault = faultRow(answer, shares);
    if (fault) {
      if (!looksAt(answer, suspect, shares)) return { answer, ratio: 1 };
      const [there, sound] = [fault.there[answer.outcome]!, fault.sound[answer.outcome]!];
      const beside = base.beside[at]!;
      return { answer, ratio: there / (beside * there + (1 - beside) * sound) };
    }
    const total = base.maker.reduce(
      (sum, value, k) => sum + value * likelihoodOf(answer, base.suspects[k] ?? 'elsewhere', shares)!,
      0,
    );
    return { answer, ratio: likelihoodOf(answer, suspect, shares)! / total };
  });
  const byFigure = ofSuspect(figures, suspect).map((figure): Reason => ({ figure, ratio: figure.factor }));
  return [...byAnswer, ...byFigure]
    .filter(({ ratio }) => Math.abs(Math.log(ratio)) > 0.05)
    .sort((a, b) => Math.abs(Math.log(b.ratio)) - Math.abs(Math.log(a.ratio)));
}

/**
 * The tests nobody has made yet, by what they tell a minute, those that are safe before those that are not. While a
 * stop stands none needs a running engine; and none looks for a belt that is off.
 */
function nextTests(
  drive: Drive,
  posterior: Posterior,
  done: readonly Weighed[],
  { shares, stop }: { shares: Shares; stop: boolean },
): NextTest[] {
  const asked = new Set(done.map(askKey));
  const off = new Set(done.flatMap(({ test, belt }) => (test === 'belt-off' && belt !== undefined ? [belt] : [])));
  const allOff = drive.belts.every(({ id, route }) => route.length < 2 || off.has(id));
  return asksOf(drive, posterior.suspects)
    .filter((ask) => !asked.has(askKey(ask)) && !(stop && COSTS[ask.test].runs))
    .filter(({ test, belt }) => !(BELT_RUNS.has(test) && (belt === undefined ? allOff : off.has(belt))))
    .map((ask): NextTest => {
      const { minutes, risk, beltOff } = COSTS[ask.test];
      const held = posterior.suspects.find(({ id }) => id === ask.pulley)?.belts ?? [];
      const comesOff = beltOff && held.some((belt) => !off.has(belt));
      return {
        ...ask,
        gainBits: gainBits(drive, ask, posterior, shares),
        minutes: minutes + (comesOff ? BELT_OFF_MINUTES : 0),
        risk: comesOff ? 3 : risk,
      };
    })
    .filter((test) => test.gainBits > LEAST_BITS)
    .sort((a, b) => worth(b) - worth(a) || a.risk - b.risk || a.minutes - b.minutes);
}

/** What is tried with the belt on and running. */
const BELT_RUNS: ReadonlySet<NoiseTest> = new Set(['water', 'flapping', 'under-load', 'slack', 'taut', 'arm-swing']);

const worth = ({ gainBits: bits, minutes, risk }: NextTest) => bits / (minutes * RISK_WEIGHS[risk]);

/** Of the tests that are left, the outcome that speaks most against a suspect. */
function disproofOf(
  drive: Drive,
  posterior: Posterior,
  next: readonly NextTest[],
  at: number,
  shares: Shares,
): Diagnosis['disproof'] {
  if (at < 0) return null;
  return next
    .map((ask) => worstAnswer(drive, ask, posterior, at, shares))
    .reduce<Diagnosis['disproof']>(
      (best, disproof) => (best === null || disproof.left < best.left ? disproof : best),
      null,
    );
}
