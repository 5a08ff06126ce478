/** A close-up of ribs: found or marked, and what it says of their wear. */
export { findRibs, type FoundRibs, type NoRibsFound } from './find-ribs';
export type { GreyPicture } from './frame';
export { makeRibs, RIBS_AS_NEW, type MadeRibs, type RibsAsked } from './make-ribs';
export { readMarks, type NoRibReading, type RibReading } from './read-marks';
