import type { DataSource, EntityManager } from 'typeorm';
import { changeDrive } from '../drives/drive-store';
import { notFound, Problem } from '../http/problem';
import { type JobRecord, MOST_DETAIL } from '../records/job-record';
import { rememberVehicles } from '../records/remember';
import { change, Moved } from '../storage/change';
import { holdDrive, type HeldDrive } from '../storage/hold';
import { indexVehicles } from '../vehicles/search-index';
import { MOST_BYTES_IN_JOB, MOST_IN_JOB } from './body';
import type { JobSent } from './read-job';
import type { JobListed, JobNews, JobOpened, JobSheet } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import {
  type JobEvent,
  type JobRun,
  jobSteps,
  labourPace,
  lateFacts,
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

/** So many are listed; how many there are is told beside them. */
const MOST_LISTED = 200;

/** Jobs of a drive, or of a vehicle, or of the whole shop that are not signed off; latest first. */
export async function listJobs(
  manager: EntityManager,
  filter: { drive?: string; vehicle?: string },
): Promise<{ jobs: JobListed<Date>[]; total: number }> {
  const asked: [string, string][] = [
    ...(filter.drive === undefined ? [] : [['job.driveId = ?', filter.drive] as [string, string]]),
    ...(filter.vehicle === undefined ? [] : [['job.vehicleId = ?', filter.vehicle] as [string, string]]),
  ];
  const ofVehicle = filter.vehicle !== undefined ? 'job_of_vehicle' : 'job_in_hand';
  const index = filter.drive !== undefined ? 'job_of_drive' : ofVehicle;
  const where = asked.length === 0 ? 'job.signedAt IS NULL' : asked.map(([condition]) => condition).join(' AND ');
  const from = `FROM job FORCE INDEX (${index}) STRAIGHT_JOIN drive ON drive.id = job.driveId
     STRAIGHT_JOIN vehicle ON vehicle.id = job.vehicleId
     WHERE ${where} AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`;
  const values = asked.map(([, value]) => value);
  const jobs = await manager.query<JobListed<Date>[]>(
    `SELECT ${LISTED} ${from} ORDER BY job.startedAt DESC, job.id DESC LIMIT ${MOST_LISTED}`,
    values,
  );
  if (jobs.length < MOST_LISTED) return { jobs, total: jobs.length };
  const [counted] = await manager.query<{ total: string }[]>(`SELECT COUNT(*) AS total ${from}`, values);
  return { jobs, total: Number(counted!.total) };
}

/** Begins a job; the same one sent again, as after a lost answer, is there already. */
export async function beginJob(data: DataSource, { id, driveId, by, at, sheet }: JobSent): Promise<JobOpened<Date>> {
  return change(data, async (manager) => {
    const held = await holdDrive(manager, driveId);
    if (!held || held.drive.deletedAt || held.vehicle.deletedAt) throw notFound('drive');
    const { vehicleId, name } = held.drive;
    await manager.query(
      `INSERT INTO job (id, vehicleId, driveId, name, startedAt, startedBy, sheet) VALUES (?)
       ON DUPLICATE KEY UPDATE id = id`,
      [[id, vehicleId, driveId, name, new Date(at), by, sheet]],
    );
    // Within the change: another one may drop the job right after.
    return openJob(manager, id);
  });
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

const signedAlready = ({ signedAt, signedBy }: Pick<JobRow, 'signedAt' | 'signedBy'>, refused: string[] = []) =>
  new Problem(
    409,
    'Signed off',
    `This job was signed off by ${signedBy} on ${signedAt!.toISOString().slice(0, 10)}. It can no longer be changed.`,
    [],
    { signedAt, signedBy, ...(refused.length > 0 && { refused }) },
  );

type HeldRow = JobRow & { record: string | null };

/** The row of a job, held until the change is done. */
async function hold(manager: EntityManager, id: string): Promise<HeldRow> {
  const [row] = await manager.query<HeldRow[]>(
    `SELECT ${LISTED}, job.sheet, job.record FROM job WHERE id = ? FOR UPDATE`,
    [id],
  );
  if (!row) throw notFound('job');
  return row;
}

/** A job with its drive and vehicle, for what changes them as well. */
async function holdAll(manager: EntityManager, id: string): Promise<HeldDrive & { row: HeldRow }> {
  const [job] = await manager.query<{ driveId: string }[]>('SELECT driveId FROM job WHERE id = ?', [id]);
  if (!job) throw notFound('job');
  const held = await holdDrive(manager, job.driveId);
  if (!held) throw notFound('drive');
  return { ...held, row: await hold(manager, id) };
}

/** Of what was sent, what is there now; and what came too late for a job that was signed off. */
export interface Taken {
  /** Ids of ticks that went to the story as late. */
  late: string[];
}

/**
 * Takes in what happened at a job; what is there already is left as it is. Once it is signed off its ticks go to the
 * story as late, and change nothing of what was signed; if anything else is among them none is taken in, with a 409
 * that names it by id.
 */
export async function takeEvents(data: DataSource, id: string, events: readonly JobEvent[]): Promise<Taken> {
  const [before] = await data.query<Pick<JobRow, 'signedAt'>[]>('SELECT signedAt FROM job WHERE id = ?', [id]);
  if (!before) throw notFound('job');
  // Signed off between that look and the next: begun anew, with all of it held.
  let signed = before.signedAt !== null;
  return change(data, async (manager) => {
    const row = signed ? (await holdAll(manager, id)).row : await hold(manager, id);
    if (row.signedAt && !signed) {
      signed = true;
      throw new Moved();
    }
    const ids = events.map((event) => event.id);
    const there = new Map(
      (
        await manager.query<{ id: string; body: string }[]>(
          'SELECT id, body FROM job_event WHERE jobId = ? AND id IN (?)',
          [id, ids],
        )
      ).map((stored) => [stored.id, JSON.parse(stored.body) as JobEvent]),
    );
    // Sent again, as after a lost answer, they are answered like the first time.
    const lateBefore = [...there.values()].flatMap((event) => (event.kind === 'tick' && event.late ? event.id : []));
    const fresh = events.filter((event, k) => !there.has(event.id) && ids.indexOf(event.id) === k);
    if (fresh.length === 0) return { late: lateBefore };
    const ticks = fresh.filter((event) => event.kind === 'tick');
    if (row.signedAt && ticks.length < fresh.length)
      throw signedAlready(
        row,
        fresh.filter(({ kind }) => kind !== 'tick').map((event) => event.id),
      );
    const kept = row.signedAt ? ticks.map((tick) => ({ ...tick, late: true as const })) : fresh;
    const rows = kept.map((event) => [event.id, id, JSON.stringify(event)] as const);
    const [counted] = await manager.query<{ count: string; bytes: string | null }[]>(
      'SELECT COUNT(*) AS count, SUM(LENGTH(body)) AS bytes FROM job_event WHERE jobId = ?',
      [id],
    );
    const bytes = rows.reduce((sum, [, , body]) => sum + Buffer.byteLength(body), Number(counted!.bytes ?? 0));
    const tooMany = Number(counted!.count) + rows.length > MOST_IN_JOB;
    if (tooMany || bytes > MOST_BYTES_IN_JOB)
      throw new Problem(
        413,
        'Too large',
        `A job keeps ${tooMany ? `${MOST_IN_JOB} entries` : '8 MB of entries'} at most. Sign it off, and start another.`,
      );
    await manager.query('INSERT INTO job_event (id, jobId, body) VALUES ?', [rows]);
    if (!row.signedAt) return { late: [] };
    await tellLate(manager, row);
    return { late: [...lateBefore, ...ticks.map((event) => event.id)] };
  });
}

/** Puts what came in after a sign-off into the story. */
async function tellLate(manager: EntityManager, { id, vehicleId, sheet, record }: HeldRow): Promise<void> {
  const began = JSON.parse(sheet) as JobSheet;
  const run = runOf((await eventsOf(manager, id, 0)).events);
  const withLate: JobRecord = {
    ...(JSON.parse(record!) as JobRecord),
    late: lateFacts(jobSteps(began.steps, run), run),
  };
  await manager.query('UPDATE job SET record = ? WHERE id = ?', [JSON.stringify(withLate), id]);
  await rememberVehicles(manager, [vehicleId]);
}

/**
 * Signs a job off: it changes no more. In one go with it the drive as it is now has its new belts and parts, the
 * vehicle its odometer, and the shelf what was taken off it. Signed off by the same once more, as after a lost answer,
 * it is answered like the first time.
 */
export async function signOff(
  data: DataSource,
  id: string,
  { by, at }: { by: string; at: string },
): Promise<JobOpened<Date>> {
  return change(data, async (manager) => {
    const { row, vehicle } = await holdAll(manager, id);
    if (row.signedAt) {
      if (row.signedBy === by) return openJob(manager, id);
      throw signedAlready(row);
    }
    const began = JSON.parse(row.sheet) as JobSheet;
    const run = runOf((await eventsOf(manager, id, 0)).events);
    const sheet = { ...began, steps: jobSteps(began.steps, run) };
    const record = recordOf(sheet, run, by, await offTheShelf(manager, run));
    await manager.query('UPDATE job SET signedAt = ?, signedBy = ?, record = ? WHERE id = ?', [
      new Date(at),
      by,
      JSON.stringify(record),
      id,
    ]);
    if (run.odometer !== null && (vehicle.odometer === null || run.odometer > vehicle.odometer))
      await manager.query(
        'UPDATE vehicle SET odometer = ?, odometerAt = ?, revision = revision + 1, updatedAt = ? WHERE id = ?',
        [Math.round(run.odometer), new Date(at), new Date(), row.vehicleId],
      );
    const change = (drive: Drive) =>
      signedOff(drive, {
        at,
        unit: drive.inspect?.odometerUnit ?? vehicle.odometerUnit,
        steps: sheet.steps,
        run,
        began: sheet.drive,
        brought: sheet.bring.belts,
      });
    await changeDrive(manager, row.driveId, change, by);
    await indexVehicles(manager, [row.vehicleId]);
    return openJob(manager, id);
  });
}

/** What the story tells of a job. */
function recordOf({ drive, steps }: JobSheet, run: JobRun, by: string, shelf: readonly string[]): JobRecord {
  const done = steps.filter(({ id }) => run.done.has(id)).length;
  const facts = [`${done} of ${steps.length} steps done`, ...shelf, ...runFacts(drive, run)];
  return {
    title: `Job signed off by ${by}`,
    // All of it stands in the job itself.
    detail: facts.join('; ').slice(0, MOST_DETAIL),
    odometer: run.odometer,
    pictures: run.photos.map(({ photo }) => photo),
    clock: {
      planned: plannedMinutes(steps.filter(({ id }) => run.done.has(id))),
      worked: Math.round(run.workedMs / 60_000),
    },
  };
}

/**
 * Takes the parts that were chosen from the shop's list off its shelf, row by row in their order; tells those that the
 * list does not have, or not so many of.
 */
async function offTheShelf(manager: EntityManager, run: JobRun): Promise<string[]> {
  const chosen = run.parts.filter(({ stock }) => stock !== undefined).sort((a, b) => a.stock! - b.stock!);
  const untold: string[] = [];
  for (const { name, count, stock } of chosen) {
    const [row] = await manager.query<{ shelf: number }[]>('SELECT shelf FROM stock_belt WHERE id = ? FOR UPDATE', [
      stock,
    ]);
    if (row)
      await manager.query('UPDATE stock_belt SET shelf = ? WHERE id = ?', [Math.max(0, row.shelf - count), stock]);
    if (!row) untold.push(`${name} is no longer on the shop's list: nothing was taken from the shelf`);
    else if (row.shelf < count) untold.push(`the list had ${row.shelf} of ${count} × ${name} on the shelf`);
  }
  return untold;
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
  await change(data, async (manager) => {
    const row = await hold(manager, id);
    if (row.signedAt) throw signedAlready(row);
    await manager.query('DELETE FROM job_event WHERE jobId = ?', [id]);
    await manager.query('DELETE FROM job WHERE id = ?', [id]);
  });
}
