/** Readings of where pulleys stand, turned into planes, and planes into the angles of the belt's runs. */
export { fitPlane, type PlaneReading } from './fit-plane';
export { runOutOf, wobbleOf, WOBBLES_MM } from './wobble';
export {
  asSums,
  datumOf,
  planeOf,
  readingsOf,
  SEAT_SIGMA,
  sigmaOf,
  TOOL_SIGMA,
  type Plane,
  type ReadingSet,
} from './planes';
export {
  alignmentOf,
  alongOf,
  datumSeatOf,
  guides,
  heightAt,
  pitchOf,
  quadratic,
  riseGradient,
  runsOf,
  seatOf,
  slopeAlong,
  steepnessDeg,
  worseOf,
  worstDeg,
  worstFirst,
  type Alignment,
  type Run,
  type RunVerdict,
  type Shift,
} from './runs';
