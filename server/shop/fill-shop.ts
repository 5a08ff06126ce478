import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { connect } from '../data-source';
import { indexAllVehicles } from '../vehicles/search-index';
import type { Drive } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';

/** Fills a shop with so many drives, four a vehicle, past the server: by way of it that would take minutes. */
export async function fillShop(url: string, drives: number, drive: Drive): Promise<void> {
  const data: DataSource = await connect(url);
  const [document, sketch] = [JSON.stringify(drive), JSON.stringify(sketchOf(drive))];
  const vehicles = Array.from({ length: drives / 4 }, (_, k) => ({
    id: randomUUID(),
    name: `Vehicle ${k}`,
    plate: `B ${k}`,
    at: new Date(1.7e12 + k * 60_000),
  }));
  const BATCH = 500;
  for (let from = 0; from < vehicles.length; from += BATCH) {
    const some = vehicles.slice(from, from + BATCH);
    await data.query(
      'INSERT INTO vehicle (id, name, plate, odometer, odometerUnit, notes, revision, saveId, updatedAt, deletedAt) VALUES ?',
      [
        some.map(({ id, name, plate, at }) => [
          id,
          name,
          plate,
          1000,
          'km',
          'Serviced in the yard; the belt was changed with the water pump, and the tensioner looked at.',
          1,
          id,
          at,
          null,
        ]),
      ],
    );
    const rows = some.flatMap(({ id, at }, k) =>
      [0, 1, 2, 3].map((n) => ({ id: randomUUID(), vehicle: id, name: `Drive ${(from + k) * 4 + n}`, at })),
    );
    await data.query('INSERT INTO drive (id, vehicleId, name, revision, saveId, updatedAt, deletedAt) VALUES ?', [
      rows.map(({ id, vehicle, name, at }) => [id, vehicle, name, 1, id, at, null]),
    ]);
    await data.query('INSERT INTO drive_document (driveId, document, sketch) VALUES ?', [
      rows.map(({ id }) => [id, document, sketch]),
    ]);
  }
  await indexAllVehicles(data.manager);
  await data.destroy();
}
