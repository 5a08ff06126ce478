/** Which pulley is off, and what puts it right: cures, parts, rollers, grooves and readings. */
export { alignCommand } from './command';
export {
  changeAlign,
  countFront,
  drawnByStacks,
  keepReading,
  movesDone,
  putMove,
  putPiece,
  removeMove,
  removePiece,
  seeTrack,
  takeSet,
} from './edit';
export type { AlignFinding, AlignFindingCode } from './finding';
export { alignFindings, planFindings, stackFindings } from './findings';
export { grooveCounts, type GrooveCount } from './grooves';
export { movedUnderLoad } from './loaded';
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
export { likelyWorst, type LikelyWorst } from './likely';
export {
  groovesOf,
  groovesThere,
  movesShaft,
  planFor,
  shiftOf,
  type Plan,
  type PlannedMove,
  type PlanSearch,
} from './plan';
export { pressState } from './press';
export { rollerTracks, TRACK_WORTH_A_WORD, type RollerTrack } from './rollers';
export { hiddenPlanes, simulatedLaser } from './simulate';
export { planeOfStack, searchSets, stacksOf, type SetSearch, type StackSet } from './stacks';
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
  tiltFigure,
  SUSPECT_WORDS,
  VERDICT_WORDS,
} from './words';
export { parseOffset } from './written';
