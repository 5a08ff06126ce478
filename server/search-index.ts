import type { EntityManager } from 'typeorm';

/** Vehicles indexed in one go. */
const BATCH = 500;

/** Text as searches compare it: small letters without accents. */
export function folded(text: string): string {
  return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}

/** A pattern that finds `text` anywhere in what was folded, its own % and _ taken literally. */
export function foldedAnywhere(text: string): Buffer {
  return Buffer.from(`%${folded(text).replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`);
}

interface Row {
  id: string;
  name: string;
  plate: string;
  notes: string;
}

/** Brings what searches find of these vehicles and their drives up to date. Part of the change that made it necessary. */
export async function indexVehicles(manager: EntityManager, ids: readonly string[]): Promise<void> {
  for (let from = 0; from < ids.length; from += BATCH) {
    const some = ids.slice(from, from + BATCH);
    const vehicles = await manager.query<Row[]>('SELECT id, name, plate, notes FROM vehicle WHERE id IN (?)', [some]);
    const drives = await manager.query<{ id: string; vehicleId: string; name: string; deletedAt: Date | null }[]>('SELECT id, vehicleId, name, deletedAt FROM drive WHERE vehicleId IN (?)', [some]);
    const byId = new Map(vehicles.map((vehicle) => [vehicle.id, { vehicle, names: [] as string[] }]));
    const driveRows = drives.map(({ id, vehicleId, name, deletedAt }) => {
      const { vehicle, names } = byId.get(vehicleId)!;
      if (!deletedAt) names.push(name);
      return [id, Buffer.from(folded([name, vehicle.name, vehicle.plate].join('\n'))).subarray(0, 2000)];
    });
    const vehicleRows = [...byId.values()].map(({ vehicle: { id, name, plate, notes }, names }) => [id, Buffer.from(folded([name, plate, ...names, notes].join('\n'))).subarray(0, 20_000)]);
    if (vehicleRows.length > 0) await manager.query('REPLACE INTO vehicle_search (vehicleId, text) VALUES ?', [vehicleRows]);
    if (driveRows.length > 0) await manager.query('REPLACE INTO drive_search (driveId, text) VALUES ?', [driveRows]);
  }
}

export async function indexAllVehicles(manager: EntityManager): Promise<void> {
  const rows = await manager.query<{ id: string }[]>('SELECT id FROM vehicle');
  await indexVehicles(manager, rows.map(({ id }) => id));
}
