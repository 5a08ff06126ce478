import type { Point } from '@emery/core/path';

/** A cell of the view, px: what lies in any part of it takes all of it. */
const CELL = 4;
/** From the middle of a cell to its corner, px. */
const CORNER = Math.SQRT1_2 * CELL;

interface Taken {
  circles: readonly { x: number; y: number; r: number }[];
  lines: readonly { start: Point; end: Point }[];
  width: number;
  height: number;
}

/** Whether a box lies on free ground, by its middle and its sides, px. */
export type IsFree = (box: { x: number; y: number; w: number; h: number }) => boolean;

/**
 * The ground that is free of circles and lines, with a margin around each, asked for any box at once: a raster of the
 * view, summed up from its corner (a summed-area table), so that four sums say whether anything lies in a box. It errs
 * by a cell at most, and never takes for free what is not.
 */
export function freeGround({ circles, lines, width, height }: Taken, aroundRim: number, aroundLine: number): IsFree {
  const [columns, rows] = [Math.ceil(width / CELL) + 1, Math.ceil(height / CELL) + 1];
  const across = columns + 1;
  const taken = new Uint8Array(columns * rows);
  const disc = (x: number, y: number, r: number) => {
    const reach = r + CORNER;
    const top = Math.max(0, Math.floor((y - reach) / CELL));
    const bottom = Math.min(rows - 1, Math.floor((y + reach) / CELL));
    for (let row = top; row <= bottom; row += 1) {
      const half = Math.sqrt(Math.max(0, reach * reach - ((row + 0.5) * CELL - y) ** 2));
      const from = Math.max(0, Math.floor((x - half) / CELL));
      const to = Math.min(columns, Math.floor((x + half) / CELL) + 1);
      if (to > from) taken.fill(1, row * columns + from, row * columns + to);
    }
  };
  for (const { x, y, r } of circles) disc(x, y, r + aroundRim);
  for (const { start, end } of lines) {
    const steps = Math.ceil(Math.hypot(end.x - start.x, end.y - start.y) / CELL) || 1;
    for (let step = 0; step <= steps; step += 1) {
      const t = step / steps;
      disc(start.x + t * (end.x - start.x), start.y + t * (end.y - start.y), aroundLine + CELL / 2);
    }
  }
  const sums = new Int32Array(across * (rows + 1));
  for (let row = 0; row < rows; row += 1) {
    let sum = 0;
    for (let column = 0; column < columns; column += 1) {
      sum += taken[row * columns + column] ?? 0;
      sums[(row + 1) * across + column + 1] = (sums[row * across + column + 1] ?? 0) + sum;
    }
  }
  const at = (column: number, row: number) => sums[row * across + column] ?? 0;
  const clamped = (value: number, limit: number) => Math.max(0, Math.min(limit, Math.floor(value / CELL)));
  return ({ x, y, w, h }) => {
    const [left, right] = [clamped(x - w / 2, columns - 1), clamped(x + w / 2, columns - 1) + 1];
    const [top, bottom] = [clamped(y - h / 2, rows - 1), clamped(y + h / 2, rows - 1) + 1];
    return at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top) === 0;
  };
}
