/** What to keep, what to change, how long it has left: the verdicts of an inspection. */
export { inspectCommand } from './command';
export {
  changeFinding,
  changeInspect,
  changeTakenBack,
  foundNow,
  hangPicture,
  nothingElseSeen,
  partChanged,
  putFinding,
  putLimit,
  readOdometer,
  skipPart,
  takeBackFinding,
  type Look,
} from './edit';
export type { InspectFindingCode, InspectTold } from './finding';
export { inspectFindings } from './findings';
export { findingsOf, partKey } from './latest';
export { gradeByKind, kindsAsked, mayRunAhead } from './kinds';
export {
  LIMITED,
  limitsOf,
  lowIsWorn,
  oddFigure,
  unitOf,
  withShopLimit,
  wornShare,
  type LimitedCheck,
  type LimitedPart,
  type LimitFrom,
  type Limits,
} from './limits';
export { checksOf, GLANCE, partsOf } from './parts';
export { placesOf, repeatOf, type Repeat } from './repeats';
export { replaceTogether } from './together';
export {
  foundOf,
  inspectDrive,
  VERDICTS,
  type InspectItem,
  type Judged,
  type ReasonCode,
  type Verdict,
} from './verdicts';
export { reaches, wornAt, type WearBend } from './bend';
export type { Wear } from './wear';
export {
  CHECK_WORDS,
  checkFigure,
  distanceFigure,
  foundWords,
  inspectedLabel,
  inspectMessage,
  inspectWords,
  judgedWords,
  leftFigure,
  leftSpan,
  limitWords,
  PULLEY_KIND_WORDS,
  rateFigure,
  readingFigure,
  reasonLines,
  UNIT_WORDS,
  VERDICT_WORDS,
  WHOSE_WORDS,
} from './words';
