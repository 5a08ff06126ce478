/** The figure at a place of a list, 0 beyond its end. */
export const figureAt = (list: ArrayLike<number>, place: number): number => list[place] ?? 0;

/** The sum of the products of two lists, as far as both go. */
export function product(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  const end = Math.min(a.length, b.length);
  for (let k = 0; k < end; k += 1) sum += figureAt(a, k) * figureAt(b, k);
  return sum;
}
