import { inverse, Matrix } from 'ml-matrix';
import type { PicturePoint, RibMarks } from '../../drive';
import type { Figure } from '../../numeric';

/** What marks in a close-up come to. */
export interface RibReading {
  ok: true;
  /** How deep the grooves between the ribs are, mm, with one standard deviation. */
  depthMm: Figure;
  /** px of the picture from one rib to the next, in its middle. */
  pitchPx: number;
  /** Marks further from where the others put them than their doubt allows, by place in `tips` and in `valleys`. */
  off: { tips: number[]; valleys: number[] };
  /** True where how square the picture was taken is a default, and not told by the ribs' flanks. */
  squareTaken: boolean;
}
export interface NoRibReading {
  ok: false;
  why: 'too-few' | 'not-in-a-row' | 'too-small';
}

/** A hand and an eye put a mark to this much of a pitch, one standard deviation. A default. */
const HAND_SHARE = 0.02;
/** A close-up by hand shows things this much too tall or too wide, as a fraction. A default: within 13° of square. */
export const SQUARE_SIGMA = 0.025;
/** A mark is off where it misses by more standard deviations. */
const OFF = 3.5;
/** Perspective is told from this many marks on. */
const FOR_PERSPECTIVE = 7;
/** A pitch of fewer px than this shows no rib, or so few that no mark could be put well. */
const LEAST_PITCH_PX = 8;

/** A mark with its place in the row: tips at whole numbers, valleys half way between. */
interface Placed {
  at: PicturePoint;
  k: number;
  tip: boolean;
  index: number;
}

/**
 * The depth of ribs from marks on their tips and valleys. The ribs' own pitch is the ruler: tips lie a pitch apart on
 * one line, valleys midway between on another, `depth` from it (least squares, with the perspective along the row where
 * there are marks enough). `pitchMm` is the section's.
 */
export function readMarks({ tips, valleys, sigmaPx, stretch }: RibMarks, pitchMm: number): RibReading | NoRibReading {
  if (tips.length < 2 || valleys.length < 2) return { ok: false, why: 'too-few' };
  const placed = inARow(tips, valleys);
  if (!placed) return { ok: false, why: 'not-in-a-row' };
  const start = startOf(placed);
  const pitch = Math.hypot(start[2]!, start[3]!);
  if (!(pitch >= LEAST_PITCH_PX)) return { ok: false, why: 'too-small' };
  const sigma = sigmaPx ?? HAND_SHARE * pitch;
  const fit = fitRow(placed, start, sigma, placed.length >= FOR_PERSPECTIVE ? 6 : 5);
  if (!fit) return { ok: false, why: 'not-in-a-row' };
  const [, , ux, uy, depth] = fit.values;
  const pitchPx = Math.hypot(ux!, uy!);
  const share = Math.abs(depth!) / pitchPx;
  // d(depth/pitch): of the depth itself, and of the two parts of the pitch.
  const slopes = fit.values.map(() => 0);
  slopes[2] = (-share * ux!) / pitchPx ** 2;
  slopes[3] = (-share * uy!) / pitchPx ** 2;
  slopes[4] = Math.sign(depth!) / pitchPx;
  const variance = slopes.reduce(
    (sum, a, i) => sum + slopes.reduce((row, b, j) => row + a * b * fit.covariance.get(i, j), 0),
    0,
  );
  const square = stretch ?? { at: 1, plusMinus: SQUARE_SIGMA };
  const at = (share * pitchMm) / square.at;
  return {
    ok: true,
    depthMm: {
      at,
      sigma: Math.hypot((Math.sqrt(variance) * pitchMm) / square.at, (at * square.plusMinus) / square.at),
    },
    pitchPx,
    off: astray(placed, start, sigma),
    squareTaken: stretch === undefined,
  };
}

/**
 * The marks that lie where the others do not put them: the one that misses most is left out and the rest fitted anew,
 * until none misses by much, so that one that is astray accuses no other.
 */
function astray(placed: readonly Placed[], start: readonly number[], sigma: number): RibReading['off'] {
  let left = placed;
  const off: RibReading['off'] = { tips: [], valleys: [] };
  while (left.length > LEAST_TO_ACCUSE) {
    const fit = fitRow(left, start, sigma, left.length >= FOR_PERSPECTIVE ? 6 : 5);
    const worst = fit ? fit.missed.indexOf(Math.max(...fit.missed)) : -1;
    if (worst < 0 || fit!.missed[worst]! <= OFF * sigma) break;
    const { tip, index } = left[worst]!;
    (tip ? off.tips : off.valleys).push(index);
    left = left.filter((_, k) => k !== worst);
  }
  return off;
}

/** With fewer marks than this none can be told from the others. */
const LEAST_TO_ACCUSE = 5;

/** Each mark's place in the row; null where they do not lie in one. */
function inARow(tips: readonly PicturePoint[], valleys: readonly PicturePoint[]): Placed[] | null {
  const [dx, dy] = directionOf([tips, valleys]);
  const along = ([x, y]: PicturePoint) => dx * x + dy * y;
  const all = [
    ...tips.map((at, index) => ({ at, index, tip: true, s: along(at) })),
    ...valleys.map((at, index) => ({ at, index, tip: false, s: along(at) })),
  ].sort((a, b) => a.s - b.s);
  const gaps = [true, false].flatMap((tip) => {
    const row = all.filter((mark) => mark.tip === tip);
    return row.slice(1).map(({ s }, k) => s - row[k]!.s);
  });
  const min = Math.min(...gaps);
  if (!(min > 0)) return null;
  // A rib that nobody marked leaves a gap of two.
  const near = gaps.filter((gap) => gap < 1.5 * min).sort((a, b) => a - b);
  const pitch = near[near.length >> 1]!;
  let k = all[0]!.tip ? 0 : 0.5;
  const placed = all.map(({ at, index, tip, s }, n): Placed => {
    if (n > 0) {
      const step = (s - all[n - 1]!.s) / pitch;
      k += tip === all[n - 1]!.tip ? Math.round(step) : Math.round(step - 0.5) + 0.5;
    }
    return { at, index, tip, k };
  });
  const taken = new Set(placed.map((mark) => mark.k));
  return taken.size === placed.length ? placed : null;
}

