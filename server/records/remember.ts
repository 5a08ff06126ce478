import type { EntityManager } from 'typeorm';
import type { VehicleRow } from '../vehicles/entity';
import type { JobRecord } from './job-record';
import { afterwards } from '../storage/change';
import { inTurns } from '../http/in-turns';
import { limitsChanged } from './limits-changed';
import { folded } from '../vehicles/folded';
import type { Drive, KeptPicture } from '@emery/core/drive';
import {
  type DriveMemory,
  expectedOf,
  kindOfBelt,
  memoryOf,
  odometerReadings,
  ranKm,
  usualUse,
} from '@emery/core/records';

/** Vehicles whose lists are written anew in one go, and rows written in one statement. */
const BATCH = 200;
const ROWS = 1000;
/** Drives of one vehicle that are gone through between two looks at what else is asked of the server. */
const DRIVES = 40;
/** Of one place of a belt; the last ones. */
const MOST_SAT = 20;
/** Due on no day that is known: behind all others. */
export const NO_DAY = '9999-12-31';

/** Puts down what is to be remembered of a drive, and by which limits; tells whether that is anything new. */
export async function keepMemory(
  manager: EntityManager,
  driveId: string,
  memory: string,
  byLimits: string,
): Promise<boolean> {
  const [old] = await manager.query<{ memory: string; byLimits: string }[]>(
    'SELECT memory, byLimits FROM drive_memory WHERE driveId = ?',
    [driveId],
  );
  if (old?.memory !== memory || old.byLimits !== byLimits) {
    await manager.query('REPLACE INTO drive_memory (driveId, memory, byLimits) VALUES (?)', [
      [driveId, memory, byLimits],
    ]);
    afterwards(manager, () => limitsChanged(manager.connection));
  }
  return old?.memory !== memory;
}

type VehicleFacts = Pick<
  VehicleRow,
  'id' | 'name' | 'plate' | 'odometer' | 'odometerUnit' | 'odometerAt' | 'updatedAt'
>;
interface MemoryRow {
  driveId: string;
  vehicleId: string;
  name: string;
  memory: string;
}
interface JobRow {
  id: string;
  driveId: string;
  vehicleId: string;
  signedAt: Date;
  record: string;
}

/**
 * Writes anew what is due, how long belts lasted and what happened, of these vehicles: from what their living drives
 * remember and from their signed-off jobs. Nothing of those that are deleted. Part of the change that made it
 * necessary.
 */
export async function rememberVehicles(manager: EntityManager, ids: readonly string[]): Promise<void> {
  for (let from = 0; from < ids.length; from += BATCH) {
    const some = ids.slice(from, from + BATCH);
    const vehicles = await manager.query<VehicleFacts[]>(
      `SELECT id, name, plate, odometer, odometerUnit, odometerAt, updatedAt FROM vehicle
       WHERE id IN (?) AND deletedAt IS NULL`,
      [some],
    );
    const memories = await manager.query<MemoryRow[]>(
      `SELECT drive.id AS driveId, drive.vehicleId, drive.name, drive_memory.memory FROM drive
       JOIN drive_memory ON drive_memory.driveId = drive.id WHERE drive.vehicleId IN (?) AND drive.deletedAt IS NULL`,
      [some],
    );
    const jobs = await manager.query<JobRow[]>(
      'SELECT id, driveId, vehicleId, signedAt, record FROM job WHERE vehicleId IN (?) AND signedAt IS NOT NULL',
      [some],
    );
    const changed = await duesBefore(manager, some);
    const rows = { dues: [] as unknown[][], lives: [] as unknown[][], records: [] as unknown[][] };
    for (const vehicle of vehicles)
      await putRows(
        vehicle,
        memories.filter(({ vehicleId }) => vehicleId === vehicle.id),
        jobs.filter(({ vehicleId }) => vehicleId === vehicle.id),
        changed,
        rows,
      );
    for (const table of ['due', 'belt_life', 'record'])
      await manager.query(`DELETE FROM ${table} WHERE vehicleId IN (?)`, [some]);
    await insert(
      manager,
      `due (vehicleId, driveId, kind, text, belt, day, odometer, unit, source, plusMinus, expected, search,
       name, changedAt)`,
      rows.dues,
    );
    await insert(
      manager,
      `belt_life (vehicleId, driveId, belt, section, ribs, kind, lengthMm, number, fromAt, fromOdometer, toAt,
       toOdometer, isOn, why, unit, ranKm, text, sat, sitting)`,
      rows.lives,
    );
    await insert(
      manager,
      'record (vehicleId, driveId, jobId, kind, at, odometer, unit, belt, title, detail, pictures, text)',
      rows.records,
    );
  }
}

