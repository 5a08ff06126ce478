/** How far one belt ran, and whether that was its end: else it still runs, or came off while it was good. */
export interface Ran {
  km: number;
  ended: boolean;
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
  const steps: SurvivalStep[] = [];
  let [share, sum] = [1, 0];
  for (let from = 0; from < known.length;) {
    const { km } = known[from]!;
    const atRisk = known.length - from;
    let ended = 0;
    for (; known[from]?.km === km; from += 1) if (known[from]!.ended) ended += 1;
    if (ended === 0) continue;
    share *= 1 - ended / atRisk;
    // With none left the sum has no end, and nothing of the share is left for it to be a doubt of.
    sum += atRisk > ended ? ended / (atRisk * (atRisk - ended)) : 0;
    steps.push({ km, atRisk, ended, share, plusMinus: share * Math.sqrt(sum) });
  }
  return {
    belts: known.length,
    ended: known.filter(({ ended }) => ended).length,
    steps,
    medianKm: steps.find((step) => step.share <= 0.5 + 1e-12)?.km ?? null,
  };
}
