import type { DataSource, EntityManager } from 'typeorm';
import { changeDrive } from '../drives/drive-store';
import { notFound, Problem } from '../http/problem';
import type { JobRecord } from '../records/remember';
import { indexVehicles } from '../vehicles/search-index';
import { MOST_IN_JOB } from './body';
import type { JobListed, JobNews, JobOpened, JobSheet } from '@emery/core/api';
import type { OdometerUnit } from '@emery/core/drive';
import {
  type JobEvent,
  type JobRun,
  jobSteps,
  labourPace,
  type LabourPace,
  plannedMinutes,
  runFacts,
  runOf,
  signedOff,
} from '@emery/core/job';

export interface JobRow extends JobListed<Date> {
  sheet: string;
}

const LISTED = 'job.id, job.vehicleId, job.driveId, job.name, job.startedAt, job.startedBy, job.signedAt, job.signedBy';

const listed = ({ id, vehicleId, driveId, name, startedAt, startedBy, signedAt, signedBy }: JobListed<Date>) => ({
  ...{ id, vehicleId, driveId, name, startedAt, startedBy, signedAt, signedBy },
});

/** Jobs of a drive, or of a vehicle, or of the whole shop that are not signed off; latest first. */
export async function listJobs(
  manager: EntityManager,
  of: { drive?: string; vehicle?: string },
): Promise<JobListed<Date>[]> {
  const asked: [string, string][] = [
    ...(of.drive === undefined ? [] : [['job.driveId = ?', of.drive] as [string, string]]),
    ...(of.vehicle === undefined ? [] : [['job.vehicleId = ?', of.vehicle] as [string, string]]),
  ];
  const where = asked.length === 0 ? 'job.signedAt IS NULL' : asked.map(([condition]) => condition).join(' AND ');
  return manager.query(
    `SELECT ${LISTED} FROM job JOIN drive ON drive.id = job.driveId JOIN vehicle ON vehicle.id = job.vehicleId
     WHERE ${where} AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL
     ORDER BY job.startedAt DESC, job.id LIMIT 200`,
    asked.map(([, value]) => value),
  );
}

/** Begins a job; the same one sent again, as after a lost answer, is there already. */
export async function beginJob(
  manager: EntityManager,
  { id, driveId, by, at, sheet }: { id: string; driveId: string; by: string; at: string; sheet: JobSheet },
): Promise<void> {
  const [drive] = await manager.query<{ vehicleId: string; name: string }[]>(
    `SELECT drive.vehicleId, drive.name FROM drive JOIN vehicle ON vehicle.id = drive.vehicleId
     WHERE drive.id = ? AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`,
    [driveId],
  );
  if (!drive) throw notFound('drive');
  await manager.query('INSERT IGNORE INTO job (id, vehicleId, driveId, name, startedAt, startedBy, sheet) VALUES (?)', [
    [id, drive.vehicleId, driveId, drive.name, new Date(at), by, JSON.stringify(sheet)],
  ]);
}

type OfVehicle = Pick<JobOpened, 'vehicleName' | 'plate' | 'odometerUnit' | 'vehicleOdometer'>;

export async function openJob(manager: EntityManager, id: string): Promise<JobOpened<Date>> {
  const [row] = await manager.query<(JobRow & OfVehicle)[]>(
    `SELECT ${LISTED}, job.sheet, vehicle.name AS vehicleName, vehicle.plate, vehicle.odometerUnit,
       vehicle.odometer AS vehicleOdometer
     FROM job JOIN vehicle ON vehicle.id = job.vehicleId WHERE job.id = ?`,
    [id],
  );
  if (!row) throw notFound('job');
  const { events, seq } = await eventsOf(manager, id, 0);
  const { vehicleName, plate, odometerUnit, vehicleOdometer } = row;
  return {
    ...listed(row),
    vehicleName,
    plate,
    odometerUnit,
    vehicleOdometer,
    sheet: JSON.parse(row.sheet) as JobSheet,
    events,
    seq,
  };
}

/** What happened at a job after an event, in the order in which it came in. */
async function eventsOf(manager: EntityManager, jobId: string, after: number) {
  const rows = await manager.query<{ seq: string; body: string }[]>(
    'SELECT seq, body FROM job_event WHERE jobId = ? AND seq > ? ORDER BY seq',
    [jobId, after],
  );
  return {
    events: rows.map(({ body }) => JSON.parse(body) as JobEvent),
    seq: rows.length === 0 ? after : Number(rows.at(-1)!.seq),
  };
}

export async function newsOf(manager: EntityManager, id: string, after: number): Promise<JobNews<Date>> {
  const [row] = await manager.query<Pick<JobRow, 'signedAt' | 'signedBy'>[]>(
    'SELECT signedAt, signedBy FROM job WHERE id = ?',
    [id],
  );
  if (!row) throw notFound('job');
  return { ...(await eventsOf(manager, id, after)), ...row };
}

const signedAlready = ({ signedAt, signedBy }: Pick<JobRow, 'signedAt' | 'signedBy'>) =>
  new Problem(
    409,
    'Signed off',
    `This job was signed off by ${signedBy} on ${signedAt!.toISOString().slice(0, 10)}. It is kept as it was.`,
    [],
    { signedAt, signedBy },
  );

