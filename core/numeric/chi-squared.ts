/**
 * The 99.9 % point of chi squared, by Wilson and Hilferty's cube: sound readings cost more in one network of a
 * thousand. Without spare readings next to nothing may be left.
 */
export function mostOfSound(degrees: number): number {
  if (degrees <= 0) return 1e-6;
  const part = 2 / (9 * degrees);
  return degrees * (1 - part + 3.09 * Math.sqrt(part)) ** 3;
}
