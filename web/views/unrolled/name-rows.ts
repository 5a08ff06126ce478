/** Names under their pulleys, on two rows where they would touch. */
export function namesOf(
  pieces: readonly { name: string; from: number; to: number }[],
  x: (mm: number) => number,
): { text: string; at: number; row: number }[] {
  const ends = [-Infinity, -Infinity];
  return pieces
    .filter(({ name }) => name !== '')
    .flatMap(({ name, from, to }) => {
      const half = name.length * 3.4 + 4;
      const at = Math.max(half, (x(from) + x(to)) / 2);
      const row = ends.findIndex((end) => at - half > end);
      if (row < 0) return [];
      ends[row] = at + half;
      return [{ text: name, at, row }];
    });
}
