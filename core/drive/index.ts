/** The drive document: its types, reading and writing it, looking things up in it, and the edits the bench makes. */
export * from './drive';
export * from './align';
export * from './inspect';
export * from './job';
export * from './noise';
export * from './role';
export * from './station';
export * from './obstacle';
export * from './measuring';
export * from './belt';
export * from './tried';
export * from './survey';
export * from './speeds';
export * from './tension';
export { isMoment, momentOf } from './moment';
export { seenTrack } from './seen-track';
export { list, optionalList, type Point } from './fields';
export {
  isStillDrive,
  readDrive,
  parseDrive,
  parseDriveJson,
  writeDrive,
  fieldsBeside,
  withoutBeside,
  DRIVE_FILE_EXTENSION,
  type DriveProblem,
  type DriveReading,
} from './read-drive';
export { beyondBounds, DRIVE_BOUNDS, type JsonBounds } from './json-bounds';
export {
  itemsOf,
  type Json,
  LISTS,
  put,
  putItem,
  removeItem,
  brokenNames,
  namesIn,
  rulesOf,
  withItems,
  withoutLostNames,
  type ListItems,
  type ListName,
  type ListRules,
} from './lists';
export {
  findPulley,
  obstacleLabel,
  stationOf,
  stationLabel,
  pulleyLabel,
  pulleysById,
  ROLE_LABELS,
  type PlacedPulley,
} from './look-up';
export {
  BELT_AGE_WORDS,
  DIAMETER_WORDS,
  INSPECT_CHECK_NAMES,
  LAY_WORDS,
  NOISE_TEST_NAMES,
  ODOMETER_WORDS,
  READING_WORDS,
  STATE_WORDS,
  TENSION_WAY_WORDS,
  TOOL_WORDS,
} from './labels';
export { type FieldLabel } from './fields';
export { fieldLabel, fileFields, type FileField } from './field-labels';
export { driveDifferences, type DriveDifference } from './differences';
export {
  endIdsWith,
  freeId,
  freeIdIn,
  newDrive,
  newBelt,
  newPulley,
  newStation,
  STARTING_SIZES,
  SURFACE_OF,
} from './templates';
export * from './edit';
export { type Full, fullWords, MOST_DRIVE_BYTES, withinLists } from './full-lists';
export * from './listen-again';
export * from './odometer';
export { cameOffBy, ofBeltNow } from './belt-changed';
export { lastOdometer } from './last-odometer';
export * from './merge-rules';
export { same } from './same';
