/** Belt sections: the constants that turn a cord line into a marked length, and the markings printed on belts. */
export { SURFACES, type Face, type Side, type Surface } from './face';
export {
  DRIVE_SIDE_WORDS,
  SECTIONS,
  SECTION_NAMES,
  sectionFor,
  type Section,
  type SectionOverrides,
  OVERRIDABLE,
} from './sections';
export { askFor, type AskFor } from './ask-for';
export {
  BELT_BUILDS,
  type BeltBuild,
  markingsOf,
  readMarking,
  SCHEME_WORDS,
  type MarkedBelt,
  type MarkingReading,
  type MarkingText,
} from './marking';
export { cordRadiusMm, markedLengthMm, beltWidthMm, bodyRadiusMm, facingDepthMm, halfGrooveAngle } from './contact';
export { markingCommand } from './command';
