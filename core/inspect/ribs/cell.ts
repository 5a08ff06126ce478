import { inverse, Matrix } from 'ml-matrix';
import { weightedMean } from '../../numeric';
import { SQUARE_SIGMA } from './read-marks';

/**
 * One rib of a picture, the mean of several: `across` × `deep` values row by row, 1 on the ground and 0 in the belt;
 * from half a pitch left of its middle to half a pitch right, and from `from` to `to` pitches into the belt, 0 being
 * about half way down the flanks.
 */
export interface RibCell {
  across: number;
  deep: number;
  from: number;
  to: number;
  values: readonly (number | null)[];
  ribs: number;
}

/** A rib's shape, in pitches of its picture. */
export interface CellFit {
  /** How far in its tip and the groove's floor lie; `depthSigma` is one standard deviation of their distance. */
  top: number;
  bottom: number;
  depthSigma: number;
  /** How far the rib's middle lies aside of the cell's. */
  aside: number;
  /** The groove's width a little above its floor. */
  floor: number;
  floorSigma: number;
  /** One standard deviation of the blur. */
  blur: number;
  /** How much taller than wide things are shown. */
  stretch: number;
  stretchSigma: number;
  /** How far the picture is from the shape's, a chi-squared over its elements: near one where it is that of ribs. */
  misfit: number;
}

// Looked up once: these are called millions of times.
const { abs, ceil, exp, floor, hypot, max, min, round, sqrt } = Math;

/** Half the angle of a rib, as the pulleys' grooves have it (ISO 9981): what wears keeps it. */
const HALF_ANGLE = (20 * Math.PI) / 180;
/** Above its floor a groove's width is read at this much of its depth. */
const NEAR_FLOOR = 0.15;
/** Steps across a pitch in which a shape is blurred. */
const FINE = 160;

/* The unknowns: middle of the flanks' height, depth, floor's flat, stretch, blur, middle aside, roundness of tip and of
   floor, light and dark. */
const START = {
  middle: 0,
  depth: 0.7,
  flat: 0.2,
  stretch: 1,
  blur: 0.04,
  aside: 0,
  tipRound: 0.08,
  floorRound: 0.1,
  light: 1,
  dark: 0,
};
type Shape = typeof START;
const NAMES = Object.keys(START) as (keyof Shape)[];
const STEP: Shape = {
  middle: 0.004,
  depth: 0.004,
  flat: 0.004,
  stretch: 0.004,
  blur: 0.003,
  aside: 0.003,
  tipRound: 0.006,
  floorRound: 0.006,
  light: 0.01,
  dark: 0.01,
};
const BOUNDS: Record<keyof Shape, [number, number]> = {
  middle: [-0.4, 0.4],
  depth: [0.15, 1.1],
  flat: [0, 0.75],
  stretch: [0.88, 1.14],
  blur: [0.008, 0.2],
  aside: [-0.15, 0.15],
  tipRound: [0.01, 0.2],
  floorRound: [0.01, 0.5],
  light: [0.7, 1.3],
  dark: [-0.3, 0.3],
};
/**
 * Flanks tell how square a picture is only as well as their own angle is known: a worn belt's are not quite straight,
 * by this much of their slope. A default.
 */
const FLANK_SIGMA = 0.02;
/** What is known of a shape beforehand: a value and one standard deviation. */
const KNOWN: Partial<Record<keyof Shape, [number, number]>> = {
  stretch: [1, 0.08],
  tipRound: [0.08, 0.06],
  floorRound: [0.1, 0.08],
  light: [1, 0.05],
  dark: [0, 0.05],
};
/** A picture's grey is the shape's give or take this, where noise is out: shades and shine. */
const GREY_SIGMA = 0.03;
/** What no fit of one picture knows of a depth: the shapes of tips and floors that it does not have, pitches. */
const SHAPE_SIGMA = 0.005;
const MOST_STEPS = 14;

