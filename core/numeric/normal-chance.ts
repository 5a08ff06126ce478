/**
 * The share of a normal curve below so many of its standard deviations, 0 to 1, within 1e-7 (Abramowitz and Stegun,
 * 26.2.17).
 */
export function chanceBelow(deviations: number): number {
  if (deviations < 0) return 1 - chanceBelow(-deviations);
  const t = 1 / (1 + 0.2316419 * deviations);
  const tail = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return 1 - (Math.exp((-deviations * deviations) / 2) / Math.sqrt(2 * Math.PI)) * tail;
}
