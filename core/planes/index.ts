/** Readings of where pulleys stand, turned into planes, and planes into the angles of the belt's runs. */
export { fitPlane, ONE_PLACE, TILT_SIGMA, type FittedPlane, type PlaneReading } from './fit-plane';
export { wobbleOf, type Wobble } from './wobble';
export {
  asSums,
  bearingOf,
  datumOf,
  planeOf,
  readingsOf,
  SEAT_SIGMA,
  sigmaOf,
  TOOL_SIGMA,
  UNREAD_SIGMA,
  type Plane,
  type ReadingSet,
} from './planes';
export {
  alignmentOf,
  alongOf,
  guides,
  heightAt,
  pitchOf,
  quadratic,
  seatOf,
  slopeAlong,
  toDegrees,
  worseOf,
  worstDeg,
  type Alignment,
  type AngleLimits,
  type Run,
  type RunVerdict,
  type Shift,
} from './runs';
