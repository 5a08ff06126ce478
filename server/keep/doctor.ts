import { createHash } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { checkedDrive } from '../check';
import { otherTurns } from '../http/in-turns';
import { keepMemory } from '../records/remember';
import { readBody } from '../http/problem';
import { eventsBody } from '../jobs/body';
import { sheetText } from '../jobs/read-job';
import { isRole, readBand, readPulley } from '../speeds/body';
import type { PulleyRow, SpeedBandRow } from '../speeds/entity';
import { change } from '../storage/change';
import { vehicleBody } from '../vehicles/body';
import { indexAllVehicles } from '../vehicles/search-index';
import type { VehicleRow } from '../vehicles/entity';
import { DOCTOR } from './words';
import { keysOf, pagesOf, picturesOf, tablesOf } from './tables';
import { readDrive } from '@emery/core/drive';

/** One thing that is wrong with a shop. */
export interface Ailment {
  says: string;
  /** `mended`, or would be with `mend`; what only a person can decide on; what is told and does no harm. */
  state: 'mended' | 'mendable' | 'open' | 'told';
}

export interface Diagnosis {
  /** How much was looked at, by kind. */
  looked: Record<string, number>;
  found: Ailment[];
}

export interface DoctorOptions {
  mend?: boolean;
  onPart?: (bytes: number) => void;
}

/** So many of one kind are named each by itself. */
const MOST_NAMED = 50;

/** Rows made out of others: without theirs they are in nobody's way, and can be made anew. */
const MADE: readonly { table: string; column: string; owner: string }[] = [
  { table: 'drive_memory', column: 'driveId', owner: 'drive' },
  { table: 'drive_search', column: 'driveId', owner: 'drive' },
  { table: 'vehicle_search', column: 'vehicleId', owner: 'vehicle' },
  { table: 'due', column: 'driveId', owner: 'drive' },
  { table: 'belt_life', column: 'driveId', owner: 'drive' },
  { table: 'record', column: 'driveId', owner: 'drive' },
  { table: 'drive_version', column: 'driveId', owner: 'drive' },
];
/** Rows of their own: without theirs somebody is to look at them. */
const OWN: readonly { table: string; column: string; owner: string }[] = [
  { table: 'drive_document', column: 'driveId', owner: 'drive' },
  { table: 'drive', column: 'vehicleId', owner: 'vehicle' },
  { table: 'job', column: 'driveId', owner: 'drive' },
  { table: 'job_event', column: 'jobId', owner: 'job' },
];

/** Looks at every row of a shop; mends what is made out of other rows, where it is asked to, and nothing else. */
export async function doctor(data: DataSource, { mend = false, onPart = () => undefined }: DoctorOptions = {}) {
  const looked: Record<string, number> = {};
  const found: Ailment[] = [];
  const visit: Visit = {
    data,
    mend,
    onPart,
    looked: (kind) => void (looked[kind] = (looked[kind] ?? 0) + 1),
    find: (says, state = 'open') => void found.push({ says, state }),
  };
  for (const look of [lookAtTables, lookAtRows, lookAtOrphans, lookAtLists, lookAtPictures]) await look(visit);
  return { looked, found: shortened(found) } satisfies Diagnosis;
}

interface Visit {
  data: DataSource;
  mend: boolean;
  onPart: (bytes: number) => void;
  looked: (kind: string) => void;
  find: (says: string, state?: Ailment['state']) => void;
}

function shortened(found: readonly Ailment[]): Ailment[] {
  if (found.length <= MOST_NAMED) return [...found];
  const more = found.slice(MOST_NAMED);
  const state = more.some((ailment) => ailment.state === 'open') ? 'open' : 'told';
  return [...found.slice(0, MOST_NAMED), { says: DOCTOR.more(more.length), state }];
}

async function lookAtTables({ data, looked, find }: Visit): Promise<void> {
  for (const name of (await tablesOf(data.manager)).keys()) {
    looked('tables');
    const said = await data
      .query<{ Msg_type: string; Msg_text: string }[]>(`CHECK TABLE \`${name}\``)
      .catch((error: Error) => [{ Msg_type: 'error', Msg_text: error.message }]);
    const bad = said.find(
      ({ Msg_type, Msg_text }) => Msg_type === 'error' || (Msg_type === 'status' && Msg_text !== 'OK'),
    );
    if (bad) find(DOCTOR.table(name, bad.Msg_text));
  }
}

