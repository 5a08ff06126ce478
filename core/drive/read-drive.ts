import { ValidationError } from 'yup';
import { MOST_PROBLEMS } from './fields';
import { type Drive, DRIVE_FIELDS, driveSchema } from './drive';
import { beyondBounds, DRIVE_BOUNDS } from './json-bounds';
import { brokenNames } from './lists';

export const DRIVE_FILE_EXTENSION = '.emery.json';

/** What is wrong and exactly where: `path` is such as `stations[2].pulleys[0].diameter`, or '' for the whole file. */
export interface DriveProblem {
  path: string;
  message: string;
}

export type DriveReading = { ok: true; drive: Drive } | { ok: false; problems: DriveProblem[] };

/**
 * Checks a parsed JSON value against the drive file, version 1. On success `drive` is the value itself, unknown fields
 * and all. The first twenty problems are reported, first the ones of shape, then ids used twice and pulleys that are
 * not there.
 */
export function readDrive(value: unknown): DriveReading {
  const unreadable = wrongKind(value);
  if (unreadable) return { ok: false, problems: [unreadable] };
  try {
    driveSchema.validateSync(value, { abortEarly: false, disableStackTrace: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return { ok: false, problems: inOrder(error).slice(0, MOST_PROBLEMS) };
  }
  const drive = value as Drive;
  const problems = brokenNames(drive);
  return problems.length > 0 ? { ok: false, problems: problems.slice(0, MOST_PROBLEMS) } : { ok: true, drive };
}

/** The schema of each field of a drive alone. */
const FIELD_SCHEMAS = new Map([...DRIVE_FIELDS].map((field) => [field, driveSchema.pick([field as never])]));

/** Whether a drive passes every check, where `before` does: what both share as one object is not looked at again. */
export function isStillDrive(before: Drive, after: Drive): boolean {
  if (wrongKind(after)) return false;
  for (const [field, schema] of FIELD_SCHEMAS)
    if (before[field as keyof Drive] !== after[field as keyof Drive] && !schema.isValidSync(after)) return false;
  return brokenNames(after).length === 0;
}

/** Reads the text of a drive file. A byte order mark is forgiven. */
export function parseDrive(text: string): DriveReading {
  const { value, problem } = parseDriveJson(text);
  return problem ? { ok: false, problems: [problem] } : readDrive(value);
}

/** What the text of a drive file holds, not yet looked at as a drive; or why it is no JSON that a drive could be. */
export function parseDriveJson(text: string): { value?: unknown; problem?: DriveProblem } {
  const beyond = beyondBounds(text, DRIVE_BOUNDS);
  if (beyond) return { problem: { path: '', message: `${beyond}: no drive does` } };
  try {
    return { value: JSON.parse(text.replace(/^\uFEFF/, '')) as unknown };
  } catch (error) {
    return { problem: { path: '', message: `is not JSON: ${(error as Error).message}` } };
  }
}

/** The text of a drive file, ready to save, with whatever else is to stand in the file beside the drive. */
export function writeDrive(drive: Drive, beside: object = {}): string {
  return `${JSON.stringify({ ...drive, ...beside }, null, 2)}\n`;
}

/** What stands in a drive's file beside the drive itself: fields that Emery's drive does not have. */
export function fieldsBeside(drive: Drive): Readonly<Record<string, unknown>> {
  return Object.fromEntries(Object.entries(drive).filter(([field]) => !DRIVE_FIELDS.has(field)));
}

/** The drive without what stands beside it in its file. */
export function withoutBeside(drive: Drive): Drive {
  // What is left are all the fields that a drive has.
  return Object.fromEntries(Object.entries(drive).filter(([field]) => DRIVE_FIELDS.has(field))) as unknown as Drive;
}

function wrongKind(value: unknown): DriveProblem | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return { path: '', message: 'must be a JSON object, an Emery drive' };
  }
  const { format, version } = value as Record<string, unknown>;
  if (format !== 'emery-drive')
    return { path: 'format', message: 'must be "emery-drive": this is not an Emery drive file' };
  if (version === 1) return null;
  return {
    path: 'version',
    message:
      typeof version === 'number' && version > 1
        ? `is ${version}: this file comes from a newer Emery. This one reads version 1`
        : 'must be 1',
  };
}

function inOrder(error: ValidationError): DriveProblem[] {
  const inner = error.inner.length > 0 ? error.inner : [error];
  const seen = new Set<string>();
  return inner.flatMap(({ path, message }) => {
    // One problem a field: the first says what is accepted, a second would repeat it.
    const place = path ?? '';
    if (seen.has(place)) return [];
    seen.add(place);
    return [{ path: place, message }];
  });
}
