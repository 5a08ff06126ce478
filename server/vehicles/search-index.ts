import type { EntityManager } from 'typeorm';
import type { Page } from '../http/listing';
import { rememberVehicles } from '../records/remember';
import { folded, foldedAnywhere } from './folded';

/** Vehicles indexed in one go. */
const BATCH = 500;

interface Row {
  id: string;
  name: string;
  plate: string;
  notes: string;
}

/**
 * Brings what lists and searches find of these vehicles and their drives up to date, and what is remembered of them:
 * those that are deleted are not found. Part of the change that made it necessary.
 */
export async function indexVehicles(manager: EntityManager, ids: readonly string[]): Promise<void> {
  await indexNames(manager, ids);
  await rememberVehicles(manager, ids);
}

async function indexNames(manager: EntityManager, ids: readonly string[]): Promise<void> {
  for (let from = 0; from < ids.length; from += BATCH) {
    const some = ids.slice(from, from + BATCH);
    const vehicles = await manager.query<Row[]>(
      'SELECT id, name, plate, notes FROM vehicle WHERE id IN (?) AND deletedAt IS NULL',
      [some],
    );
    const drives = await manager.query<{ id: string; vehicleId: string; name: string; deletedAt: Date | null }[]>(
      'SELECT id, vehicleId, name, deletedAt FROM drive WHERE vehicleId IN (?) ORDER BY name, id',
      [some],
    );
    const byId = new Map(vehicles.map((vehicle) => [vehicle.id, { vehicle, names: [] as string[] }]));
    const driveRows: [string, Buffer][] = [];
    const hidden: string[] = [];
    for (const { id, vehicleId, name, deletedAt } of drives) {
      const found = byId.get(vehicleId);
      if (!found || deletedAt) hidden.push(id);
      else {
        found.names.push(name);
        driveRows.push([id, textOf([name, found.vehicle.name, found.vehicle.plate], 2000)]);
      }
    }
    const vehicleRows = [...byId.values()].map(({ vehicle: { id, name, plate, notes }, names }) => [
      id,
      textOf([name, plate, ...names, notes], 20_000),
    ]);
    const gone = some.filter((id) => !byId.has(id));
    if (vehicleRows.length > 0)
      await manager.query('REPLACE INTO vehicle_search (vehicleId, text) VALUES ?', [vehicleRows]);
    if (driveRows.length > 0) await manager.query('REPLACE INTO drive_search (driveId, text) VALUES ?', [driveRows]);
    if (gone.length > 0) await manager.query('DELETE FROM vehicle_search WHERE vehicleId IN (?)', [gone]);
    if (hidden.length > 0) await manager.query('DELETE FROM drive_search WHERE driveId IN (?)', [hidden]);
  }
}

const textOf = (parts: readonly string[], max: number) => Buffer.from(folded(parts.join('\n'))).subarray(0, max);

const allVehicles = async (manager: EntityManager) =>
  (await manager.query<{ id: string }[]>('SELECT id FROM vehicle')).map(({ id }) => id);

export const indexAllVehicles = async (manager: EntityManager) => indexVehicles(manager, await allVehicles(manager));
/** Names alone: for shops that are on the way to remembering anything. */
export const indexAllNames = async (manager: EntityManager) => indexNames(manager, await allVehicles(manager));

/**
 * Beyond so many found, going down the list until the page is full is shorter than putting all that is found in order.
 */
export const MANY = 1500;

/** How many are shown, counted by an index alone; a deleted vehicle hides its drives. */
const SHOWN = {
  vehicle: 'SELECT COUNT(*) AS total FROM vehicle FORCE INDEX (vehicle_recent) WHERE deletedAt IS NULL',
  drive: `SELECT (SELECT COUNT(*) FROM drive FORCE INDEX (drive_recent) WHERE deletedAt IS NULL) -
    (SELECT COUNT(*) FROM vehicle FORCE INDEX (vehicle_recent)
     STRAIGHT_JOIN drive FORCE INDEX (drive_vehicle) ON drive.vehicleId = vehicle.id AND drive.deletedAt IS NULL
     WHERE vehicle.deletedAt IS NOT NULL) AS total`,
} as const;

/**
 * One page of the vehicles or drives that are shown, latest first, those in which `search` is found; and how many there
 * are in all.
 */
export async function shownPage<R>(
  manager: EntityManager,
  table: 'vehicle' | 'drive',
  { search, limit, offset }: Page,
): Promise<{ rows: R[]; total: number }> {
  const [like, values] = search === '' ? ['', []] : ['found.text LIKE ?', [foldedAnywhere(search)]];
  const inOrder = `ORDER BY ${table}.updatedAt DESC, ${table}.id DESC LIMIT ? OFFSET ?`;
  if (search !== '') {
    const found = await manager.query<{ id: string }[]>(
      `SELECT ${table}Id AS id FROM ${table}_search AS found WHERE ${like} LIMIT ${MANY + 1}`,
      values,
    );
    if (found.length === 0) return { rows: [], total: 0 };
    if (found.length <= MANY)
      return {
        rows: await manager.query<R[]>(
          `SELECT ${table}.* FROM ${table} FORCE INDEX (PRIMARY) WHERE ${table}.id IN (?) AND ${table}.deletedAt IS NULL ${inOrder}`,
          [found.map(({ id }) => id), limit, offset],
        ),
        total: found.length,
      };
  }
  const [counted] = await manager.query<[{ total: string }]>(
    search === '' ? SHOWN[table] : `SELECT COUNT(*) AS total FROM ${table}_search AS found WHERE ${like}`,
    values,
  );
  // With nothing asked each index is gone down alone, and rows are looked at once it is known which are on the page.
  const rows = await manager.query<R[]>(
    search === '' && table === 'vehicle'
      ? `SELECT vehicle.* FROM (SELECT id FROM vehicle FORCE INDEX (vehicle_recent) WHERE deletedAt IS NULL
           ORDER BY updatedAt DESC, id DESC LIMIT ? OFFSET ?) AS page STRAIGHT_JOIN vehicle ON vehicle.id = page.id
         ORDER BY vehicle.updatedAt DESC, vehicle.id DESC`
      : `SELECT ${table}.* FROM ${table} FORCE INDEX (${table}_recent)
     STRAIGHT_JOIN ${table}_search AS found ON ${table}.id = found.${table}Id ${like && `AND ${like}`}
     WHERE ${table}.deletedAt IS NULL ${inOrder}`,
    [...values, limit, offset],
  );
  return { rows, total: Number(counted.total) };
}
