/** The words for what the sums find, in one place for the screen and the command line. */
export { findingWords, findingMessage, type FindingWords } from './finding-words';
