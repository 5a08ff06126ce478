import { randomBytes } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { checkedDrive } from '../check';
import { connect, openUnchanged } from '../data-source';
import { DriveEntity, type DriveRow } from '../drives/entity';
import { vehicleOut } from '../files/archive-out';
import { type BroughtIn, Shelf } from '../files/archive-in';
import { jobFile, type StoredJob } from '../jobs/archive';
import { readJobFile } from '../jobs/read-job-file';
import { limitsChanged } from '../records/limits-changed';
import { photoAsIs } from '../photos/read-photo';
import { change } from '../storage/change';
import { holdDrive, holdVehicles } from '../storage/hold';
import { Vehicle, type VehicleRow } from '../vehicles/entity';
import { loadBackup } from './load-backup';
import { BackupProblem, type OpenBackup, pictureOf } from './read-backup';
import { FETCH } from './words';

export type FetchKind = 'drive' | 'vehicle' | 'job';

export interface Fetched extends Pick<BroughtIn, 'vehicles' | 'jobs' | 'pictures' | 'there'> {
  /** What it is called. */
  name: string;
  drives: number;
  /** Drives and vehicles that were deleted in the shop and stand in it again. */
  back: number;
}

interface Picked {
  name: string;
  vehicles: string[];
  drives: string[];
  jobs: string[];
}

/**
 * Brings one drive with its vehicle, one vehicle with all of its drives and jobs, or one job with its drive, out of a
 * backup and into a shop, whose database is at `url`. What the shop has is never written over: a drive that was worked
 * on since stands there as it is, and that of the backup beside it. `wanted` is an id, or the name or a part of it that
 * fits one alone.
 */
export async function fetchInto(
  backup: OpenBackup,
  into: DataSource,
  url: string,
  { kind, wanted }: { kind: FetchKind; wanted: string },
): Promise<Fetched> {
  // Tables as they are today, whichever version wrote the backup; beside the shop, and gone again afterwards.
  const beside = new URL(url);
  beside.pathname = `/emery_fetch_${randomBytes(4).toString('hex')}`;
  try {
    await loadBackup(backup, beside.href, { pictures: new Set() });
    const from = await connect(beside.href);
    try {
      const picked = await pick(from.manager, kind, wanted);
      const fetched = await change(into, (manager) => put(manager, from, backup, picked));
      limitsChanged(into);
      return fetched;
    } finally {
      await from.destroy();
    }
  } finally {
    const data = await openUnchanged(beside.href);
    await data.query(`DROP DATABASE \`${beside.pathname.slice(1)}\``).finally(() => data.destroy());
  }
}

const NAMES: Readonly<Record<FetchKind, string>> = {
  drive:
    "SELECT drive.id, CONCAT(vehicle.name, ', ', drive.name) AS name FROM drive JOIN vehicle ON vehicle.id = drive.vehicleId",
  vehicle: "SELECT id, CONCAT(name, IF(plate = '', '', ', '), plate) AS name FROM vehicle",
  job: "SELECT id, CONCAT(name, ', ', LEFT(startedAt, 10)) AS name FROM job",
};

async function pick(manager: EntityManager, kind: FetchKind, wanted: string): Promise<Picked> {
  const all = await manager.query<{ id: string; name: string }[]>(NAMES[kind]);
  const text = wanted.trim().toLowerCase();
  const exact = all.filter(({ id, name }) => id === text || name.toLowerCase() === text);
  const found = exact.length > 0 ? exact : all.filter(({ name }) => name.toLowerCase().includes(text));
  const [only, ...others] = found;
  if (!only || others.length > 0) throw new BackupProblem(FETCH.notOne(kind, wanted, found));
  const ids = async (sql: string, values: unknown[]) =>
    (await manager.query<{ id: string }[]>(sql, values)).map(({ id }) => id);
  const { id, name } = only;
  if (kind === 'vehicle')
    return {
      ...{ name, vehicles: [id] },
      drives: await ids('SELECT id FROM drive WHERE vehicleId = ? ORDER BY id', [id]),
      jobs: await ids('SELECT id FROM job WHERE vehicleId = ? ORDER BY id', [id]),
    };
  const drives = kind === 'drive' ? [id] : await ids('SELECT driveId AS id FROM job WHERE id = ?', [id]);
  const vehicles = await ids('SELECT vehicleId AS id FROM drive WHERE id IN (?)', [drives]);
  return { name, vehicles, drives, jobs: kind === 'job' ? [id] : [] };
}

async function put(manager: EntityManager, from: DataSource, backup: OpenBackup, picked: Picked): Promise<Fetched> {
  const shelf = new Shelf(manager);
  const texts: string[] = [];
  const vehicles = new Map(
    (await from.getRepository(Vehicle).find())
      .filter(({ id }) => picked.vehicles.includes(id))
      .map((row) => [row.id, row]),
  );
  for (const row of vehicles.values()) await shelf.put({ kind: 'vehicles', vehicles: [vehicleIn(row)] });
  for (const id of picked.drives) {
    const [drive] = await from.query<(DriveRow & { document: string })[]>(
      'SELECT drive.*, drive_document.document FROM drive JOIN drive_document ON driveId = id WHERE id = ?',
      [id],
    );
    const vehicle = drive && vehicles.get(drive.vehicleId);
    if (!vehicle) continue;
    texts.push(drive.document);
    const checked = await checkedDrive(JSON.parse(drive.document));
    const { revision, updatedAt } = drive;
    const record = { id, revision, updatedAt, deletedAt: null };
    await shelf.put({ kind: 'drive', drive: { checked, vehicle: vehicleOut(vehicle), record } });
  }
  for (const id of picked.jobs) {
    const [job] = await from.query<StoredJob[]>('SELECT * FROM job WHERE id = ?', [id]);
    if (!job) continue;
    const { name, text } = await jobFile((sql, values) => from.query(sql, values), job);
    texts.push(text);
    await shelf.put({ kind: 'job', job: readJobFile(name, Buffer.from(text)) });
  }
  await putPictures(shelf, backup, texts);
  const back = await bringBack(manager, picked);
  const { drives, ...brought } = await shelf.done([...picked.vehicles]);
  return { ...brought, name: picked.name, drives: drives.length, back };
}

const vehicleIn = ({ name, plate, odometer, odometerUnit, notes, ...row }: VehicleRow) => ({
  fields: { name, plate, odometer, odometerUnit, notes },
  ...{ id: row.id, revision: row.revision, updatedAt: row.updatedAt, odometerAt: row.odometerAt, deletedAt: null },
});

/** The pictures that these drives and jobs name. */
async function putPictures(shelf: Shelf, backup: OpenBackup, texts: readonly string[]): Promise<void> {
  const hashes = new Set(texts.flatMap((text) => text.match(/\b[0-9a-f]{64}\b/g) ?? []));
  for (const hash of hashes) {
    const bytes = await pictureOf(backup, hash);
    const picture = bytes && (await photoAsIs(bytes).catch(() => null));
    if (picture) await shelf.put({ kind: 'picture', picture });
  }
}

/** What was deleted in the shop and has just been asked for stands in it again. */
async function bringBack(manager: EntityManager, { vehicles, drives }: Picked): Promise<number> {
  let back = 0;
  for (const row of (await holdVehicles(manager, vehicles)).values())
    if (row.deletedAt) {
      await manager.update(Vehicle, { id: row.id }, { deletedAt: null });
      back += 1;
    }
  for (const id of drives) {
    const held = await holdDrive(manager, id);
    if (!held?.drive.deletedAt) continue;
    await manager.update(DriveEntity, { id }, { deletedAt: null });
    back += 1;
  }
  return back;
}
