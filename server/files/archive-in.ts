import { createHash } from 'node:crypto';
import { stat } from 'node:fs/promises';
import type { DataSource, EntityManager } from 'typeorm';
import { piecesOf } from '../check';
import { createDrive } from '../drives/drive-store';
import { otherTurns } from '../http/in-turns';
import { invalid, Problem } from '../http/problem';
import { bringInJob } from '../jobs/archive';
import { PartEntity } from '../parts/entity';
import { Photo } from '../photos/entity';
import { keepPhoto } from '../photos/photo-store';
import { Shop } from '../shop/entity';
import { PulleyEntity, SpeedBandEntity } from '../speeds/entity';
import { MOST_PULLEYS } from '../speeds/body';
import { stockKey } from '../stock/take-belts';
import { alone } from '../storage/alone';
import { change } from '../storage/change';
import { holdDrive, holdVehicles } from '../storage/hold';
import { newVehicle, Vehicle } from '../vehicles/entity';
import { indexVehicles } from '../vehicles/search-index';
import { SHOP_FILE } from './names';
import type { ArchiveItem, BeltIn, ShopIn, VehicleIn } from './read-archive';
import type { DriveIn } from './read-files';
import { MOST_PARTS } from '@emery/core/align';

/** What came in, and what was there already. */
export interface BroughtIn {
  drives: { id: string; vehicleId: string }[];
  vehicles: number;
  pictures: number;
  belts: number;
  pulleys: number;
  jobs: number;
  /** Drives that the shop has just so. */
  there: number;
}

/** Bytes of a ZIP are read from its file; this many of them are worth a thread, whatever they are. */
const ALWAYS_BESIDE = Number.MAX_SAFE_INTEGER;

/** Brings in drive files that stand alone. All or none: half an import would leave the user guessing which half. */
export function bringInFiles(data: DataSource, bytes: Uint8Array): Promise<BroughtIn> {
  // One at a time, so that two who bring in the drives of one new vehicle make one vehicle.
  return alone(data, 'import', () =>
    change(data, async (manager) => {
      const shelf = new Shelf(manager);
      for await (const drive of piecesOf('files', bytes, bytes.length)) await shelf.put({ kind: 'drive', drive });
      return shelf.done();
    }),
  );
}

/**
 * Brings in a ZIP: an archive of a shop, or drive files put together. Read an entry at a time; all or none. `gone`
 * tells that nobody waits for it any more.
 */
export async function bringInArchive(data: DataSource, file: string, gone: () => boolean): Promise<BroughtIn> {
  if ((await stat(file)).size === 0) throw new Problem(422, 'Not an archive', 'The archive is empty.');
  return alone(data, 'import', () =>
    change(data, async (manager) => {
      const shelf = new Shelf(manager);
      for await (const item of piecesOf('archive', file, ALWAYS_BESIDE)) {
        if (gone()) throw new Problem(499, 'Cancelled', 'The import was cancelled; nothing was imported.');
        await shelf.put(item);
        await otherTurns();
      }
      return shelf.done();
    }),
  );
}

/**
 * Where things are put, each once, however often they are brought in. What has an id is known by it, whatever it is
 * called; what stands here goes before what comes.
 */
export class Shelf {
  private readonly brought: BroughtIn = {
    ...{ drives: [], vehicles: 0, pictures: 0, belts: 0, pulleys: 0, jobs: 0, there: 0 },
  };
  private readonly touched = new Set<string>();
  /** The row of this shop's list that each belt of the archive's is. */
  private readonly rows = new Map<number, number>();
  /** Rows that a belt of the archive's has become. */
  private readonly taken = new Set<number>();

  constructor(private readonly manager: EntityManager) {}

