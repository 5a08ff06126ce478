import type { EntityManager } from 'typeorm';
import type { JobIn } from './read-job-file';
import type { JobEvent } from '@emery/core/job';

export interface StoredJob extends Omit<JobIn, 'events'> {
  vehicleId: string;
}

type Query = (sql: string, values: unknown[]) => Promise<unknown>;
type JobFile = { id: string; name: string; text: string };

/** The next job after an id, as a file of an archive; null after the last. */
export async function jobFileAfter(query: Query, last: string): Promise<JobFile | null> {
  const [job] = (await query('SELECT * FROM job WHERE id > ? ORDER BY id LIMIT 1', [last])) as StoredJob[];
  return job ? jobFile(query, job) : null;
}

/** A job as a file of an archive. */
export async function jobFile(query: Query, job: StoredJob): Promise<JobFile> {
  const rows = (await query('SELECT body FROM job_event WHERE jobId = ? ORDER BY seq', [job.id])) as { body: string }[];
  const { id, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet } = job;
  const head = {
    ...{ format: 'emery-job', version: 1, id, driveId, name, startedAt, startedBy },
    ...(signedAt && { signedAt, signedBy }),
  };
  // What is stored as JSON goes out as it is.
  const parts = [
    JSON.stringify(head).slice(1, -1),
    ...(signedAt ? [`"record":${record!}`] : []),
    `"sheet":${sheet}`,
    `"events":[${rows.map(({ body }) => body).join(',')}]`,
  ];
  return { id, name: `jobs/${id}.json`, text: `{${parts.join(',')}}\n` };
}

/**
 * Brings in a job of an archive: kept as it was, signed off or not. One that is here already, or whose drive is not, is
 * left. `rows` says which row of this shop's list a belt of the archive's is; one that it does not name was chosen from
 * no list that came along. Tells the vehicle whose story it belongs to, or null.
 */
export async function bringInJob(
  manager: EntityManager,
  job: JobIn,
  rows: ReadonlyMap<number, number>,
): Promise<string | null> {
  const [drive] = await manager.query<{ vehicleId: string }[]>('SELECT vehicleId FROM drive WHERE id = ? FOR UPDATE', [
    job.driveId,
  ]);
  const [there] = await manager.query<object[]>('SELECT id FROM job WHERE id = ? FOR UPDATE', [job.id]);
  if (!drive || there) return null;
  const { id, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet } = job;
  await manager.query(
    'INSERT INTO job (id, vehicleId, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet) VALUES (?)',
    [[id, drive.vehicleId, driveId, name, startedAt, startedBy, signedAt, signedBy, record, sheet]],
  );
  if (job.events.length > 0)
    await manager.query('INSERT INTO job_event (id, jobId, body) VALUES ?', [
      job.events.map((event) => [event.id, id, JSON.stringify(ofThisShop(event, rows))]),
    ]);
  return drive.vehicleId;
}

function ofThisShop(event: JobEvent, rows: ReadonlyMap<number, number>): JobEvent {
  if (event.kind !== 'part' || event.stock === undefined) return event;
  const { stock, ...rest } = event;
  const row = rows.get(stock);
  // Chosen from a list that did not come along: it is told by its name, and by no other belt's row.
  return row === undefined ? rest : { ...event, stock: row };
}
