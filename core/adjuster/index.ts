/** How a belt is tightened: an adjuster's travel, the path's length against it, and what holds the belt how hard. */
export { ADJUSTER_KINDS, adjusterKind } from './kinds';
export {
  type AdjusterKind,
  type AdjusterSteps,
  type Asked,
  DEFAULT_PITCH_MM,
  type HandSetting,
  type Travel,
} from './kinds/kind';
export { armAngles } from './kinds/sprung-arm';
export { adjustersOf, armThrough, newAdjuster, reversed, travelOf } from './travel';
export {
  cordLengthOf,
  lengthCurve,
  pathLength,
  fractionFor,
  lengthAt,
  type LongerThanDrawn,
  measuredCurve,
  slopeOf,
  travelFromSlack,
  type LengthCurve,
} from './curve';
export { stiffnessN, stretchTension } from './stiffness';
export { armTension, armTorque } from './tension';
export { DEFAULT_TOOTHED_WIDTH_MM, defaultSetting, NEW_BELT_FACTOR, SET_AGAIN_FRACTION, widthOf } from './belt-setting';