/** What reading something says is wrong with it, or null. */
function wrongWith(read: () => unknown): string | null {
  try {
    read();
    return null;
  } catch (error) {
    return (error as Error).message.replace(/\s+/g, ' ').slice(0, 300);
  }
}

async function* rows<T>({ data, onPart }: Visit, table: string, columns: readonly string[]): AsyncGenerator<T> {
  const [all, keys] = [await tablesOf(data.manager), await keysOf(data.manager)];
  const options = { columns, all: all.get(table) ?? [], key: keys.get(table) ?? [] };
  for await (const page of pagesOf(data.manager, table, options))
    for (const row of page) {
      await otherTurns();
      onPart(row.reduce((sum: number, value) => sum + (typeof value === 'string' ? value.length : 8), 0));
      yield Object.fromEntries(columns.map((name, k) => [name, row[k]])) as T;
    }
}

async function lookAtRows(visit: Visit): Promise<void> {
  const { looked, find } = visit;
  for await (const { driveId, document } of rows<{ driveId: string; document: string }>(visit, 'drive_document', [
    ...['driveId', 'document'],
  ])) {
    looked('drives');
    const wrong = wrongWith(() => {
      const reading = readDrive(JSON.parse(document));
      const [problem] = reading.ok ? [] : reading.problems;
      if (problem) throw new Error(`${problem.path} ${problem.message}`);
    });
    if (wrong) find(DOCTOR.drive(driveId, wrong));
  }
  const fields = ['id', 'name', 'plate', 'odometer', 'odometerUnit', 'notes'];
  for await (const { id, ...vehicle } of rows<VehicleRow>(visit, 'vehicle', fields)) {
    looked('vehicles');
    const wrong = wrongWith(() => readBody(vehicleBody, vehicle));
    if (wrong) find(DOCTOR.vehicle(id, wrong));
  }
  type Job = { id: string; sheet: string; record: string | null };
  for await (const { id, sheet, record } of rows<Job>(visit, 'job', ['id', 'sheet', 'record'])) {
    looked('jobs');
    const wrong = wrongWith(() => [sheetText(JSON.parse(sheet) as object), JSON.parse(record ?? 'null')]);
    if (wrong) find(DOCTOR.job(id, wrong));
  }
  for await (const { jobId, body } of rows<{ jobId: string; body: string }>(visit, 'job_event', ['jobId', 'body'])) {
    looked('events');
    const wrong = wrongWith(() => readBody(eventsBody, { events: [JSON.parse(body)] }));
    if (wrong) find(DOCTOR.event(jobId, wrong));
  }
  await lookAtStock(visit);
}

async function lookAtStock(visit: Visit): Promise<void> {
  const { looked, find } = visit;
  for await (const band of rows<SpeedBandRow>(visit, 'speed_band', ['role', 'least', 'continuous', 'burst'])) {
    looked('bands');
    const { role, ...speeds } = band;
    const wrong = isRole(role) ? wrongWith(() => readBand(role, speeds)) : DOCTOR.noAccessory;
    if (wrong) find(DOCTOR.band(role, wrong));
  }
  const fields = ['id', 'label', 'role', 'surface', 'diameter', 'teeth', 'grooves', 'setName', 'pieces'];
  for await (const { id, setName, pieces, ...rest } of rows<PulleyRow>(visit, 'pulley_at_hand', fields)) {
    looked('pulleys');
    const wrong = wrongWith(() => readPulley({ ...rest, set: setName, count: pieces }));
    if (wrong) find(DOCTOR.pulley(id, wrong));
  }
  type Belt = { id: number; lengthMm: number; shelf: number };
  for await (const { id, lengthMm, shelf } of rows<Belt>(visit, 'stock_belt', ['id', 'lengthMm', 'shelf'])) {
    looked('belts');
    if (!(lengthMm > 0 && shelf >= 0)) find(DOCTOR.belt(id));
  }
}

