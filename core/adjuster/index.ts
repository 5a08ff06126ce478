/** How a belt is tightened: an adjuster's travel, the path's length against it, and what holds the belt how hard. */
export { armAngles, armThrough, besideAngle, newAdjuster, reversed, travelOf, type Travel } from './travel';
export {
  cordLengthOf,
  lengthCurve,
  pathLength,
  fractionFor,
  slopeOf,
  travelFromSlack,
  type LengthCurve,
} from './curve';
export { armTension, armTorque, stiffnessN, stretchTension } from './tension';
