import type { EntityManager } from 'typeorm';
import { array, date, number, object, string, type ValidationError } from 'yup';
import { checkedDrive } from '../drives/check';
import { invalid } from '../http/problem';
import { jobEvent, MOST_IN_JOB, sheetBody } from './body';
import type { JobEvent } from '@emery/core/job';

/** Where an archive of the shop keeps its jobs, a file each. */
export const JOB_FILE = /^jobs\/[0-9a-f-]{36}\.json$/;

interface StoredJob {
  id: string;
  driveId: string;
  name: string;
  startedAt: Date;
  startedBy: string;
  signedAt: Date | null;
  signedBy: string | null;
  record: string | null;
  sheet: string;
}

/** The next job after an id, as a file of an archive; null after the last. */
export async function jobFileAfter(
  query: (sql: string, values: unknown[]) => Promise<unknown>,
  last: string,
): Promise<{ id: string; name: string; text: string } | null> {
  const [job] = (await query('SELECT * FROM job WHERE id > ? ORDER BY id LIMIT 1', [last])) as StoredJob[];
  if (!job) return null;
  const rows = (await query('SELECT body FROM job_event WHERE jobId = ? ORDER BY seq', [job.id])) as { body: string }[];
  const { id, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet } = job;
  const file = {
    ...{ format: 'emery-job', version: 1, id, driveId, name, startedAt, startedBy },
    ...(signedAt && { signedAt, signedBy, record: JSON.parse(record!) as object }),
    sheet: JSON.parse(sheet) as object,
    events: rows.map(({ body }) => JSON.parse(body) as JobEvent),
  };
  return { id, name: `jobs/${id}.json`, text: `${JSON.stringify(file)}\n` };
}

const jobFile = object({
  format: string().oneOf(['emery-job'], 'must be "emery-job"').required('is missing'),
  version: number().oneOf([1], 'must be 1: this archive comes from a newer Emery').required('is missing'),
  id: string().uuid().required('is missing'),
  driveId: string().uuid().required('is missing'),
  name: string().max(200).required('is missing'),
  startedAt: date().required('is missing'),
  startedBy: string().max(80).defined('is missing'),
  signedAt: date(),
  signedBy: string().max(80),
  record: object({
    title: string().max(300).required(),
    detail: string().max(20_000).defined(),
    odometer: number().min(0).max(1e7).nullable().defined(),
    pictures: array()
      .of(object({ hash: string().required(), width: number().required(), height: number().required() }).required())
      .max(1000)
      .required(),
    clock: object({ planned: number().min(0).required(), worked: number().min(0).required() }).default(undefined),
  }).default(undefined),
  sheet: sheetBody,
  events: array()
    .of(jobEvent as never)
    .max(MOST_IN_JOB)
    .required('is missing'),
}).required();

/**
 * Brings in a job of an archive: kept as it was, signed off or not. One that is here already, or whose drive is not, is
 * left. Tells the vehicle whose story it belongs to, or null.
 */
export async function bringInJob(manager: EntityManager, file: string, value: unknown): Promise<string | null> {
  const job = await jobFile.validate(value).catch(({ path = '', message }: ValidationError) => {
    throw invalid([{ path: `${file} ${path}`.trim(), message }]);
  });
  const { document } = await checkedDrive(job.sheet.drive);
  const [drive] = await manager.query<{ vehicleId: string }[]>('SELECT vehicleId FROM drive WHERE id = ?', [
    job.driveId,
  ]);
  const [there] = await manager.query<object[]>('SELECT id FROM job WHERE id = ?', [job.id]);
  if (!drive || there) return null;
  await manager.query(
    'INSERT INTO job (id, vehicleId, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet) VALUES (?)',
    [
      [
        ...[job.id, drive.vehicleId, job.driveId, job.name, job.startedAt, job.startedBy],
        ...[job.signedAt ?? null, job.signedBy ?? null, job.record ? JSON.stringify(job.record) : null],
        JSON.stringify({ ...job.sheet, drive: document }),
      ],
    ],
  );
  const events = job.events as readonly JobEvent[];
  if (events.length > 0)
    await manager.query('INSERT IGNORE INTO job_event (id, jobId, body) VALUES ?', [
      events.map((event) => [event.id, job.id, JSON.stringify(event)]),
    ]);
  return drive.vehicleId;
}