async function insert(manager: EntityManager, into: string, rows: readonly unknown[][]): Promise<void> {
  for (let from = 0; from < rows.length; from += ROWS)
    await manager.query(`INSERT INTO ${into} VALUES ?`, [rows.slice(from, from + ROWS)]);
}

/** What was due before, by drive and name, and since when it says that. */
type DuesBefore = ReadonlyMap<string, { says: readonly unknown[]; changedAt: Date | null }>;

async function duesBefore(manager: EntityManager, vehicles: readonly string[]): Promise<DuesBefore> {
  const rows = await manager.query<DueBefore[]>(
    `SELECT driveId, kind, text, belt, day, odometer, unit, source, plusMinus, expected, search, name, changedAt
     FROM due WHERE vehicleId IN (?)`,
    [vehicles],
  );
  return new Map(
    rows.map(({ driveId, name, changedAt, ...row }) => {
      const { kind, text, belt, day, odometer, unit, source, plusMinus, expected, search } = row;
      const says = [kind, text, belt, day, odometer, unit, source, plusMinus, expected, search];
      return [`${driveId} ${name}`, { says, changedAt }];
    }),
  );
}
type DueBefore = { driveId: string; name: string; changedAt: Date | null } & Record<
  'kind' | 'text' | 'belt' | 'day' | 'odometer' | 'unit' | 'source' | 'plusMinus' | 'expected' | 'search',
  unknown
>;

const sameDue = (before: readonly unknown[], after: readonly unknown[]) =>
  before.every((value, k) => {
    const next = after[k];
    return Buffer.isBuffer(value) && Buffer.isBuffer(next) ? value.equals(next) : value === next;
  });

