import { Router } from 'express';
import { In, IsNull, Not, type DataSource } from 'typeorm';
import { number, object, string, type InferType } from 'yup';
import { checkedDrive } from '../drives/check';
import { createDrive, listDrives } from '../drives/drive-store';
import { DriveDocument, DriveEntity } from '../drives/entity';
import { newVehicle, Vehicle, type VehicleRow } from './entity';
import { pageOf } from '../http/listing';
import { bodyOf, invalid, notFound, Problem } from '../http/problem';
import { indexVehicles, shownPage } from './search-index';
import type { DriveListed } from '@emery/core/api';

export const vehicleBody = object({
  name: string()
    .trim('must not begin or end with a space')
    .min(1, 'needs a name')
    .max(120, 'must be 120 characters at most')
    .required('needs a name'),
  plate: string().max(40, 'must be 40 characters at most').default(''),
  odometer: number()
    .integer('must be a whole number')
    .min(0, 'must be 0 or more')
    .max(99_999_999, 'is too large')
    .nullable()
    .default(null),
  odometerUnit: string()
    .oneOf(['km', 'mi', 'h'] as const, 'must be km, mi or h')
    .default('km'),
  notes: string().max(4000, 'must be 4,000 characters at most').default(''),
}).required();
export type VehicleBody = InferType<typeof vehicleBody>;

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
  drives: DriveListed<Date>[];
}

/** Vehicles with their drives: list and search, make, open, save, duplicate, delete, bring back. */
export function vehicleRoutes(data: DataSource): Router {
  const router = Router();
  const vehicles = data.getRepository(Vehicle);

  async function withDrives(rows: VehicleRow[]): Promise<VehicleListed[]> {
    if (rows.length === 0) return [];
    const found = await data.getRepository(DriveEntity).find({
      where: { vehicleId: In(rows.map(({ id }) => id)), deletedAt: IsNull() },
      order: { updatedAt: 'DESC' },
    });
    const listed = await listDrives(data.manager, found);
    return rows.map(({ saveId: _saveId, deletedAt: _deletedAt, odometerAt: _odometerAt, ...row }) => ({
      ...row,
      drives: listed.filter(({ vehicleId }) => vehicleId === row.id),
    }));
  }

  async function present(id: string): Promise<VehicleRow> {
    const row = await vehicles.findOneBy({ id, deletedAt: IsNull() });
    if (!row) throw notFound('vehicle');
    return row;
  }

  const setDeleted = (id: string, deletedAt: Date | null) =>
    data.transaction(async (manager) => {
      const { affected } = await manager.update(
        Vehicle,
        { id, deletedAt: deletedAt ? IsNull() : Not(IsNull()) },
        { deletedAt },
      );
      if (affected !== 1) throw notFound('vehicle');
      await indexVehicles(manager, [id]);
    });

  const opened = async (id: string) => (await withDrives([await present(id)]))[0];

  router.get('/', async (request, response) => {
    const { rows, total } = await shownPage<VehicleRow>(data.manager, 'vehicle', pageOf(request));
    response.json({ vehicles: await withDrives(rows), total });
  });

  router.get('/deleted', async (_request, response) => {
    const rows = await vehicles.find({ where: { deletedAt: Not(IsNull()) }, order: { deletedAt: 'DESC' }, take: 40 });
    response.json({ vehicles: await withDrives(rows) });
  });

  router.post('/', async (request, response) => {
    const { id, ...body } = await bodyOf(newBody, request.body);
    const row = { ...newVehicle(body), ...(id && { id }) };
    // The same one sent again, as after a lost answer, is there already.
    await data.transaction(async (manager) => {
      await manager.createQueryBuilder().insert().into(Vehicle).orIgnore().values(row).execute();
      await indexVehicles(manager, [row.id]);
    });
    response.status(201).json(await opened(row.id));
  });

  router.get('/:id', async (request, response) => {
    response.json(await opened(request.params.id));
  });

  router.put('/:id', async (request, response) => {
    const { id } = request.params;
    // Field by field: what else the request holds is none of the vehicle's.
    const { revision, saveId, name, plate, odometer, odometerUnit, notes } = await bodyOf(saveBody, request.body);
    const affected = await data.transaction(async (manager) => {
      const old = await manager.findOneBy(Vehicle, { id });
      const read = old?.odometer !== odometer || old.odometerUnit !== odometerUnit;
      const done = await manager.update(
        Vehicle,
        { id, revision, deletedAt: IsNull() },
        {
          ...{ name, plate, odometer, odometerUnit, notes },
          ...(read && { odometerAt: odometer === null ? null : new Date() }),
          ...{ revision: revision + 1, saveId, updatedAt: new Date() },
        },
      );
      if (done.affected === 1) await indexVehicles(manager, [id]);
      return done.affected;
    });
    const row = await present(id);
    const same =
      row.saveId === saveId &&
      row.name === name &&
      row.plate === plate &&
      row.odometer === odometer &&
      row.odometerUnit === odometerUnit &&
      row.notes === notes;
    if (affected !== 1 && row.saveId === saveId && !same)
      throw invalid([
        { path: 'saveId', message: 'names a save that was taken with other fields; give each save a name of its own' },
      ]);
    if (affected !== 1 && !same) {
      throw new Problem(
        409,
        'Saved elsewhere',
        'This vehicle was saved somewhere else since you opened it. Nothing was overwritten.',
        [],
        { current: await opened(id) },
      );
    }
    response.json(await opened(id));
  });

  router.post('/:id/duplicate', async (request, response) => {
    const original = await present(request.params.id);
    const copy = newVehicle({ ...original, name: `${original.name} copy`.slice(0, 120), plate: '' });
    await data.transaction(async (manager) => {
      await manager.insert(Vehicle, copy);
      const drives = await manager.findBy(DriveEntity, { vehicleId: original.id, deletedAt: IsNull() });
      for (const { id } of drives) {
        const { document } = await manager.findOneByOrFail(DriveDocument, { driveId: id });
        await createDrive(manager, copy.id, await checkedDrive(document));
      }
      await indexVehicles(manager, [copy.id]);
    });
    response.status(201).json(await opened(copy.id));
  });

  router.delete('/:id', async (request, response) => {
    await setDeleted(request.params.id, new Date());
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    await setDeleted(request.params.id, null);
    response.json(await opened(request.params.id));
  });

  return router;
}
