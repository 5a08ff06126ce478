import { lazy, list, mixed, number, object, string } from '../http/fields';
import { readJson } from '../http/json-body';
import { moment } from '../http/moment';
import { invalid, Problem, readBody } from '../http/problem';
import { MOST_DETAIL } from '../records/job-record';
import { EVENTS_IN_FILE, keptPicture, MOST_IN_JOB, sheetBody, uuid } from './body';
import { SHEET_BOUNDS, sheetText } from './read-job';
import type { JobEvent } from '@emery/core/job';

/** A job of an archive, as it is stored. */
export interface JobIn {
  id: string;
  driveId: string;
  name: string;
  startedAt: Date;
  startedBy: string;
  signedAt: Date | null;
  signedBy: string | null;
  record: string | null;
  sheet: string;
  events: readonly JobEvent[];
}

const record = object({
  title: string().max(300).required(),
  detail: string().max(MOST_DETAIL).defined(),
  odometer: number().min(0).max(1e7).nullable().defined(),
  pictures: list(keptPicture, MOST_IN_JOB),
  late: list(string().max(1000).defined(), 300).optional() as never,
  clock: object({ planned: number().min(0).max(1e9).required(), worked: number().min(0).max(1e9).required() }).default(
    undefined,
  ),
})
  .noUnknown()
  .required('is missing: the job is signed off');

const jobFile = object({
  format: string().oneOf(['emery-job'], 'must be "emery-job"').required('is missing'),
  version: number().oneOf([1], 'must be 1: this archive comes from a newer Emery').required('is missing'),
  id: uuid(),
  driveId: uuid(),
  name: string().max(200).required('is missing'),
  startedAt: moment().required('is missing'),
  startedBy: string().max(80).defined('is missing'),
  signedAt: moment(),
  signedBy: string().max(80),
  // A job is signed off with all that belongs to it, or not at all.
  record: lazy((_value, { parent }: { parent?: { signedAt?: unknown } } = {}) =>
    parent?.signedAt === undefined
      ? mixed().test('none', 'is there, and the job is not signed off', (value) => value === undefined)
      : record,
  ),
  sheet: sheetBody,
  events: list(EVENTS_IN_FILE, MOST_IN_JOB),
}).required();

/** All that a job at its limits may hold: its sheet, and an entry of a dozen values each. */
const JOB_BOUNDS = { ...SHEET_BOUNDS, values: SHEET_BOUNDS.values + 24 * MOST_IN_JOB };

/** Reads a job of an archive; refuses with 422 what the API would not take, by the file's name and the field's. */
export function readJobFile(file: string, bytes: Uint8Array): JobIn {
  try {
    const job = readBody(jobFile, readJson(bytes, JOB_BOUNDS));
    const { signedAt, signedBy } = job;
    const events = job.events as unknown as readonly JobEvent[];
    const seen = new Set<string>();
    for (const [k, { id }] of events.entries()) {
      if (seen.has(id)) throw invalid([{ path: `events[${k}].id`, message: 'is listed twice' }]);
      seen.add(id);
    }
    if (signedAt !== undefined && !signedBy) throw invalid([{ path: 'signedBy', message: 'is missing' }]);
    return {
      ...{ id: job.id, driveId: job.driveId, name: job.name, startedBy: job.startedBy },
      startedAt: new Date(job.startedAt),
      signedAt: signedAt === undefined ? null : new Date(signedAt),
      signedBy: signedAt === undefined ? null : signedBy!,
      record: job.record === undefined ? null : JSON.stringify(job.record),
      sheet: sheetText(job.sheet),
      events,
    };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const errors = error.errors.length > 0 ? error.errors : [{ path: '', message: error.detail }];
    throw invalid(errors.map(({ path, message }) => ({ path: `${file} ${path}`.trim(), message })));
  }
}
