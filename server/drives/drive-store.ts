import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { change } from '../storage/change';
import { inLine, type Lines } from '../storage/in-line';
import { holdDrive } from '../storage/hold';
import { checkedDrive, type CheckedDrive, mergedDrive } from '../check';
import { PATCH } from './words';
import { DriveEntity, type DriveRow } from './entity';
import { readLimits, withShopLimits } from './shop-limits';
import { Vehicle } from '../vehicles/entity';
import { busy, invalid, notFound, Problem } from '../http/problem';
import { RawJson } from '../http/raw-json';
import { tellNews } from '../live/news';
import { keepMemory } from '../records/remember';
import { duesOfDrives } from '../records/dues';
import { indexVehicles } from '../vehicles/search-index';
import type { DriveListed, DriveOpened } from '@emery/core/api';
import { type Drive, fullWords, withinLists } from '@emery/core/drive';
import {
  type Change,
  changesBetween,
  type Clash,
  type Patch,
  type PatchAnswer,
  type Version,
} from '@emery/core/together';

/** Where a new drive differs from one that was just drawn: brought back from an archive, it keeps what it had. */
type Kept = Partial<Pick<DriveRow, 'id' | 'revision' | 'updatedAt' | 'deletedAt'>>;

/** Stores a new drive. The vehicle is to be indexed by the caller, once for all that it does. */
export async function createDrive(
  manager: EntityManager,
  vehicleId: string,
  checked: CheckedDrive,
  kept: Kept = {},
): Promise<string> {
  const { id = randomUUID(), revision = 1, updatedAt = new Date(), deletedAt = null } = kept;
  const saveId = randomUUID();
  await manager.insert(DriveEntity, { id, vehicleId, name: checked.name, revision, saveId, updatedAt, deletedAt });
  const { document, sketch, memory, byLimits } = checked;
  await manager.query('INSERT INTO drive_document (driveId, document, sketch) VALUES (?)', [[id, document, sketch]]);
  await manager.query(
    `INSERT INTO drive_version (driveId, revision, saveId, at, savedBy, asked, past)
     VALUES (?, ?, ?, ?, '', '', COMPRESS(?))`,
    [id, revision, saveId, updatedAt, document],
  );
  await keepMemory(manager, id, memory, byLimits);
  return id;
}

/** The drive as it is now; its number and its document are read at one moment, whoever saves meanwhile. */
export async function openDrive(manager: EntityManager, id: string): Promise<DriveOpened<Date>> {
  const [row] = await manager.query<OpenedRow[]>(
    `SELECT drive.vehicleId, drive.name, drive.revision, drive.updatedAt, drive.savedBy, vehicle.name AS vehicleName,
       drive_document.document, (SELECT limits FROM shop WHERE id = 1) AS limits
     FROM drive JOIN vehicle ON vehicle.id = drive.vehicleId JOIN drive_document ON drive_document.driveId = drive.id
     WHERE drive.id = ? AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`,
    [id],
  );
  if (!row) throw await gone(manager, id);
  const { vehicleId, vehicleName, name, revision, updatedAt, savedBy, document, limits } = row;
  const drive = withShopLimits(JSON.parse(document) as Drive, readLimits(limits));
  return { id, vehicleId, vehicleName, name, revision, updatedAt, savedBy, document: drive };
}

interface OpenedRow extends Pick<DriveRow, 'vehicleId' | 'name' | 'revision' | 'updatedAt' | 'savedBy'> {
  vehicleName: string;
  document: string;
  limits: string | null;
}

/** Why a drive is not there: never was, was deleted, or its vehicle was. */
async function gone(manager: EntityManager, id: string): Promise<Problem> {
  const row = await manager.findOneBy(DriveEntity, { id });
  const vehicle = row && !row.deletedAt ? await manager.findOneBy(Vehicle, { id: row.vehicleId }) : null;
  if (!vehicle?.deletedAt)
    return new Problem(404, 'Not found', notFound('drive').detail, [], row ? { deleted: 'drive' } : {});
  return new Problem(
    404,
    'Vehicle deleted',
    `The vehicle of this drive, ${vehicle.name}, was deleted. Restore it to get the drive back.`,
    [],
    { deleted: 'vehicle' },
  );
}

/** Made one beside the requests so often; then with the drive held meanwhile, and others wait. */
const ROUNDS = 3;
/** Those that save one drive at this server: each is made one with what the one before left. */
const saving: Lines = new Map();

/**
 * Makes changes to a drive that were made to a version of it, whatever was saved since: what others changed too is left
 * as they have it and told (`clashes`). The same save sent twice, as after a lost answer, is taken once.
 */
export async function patchDrive(data: DataSource, id: string, patch: Patch, by: string): Promise<PatchAnswer> {
  return inLine(saving, id, async () => {
    for (let round = 0; round < ROUNDS; round += 1) {
      const merge = await mergedNow(data.manager, id, patch);
      const answer = await change(data, (manager) => takePatch(manager, id, patch, by, merge));
      if (answer) return answer;
    }
    const answer = await change(data, async (manager) => {
      await holdDrive(manager, id);
      return takePatch(manager, id, patch, by, await mergedNow(manager, id, patch));
    });
    if (!answer) throw busy();
    return answer;
  });
}

