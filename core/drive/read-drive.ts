import { ValidationError } from 'yup';
import { beyondBounds, DRIVE_BOUNDS } from './json-bounds';
import { driveSchema, MOST_PROBLEMS } from './schema';
import type { Drive } from './types';

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
  const problems = brokenReferences(drive);
  return problems.length > 0 ? { ok: false, problems: problems.slice(0, MOST_PROBLEMS) } : { ok: true, drive };
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

/** The text of a drive file, ready to save. */
export function writeDrive(drive: Drive): string {
  return `${JSON.stringify(drive, null, 2)}\n`;
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

function brokenReferences(drive: Drive): DriveProblem[] {
  const problems: DriveProblem[] = [];
  const once = (ids: Set<string>, id: string, path: string, what: string) => {
    if (ids.has(id))
      problems.push({ path, message: `"${id}" is used by another ${what}. Each ${what} needs an id of its own` });
    ids.add(id);
  };
  const stations = new Set<string>();
  const pulleys = new Set<string>();
  drive.stations.forEach((station, s) => {
    once(stations, station.id, `stations[${s}].id`, 'station');
    station.pulleys.forEach((pulley, p) => once(pulleys, pulley.id, `stations[${s}].pulleys[${p}].id`, 'pulley'));
  });
  const named = (pulley: string, path: string) => {
    if (!pulleys.has(pulley)) problems.push({ path, message: `names "${pulley}", and no station has that pulley` });
  };
  const readings = new Set<string>();
  drive.survey?.readings?.forEach((reading, r) => {
    once(readings, reading.id, `survey.readings[${r}].id`, 'reading');
    for (const end of ['from', 'to'] as const)
      if (reading[end] !== undefined) named(reading[end], `survey.readings[${r}].${end}`);
  });
  const diameters = new Set<string>();
  drive.survey?.diameters?.forEach(({ id, pulley, of }, d) => {
    once(diameters, id, `survey.diameters[${d}].id`, 'diameter reading');
    named(pulley, `survey.diameters[${d}].pulley`);
    if (of !== undefined) named(of, `survey.diameters[${d}].of`);
  });
  const photos = new Set<string>();
  drive.survey?.photos?.forEach((photo, p) => {
    once(photos, photo.id, `survey.photos[${p}].id`, 'picture');
    const rims = new Set<string>();
    photo.rims?.forEach(({ pulley }, r) => {
      once(rims, pulley, `survey.photos[${p}].rims[${r}].pulley`, 'rim of the picture');
      named(pulley, `survey.photos[${p}].rims[${r}].pulley`);
    });
  });
  const obstacles = new Set<string>();
  drive.obstacles?.forEach(({ id }, o) => once(obstacles, id, `obstacles[${o}].id`, 'obstacle'));
  const checks = new Set<string>();
  drive.speedChecks?.forEach(({ id, station }, c) => {
    once(checks, id, `speedChecks[${c}].id`, 'speed check');
    if (!stations.has(station))
      problems.push({ path: `speedChecks[${c}].station`, message: `names "${station}", and there is no such station` });
  });
  const loads = new Set<string>();
  drive.loads?.forEach(({ id }, l) => once(loads, id, `loads[${l}].id`, 'load'));
  const belts = new Set<string>();
  drive.belts.forEach((belt, b) => {
    once(belts, belt.id, `belts[${b}].id`, 'belt');
    belt.route.forEach(({ pulley }, r) => {
      named(pulley, `belts[${b}].route[${r}].pulley`);
    });
  });
  return problems;
}
