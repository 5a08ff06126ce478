import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import type { DataSource, EntityManager } from 'typeorm';
import { alone } from '../storage/alone';
import { drawn } from '../check';
import { createDrive } from '../drives/drive-store';
import papaparse from 'papaparse';
import { Shop } from './entity';
import { PartEntity } from '../parts/entity';
import { partsOf } from '../parts/routes';
import { PulleyEntity, type PulleyRow } from '../speeds/entity';
import { StockEntity } from '../stock/entity';
import { Vehicle } from '../vehicles/entity';
import { keepPhoto } from '../photos/photo-store';
import { photoAsIs } from '../photos/read-photo';
import { indexAllVehicles } from '../vehicles/search-index';
import { newVehicle } from '../vehicles/entity';
import type { VehicleBody } from '../vehicles/body';
import { fieldsBeside, parseDrive, withoutBeside } from '@emery/core/drive';
import { readStockRow } from '@emery/core/size';

const FOLDER = fileURLToPath(new URL('../../demo/', import.meta.url));

/** Writes the shop's first row: the demo shop with its vehicles, or an empty shop. Does nothing where there is one. */
export async function firstRun(data: DataSource, demo: boolean): Promise<void> {
  // All or nothing, and one Emery at a time: a first run that is cut off begins anew.
  await alone(data, 'first run', () =>
    data.transaction(async (manager) => {
      if (await manager.existsBy(Shop, { id: 1 })) return;
      await manager.insert(Shop, {
        id: 1,
        name: demo ? 'Tarnside Field Workshop' : 'My workshop',
        unit: demo ? 'in' : 'mm',
      });
      if (demo) await loadDemoShop(manager);
    }),
  );
}

/**
 * Adds the demo vehicles, from the drive files in `demo/`, latest first in the order of their names, and the pictures
 * beside them.
 */
export async function loadDemoShop(manager: EntityManager): Promise<void> {
  const files = readdirSync(FOLDER)
    .filter((name) => name.endsWith('.emery.json'))
    .sort()
    .reverse();
  const pictures = readdirSync(FOLDER).filter((name) => name.endsWith('.jpg'));
  for (const name of pictures) await keepPhoto(manager, await photoAsIs(readFileSync(path.join(FOLDER, name))));
  await manager.insert(StockEntity, demoStock());
  await manager.insert(PulleyEntity, demoPulleys());
  await manager.insert(PartEntity, partsOf(demoRows('parts.csv')));
  for (const [index, name] of files.entries()) {
    const reading = parseDrive(readFileSync(path.join(FOLDER, name), 'utf8'));
    if (!reading.ok) throw new Error(`${name}: ${reading.problems[0]!.path} ${reading.problems[0]!.message}`);
    const drive = withoutBeside(reading.drive);
    const row = newVehicle(fieldsBeside(reading.drive)['vehicle'] as VehicleBody);
    const same = await manager.findOneBy(Vehicle, { name: row.name, plate: row.plate });
    if (!same) await manager.insert(Vehicle, { ...row, updatedAt: new Date(Date.now() + index) });
    await createDrive(manager, (same ?? row).id, drawn(drive));
  }
  await indexAllVehicles(manager);
}

/** The rows of one of the demo shop's lists. */
function demoRows(name: string): Record<string, string>[] {
  const text = readFileSync(path.join(FOLDER, name), 'utf8');
  return papaparse.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;
}

/** The belts on the demo shop's shelf, from `demo/belts.csv`. */
function demoStock() {
  return demoRows('belts.csv').map((row, index) => {
    const read = readStockRow(row);
    if (!read.ok) throw new Error(`belts.csv, row ${index + 1}: ${read.problem}`);
    return read.belt;
  });
}

/** The pulleys on the demo shop's shelf, from `demo/pulleys.csv`. */
function demoPulleys(): PulleyRow[] {
  const figure = (text: string | undefined) => (text ? Number(text) : null);
  return demoRows('pulleys.csv').map(({ label = '', role, surface, diameter, teeth, grooves, set, count }, index) => ({
    id: randomUUID(),
    label,
    role: (role || null) as PulleyRow['role'],
    surface: surface as PulleyRow['surface'],
    diameter: figure(diameter),
    teeth: figure(teeth),
    grooves: figure(grooves),
    setName: set || null,
    pieces: figure(count) ?? 1,
    createdAt: new Date(Date.now() + index),
  }));
}
