import { readJson } from '../http/json-body';
import { invalid, readBody } from '../http/problem';
import { eventsBody, newJobBody } from './body';
import { DRIVE_BOUNDS, type JsonBounds, readDrive } from '@emery/core/drive';
import type { JobEvent } from '@emery/core/job';

/** A job's sheet has its drive two levels down, and the steps of a large one beside it. */
export const SHEET_BOUNDS: JsonBounds = { depth: DRIVE_BOUNDS.depth + 2, values: 2 * DRIVE_BOUNDS.values };

/** A job that is begun, as it was sent; its sheet as JSON. */
export interface JobSent {
  id: string;
  driveId: string;
  by: string;
  at: string;
  sheet: string;
}

/** A sheet that was read, as JSON; refuses the drive in it by the way to each field. */
export function sheetText(sheet: { drive?: unknown }): string {
  const reading = readDrive(sheet.drive);
  if (reading.ok) return JSON.stringify(sheet);
  throw invalid(
    reading.problems.map(({ path, message }) => ({
      path: path === '' ? 'sheet.drive' : `sheet.drive.${path}`,
      message,
    })),
  );
}

export function* readNewJob(bytes: Uint8Array): Generator<JobSent> {
  const { id, driveId, by, at, sheet } = readBody(newJobBody, readJson(bytes, SHEET_BOUNDS));
  yield { id, driveId, by, at, sheet: sheetText(sheet) };
}

export function* readEvents(bytes: Uint8Array): Generator<readonly JobEvent[]> {
  // What the schema has read is an event of its kind.
  yield readBody(eventsBody, readJson(bytes)).events as unknown as readonly JobEvent[];
}
