/** How a belt is tightened: an adjuster's travel, the path's length against it, and what holds the belt how hard. */
export {
  adjustersOf,
  armAngles,
  armThrough,
  besideAngle,
  newAdjuster,
  reversed,
  travelOf,
  type Travel,
} from './travel';
export {
  cordLengthOf,
  lengthCurve,
  pathLength,
  fractionFor,
  slopeOf,
  travelFromSlack,
  type LengthCurve,
} from './curve';
export { stiffnessN, stretchTension } from './stiffness';
export { armTension, armTorque } from './tension';
export { DEFAULT_TOOTHED_WIDTH_MM, defaultSetting, NEW_BELT_FACTOR, SET_AGAIN_FRACTION, widthOf } from './belt-setting';
