/** The words for what the sums find, in one place for the screen and the command line. */
export { surveyWords, surveyMessage, DIAMETER_WORDS, READING_WORDS } from './survey-words';
export { driveDifferences, type DriveDifference } from './drive-differences';
export { routeReason } from './route-words';
export { findingWords, obstacleLabel, findingMessage, type FindingWords } from './finding-words';
export { photoWords, photoMessage } from './photo-words';
export {
  LAY_WORDS,
  layNote,
  releaseWords,
  RULE_WORDS,
  STATE_WORDS,
  TOOL_WORDS,
  candidateSentence,
  sizeWords,
  sizeMessage,
  VERDICT_WORDS,
} from './size-words';
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
} from './speed-words';