  async put(item: ArchiveItem): Promise<void> {
    switch (item.kind) {
      case 'shop':
        return this.shop(item.shop);
      case 'vehicles':
        return this.vehicles(item.vehicles);
      case 'belts':
        return this.belts(item.belts);
      case 'drive':
        return this.drive(item.drive);
      case 'job': {
        const vehicleId = await bringInJob(this.manager, item.job, this.rows);
        if (vehicleId === null) return;
        this.touched.add(vehicleId);
        this.brought.jobs += 1;
        return;
      }
      case 'picture': {
        const { hash, bytes } = item.picture;
        if (await this.manager.existsBy(Photo, { hash })) return;
        await keepPhoto(this.manager, { ...item.picture, bytes: Buffer.from(bytes) });
        this.brought.pictures += 1;
      }
    }
  }

  /** Brings what searches find up to date, once for all; of `more` vehicles as well. */
  async done(more: readonly string[] = []): Promise<BroughtIn> {
    await indexVehicles(this.manager, [...new Set([...this.touched, ...more])].sort());
    return this.brought;
  }

  /** The shop's own lists. */
  private async shop({ name, unit, hourRate, limits, bands, pulleys, parts }: ShopIn): Promise<void> {
    const { manager } = this;
    if ((await manager.count(Vehicle)) === 0) await manager.update(Shop, { id: 1 }, { name, unit, hourRate, limits });
    const known = new Set((await manager.find(SpeedBandEntity)).map(({ role }) => role));
    await manager.insert(
      SpeedBandEntity,
      bands.filter(({ role }) => !known.has(role)),
    );
    const fresh = <T extends { id: string }>(there: readonly T[], given: readonly T[], max: number, list: string) => {
      const ids = new Set(there.map(({ id }) => id));
      const rows = given.filter(({ id }) => !ids.has(id));
      if (there.length + rows.length > max)
        throw invalid([
          {
            path: `${SHOP_FILE} ${list}`,
            message: `would make more than the ${max} that a shop keeps; remove some`,
          },
        ]);
      return rows;
    };
    const newPulleys = fresh(await manager.find(PulleyEntity), pulleys, MOST_PULLEYS, 'pulleys');
    await manager.insert(PulleyEntity, newPulleys);
    await manager.insert(PartEntity, fresh(await manager.find(PartEntity), parts, MOST_PARTS, 'parts'));
    this.brought.pulleys = newPulleys.length;
  }

  private async vehicles(vehicles: readonly VehicleIn[]): Promise<void> {
    const there = await holdVehicles(
      this.manager,
      vehicles.map(({ id }) => id),
    );
    const made = vehicles
      .filter(({ id }) => !there.has(id))
      .map(({ fields, ...kept }) => ({ ...newVehicle(fields), ...kept }));
    if (made.length > 0) await this.manager.insert(Vehicle, made);
    for (const { id } of made) this.touched.add(id);
    this.brought.vehicles += made.length;
  }

  /**
   * The vehicle of a drive file: by its id where it has one, else a living one of the same name and plate; made where
   * there is none.
   */
  private async vehicleOf({ id, ...fields }: DriveIn['vehicle']): Promise<string> {
    const { manager } = this;
    if (id !== undefined) {
      if ((await holdVehicles(manager, [id])).has(id)) return id;
    } else {
      const alike = await manager.query<{ id: string }[]>(
        'SELECT id FROM vehicle WHERE name = ? AND plate = ? AND deletedAt IS NULL ORDER BY id LIMIT 1',
        [fields.name, fields.plate ?? ''],
      );
      const held = await holdVehicles(
        manager,
        alike.map((row) => row.id),
      );
      // Deleted, or called something else, while it was waited for: not the one that is meant.
      for (const row of held.values())
        if (!row.deletedAt && row.name === fields.name && row.plate === (fields.plate ?? '')) return row.id;
    }
    const made = { ...newVehicle(fields), ...(id !== undefined && { id }) };
    await manager.insert(Vehicle, made);
    this.brought.vehicles += 1;
    this.touched.add(made.id);
    return made.id;
  }

