/** Sums that know nothing of belts. */
export { besideAngle, DEGREES, headingDeg, RADIANS, toDegrees, toRadians } from './angles';
export { mostOfSound } from './chi-squared';
export { inOrder, monotoneAt, type CurvePoint } from './monotone';
export { figureAt, product } from './figure-at';
export { chanceBelow } from './normal-chance';
export { deviates, normals } from './normals';
export {
  afterReading,
  type BoundSum,
  drawWithin,
  type JointNormal,
  normalOf,
  type ReadSum,
  type Sum,
  withMoreDoubt,
} from './joint-normal';
export { pseudoSolve } from './pseudo-inverse';
export { hundredth, tenth } from './rounding';
export { againstTheOthers, deviationsApart, weightedMean, type Figure } from './weighted-mean';
export { weightedLine, type WeightedLine } from './line';
export { median } from './median';
export { topBeside } from './top';
