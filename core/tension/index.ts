/** How tight a belt is, what slips, what it costs the bearings, and what every check by hand reads. */
export { remediesFor, WRAP_STEP_DEG, type Remedies } from './remedies';
export { marginMap, type MapAsk, type MarginCell, type MarginMap } from './margin-map';
export {
  DEFAULT_HAND,
  readsOf,
  spanFigures,
  spanOf,
  tensionOfPluck,
  waysOf,
  type Hand,
  type SpanChecks,
  type SpanFigures,
  type SpanReads,
} from './ways';
export {
  ARM_FRICTION,
  calibrated,
  cannotTell,
  combineReadings,
  meaningOf,
  meaningOnSpan,
  pointerTension,
  type CannotTell,
  type CombinedTension,
  type Meaning,
  type SpanReading,
} from './readings';
export { armHealthRead, armReadings, latestOf, measuredTension, meaningsOf, readingsNow, sittingsOf } from './sitting';
export { armHealth, ARM_VERDICTS, type ArmHealth, type ArmVerdict } from './arm-health';
export { DEFAULT_BAR, settingFor, sharedSettings, type Bar, type Setting, type SharedSetting } from './setting';
export { LEAST_TEETH, restFindings, runningFindings, teethInMesh, toothLoads, windowFindings } from './findings';
export type { TensionFinding, TensionFindingCode } from './finding';
export { hearPluck, type NoPluck, type PluckAsk, type PluckHeard, type PluckReadingOfSound } from './pluck';
export { simulatedPlucks, type SimulatedRoom } from './simulate';
export {
  ARM_WORDS,
  CANNOT_TELL_WORDS,
  fineFigure,
  forceFigure,
  forcePlusMinus,
  shortForce,
  marginFigure,
  NO_PLUCK_WORDS,
  SOURCE_WORDS,
  tensionMessage,
  tensionWords,
} from './words';
export { tensionCommand } from './command';
export { pluckCommand } from './pluck-command';