/** The row of a job, held until the change is done. */
async function held(manager: EntityManager, id: string): Promise<JobRow> {
  const [row] = await manager.query<JobRow[]>(`SELECT ${LISTED}, job.sheet FROM job WHERE id = ? FOR UPDATE`, [id]);
  if (!row) throw notFound('job');
  return row;
}

/**
 * Takes in what happened at a job; what is there already is left as it is. Nothing is taken in once it is signed off:
 * 409, unless all of it is there.
 */
export async function takeEvents(data: DataSource, id: string, events: readonly JobEvent[]): Promise<void> {
  await data.transaction(async (manager) => {
    const row = await held(manager, id);
    const ids = events.map((event) => event.id);
    const there = new Set(
      (await manager.query<{ id: string }[]>('SELECT id FROM job_event WHERE jobId = ? AND id IN (?)', [id, ids])).map(
        (one) => one.id,
      ),
    );
    const fresh = events.filter((event, k) => !there.has(event.id) && ids.indexOf(event.id) === k);
    if (fresh.length === 0) return;
    if (row.signedAt) throw signedAlready(row);
    const [counted] = await manager.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM job_event WHERE jobId = ?', [id]);
    if (Number(counted!.n) + fresh.length > MOST_IN_JOB)
      throw new Problem(
        413,
        'Too large',
        `A job keeps ${MOST_IN_JOB} entries at most. Sign it off, and begin another.`,
      );
    await manager.query('INSERT INTO job_event (id, jobId, body) VALUES ?', [
      fresh.map((event) => [event.id, id, JSON.stringify(event)]),
    ]);
  });
}

/**
 * Signs a job off: it changes no more. In one go with it the drive as it is now has its new belts and parts, the
 * vehicle its odometer, and the shelf what was taken off it. Signed off by the same once more, as after a lost answer,
 * it is answered like the first time.
 */
export async function signOff(data: DataSource, id: string, { by, at }: { by: string; at: string }): Promise<void> {
  await data.transaction(async (manager) => {
    const row = await held(manager, id);
    if (row.signedAt) {
      if (row.signedBy === by) return;
      throw signedAlready(row);
    }
    const began = JSON.parse(row.sheet) as JobSheet;
    const run = runOf((await eventsOf(manager, id, 0)).events);
    const sheet = { ...began, steps: jobSteps(began.steps, run) };
    const [vehicle] = await manager.query<{ odometer: number | null; odometerUnit: OdometerUnit }[]>(
      'SELECT odometer, odometerUnit FROM vehicle WHERE id = ? FOR UPDATE',
      [row.vehicleId],
    );
    const record = recordOf(sheet, run, by);
    await manager.query('UPDATE job SET signedAt = ?, signedBy = ?, record = ? WHERE id = ?', [
      new Date(at),
      by,
      JSON.stringify(record),
      id,
    ]);
    if (run.odometer !== null && (vehicle!.odometer === null || run.odometer > vehicle!.odometer))
      await manager.query(
        'UPDATE vehicle SET odometer = ?, odometerAt = ?, revision = revision + 1, updatedAt = ? WHERE id = ?',
        [Math.round(run.odometer), new Date(at), new Date(), row.vehicleId],
      );
    for (const { stock, count } of run.parts)
      if (stock !== undefined)
        await manager.query('UPDATE stock_belt SET shelf = GREATEST(0, shelf - ?) WHERE id = ?', [count, stock]);
    await changeDrive(manager, row.driveId, (drive) =>
      signedOff(drive, {
        at,
        unit: drive.inspect?.odometerUnit ?? vehicle!.odometerUnit,
        steps: sheet.steps,
        run,
        began: sheet.drive,
        brought: sheet.bring.belts,
      }),
    );
    await indexVehicles(manager, [row.vehicleId]);
  });
}

/** What the story tells of a job. */
function recordOf({ drive, steps }: JobSheet, run: JobRun, by: string): JobRecord {
  const done = steps.filter(({ id }) => run.done.has(id)).length;
  return {
    title: `Job signed off by ${by}`,
    detail: [`${done} of ${steps.length} steps done`, ...runFacts(drive, run)].join('; '),
    odometer: run.odometer,
    pictures: run.photos.map(({ photo }) => photo),
    clock: {
      planned: plannedMinutes(steps.filter(({ id }) => run.done.has(id))),
      worked: Math.round(run.workedMs / 60_000),
    },
  };
}

/** The pace of a shop is learnt from so many of its last jobs. */
const PACE_JOBS = 200;

/** How long this shop's signed jobs took beside what the defaults say. */
export async function paceOf(manager: EntityManager): Promise<LabourPace> {
  const rows = await manager.query<{ record: string }[]>(
    'SELECT record FROM job WHERE signedAt IS NOT NULL ORDER BY signedAt DESC LIMIT ?',
    [PACE_JOBS],
  );
  return labourPace(rows.flatMap(({ record }) => (JSON.parse(record) as JobRecord).clock ?? []));
}

/** Drops a job that is not signed off. */
export async function dropJob(data: DataSource, id: string): Promise<void> {
  await data.transaction(async (manager) => {
    const row = await held(manager, id);
    if (row.signedAt) throw signedAlready(row);
    await manager.query('DELETE FROM job_event WHERE jobId = ?', [id]);
    await manager.query('DELETE FROM job WHERE id = ?', [id]);
  });
}
