import type { WhoseDrive } from '@emery/core/api';

/** The columns that say whose something is, for a list that joins `drive` and `vehicle`. */
export const WHOSE = `vehicle.id AS vehicleId, vehicle.name AS vehicleName, vehicle.plate,
  vehicle.odometer AS vehicleOdometer, vehicle.odometerUnit, drive.id AS driveId, drive.name AS driveName`;

/** The joins they need, for a table with `vehicleId` and `driveId`: by the key of each row that was chosen. */
export const joinWhose = (table: string) =>
  `STRAIGHT_JOIN vehicle ON vehicle.id = ${table}.vehicleId
   STRAIGHT_JOIN drive ON drive.id = ${table}.driveId`;

/** `?` stands for each of some words that a row's `text` must all hold. */
export function allWords(words: readonly string[], pattern: (word: string) => Buffer, column: string) {
  return {
    conditions: words.map(() => `${column} LIKE ?`),
    values: words.map(pattern),
  };
}

/** Words of a search that are looked for; more say nothing more. */
export const MOST_WORDS = 8;

/** Words of a search that each row must hold. */
export const wordsIn = (search: string) =>
  search
    .split(/\s+/)
    .filter((word) => word !== '')
    .slice(0, MOST_WORDS);

/** Of a row, whose it is. */
export function whoseOf(row: WhoseDrive): WhoseDrive {
  const { vehicleId, vehicleName, plate, vehicleOdometer, odometerUnit, driveId, driveName } = row;
  return { vehicleId, vehicleName, plate, vehicleOdometer, odometerUnit, driveId, driveName };
}
