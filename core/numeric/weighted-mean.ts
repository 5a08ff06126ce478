/** A figure with one standard deviation, in the same unit. */
export interface Figure {
  at: number;
  sigma: number;
}

/** The mean of independent figures, each weighed by the inverse square of its standard deviation. */
export function weightedMean(figures: readonly Figure[]): Figure {
  const weight = figures.reduce((sum, { sigma }) => sum + sigma ** -2, 0);
  return { at: figures.reduce((sum, { at, sigma }) => sum + at * sigma ** -2, 0) / weight, sigma: weight ** -0.5 };
}

/** How far one figure lies from another, in standard deviations of the difference; below zero where it is less. */
export function deviationsApart(a: Figure, b: Figure): number {
  return (a.at - b.at) / Math.hypot(a.sigma, b.sigma);
}

/** How far each figure lies from the mean of all the others, in standard deviations; null for one that is alone. */
export function againstTheOthers(figures: readonly Figure[]): (number | null)[] {
  return figures.map((figure) => {
    const others = figures.filter((other) => other !== figure);
    return others.length === 0 ? null : deviationsApart(figure, weightedMean(others));
  });
}
