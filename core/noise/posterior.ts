import type { Drive } from '../drive';
import { type Answer, answersTo, type Ask } from './asks';
import { FAULTS_A_POINT, FOUND_ELSEWHERE } from './likelihoods';
import type { Suspect } from './suspects';
import { faultRow, likelihoodOf, looksAt, type Shares, sharesOf } from './weigh';

/*
 * One noise has one maker; faults that make none may be there as well, each on its own. Given the maker, what the noise
 * does follows from it alone, and what is found at a part from whether that part has that fault. So the chance of each
 * maker is its weight times what it makes of the noise times what its own part showed, over what a part that need not
 * have the fault would have shown: exact, in one pass, whatever the order of the evidence.
 */

/** Most of the sound drives have a fault with no more than this chance, before anything is known. */
const MOST_FAULTS = 0.5;

/** What is known of each suspect. Rows are suspects as given; the last row of `maker` is what is not in the drive. */
export interface Posterior {
  suspects: readonly Suspect[];
  /** Chance that it makes the noise; with the last one they sum to 1. */
  maker: readonly number[];
  /** Chance that its fault is there, if something else makes the noise. */
  beside: readonly number[];
}

/** The chances that follow from weights (of a hundred, figures of the drive in them) and from answers. */
export function posteriorOf(
  drive: Drive,
  suspects: readonly (Suspect & { factor: number })[],
  answers: readonly Answer[],
): Posterior {
  const shares = sharesOf(drive);
  const logs = suspects.map((suspect) => Math.log(suspect.weight * suspect.factor));
  let elsewhere = Math.log(FOUND_ELSEWHERE.weight);
  const beside = suspects.map(({ weight, factor }) => Math.min(MOST_FAULTS, (weight * factor * FAULTS_A_POINT) / 100));
  const shown = suspects.map(() => ({ there: 0, sound: 0 }));
  for (const answer of answers) {
    const fault = faultRow(answer, shares);
    suspects.forEach((suspect, k) => {
      const likelihood = likelihoodOf(answer, suspect, shares);
      if (likelihood !== null) logs[k]! += Math.log(likelihood);
      if (fault && looksAt(answer, suspect, shares)) {
        shown[k]!.there += Math.log(fault.there[answer.outcome]!);
        shown[k]!.sound += Math.log(fault.sound[answer.outcome]!);
      }
    });
    elsewhere += Math.log(likelihoodOf(answer, 'elsewhere', shares) ?? 1);
  }
  const own = suspects.map((_, k) => {
    // Over one another, so that no product of many can run out of digits.
    const ratio = Math.exp(shown[k]!.sound - shown[k]!.there);
    const prior = beside[k]!;
    return { shows: -Math.log(prior + (1 - prior) * ratio), beside: prior / (prior + (1 - prior) * ratio) };
  });
  const all = [...logs.map((log, k) => log + own[k]!.shows), elsewhere];
  const max = Math.max(...all);
  const weights = all.map((log) => Math.exp(log - max));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return {
    suspects,
    maker: weights.map((weight) => weight / total),
    beside: own.map((clue) => clue.beside),
  };
}

/** How each answer to a test would come, by what makes the noise: `chance[a][k]`, and in all. */
function chances(
  drive: Drive,
  ask: Ask,
  { suspects, maker, beside }: Posterior,
  shares: Shares,
): { answers: Answer[]; byMaker: number[][]; whole: number[] } {
  const answers = answersTo(drive, ask);
  const byMaker = answers.map((answer) => {
    const fault = faultRow(answer, shares);
    const at = fault ? suspects.findIndex((suspect) => looksAt(answer, suspect, shares)) : -1;
    return maker.map((_, k) => {
      if (!fault) return likelihoodOf(answer, suspects[k] ?? 'elsewhere', shares)!;
      const there = k === at ? 1 : (beside[at] ?? 0);
      return there * fault.there[answer.outcome]! + (1 - there) * fault.sound[answer.outcome]!;
    });
  });
  return {
    answers,
    byMaker,
    whole: byMaker.map((row) => row.reduce((sum, value, k) => sum + value * maker[k]!, 0)),
  };
}

/** What a test is expected to tell of who makes the noise, bits: never below zero. */
export function gainBits(drive: Drive, ask: Ask, posterior: Posterior, shares = sharesOf(drive)): number {
  const { byMaker, whole } = chances(drive, ask, posterior, shares);
  let bits = 0;
  byMaker.forEach((row, a) =>
    row.forEach((value, k) => {
      const joint = value * posterior.maker[k]!;
      if (joint > 0) bits += joint * Math.log2(value / whole[a]!);
    }),
  );
  return Math.max(0, bits);
}

/** The answer to a test that would lower a suspect's chance the most: what is left of it, as a ratio. */
export function worstAnswer(
  drive: Drive,
  ask: Ask,
  posterior: Posterior,
  at: number,
  shares = sharesOf(drive),
): { answer: Answer; left: number } {
  const { answers, byMaker, whole } = chances(drive, ask, posterior, shares);
  return answers
    .map((answer, a) => ({ answer, left: byMaker[a]![at]! / whole[a]! }))
    .reduce((worst, suspect) => (suspect.left < worst.left ? suspect : worst));
}
