/** Which pulley is off, and what puts it right: cures, parts, rollers, grooves and readings. */
export { blundersOf } from './blunders';
export { alignCommand } from './command';
export {
  changeAlign,
  countFront,
  keepReading,
  movesDone,
  putMove,
  putPiece,
  removeMove,
  removePiece,
  seeTrack,
  takeSet,
} from './edit';
export { ALIGN_FINDING_CODES, type AlignFinding, type AlignFindingCode } from './finding';
export { alignFindings, planFindings, pressedOn, stackFindings, tiltDegrees } from './findings';
export { grooveCounts, ribsOff, type GrooveCount } from './grooves';
export { movedUnderLoad, type LoadedMove } from './loaded';
export { nextLoadedReadings, nextReadings, placeWords, RIM_PLACES, type NextReading } from './next-reading';
export {
  MOST_PARTS,
  PART_COLUMNS,
  PART_KINDS,
  partRow,
  readPartRow,
  type PartAtHand,
  type PartKind,
} from './parts-at-hand';
export { groovesOf, planFor, shiftOf, type Plan, type PlannedMove, type PlanSearch } from './plan';
export { pressState, PRESSED_WITHIN, type PressState } from './press';
export { rollerTracks, type RollerTrack } from './rollers';
export { hiddenPlanes, simulatedLaser, type LaserReading, type LaserSource } from './simulate';
export {
  MOST_SETS,
  planeOfStack,
  searchSets,
  SETS_TOLD,
  stacksOf,
  type SetSearch,
  type StackPlane,
  type StackSet,
} from './stacks';
export {
  ALIGN_TOOL_WORDS,
  alignMessage,
  alignWords,
  degreeFigure,
  MOVE_WORDS,
  moveWords,
  offsetFigure,
  shortFigure,
  shortOffset,
  smallFigure,
  SUSPECT_WORDS,
  VERDICT_WORDS,
} from './words';
export { parseOffset, type OffsetReading } from './written';
