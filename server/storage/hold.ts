import type { EntityManager } from 'typeorm';
import type { DriveRow } from '../drives/entity';
import type { VehicleRow } from '../vehicles/entity';
import { Moved } from './change';

/*
 * What a change holds until it is done, so that no other changes it meanwhile. One order everywhere, so that no two
 * wait for one another: vehicles by id, then drives, then jobs, then rows of the list of belts by id. Held first, read
 * after: a vehicle is held by whatever changes its drives or what is remembered of it.
 */

/** Vehicles, deleted or not, by id; those that are not there are left out. */
export async function holdVehicles(
  manager: EntityManager,
  ids: readonly string[],
): Promise<ReadonlyMap<string, VehicleRow>> {
  if (ids.length === 0) return new Map();
  const rows = await manager.query<VehicleRow[]>('SELECT * FROM vehicle WHERE id IN (?) ORDER BY id FOR UPDATE', [ids]);
  return new Map(rows.map((row) => [row.id, row]));
}

export interface HeldDrive {
  drive: DriveRow;
  vehicle: VehicleRow;
  /** The other vehicles that were asked for. */
  others: ReadonlyMap<string, VehicleRow>;
}

/** A drive, deleted or not, with its vehicle and with `others` besides; null where there is none. */
export async function holdDrive(
  manager: EntityManager,
  id: string,
  others: readonly string[] = [],
): Promise<HeldDrive | null> {
  const [before] = await manager.query<{ vehicleId: string }[]>('SELECT vehicleId FROM drive WHERE id = ?', [id]);
  if (!before) return null;
  const vehicles = await holdVehicles(manager, [before.vehicleId, ...others]);
  const [drive] = await manager.query<DriveRow[]>('SELECT * FROM drive WHERE id = ? FOR UPDATE', [id]);
  const vehicle = vehicles.get(before.vehicleId);
  // It went to another vehicle while its own was waited for.
  if (drive?.vehicleId !== before.vehicleId || !vehicle) throw new Moved();
  return { drive, vehicle, others: vehicles };
}
