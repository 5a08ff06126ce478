import { type CheckedDrive, checkDrive } from '../check/check-drive';
import { number, object, string } from '../http/fields';
import { MOST_DRIVE_BYTES, readJson } from '../http/json-body';
import { moment } from '../http/moment';
import { invalid, Problem } from '../http/problem';
import { vehicleBody, type VehicleBody } from '../vehicles/body';
import { DRIVE_FILE_EXTENSION, type DriveProblem, parseDriveJson } from '@emery/core/drive';

export const MOST_FILES = 500;

/** Which record of a shop a thing is, and its number and date: as archives carry it. */
export interface RecordIn {
  id: string;
  revision: number;
  updatedAt: Date;
  deletedAt: Date | null;
}

/** A drive file that was read, ready to be put into a shop. */
export interface DriveIn {
  checked: CheckedDrive;
  vehicle: Partial<VehicleBody> & { name: string; id?: string };
  record: RecordIn | null;
}

/** An id as we make them. */
export const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

export const recordFields = {
  id: string().matches(UUID, 'must be a UUID in small letters').required(),
  revision: number().integer().min(1).max(1e9).required(),
  updatedAt: moment().required(),
  deletedAt: moment().nullable(),
};
const recordBody = object(recordFields).required();

/** Reads drive files that were sent together; each by the way to it in the request. */
export function* readFiles(bytes: Uint8Array): Generator<DriveIn> {
  for (const [index, file] of filesOf(readJson(bytes)).entries()) yield readDriveFile(file, `files[${index}]`);
}

interface FileIn {
  name: string;
  text: string;
}

function filesOf(body: unknown): FileIn[] {
  const files = (body as { files?: unknown } | null)?.files;
  if (!Array.isArray(files)) throw invalid([{ path: 'files', message: 'is missing: a list of name and text' }]);
  if (files.length === 0) throw invalid([{ path: 'files', message: 'is empty: choose one file or more' }]);
  if (files.length > MOST_FILES)
    throw invalid([
      { path: 'files', message: `holds more than ${MOST_FILES} files: put them in a ZIP, which may hold any number` },
    ]);
  files.forEach((file: unknown, index) => {
    const { name, text } = (file ?? {}) as { name?: unknown; text?: unknown };
    if (typeof name !== 'string' || name === '' || name.length > 300)
      throw invalid([{ path: `files[${index}].name`, message: 'must be text of 1 to 300 characters' }]);
    if (typeof text !== 'string')
      throw invalid([{ path: `files[${index}].text`, message: 'must be text: what the file holds' }]);
  });
  return files as FileIn[];
}

/** Reads one drive file; `within` is the way to it. */
export function readDriveFile({ name, text }: FileIn, within: string): DriveIn {
  const refuse = (problems: readonly DriveProblem[]) => {
    const errors = problems.map(({ path, message }) => ({
      path: path === '' ? within : `${within}.${path}`,
      message,
    }));
    const { path, message } = problems[0]!;
    const { errors: faults } = invalid(errors);
    const { detail } = invalid([{ path: `${name}: ${path}`, message }]);
    return new Problem(422, 'Not an Emery drive', detail, faults);
  };
  const { value, problem } = parseDriveJson(text);
  if (problem) throw refuse([problem]);
  // What is no object at all is told by the check.
  const { vehicle, record, ...document } = (
    typeof value === 'object' && value !== null && !Array.isArray(value) ? value : { '': value }
  ) as Record<string, unknown>;
  // What could not be saved again is not let in.
  if (Buffer.byteLength(JSON.stringify(document)) > MOST_DRIVE_BYTES)
    throw refuse([{ path: '', message: 'is over 1 MB, more than a drive may hold' }]);
  const check = checkDrive(document);
  if (!check.ok) throw refuse(check.problems);
  const { ok: _ok, ...checked } = check;
  const given = document['name'];
  const named =
    (typeof given === 'string' && given.trim()) || name.replace(/^.*\//, '').replace(DRIVE_FILE_EXTENSION, '');
  return {
    checked,
    vehicle: vehicleOf(vehicle) ?? { name: named.slice(0, 120) || 'Vehicle without a name' },
    record: recordOf(record, refuse),
  };
}

/** Which record it is. What has an id is ours, and is read as such; any other field of that name is let be. */
function recordOf(given: unknown, refuse: (problems: DriveProblem[]) => Problem): RecordIn | null {
  if (typeof given !== 'object' || given === null || !('id' in given)) return null;
  try {
    const { id, revision, updatedAt, deletedAt } = recordBody.validateSync(given, { strict: true });
    return { id, revision, updatedAt: new Date(updatedAt), deletedAt: deletedAt ? new Date(deletedAt) : null };
  } catch (error) {
    const { path, message } = error as { path?: string; message: string };
    throw refuse([{ path: path ? `record.${path}` : 'record', message }]);
  }
}

/** The vehicle a file names, as far as it can be read. */
function vehicleOf(given: unknown): DriveIn['vehicle'] | null {
  if (!vehicleBody.isValidSync(given, { strict: true })) return null;
  const { id } = given as { id?: unknown };
  const { name, plate, odometer, odometerUnit, notes } = given;
  const fields = { name, plate, odometer, odometerUnit, notes };
  return { ...fields, ...(typeof id === 'string' && UUID.test(id) && { id }) };
}
