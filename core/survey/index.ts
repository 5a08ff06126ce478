/** The tape network: readings between pulleys, the places they fix, how well, and which reading to take again. */
export {
  fitSurvey,
  type SurveyFit,
  type FittedStation,
  type FittedCircle,
  type FittedPicture,
  type FittedReading,
  type TapeWanted,
} from './fit';
export { laidOut, layOutOf, type LayOut } from './lay-out';
export { DEFAULT_PLUS_MINUS, isTape, plusMinusOf, valueOf, FINEST, readingOf } from './readings';
export { combinedDiameter, DIAMETER_PLUS_MINUS, withReadDiameters, type CombinedDiameter } from './diameters';
export type { SurveyFinding, SurveyFindingCode } from './survey-finding';
export { putDiameter, removeDiameter } from './edit';
export { surveyMessage, surveyWords } from './words';
export { surveyCommand } from './command';
