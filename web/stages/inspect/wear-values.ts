/** About the width of a letter and the height of a line of the chart's figures, px. */
const LETTER = 7.2;
const LINE = 15;
/** Where a figure stands beside its reading, px. */
export const BESIDE = { x: 9, y: -8 };

interface Written {
  x: number;
  y: number;
  text: string;
}

/**
 * The readings whose figures are written out, by their places in the list: the last, the first, then from the newest
 * back, as long as none is written over another. The others are told where they are pointed at.
 */
export function valuesWithRoom(readings: readonly Written[]): ReadonlySet<number> {
  const last = readings.length - 1;
  const newestFirst = [...readings.entries()].reverse();
  const isEnd = ([at]: readonly [number, Written]) => at === last || at === 0;
  const order = [...newestFirst.filter(isEnd), ...newestFirst.filter((entry) => !isEnd(entry))];
  const taken: { left: number; right: number; y: number }[] = [];
  const written = new Set<number>();
  for (const [at, reading] of order) {
    const { x, y, text } = reading;
    const box = { left: x + BESIDE.x, right: x + BESIDE.x + text.length * LETTER, y };
    const free = taken.every(
      (other) => box.left > other.right || box.right < other.left || Math.abs(box.y - other.y) > LINE,
    );
    if (!free) continue;
    taken.push(box);
    written.add(at);
  }
  return written;
}
