/** How far one belt ran, and whether that was its end: else it still runs, or came off while it was good. */
export interface Ran {
  km: number;
  ended: boolean;
  /** So many alike; one where it is left out. */
  count?: number;
}

/** One step of a survival curve. */
export interface SurvivalStep {
  km: number;
  /** Belts that had come so far, and of those how many ended there. */
  atRisk: number;
  ended: number;
  /** The share of all belts that lasts beyond here, with one standard deviation. */
  share: number;
  plusMinus: number;
}

export interface Survival {
  belts: number;
  ended: number;
  steps: SurvivalStep[];
  /** Where half have come to their end, km; null where more than half are still good at the last end seen. */
  medianKm: number | null;
}

/**
 * The share of belts that lasts beyond a distance, with those counted that still run (E. L. Kaplan and P. Meier's
 * product-limit estimate; the ± is M. Greenwood's). A belt that comes off good at a distance where another ends counts
 * as having come so far.
 */
export function survivalOf(lives: readonly Ran[]): Survival {
  const known = lives.filter(({ km }) => Number.isFinite(km) && km >= 0).sort((a, b) => a.km - b.km);
  const belts = known.reduce((sum, { count = 1 }) => sum + count, 0);
  const steps: SurvivalStep[] = [];
  let [share, sum, atRisk] = [1, 0, belts];
  for (let k = 0; k < known.length;) {
    const { km } = known[k]!;
    let [ended, here] = [0, 0];
    for (; known[k]?.km === km; k += 1) {
      const { count = 1, ended: end } = known[k]!;
      here += count;
      if (end) ended += count;
    }
    if (ended > 0) {
      share *= 1 - ended / atRisk;
      // With none left the sum has no end, and nothing of the share is left for it to be a doubt of.
      sum += atRisk > ended ? ended / (atRisk * (atRisk - ended)) : 0;
      steps.push({ km, atRisk, ended, share, plusMinus: share * Math.sqrt(sum) });
    }
    atRisk -= here;
  }
  return {
    belts,
    ended: steps.reduce((all, { ended }) => all + ended, 0),
    steps,
    medianKm: steps.find((step) => step.share <= 0.5 + 1e-12)?.km ?? null,
  };
}
