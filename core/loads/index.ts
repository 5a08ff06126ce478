/** What torque and pull a belt works under, and between which tensions at rest it is right for them. */
export { GRIP, massOf, sectionOf, twistStiffness } from './belt-figures';
export { demandOf, type OwnTorque, type Running } from './demand';
export { runDrive, tensionOf, worstOf, type DriveRunning, type DriveTension } from './drive-tension';
export { runBelt, type BeltRunning, type PulleyRunning } from './running';
export { staticBeltOf, type StaticBelt, type TensionSource } from './static-belt';
export {
  asksOf,
  hardestLoad,
  leastFor,
  lifeRatio,
  SAFE_MARGIN,
  windowOf,
  type TensionWindow,
  type WindowEnd,
} from './window';
export { hotRise, NEXT_LOOK, nextLookAfter, RUN_IN_MINUTES, usualSetting, usualWindow, WARM_KELVIN } from './new-belt';
export { targetTension, newBeltAt, newBeltFigures, type NewBeltFigures } from './setting';
export { SITUATIONS, statesThatMatter, stateWords, type Situation } from './situations';
