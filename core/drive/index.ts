/** The drive document: its types, reading and writing it, looking things up in it, and the edits the bench makes. */
export * from './types';
export {
  readDrive,
  parseDrive,
  parseDriveJson,
  writeDrive,
  DRIVE_FILE_EXTENSION,
  type DriveProblem,
  type DriveReading,
} from './read-drive';
export { beyondBounds, DRIVE_BOUNDS, type JsonBounds } from './json-bounds';
export {
  findPulley,
  stationOf,
  stationLabel,
  pulleyLabel,
  pulleysById,
  ROLE_LABELS,
  type PlacedPulley,
} from './look-up';
export { freeId, newDrive, newBelt, newPulley, newStation, STARTING_SIZES } from './templates';
export * from './edit';