type MergedNow = Awaited<ReturnType<typeof mergedNow>>;

/** The drive as it is stored with the changes made to it, and of which revision that was. */
async function mergedNow(manager: EntityManager, id: string, { revision, changes }: Patch) {
  const now = await storedDrive(manager, id);
  const merge = await mergedDrive({ ...now, changes, alone: now.revision === revision });
  return { ...merge, of: now.revision, vehicleId: now.vehicleId };
}

/** Null where somebody saved it, or moved it to another vehicle, while the two were made one. */
async function takePatch(
  manager: EntityManager,
  id: string,
  patch: Patch,
  by: string,
  { of: revision, vehicleId, checked, asked, changes, clashes }: MergedNow,
): Promise<PatchAnswer | null> {
  const held = await holdForSave(manager, { id, vehicleId, saveId: patch.saveId });
  if (!held) return null;
  const { drive, taken } = held;
  if (drive.deletedAt || held.vehicleDeletedAt) throw await gone(manager, id);
  if (taken && taken.asked !== asked) throw invalid([{ path: 'saveId', message: PATCH.otherSave }]);
  if (taken) return { ...(await versionsOf(manager, drive, patch.revision)), clashes: taken.clashes };
  if (drive.revision !== revision) return null;
  const done = { saveId: patch.saveId, by, asked, changes, clashes };
  const now = checked ? await store(manager, drive, checked, done) : drive;
  if (!checked || patch.revision !== revision) return { ...(await versionsOf(manager, now, patch.revision)), clashes };
  // Nobody else has saved: what it brings is all there is since.
  const at = now.updatedAt.toISOString();
  const own = { revision: now.revision, saveId: patch.saveId, by, at, changes };
  return { revision: now.revision, updatedAt: at, since: [own], clashes };
}

interface TakenSave {
  asked: string;
  clashes: Clash[];
}

/** A drive as it is stored, for what is made of it beside the requests. */
async function storedDrive(manager: EntityManager, id: string) {
  const [row] = await manager.query<{ vehicleId: string; revision: number; document: string; limits: string | null }[]>(
    `SELECT drive.vehicleId, drive.revision, drive_document.document, (SELECT limits FROM shop WHERE id = 1) AS limits
     FROM drive JOIN drive_document ON drive_document.driveId = drive.id JOIN vehicle ON vehicle.id = drive.vehicleId
     WHERE drive.id = ? AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`,
    [id],
  );
  if (!row) throw await gone(manager, id);
  return { ...row, limits: readLimits(row.limits) };
}

interface HeldForSave {
  drive: DriveRow;
  vehicleDeletedAt: Date | null;
  /** The save of that name, where it was taken before. */
  taken: TakenSave | null;
}

/**
 * Holds a drive with its vehicle, in that order (`hold.ts`), and looks for a save of that name: in one question, which
 * is what a save takes longest with. What is looked for was there before the drive was held where the drive is still
 * the revision that was merged with, and else nobody goes by it. Null where the drive is not that vehicle's.
 */
async function holdForSave(
  manager: EntityManager,
  { id, vehicleId, saveId }: { id: string; vehicleId: string; saveId: string },
): Promise<HeldForSave | null> {
  type Row = DriveRow & { vehicleDeletedAt: Date | null; asked: string | null; clashes: string | null };
  const ofSave = 'FROM drive_version WHERE driveId = drive.id AND saveId = ? LIMIT 1';
  const [row] = await manager.query<Row[]>(
    `SELECT drive.*, vehicle.deletedAt AS vehicleDeletedAt, (SELECT asked ${ofSave}) AS asked,
       (SELECT clashes ${ofSave}) AS clashes
     FROM vehicle STRAIGHT_JOIN drive ON drive.vehicleId = vehicle.id
     WHERE vehicle.id = ? AND drive.id = ? FOR UPDATE`,
    [saveId, saveId, vehicleId, id],
  );
  if (!row) return null;
  const { vehicleDeletedAt, asked, clashes, ...drive } = row;
  const taken = asked === null ? null : { asked, clashes: clashes === null ? [] : (JSON.parse(clashes) as Clash[]) };
  return { drive, vehicleDeletedAt, taken };
}

/** More versions than these are not worth more than the drive itself. */
const MOST_VERSIONS = 200;

/** What was done to a drive since a revision; the drive as it is where that is no longer kept. */
export async function versionsAfter(
  manager: EntityManager,
  id: string,
  after: number,
): Promise<Omit<PatchAnswer, 'clashes'>> {
  const row = await manager.findOneBy(DriveEntity, { id });
  if (!row || row.deletedAt) throw await gone(manager, id);
  return versionsOf(manager, row, after);
}