  private async drive({ checked, vehicle, record }: DriveIn): Promise<void> {
    const { manager, brought } = this;
    const stored = record && (await this.stored(record.id));
    if (!record || stored === null) {
      const vehicleId = await this.vehicleOf(vehicle);
      const id = await createDrive(manager, vehicleId, checked, record ?? {});
      this.came(id, vehicleId);
    } else if (stored!.document === checked.document) brought.there += 1;
    else {
      // It was worked on since, here or there: both are kept, and the same archive brought in again finds this one by
      // its content.
      const id = idOf(record.id + checked.document);
      if ((await this.stored(id)) !== null) brought.there += 1;
      else {
        const name = `${checked.name} (from the archive)`.slice(0, 200);
        const document = JSON.stringify({ ...(JSON.parse(checked.document) as object), name });
        await createDrive(
          manager,
          stored!.vehicleId,
          { ...checked, name, document },
          { id, deletedAt: record.deletedAt },
        );
        this.came(id, stored!.vehicleId);
      }
    }
  }

  /** A drive as it is here, held until all is brought in. */
  private async stored(id: string): Promise<{ vehicleId: string; document: string } | null> {
    const held = await holdDrive(this.manager, id);
    if (!held) return null;
    const [row] = await this.manager.query<{ document: string }[]>(
      'SELECT document FROM drive_document WHERE driveId = ?',
      [id],
    );
    return { vehicleId: held.drive.vehicleId, document: row!.document };
  }

  private came(id: string, vehicleId: string): void {
    this.brought.drives.push({ id, vehicleId });
    this.touched.add(vehicleId);
  }

  /**
   * The list of belts. A belt is the row of its number where that is the same belt, else the first row that is and that
   * no other has become; made where there is none, with its own number where that is free.
   */
  private async belts(belts: readonly BeltIn[]): Promise<void> {
    const { manager, rows, taken } = this;
    const ids = belts.flatMap(({ id }) => id ?? []);
    const there = await manager.query<(BeltIn & { id: number })[]>(
      `SELECT id, section, ribs, lengthMm, code FROM stock_belt WHERE id IN (?) OR lengthMm IN (?) ORDER BY id`,
      [ids.length === 0 ? [0] : ids, belts.map(({ lengthMm }) => lengthMm)],
    );
    const byId = new Map(there.map((row) => [row.id, stockKey(row)]));
    const alike = new Map<string, number[]>();
    for (const row of there)
      if (!taken.has(row.id)) alike.set(stockKey(row), [...(alike.get(stockKey(row)) ?? []), row.id]);
    const become = (belt: BeltIn, row: number) => {
      if (belt.id !== null) rows.set(belt.id, row);
      taken.add(row);
      const rest = alike.get(stockKey(belt));
      if (rest)
        alike.set(
          stockKey(belt),
          rest.filter((id) => id !== row),
        );
    };
    const left = belts.filter((belt) => {
      const same = belt.id !== null && byId.get(belt.id) === stockKey(belt) && !taken.has(belt.id);
      if (same) become(belt, belt.id!);
      return !same;
    });
    for (const belt of left) {
      const [other] = alike.get(stockKey(belt)) ?? [];
      if (other !== undefined) {
        become(belt, other);
        continue;
      }
      const { section, ribs, lengthMm, code, price, shelf } = belt;
      const id = belt.id !== null && !byId.has(belt.id) ? belt.id : null;
      const { insertId } = await manager.query<{ insertId: number }>(
        'INSERT INTO stock_belt (id, section, ribs, lengthMm, code, price, shelf) VALUES (?)',
        [[id, section, ribs, lengthMm, code, price, shelf]],
      );
      const row = id ?? insertId;
      byId.set(row, stockKey(belt));
      become(belt, row);
      this.brought.belts += 1;
    }
  }
}

/** An id that the same content always gets. */
function idOf(content: string): string {
  const hash = createHash('sha256').update(content).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-5${hash.slice(13, 16)}-a${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}