/** The shape of rib whose blurred picture is nearest to a cell's; null where none comes near. */
export function fitCell(cell: RibCell, onProgress: (share: number) => void = () => undefined): CellFit | null {
  let best: { shape: Shape; cost: number } | null = null;
  // A worn belt's floor is wide, a new one's is not: from both sides.
  for (const [k, start] of [
    { flat: 0.12, depth: 0.75 },
    { flat: 0.4, depth: 0.55 },
  ].entries()) {
    const found = descend(cell, { ...START, ...start }, (share) => onProgress((k + share) / 2));
    if (found && (!best || found.cost < best.cost)) best = found;
  }
  if (!best) return null;
  const { shape, cost } = best;
  const count = cell.values.filter((value) => value !== null).length;
  if (cost / count > 9) return null;
  const slopes = slopesAt(cell, shape);
  const normal = normalOf(slopes);
  let covariance: Matrix;
  try {
    // Neighbouring steps of a cell are not independent: what one pixel shows, several of them say.
    covariance = inverse(normal).mul(max(1, cost / count) * DEPENDENT);
  } catch {
    return null;
  }
  const sigma = (name: keyof Shape) => sqrt(max(0, covariance.get(NAMES.indexOf(name), NAMES.indexOf(name))));
  const edge = edgeOf(shape);
  const [top, bottom] = [min(...edge), max(...edge)];
  return {
    top,
    bottom,
    depthSigma: hypot(sigma('depth'), SHAPE_SIGMA),
    aside: shape.aside,
    floor: edge.filter((into) => into > bottom - NEAR_FLOOR * (bottom - top)).length / edge.length,
    floorSigma: hypot(sigma('flat'), sigma('floorRound'), 2 / FINE),
    blur: shape.blur,
    misfit: unlike(cell, shape),
    ...squareness(shape.stretch, sigma('stretch')),
  };
}

/**
 * How far a cell is from a shape in what both halves of the rib have in common, a chi-squared over its elements: light
 * that falls from a side, or a shadow, is no part of the shape.
 */
function unlike(cell: RibCell, shape: Shape): number {
  const { across, deep, values } = cell;
  const shown = pictureOf(cell, shape);
  let [sum, count] = [0, 0];
  for (let j = 0; j < deep; j += 1)
    for (let i = 0; i < across / 2; i += 1) {
      const [first, second] = [j * across + i, j * across + (across - 1 - i)];
      if (values[first] === null || values[second] === null) continue;
      const miss = (values[first]! - shown[first]! + values[second]! - shown[second]!) / 2;
      sum += (miss / GREY_SIGMA) ** 2;
      count += 1;
    }
  return sum / max(1, count);
}

/** How tall the picture shows things, of what its flanks say and of what a hand holds square (a weighted mean). */
function squareness(seen: number, sigma: number): Pick<CellFit, 'stretch' | 'stretchSigma'> {
  const { at, sigma: stretchSigma } = weightedMean([
    { at: seen, sigma: hypot(sigma, FLANK_SIGMA) },
    { at: 1, sigma: SQUARE_SIGMA },
  ]);
  return { stretch: at, stretchSigma };
}

const DEPENDENT = 4;

function descend(cell: RibCell, start: Shape, onProgress: (share: number) => void) {
  let shape = start;
  let cost = costOf(missesAt(cell, shape), shape);
  let damping = 1e-3;
  for (let step = 0; step < MOST_STEPS; step += 1) {
    onProgress(step / MOST_STEPS);
    const slopes = slopesAt(cell, shape);
    const misses = [...missesAt(cell, shape), ...priors(shape)];
    const normal = normalOf(slopes);
    const right = NAMES.map((_, i) => misses.reduce((sum, miss, n) => sum + miss * slopes[i]![n]!, 0));
    let better = false;
    for (let attempt = 0; attempt < 6 && !better; attempt += 1) {
      const damped = normal.clone();
      for (let i = 0; i < NAMES.length; i += 1) damped.set(i, i, damped.get(i, i) * (1 + damping) + 1e-9);
      const change = inverse(damped).mmul(Matrix.columnVector(right));
      const next = moved(shape, (i) => change.get(i, 0));
      const nextCost = costOf(missesAt(cell, next), next);
      if (nextCost < cost) {
        better = cost - nextCost > 1e-4 * cost;
        [shape, cost, damping] = [next, nextCost, damping / 4];
        break;
      }
      damping *= 6;
    }
    if (!better) break;
  }
  return Number.isFinite(cost) ? { shape, cost } : null;
}

const moved = (shape: Shape, by: (i: number) => number): Shape =>
  Object.fromEntries(
    NAMES.map((name, i) => {
      const [lowest, highest] = BOUNDS[name];
      return [name, max(lowest, min(highest, shape[name] + by(i)))];
    }),
  ) as Shape;

