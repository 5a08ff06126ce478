/** Next to certain or to nothing it says so, in a narrow column by sign. */
export function percent(fraction: number, narrow = false): string {
  if (fraction > 0.995) return narrow ? '> 99 %' : 'over 99 %';
  if (fraction < 0.005) return narrow ? '< 1 %' : 'under 1 %';
  return `${Math.round(100 * fraction)} %`;
}
