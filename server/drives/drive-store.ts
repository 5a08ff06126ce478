import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { change } from '../storage/change';
import { holdDrive } from '../storage/hold';
import { checkedDrive, type CheckedDrive } from '../check';
import { DriveEntity, type DriveRow } from './entity';
import { readLimits, withShopLimits } from './shop-limits';
import { Vehicle } from '../vehicles/entity';
import { invalid, notFound, Problem } from '../http/problem';
import { RawJson } from '../http/raw-json';
import { keepMemory } from '../records/remember';
import { duesOfDrives } from '../records/dues';
import { indexVehicles } from '../vehicles/search-index';
import type { DriveListed, DriveOpened } from '@emery/core/api';
import { type Drive, fullWords, withinLists } from '@emery/core/drive';

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
  await manager.insert(DriveEntity, {
    id,
    vehicleId,
    name: checked.name,
    revision,
    saveId: randomUUID(),
    updatedAt,
    deletedAt,
  });
  const { document, sketch, memory, byLimits } = checked;
  await manager.query('INSERT INTO drive_document (driveId, document, sketch) VALUES (?)', [[id, document, sketch]]);
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

/**
 * Saves over the revision the caller last saw. On any other revision nothing is written and a 409 carries the newer
 * drive; the same save sent twice, as after a lost answer, is answered like the first time. The name of a save that was
 * taken with another document is refused with 422: one of the two would be lost.
 */
export async function saveDrive(
  data: DataSource,
  id: string,
  { revision, saveId, by }: { revision: number; saveId: string; by: string },
  checked: CheckedDrive,
): Promise<Pick<DriveRow, 'id' | 'revision' | 'updatedAt'>> {
  return change(data, async (manager) => {
    const held = await holdDrive(manager, id);
    if (!held || held.drive.deletedAt || held.vehicle.deletedAt) throw await gone(manager, id);
    const row = held.drive;
    if (row.saveId === saveId) {
      const [stored] = await manager.query<{ document: string }[]>(
        'SELECT document FROM drive_document WHERE driveId = ?',
        [id],
      );
      if (checked.document === stored!.document) return row;
      throw invalid([
        {
          path: 'saveId',
          message: 'names a save that was taken with another document; give each save a name of its own',
        },
      ]);
    }
    if (row.revision !== revision) {
      const current = await openDrive(manager, id);
      throw new Problem(
        409,
        'Saved elsewhere',
        'This drive was saved somewhere else since you opened it. Nothing was overwritten.',
        [],
        { current },
      );
    }
    return store(manager, row, checked, { saveId, by });
  });
}

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
  await store(manager, row, await checkedDrive(after), { saveId: randomUUID(), by });
  return after;
}

async function store(
  manager: EntityManager,
  { id, vehicleId, name, revision }: DriveRow,
  { name: called, document, sketch, memory, byLimits }: CheckedDrive,
  { saveId, by }: { saveId: string; by: string },
): Promise<Pick<DriveRow, 'id' | 'revision' | 'updatedAt'>> {
  const saved = { name: called, revision: revision + 1, saveId, updatedAt: new Date(), savedBy: by };
  await manager.update(DriveEntity, { id }, saved);
  await manager.query('UPDATE drive_document SET document = ?, sketch = ? WHERE driveId = ?', [document, sketch, id]);
  if ((await keepMemory(manager, id, memory, byLimits)) || saved.name !== name)
    await indexVehicles(manager, [vehicleId]);
  return { id, ...saved };
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
