import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { connect } from '../data-source';
import { indexAllVehicles } from '../vehicles/search-index';
import { changeBelt, type Drive } from '@emery/core/drive';
import { partChanged } from '@emery/core/inspect';
import { sketchOf } from '@emery/core/path';
import { memoryOf } from '@emery/core/records';
import { DAY_MS } from '@emery/core/quantity';

/** A drive whose first belt has come off so many times: what a shop remembers of it. */
function withHistory(drive: Drive, times: number, fitted: number): Drive {
  const { id } = drive.belts[0]!;
  const day = (k: number) => new Date(Date.UTC(2018, 0, 1) + k * 200 * DAY_MS).toISOString();
  return Array.from({ length: times }, (_, k) => k).reduce(
    (now, k) =>
      partChanged(
        now,
        { on: 'belt', target: id },
        { at: day(k + 1), odometer: fitted + k * 21_000 },
        k % 3 === 0 ? 'in-passing' : 'worn',
      ),
    changeBelt(drive, id, { care: { fittedAt: day(0), fittedOdometer: fitted - 19_000, number: 'TF 10' } }),
  );
}

/**
 * Fills a shop with so many drives, four a vehicle, past the server: by way of it that would take minutes. `changes`
 * times a belt of each was changed.
 */
export async function fillShop(url: string, drives: number, drive: Drive, changes = 0): Promise<void> {
  const data: DataSource = await connect(url);
  const [document, sketch] = [JSON.stringify(drive), JSON.stringify(sketchOf(drive))];
  // As many different histories as there are different distances worth telling apart.
  const memories = Array.from({ length: 200 }, (_, k) =>
    JSON.stringify(memoryOf(changes === 0 ? drive : withHistory(drive, changes, 20_000 + 137 * k))),
  );
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
        some.map(({ id, name, plate, at }, k) => [
          id,
          name,
          plate,
          changes === 0 ? 1000 : 60_000 + ((from + k) % 997) * 90,
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
    await data.query('INSERT INTO drive_memory (driveId, memory) VALUES ?', [
      rows.map(({ id }, k) => [id, memories[(from + k) % memories.length]]),
    ]);
  }
  await indexAllVehicles(data.manager);
  await data.destroy();
}