/** Puts down all of one vehicle, in turns: it may have drives by the hundred. */
async function putRows(
  vehicle: VehicleFacts,
  memories: readonly MemoryRow[],
  jobs: readonly JobRow[],
  changed: DuesBefore,
  rows: { dues: unknown[][]; lives: unknown[][]; records: unknown[][] },
): Promise<void> {
  const { id, name, plate, odometer, odometerUnit: unit } = vehicle;
  const now = new Date();
  const read = await inTurns(memories, DRIVES, (row) => {
    const memory = JSON.parse(row.memory) as DriveMemory;
    return { ...row, memory, readings: odometerReadings(memory, unit) };
  });
  const readings = read.flatMap((row) => row.readings);
  if (odometer !== null) readings.push({ at: (vehicle.odometerAt ?? vehicle.updatedAt).getTime(), odometer });
  const use = usualUse(readings, unit);
  const stands = { odometer: use.last?.odometer ?? odometer, unit };
  await inTurns(read, DRIVES, ({ driveId, name: drive, memory }) => {
    for (const due of memory.dues) {
      const key = due.key.slice(0, 240);
      const says = [
        ...[due.kind, due.text.slice(0, 300), due.belt, due.day, due.odometer, due.unit, due.from, due.plusMinus],
        ...[expectedOf(due, use).day ?? NO_DAY, textOf([name, plate, drive, due.text], 1000)],
      ];
      const before = changed.get(`${driveId} ${key}`);
      // An entry that says what it said before has not changed, however often it is written.
      const same = before?.changedAt && sameDue(before.says, says);
      rows.dues.push([id, driveId, ...says, key, same ? before.changedAt : now]);
    }
    for (const life of memory.lives) {
      const { belt, section, ribs, lengthMm, number, from, to, why } = life;
      const kind = kindOfBelt(section, ribs);
      rows.lives.push([
        ...[id, driveId, belt, section, ribs, kind, lengthMm, number, dateOf(from.at), from.odometer],
        ...[dateOf(to?.at ?? null), to?.odometer ?? null, to ? 0 : 1, why, life.unit, ranKm(life, stands)],
        ...[textOf([name, plate, drive, number ?? '', kind], 1000), ...satOf(memory, life)],
      ]);
    }
    for (const { kind, at, odometer: reading, unit: counts, belt, title, detail, pictures } of memory.story)
      rows.records.push([
        ...[id, driveId, null, kind, dateOf(at === null ? null : Date.parse(at)), reading, counts, belt],
        ...[title.slice(0, 300), detail.slice(0, 600), picturesOf(pictures)],
        textOf([name, plate, drive, title, detail], 1600),
      ]);
  });
  for (const job of jobs) {
    const drive = read.find(({ driveId }) => driveId === job.driveId);
    if (!drive) continue;
    const { title, detail, odometer: reading, pictures, late = [] } = JSON.parse(job.record) as JobRecord;
    const tell = (title: string, detail: string, odometer: number | null, pictures: readonly KeptPicture[]) =>
      rows.records.push([
        ...[id, job.driveId, job.id, 'job', job.signedAt, odometer, unit, null, title.slice(0, 300)],
        ...[detail.slice(0, 600), picturesOf(pictures)],
        textOf([name, plate, drive.name, title, detail], 1600),
      ]);
    tell(title, detail, reading, pictures);
    if (late.length > 0) tell('Received after sign-off', late.join('; '), null, []);
  }
}

/** Section and sittings of the place of a belt, with the one that is on; nulls where nothing was read. */
function satOf({ sittings = [] }: Partial<DriveMemory>, { belt, section, to }: DriveMemory['lives'][number]) {
  const here = to ? [] : sittings.filter((sitting) => sitting.belt === belt);
  return here.length === 0 ? [null, null] : [section, JSON.stringify(here.slice(0, MOST_SAT))];
}

/** A handful of pictures of one entry; more are in the drive itself. */
const picturesOf = (pictures: readonly KeptPicture[]) =>
  pictures.length === 0 ? null : JSON.stringify(pictures.slice(0, 24));

/** A date the database can hold. */
const dateOf = (ms: number | null) =>
  ms === null || Number.isNaN(ms) || ms < Date.UTC(1000, 0) || ms > Date.UTC(9999, 0) ? null : new Date(ms);
const textOf = (parts: readonly string[], max: number) => Buffer.from(folded(parts.join('\n'))).subarray(0, max);

/** Works out anew what every drive is remembered by, a page at a time: for shops from before there was any. */
export async function rememberAll(manager: EntityManager): Promise<void> {
  for (let last = ''; ;) {
    const page = await manager.query<{ driveId: string; document: string }[]>(
      `SELECT driveId, document FROM drive_document WHERE driveId > ? ORDER BY driveId LIMIT ${BATCH}`,
      [last],
    );
    if (page.length === 0) break;
    const rows = page.map(({ driveId, document }) => [
      driveId,
      JSON.stringify(memoryOf(JSON.parse(document) as Drive)),
    ]);
    await manager.query('REPLACE INTO drive_memory (driveId, memory) VALUES ?', [rows]);
    last = page.at(-1)!.driveId;
  }
  const vehicles = await manager.query<{ id: string }[]>('SELECT id FROM vehicle');
  await rememberVehicles(
    manager,
    vehicles.map(({ id }) => id),
  );
}