async function lookAtOrphans({ data, mend, find }: Visit): Promise<void> {
  const there = await tablesOf(data.manager);
  for (const [tie, isMade] of [
    ...MADE.map((tie) => [tie, true] as const),
    ...OWN.map((tie) => [tie, false] as const),
  ]) {
    const { table, column, owner } = tie;
    if (!there.has(table)) continue;
    const without = `FROM \`${table}\` LEFT JOIN \`${owner}\` ON \`${owner}\`.id = \`${table}\`.\`${column}\` WHERE \`${owner}\`.id IS NULL`;
    const [counted] = await data.query<{ n: string }[]>(`SELECT COUNT(*) AS n ${without}`);
    const n = Number(counted?.n ?? 0);
    if (n === 0) continue;
    if (isMade && mend) await data.query(`DELETE \`${table}\` ${without}`);
    const mendable = mend ? 'mended' : 'mendable';
    find(DOCTOR.orphan(table, n, owner), isMade ? mendable : 'open');
  }
  const bare = await data.query<{ id: string }[]>(
    'SELECT drive.id FROM drive LEFT JOIN drive_document ON driveId = drive.id WHERE driveId IS NULL',
  );
  for (const { id } of bare) find(DOCTOR.noDocument(id));
}

/** Whether lists and searches find all that there is. */
async function lookAtLists({ data, mend, find }: Visit): Promise<void> {
  const [counted] = await data.query<{ n: string }[]>(
    `SELECT COUNT(*) AS n FROM drive JOIN vehicle ON vehicle.id = drive.vehicleId
     LEFT JOIN drive_search ON drive_search.driveId = drive.id
     LEFT JOIN vehicle_search ON vehicle_search.vehicleId = vehicle.id
     LEFT JOIN drive_memory ON drive_memory.driveId = drive.id
     WHERE drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL AND
       (drive_search.driveId IS NULL OR vehicle_search.vehicleId IS NULL OR drive_memory.driveId IS NULL)`,
  );
  const n = Number(counted?.n ?? 0);
  if (n === 0) return;
  if (mend) await mendLists(data);
  find(DOCTOR.notListed(n), mend ? 'mended' : 'mendable');
}

/** Remembers what is not remembered, and makes what lists and searches find anew. */
async function mendLists(data: DataSource): Promise<void> {
  const bare = await data.query<{ id: string; document: string }[]>(
    `SELECT drive_document.driveId AS id, document FROM drive_document
     LEFT JOIN drive_memory ON drive_memory.driveId = drive_document.driveId WHERE drive_memory.driveId IS NULL`,
  );
  for (const { id, document } of bare) {
    const checked = await checkedDrive(JSON.parse(document)).catch(() => null);
    if (checked) await change(data, (manager) => keepMemory(manager, id, checked.memory, checked.byLimits));
  }
  await change(data, (manager) => indexAllVehicles(manager));
}

async function lookAtPictures(visit: Visit): Promise<void> {
  const { data, looked, find, onPart } = visit;
  const there = new Set<string>();
  for await (const { hash, bytes } of picturesOf(data.manager)) {
    looked('pictures');
    there.add(hash);
    onPart(bytes.length);
    if (createHash('sha256').update(bytes).digest('hex') !== hash) find(DOCTOR.pictureDamaged(hash));
  }
  const named = new Set<string>();
  const nameIn = (text: string, where: string) => {
    for (const [, hash = ''] of text.matchAll(/"hash":\s*"([0-9a-f]{64})"/g)) {
      if (!named.has(hash) && !there.has(hash)) find(DOCTOR.pictureMissing(hash, where));
      named.add(hash);
    }
  };
  type Drive = { driveId: string; document: string };
  for await (const row of rows<Drive>(visit, 'drive_document', ['driveId', 'document']))
    nameIn(row.document, `drive ${row.driveId}`);
  for await (const row of rows<{ jobId: string; body: string }>(visit, 'job_event', ['jobId', 'body']))
    nameIn(row.body, `job ${row.jobId}`);
  for await (const row of rows<{ id: string; sheet: string }>(visit, 'job', ['id', 'sheet']))
    nameIn(row.sheet, `job ${row.id}`);
  const unused = [...there].filter((hash) => !named.has(hash)).length;
  if (unused > 0) find(DOCTOR.unused(unused), 'told');
}