const priors = (shape: Shape): number[] =>
  NAMES.flatMap((name) => {
    const known = KNOWN[name];
    return known ? [(known[0] - shape[name]) / known[1]] : [];
  });

const costOf = (misses: readonly number[], shape: Shape) =>
  [...misses, ...priors(shape)].reduce((sum, miss) => sum + miss ** 2, 0);

function missesAt(cell: RibCell, shape: Shape): number[] {
  const shown = pictureOf(cell, shape);
  return cell.values.flatMap((value, k) => (value === null ? [] : [(value - shown[k]!) / GREY_SIGMA]));
}

/** What each unknown does to every picture element, and to what is known beforehand: a row an unknown. */
function slopesAt(cell: RibCell, shape: Shape): number[][] {
  return NAMES.map((name) => {
    const step = STEP[name];
    const [up, down] = [1, -1].map((way) => pictureOf(cell, { ...shape, [name]: shape[name] + way * step }));
    const ofPicture = cell.values.flatMap((value, k) =>
      value === null ? [] : [(up![k]! - down![k]!) / (2 * step * GREY_SIGMA)],
    );
    const ofKnown = NAMES.flatMap((other) => {
      const known = KNOWN[other];
      return known ? [other === name ? 1 / known[1] : 0] : [];
    });
    return [...ofPicture, ...ofKnown];
  });
}

const normalOf = (slopes: readonly (readonly number[])[]) =>
  new Matrix(slopes.map((a) => slopes.map((b) => a.reduce((sum, value, n) => sum + value * b[n]!, 0))));

/** How far into the belt its edge lies, at each fine step across a pitch. */
function edgeOf({ middle, depth, flat, stretch, aside, tipRound, floorRound }: Shape): Float64Array {
  const run = Math.tan(HALF_ANGLE) / stretch;
  const edge = new Float64Array(FINE);
  const [top, bottom] = [middle - depth / 2, middle + depth / 2];
  for (let i = 0; i < FINE; i += 1) {
    const t = (i + 0.5) / FINE - 0.5 - aside;
    const fromTip = abs(t - round(t));
    // The flank that ends at the floor's flat, and two soft corners.
    const flank = bottom - (0.5 - flat / 2 - fromTip) / run;
    edge[i] = softLeast(softMost(flank, top, tipRound), bottom, floorRound);
  }
  return edge;
}

/** The larger of two, with a round corner where they lie within `round` of one another, and none elsewhere. */
const softMost = (a: number, b: number, round: number) => max(a, b) + max(0, round - abs(a - b)) ** 2 / (4 * round);
const softLeast = (a: number, b: number, round: number) => -softMost(-a, -b, round);

/** The shape as a blurred picture shows it, at the cell's own steps. */
function pictureOf({ across, deep, from, to }: RibCell, shape: Shape): Float64Array {
  const edge = edgeOf(shape);
  const { blur, light, dark } = shape;
  const reach = min(FINE, ceil(3 * blur * FINE));
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, k) => exp(-0.5 * ((k - reach) / FINE / blur) ** 2));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const shown = new Float64Array(across * deep);
  for (let j = 0; j < deep; j += 1) {
    const into = from + ((to - from) * (j + 0.5)) / deep;
    // How much of the ground each fine step shows at this depth.
    const ground = edge.map((at) => normalShare((at - into) / blur));
    for (let i = 0; i < across; i += 1) {
      const middle = floor(((i + 0.5) / across) * FINE);
      let sum = 0;
      for (let k = -reach; k <= reach; k += 1) sum += weights[k + reach]! * ground[(middle + k + FINE) % FINE]!;
      shown[j * across + i] = dark + (light - dark) * (sum / total);
    }
  }
  return shown;
}

/** The share of a normal distribution below so many standard deviations: a table, summed up once. */
const TABLE = (() => {
  const table = new Float64Array(802);
  for (let k = 1; k < table.length; k += 1)
    table[k] = table[k - 1]! + exp(-0.5 * ((k - 0.5) / 100 - 4) ** 2) / 100 / sqrt(2 * Math.PI);
  return table;
})();
function normalShare(z: number): number {
  if (z <= -4) return 0;
  if (z >= 4) return 1;
  const at = (z + 4) * 100;
  const k = floor(at);
  return TABLE[k]! + (at - k) * (TABLE[k + 1]! - TABLE[k]!);
}