/** The same of a drive whose row is known. */
async function versionsOf(
  manager: EntityManager,
  { id, revision, updatedAt: changedAt }: Pick<DriveRow, 'id' | 'revision' | 'updatedAt'>,
  after: number,
): Promise<Omit<PatchAnswer, 'clashes'>> {
  const rows = await manager.query<VersionRow[]>(
    `SELECT revision, saveId, at, savedBy, changes FROM drive_version
     WHERE driveId = ? AND revision > ? AND revision <= ? ORDER BY revision LIMIT ${MOST_VERSIONS + 1}`,
    [id, after, revision],
  );
  const updatedAt = changedAt.toISOString();
  const isAll = after <= revision && rows.length === revision - after && rows.every(({ changes }) => changes !== null);
  if (isAll && rows.length <= MOST_VERSIONS) return { revision, updatedAt, since: rows.map(versionOf) };
  const { document, ...opened } = await openDrive(manager, id);
  return { revision: opened.revision, updatedAt, since: null, document };
}

interface VersionRow {
  revision: number;
  saveId: string;
  at: Date;
  savedBy: string;
  changes: string | null;
}

const versionOf = ({ revision, saveId, at, savedBy, changes }: VersionRow): Version => ({
  ...{ revision, saveId, by: savedBy, at: at.toISOString() },
  changes: JSON.parse(changes ?? '[]') as Change[],
});

/**
 * Changes a drive as it is now, as one save of its own within a larger change; a drive that is gone is left as it is.
 * Whoever has it open is told with their next save.
 */
export async function changeDrive(
  manager: EntityManager,
  id: string,
  changed: (drive: Drive) => Drive,
  by = '',
): Promise<Drive | null> {
  const row = (await holdDrive(manager, id))?.drive;
  if (!row || row.deletedAt) return null;
  const [stored] = await manager.query<{ document: string }[]>(
    'SELECT document FROM drive_document WHERE driveId = ?',
    [id],
  );
  const before = JSON.parse(stored!.document) as Drive;
  // Past items make room in a list that is full; where there are none the whole change is refused, not part of it lost.
  const { drive: after, full } = withinLists(before, changed(before));
  if (full) throw new Problem(422, 'Drive full', fullWords(full));
  if (after === before) return before;
  const changes = changesBetween(before, after);
  await store(manager, row, await checkedDrive(after), { saveId: randomUUID(), by, asked: '', changes, clashes: [] });
  return after;
}

async function store(
  manager: EntityManager,
  { id, vehicleId, name, revision }: DriveRow,
  { name: called, document, sketch, memory, byLimits }: CheckedDrive,
  { saveId, by, asked, changes, clashes }: Done,
): Promise<Pick<DriveRow, 'id' | 'revision' | 'updatedAt'>> {
  const saved = { name: called, revision: revision + 1, saveId, updatedAt: new Date(), savedBy: by };
  await manager.query(
    `UPDATE drive JOIN drive_document ON drive_document.driveId = drive.id
     SET drive.name = ?, drive.revision = ?, drive.saveId = ?, drive.updatedAt = ?, drive.savedBy = ?,
       drive_document.document = ?, drive_document.sketch = ? WHERE drive.id = ?`,
    [called, saved.revision, saveId, saved.updatedAt, by, document, sketch, id],
  );
  if ((await keepMemory(manager, id, memory, byLimits)) || saved.name !== name)
    await indexVehicles(manager, [vehicleId]);
  await manager.query(
    `INSERT INTO drive_version (driveId, revision, saveId, at, savedBy, asked, changes, clashes, past)
     VALUES (?, COMPRESS(?))`,
    [
      [
        ...[id, saved.revision, saveId, saved.updatedAt, by, asked, JSON.stringify(changes)],
        clashes.length === 0 ? null : JSON.stringify(clashes),
      ],
      document,
    ],
  );
  await tellNews(manager, { kind: 'drive', subject: id, revision: saved.revision, body: {} });
  return { id, revision: saved.revision, updatedAt: saved.updatedAt };
}

/** A save by its name, what it did to the version before, and what of it was left out. */
interface Done {
  saveId: string;
  by: string;
  /** Names what was asked for, so that a save of that name with anything else is known. */
  asked: string;
  changes: readonly Change[];
  clashes: readonly Clash[];
}

/** A drive as lists show it, its drawing as it is stored. */
export type DriveSent = Omit<DriveListed<Date>, 'sketch'> & { sketch: RawJson };

/** The drives of these rows, drawings and all, in the order given. */
export async function listDrives(manager: EntityManager, rows: DriveRow[]): Promise<DriveSent[]> {
  if (rows.length === 0) return [];
  const ids = rows.map(({ id }) => id);
  const drawn = await manager.query<{ driveId: string; sketch: string }[]>(
    'SELECT driveId, sketch FROM drive_document WHERE driveId IN (?)',
    [ids],
  );
  const sketches = new Map(drawn.map(({ driveId, sketch }) => [driveId, sketch]));
  const dues = new Map(ids.map((id) => [id, [] as DriveSent['dues']]));
  for (const { driveId, due } of await duesOfDrives(manager, ids)) dues.get(driveId)!.push(due);
  return rows.map(({ id, vehicleId, name, revision, updatedAt }) => ({
    id,
    vehicleId,
    name,
    revision,
    updatedAt,
    sketch: new RawJson(sketches.get(id)!),
    dues: dues.get(id)!,
  }));
}
