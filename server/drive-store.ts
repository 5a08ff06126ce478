import { randomUUID } from 'node:crypto';
import { In, IsNull, type DataSource, type EntityManager } from 'typeorm';
import { readDrive, type Drive } from '@emery/core/drive';
import { sketchOf, type DriveSketch } from '@emery/core/path';
import { DriveDocument, DriveEntity, Vehicle, type DriveRow } from './entities';
import { invalid, notFound, Problem } from './problem';

/** A drive as lists show it. */
export interface DriveListed {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  updatedAt: Date;
  sketch: DriveSketch;
}

/** A drive as the bench opens it. */
export interface DriveOpened extends Omit<DriveListed, 'sketch'> {
  vehicleName: string;
  document: Drive;
}

/** Refuses with 422 what the drive file does not allow, each field by its path under `document`. */
export function checkedDrive(value: unknown): Drive {
  const reading = readDrive(value);
  if (reading.ok) return reading.drive;
  throw invalid(reading.problems.map(({ path, message }) => ({ path: path === '' ? 'document' : `document.${path}`, message })));
}

export async function createDrive(manager: EntityManager, vehicleId: string, document: Drive): Promise<string> {
  const id = randomUUID();
  const name = nameOf(document);
  await manager.insert(DriveEntity, { id, vehicleId, name, revision: 1, saveId: randomUUID(), updatedAt: new Date(), deletedAt: null });
  await manager.insert(DriveDocument, { driveId: id, document: document as never, sketch: sketchOf(document) as never });
  return id;
}

export async function openDrive(manager: EntityManager, id: string): Promise<DriveOpened> {
  const row = await manager.findOneBy(DriveEntity, { id, deletedAt: IsNull() });
  const vehicle = row && (await manager.findOneBy(Vehicle, { id: row.vehicleId, deletedAt: IsNull() }));
  if (!row || !vehicle) throw notFound('drive');
  const { document } = await manager.findOneByOrFail(DriveDocument, { driveId: id });
  const { vehicleId, name, revision, updatedAt } = row;
  return { id, vehicleId, vehicleName: vehicle.name, name, revision, updatedAt, document };
}

/**
 * Saves over the revision the caller last saw. On any other revision nothing is written and a 409 carries the newer drive; the same
 * save sent twice, as after a lost answer, is answered like the first time.
 */
export async function saveDrive(data: DataSource, id: string, revision: number, saveId: string, document: Drive): Promise<DriveRow> {
  return data.transaction(async (manager) => {
    const updated = await manager.update(
      DriveEntity,
      { id, revision, deletedAt: IsNull() },
      { name: nameOf(document), revision: revision + 1, saveId, updatedAt: new Date() },
    );
    if (updated.affected === 1) {
      await manager.update(DriveDocument, { driveId: id }, { document: document as never, sketch: sketchOf(document) as never });
    }
    const row = await manager.findOneBy(DriveEntity, { id });
    if (!row || row.deletedAt) throw notFound('drive');
    if (updated.affected !== 1 && row.saveId !== saveId) {
      const current = await openDrive(manager, id);
      throw new Problem(409, 'Saved elsewhere', 'This drive was saved somewhere else since you opened it. Nothing was overwritten.', [], { current });
    }
    return row;
  });
}

/** The drives with these ids, drawings and all, in the order given. */
export async function listDrives(manager: EntityManager, rows: DriveRow[]): Promise<DriveListed[]> {
  if (rows.length === 0) return [];
  const documents = await manager.find(DriveDocument, { where: { driveId: In(rows.map(({ id }) => id)) }, select: { driveId: true, sketch: true } });
  const sketches = new Map(documents.map(({ driveId, sketch }) => [driveId, sketch]));
  return rows.map(({ id, vehicleId, name, revision, updatedAt }) => ({ id, vehicleId, name, revision, updatedAt, sketch: sketches.get(id)! }));
}

function nameOf(document: Drive): string {
  return document.name?.trim() || 'Drive without a name';
}
