import { Router } from 'express';
import { IsNull, Not, type DataSource, type EntityManager } from 'typeorm';
import type { InferType } from 'yup';
import { number, object, string } from '../http/fields';
import { vehicleBody } from './body';
import { checkedDrive } from '../check';
import { createDrive, type DriveSent, listDrives } from '../drives/drive-store';
import { DriveDocument, DriveEntity, type DriveRow } from '../drives/entity';
import { newVehicle, Vehicle, type VehicleRow } from './entity';
import { pageOf } from '../http/listing';
import { bodyOf, invalid, notFound, Problem } from '../http/problem';
import { jsonText, sendJson } from '../http/raw-json';
import { change } from '../storage/change';
import { holdVehicles } from '../storage/hold';
import { insertOnce } from '../storage/insert-once';
import { indexVehicles, shownPage } from './search-index';

const newBody = vehicleBody.concat(
  object({ id: string().matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/, 'must be a UUID in small letters') }),
);

const saveBody = vehicleBody.concat(
  object({
    revision: number().integer('must be a whole number').required('is missing: the revision you opened'),
    saveId: string().max(36, 'must be 36 characters at most').required('is missing'),
  }),
);

/** A vehicle as the shop shows it. */
interface VehicleListed extends Omit<VehicleRow, 'saveId' | 'deletedAt' | 'odometerAt'> {
  drives: DriveSent[];
}

/** Vehicles with their drives: list and search, make, open, save, duplicate, delete, bring back. */
export function vehicleRoutes(data: DataSource): Router {
  const router = Router();
  const vehicles = data.getRepository(Vehicle);

  router.get('/', async (request, response) => {
    const { rows, total } = await shownPage<VehicleRow>(data.manager, 'vehicle', pageOf(request));
    sendJson(response, { vehicles: await withDrives(data.manager, rows), total });
  });

  router.get('/deleted', async (_request, response) => {
    const where = { deletedAt: Not(IsNull()) };
    const rows = await vehicles.find({ where, order: { deletedAt: 'DESC' }, take: 40 });
    sendJson(response, { vehicles: await withDrives(data.manager, rows), total: await vehicles.countBy(where) });
  });

  router.post('/', async (request, response) => {
    sendJson(response.status(201), await makeVehicle(data, await bodyOf(newBody, request.body)));
  });

  router.get('/:id', async (request, response) => {
    sendJson(response, await openVehicle(data.manager, request.params.id));
  });

  router.put('/:id', async (request, response) => {
    sendJson(response, await saveVehicle(data, request.params.id, await bodyOf(saveBody, request.body)));
  });

  router.post('/:id/duplicate', async (request, response) => {
    sendJson(response.status(201), await duplicateVehicle(data, request.params.id));
  });

  router.delete('/:id', async (request, response) => {
    await change(data, (manager) => setDeleted(manager, request.params.id, new Date()));
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    const { id } = request.params;
    const restored = await change(data, async (manager) => {
      await setDeleted(manager, id, null);
      return openVehicle(manager, id);
    });
    sendJson(response, restored);
  });

  return router;
}

/** As it is now. What a change answers is read within it: another one may have deleted the vehicle right after. */
async function openVehicle(manager: EntityManager, id: string): Promise<VehicleListed> {
  const row = await manager.findOneBy(Vehicle, { id, deletedAt: IsNull() });
  if (!row) throw notFound('vehicle');
  return (await withDrives(manager, [row]))[0]!;
}

async function withDrives(manager: EntityManager, rows: VehicleRow[]): Promise<VehicleListed[]> {
  if (rows.length === 0) return [];
  const found = await manager.query<DriveRow[]>(
    'SELECT * FROM drive WHERE vehicleId IN (?) AND deletedAt IS NULL ORDER BY updatedAt DESC',
    [rows.map(({ id }) => id)],
  );
  const listed = await listDrives(manager, found);
  return rows.map(({ saveId: _saveId, deletedAt: _deletedAt, odometerAt: _odometerAt, ...row }) => ({
    ...row,
    drives: listed.filter(({ vehicleId }) => vehicleId === row.id),
  }));
}

/** The same one sent again, as after a lost answer, is there already. */
async function makeVehicle(data: DataSource, { id, ...body }: InferType<typeof newBody>): Promise<VehicleListed> {
  const row = { ...newVehicle(body), ...(id && { id }) };
  return change(data, async (manager) => {
    await insertOnce(manager, Vehicle, 'id', row);
    await holdVehicles(manager, [row.id]);
    await indexVehicles(manager, [row.id]);
    return openVehicle(manager, row.id);
  });
}

/** Refused with 409 where it was saved somewhere else since that revision. */
async function saveVehicle(
  data: DataSource,
  id: string,
  // Field by field: what else the request holds is none of the vehicle's.
  { revision, saveId, name, plate, odometer, odometerUnit, notes }: InferType<typeof saveBody>,
): Promise<VehicleListed> {
  const fields = { name, plate, odometer, odometerUnit, notes };
  return change(data, async (manager) => {
    const row = (await holdVehicles(manager, [id])).get(id);
    if (!row || row.deletedAt) throw notFound('vehicle');
    if (row.saveId === saveId) {
      if (Object.entries(fields).every(([field, value]) => row[field as keyof typeof fields] === value))
        return openVehicle(manager, id);
      throw invalid([
        { path: 'saveId', message: 'names a save that was taken with other fields; give each save a name of its own' },
      ]);
    }
    if (row.revision !== revision)
      throw new Problem(
        409,
        'Saved elsewhere',
        'This vehicle was saved somewhere else since you opened it. Nothing was overwritten.',
        [],
        { current: JSON.parse(jsonText(await openVehicle(manager, id))) as unknown },
      );
    const read = row.odometer !== odometer || row.odometerUnit !== odometerUnit;
    await manager.update(
      Vehicle,
      { id },
      {
        ...fields,
        ...(read && { odometerAt: odometer === null ? null : new Date() }),
        ...{ revision: revision + 1, saveId, updatedAt: new Date() },
      },
    );
    await indexVehicles(manager, [id]);
    return openVehicle(manager, id);
  });
}

/** The copy. */
async function duplicateVehicle(data: DataSource, id: string): Promise<VehicleListed> {
  return change(data, async (manager) => {
    const original = (await holdVehicles(manager, [id])).get(id);
    if (!original || original.deletedAt) throw notFound('vehicle');
    const copy = newVehicle({ ...original, name: `${original.name} copy`.slice(0, 120), plate: '' });
    await manager.insert(Vehicle, copy);
    const drives = await manager.findBy(DriveEntity, { vehicleId: original.id, deletedAt: IsNull() });
    for (const drive of drives) {
      const { document } = await manager.findOneByOrFail(DriveDocument, { driveId: drive.id });
      await createDrive(manager, copy.id, await checkedDrive(document));
    }
    await indexVehicles(manager, [copy.id]);
    return openVehicle(manager, copy.id);
  });
}

async function setDeleted(manager: EntityManager, id: string, deletedAt: Date | null): Promise<void> {
  const row = (await holdVehicles(manager, [id])).get(id);
  // Deleted already, or brought back.
  if (!row || (row.deletedAt === null) === (deletedAt === null)) throw notFound('vehicle');
  await manager.update(Vehicle, { id }, { deletedAt });
  await indexVehicles(manager, [id]);
}
