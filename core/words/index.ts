/** The words for what the sums find, in one place for the screen and the command line. */
export { surveyWords, surveyMessage, DIAMETER_WORDS, READING_WORDS } from './survey-words';
export { routeReason } from './route-words';
export { findingWords, obstacleLabel, findingMessage, type FindingWords } from './finding-words';
export { photoWords, photoMessage } from './photo-words';
export { candidateSentence, sizeWords, sizeMessage, VERDICT_WORDS } from './size-words';