/** The direction in which marks lie, each kind about its own middle (the first principal axis), as a unit. */
function directionOf(rows: readonly (readonly PicturePoint[])[]): [number, number] {
  let [xx, xy, yy] = [0, 0, 0];
  for (const row of rows) {
    const [mx, my] = [0, 1].map((i) => row.reduce((sum, point) => sum + point[i]!, 0) / row.length);
    for (const [x, y] of row) {
      xx += (x - mx!) ** 2;
      xy += (x - mx!) * (y - my!);
      yy += (y - my!) ** 2;
    }
  }
  const turn = Math.atan2(2 * xy, xx - yy) / 2;
  return [Math.cos(turn), Math.sin(turn)];
}

/** A first guess: origin, pitch vector, depth, perspective. */
function startOf(placed: readonly Placed[]): number[] {
  const middle = (value: (mark: Placed) => number, list: readonly Placed[]) =>
    list.reduce((sum, mark) => sum + value(mark), 0) / list.length;
  const tips = placed.filter(({ tip }) => tip);
  const valleys = placed.filter(({ tip }) => !tip);
  // Slopes of each kind about its own middle, together.
  let [spread, sx, sy] = [0, 0, 0];
  for (const row of [tips, valleys]) {
    const [mk, mx, my] = [middle(({ k }) => k, row), middle(({ at }) => at[0], row), middle(({ at }) => at[1], row)];
    for (const { k, at } of row) {
      spread += (k - mk) ** 2;
      sx += (k - mk) * (at[0] - mx);
      sy += (k - mk) * (at[1] - my);
    }
  }
  const [ux, uy] = [sx / spread, sy / spread];
  const origin = (row: readonly Placed[]) => [
    middle(({ at, k }) => at[0] - k * ux, row),
    middle(({ at, k }) => at[1] - k * uy, row),
  ];
  const [top, bottom] = [origin(tips), origin(valleys)];
  const length = Math.hypot(ux, uy);
  const depth = ((bottom[0]! - top[0]!) * -uy + (bottom[1]! - top[1]!) * ux) / length;
  return [top[0]!, top[1]!, ux, uy, depth, 0];
}

/** Where a row puts a mark. */
function putAt([x, y, ux, uy, depth, lean = 0]: readonly number[], { k, tip }: Placed, middle: number): PicturePoint {
  const length = Math.hypot(ux!, uy!) || 1;
  const into = tip ? 0 : depth! / length;
  const near = 1 + lean * (k - middle);
  const [cx, cy] = [x! + middle * ux!, y! + middle * uy!];
  return [cx + ((k - middle) * ux! - into * uy!) / near, cy + ((k - middle) * uy! + into * ux!) / near];
}

const STEPS = 12;

/** Gauss and Newton's steps to the row that lies nearest to the marks. */
function fitRow(placed: readonly Placed[], start: readonly number[], sigma: number, unknowns: number) {
  let values = start.slice(0, unknowns);
  const middle = (placed[0]!.k + placed[placed.length - 1]!.k) / 2;
  const scale = Math.hypot(start[2]!, start[3]!);
  const sizes = [scale, scale, scale, scale, scale, 1].slice(0, unknowns);
  const missesAt = (at: readonly number[]) =>
    placed.flatMap((mark) => {
      const [x, y] = putAt(at, mark, middle);
      return [(mark.at[0] - x) / sigma, (mark.at[1] - y) / sigma];
    });
  const slopesAt = (at: readonly number[]) => {
    const columns = at.map((_, i) => {
      const step = 1e-4 * sizes[i]!;
      const [up, down] = [1, -1].map((way) => missesAt(at.map((value, j) => (j === i ? value + way * step : value))));
      return up!.map((value, n) => (down![n]! - value) / (2 * step));
    });
    return new Matrix(missesAt(at).map((_, n) => columns.map((column) => column[n]!)));
  };
  try {
    for (let step = 0; step < STEPS; step += 1) {
      const slopes = slopesAt(values);
      const across = slopes.transpose();
      const change = inverse(across.mmul(slopes)).mmul(across.mmul(Matrix.columnVector(missesAt(values))));
      values = values.map((value, i) => value + change.get(i, 0));
    }
    const slopes = slopesAt(values);
    const misses = missesAt(values);
    const spare = Math.max(1, misses.length - unknowns);
    // Marks that lie further apart than a hand puts them are known no better than they agree.
    const growth = Math.max(1, misses.reduce((sum, miss) => sum + miss ** 2, 0) / spare);
    const covariance = inverse(slopes.transpose().mmul(slopes)).mul(growth);
    if (!values.every(Number.isFinite)) return null;
    const missed = placed.map((_, n) => sigma * Math.hypot(misses[2 * n]!, misses[2 * n + 1]!));
    return { values, covariance, missed };
  } catch {
    // Marks that leave the row open, such as all on one spot.
    return null;
  }
}
