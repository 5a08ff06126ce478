/** What every shaft turns at any engine speed, what that does to each accessory, and which pulley to change. */
export {
  bandFindings,
  speedsOf,
  speedFindings,
  type BandFinding,
  type BeltPace,
  type ShaftSpeed,
  type SpeedFinding,
  type Speeds,
} from './speeds';
export { bandOf, DEFAULT_BANDS, placeIn, type BandPlace, type BandSource, type ShopBands } from './bands';
export { chainTo, type Link } from './chain';
export { limitsFor, type BeltLimits } from './limits';
export {
  explainRatio,
  ratioOf,
  readRatio,
  type ClaimedRatio,
  type RatioReading,
  type RatioMistake,
} from './ratio-mistake';
export {
  meanEngineRpm,
  normalised,
  presetUse,
  timeInBand,
  turnsOf,
  USE_PRESETS,
  withShare,
  type TimeInBand,
  type UsePreset,
} from './use';
export { addLogRow, binsOfLog, logColumns, newSpeedLog, type LogColumns, type SpeedLog } from './speed-log';
export { withPulley, type PulleyAtHand, type PulleyChange } from './pulley-choice';
export { asPulley, sizesFor, type SizeWanted } from './wanted';
export { effectOf, type DriveEffect } from './effect';
export {
  choosePulleys,
  setsOf,
  type PulleyAnswer,
  type PulleySearch,
  type PulleySearchOptions,
  type SpeedReason,
  type SpeedTarget,
} from './search';
export { CREEP_PERCENT, DEFAULT_TACHOMETER, simulatedReading, slipOf, type Slip } from './tachometer';
export {
  BAND_SOURCE_WORDS,
  bandWords,
  PLACE_WORDS,
  ratioFigure,
  ratioReadingWords,
  ratioStatement,
  rpmFigure,
  slipWords,
  speedMessage,
  speedReason,
  speedWords,
  USE_WORDS,
} from './words';
export { speedsCommand } from './command';
