import { createHash } from 'node:crypto';
import { PassThrough, Readable, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import type { DataSource, EntityManager, QueryRunner } from 'typeorm';
import { otherTurns } from '../http/in-turns';
import { jobFileAfter } from '../jobs/archive';
import { readLimits, withShopLimits } from '../drives/shop-limits';
import { PartEntity } from '../parts/entity';
import { Shop } from '../shop/entity';
import { PulleyEntity, SpeedBandEntity } from '../speeds/entity';
import { AT_ONE_MOMENT } from '../storage/snapshot';
import { stockCsv } from '../stock/stock-csv';
import { Vehicle, type VehicleRow } from '../vehicles/entity';
import { BELTS_FILE, PICTURE_FILE, SHOP_FILE, SUMS_FILE, VEHICLES_FILE } from './names';
import { type Drive, DRIVE_FILE_EXTENSION, writeDrive } from '@emery/core/drive';

/** Rows read from the database at a time. */
const PAGE = 25;

/** A vehicle as files carry it. */
export const vehicleOut = ({
  id,
  name,
  plate,
  odometer,
  odometerUnit,
  odometerAt,
  notes,
  revision,
  updatedAt,
  deletedAt,
}: VehicleRow) => ({
  id,
  name,
  plate,
  odometer,
  odometerUnit,
  ...(odometerAt && { odometerAt }),
  notes,
  revision,
  updatedAt,
  ...(deletedAt && { deletedAt }),
});

/** The same shop is the same file, whenever and wherever it is written: entries bear no time of their own. */
const SAME_TIME = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };

/**
 * Writes the archive of all that the shop holds, as it is at one moment, or of some of its drives. It is written as
 * fast as `out` takes it, and never as a whole in memory.
 */
export async function writeArchive(data: DataSource, out: Writable, drives: readonly string[] | null): Promise<void> {
  const runner = data.createQueryRunner();
  // One look at the whole shop, whatever is saved meanwhile.
  await runner.startTransaction(AT_ONE_MOMENT);
  const zip = new yazl.ZipFile();
  const packed = zip.outputStream as PassThrough;
  const written = pipeline(packed, out);
  // Awaited below; until then a reader that goes away must not be a fault of its own.
  written.catch(() => undefined);
  try {
    const sums: string[] = [];
    const add: Add = async (name, bytes, compress = true) => {
      const pieces = [bytes].flat().flatMap(cut);
      // A picture is named by its own.
      sums.push(`${PICTURE_FILE.exec(name)?.[1] ?? (await checksumOf(pieces))}  ${name}\n`);
      const [only, ...more] = pieces;
      if (only && more.length === 0) zip.addBuffer(only, name, { compress, ...SAME_TIME });
      else {
        // Its other checksum is worked out as it is packed, so it is packed piece by piece. Where the sizes come after
        // the content, a program that reads from front to back sees its end only if it is deflated: pictures too.
        // It comes by a pipe that holds nothing once it is empty: the ZIP keeps to its end what each entry came by.
        const pipe = new PassThrough();
        zip.addReadStream(pipe, name, { compressionLevel: compress ? 6 : 1, ...SAME_TIME });
        await Promise.race([pipeline(Readable.from(pieces), pipe), written]);
      }
      // Taken in only as fast as it goes out.
      while (out.writableNeedDrain || packed.readableLength > 1 << 20)
        await Promise.race([new Promise((resolve) => setTimeout(resolve, 5)), written]);
      if (out.destroyed) throw new Error('the reader of the archive has gone');
      await otherTurns();
    };
    if (drives === null) await addShop(runner.manager, add);
    await addDrives(runner, drives, add);
    if (drives === null) await addJobs(runner, add);
    if (drives === null) await addPictures(runner, add);
    if (drives === null) await add(SUMS_FILE, Buffer.from(sums.join('')));
    zip.end();
    await written;
  } finally {
    zip.end();
    await runner.rollbackTransaction();
    await runner.release();
  }
}

type Add = (name: string, bytes: Buffer | readonly Buffer[], compress?: boolean) => Promise<void>;

/** So much is summed up in one turn of the loop, bytes. */
const PIECE = 64 * 1024;
const cut = (bytes: Buffer): Buffer[] =>
  Array.from({ length: Math.max(1, Math.ceil(bytes.length / PIECE)) }, (_, k) =>
    bytes.subarray(k * PIECE, (k + 1) * PIECE),
  );

async function checksumOf(pieces: readonly Buffer[]): Promise<string> {
  const hash = createHash('sha256');
  for (const [k, piece] of pieces.entries()) {
    if (k > 0) await otherTurns();
    hash.update(piece);
  }
  return hash.digest('hex');
}

async function addShop(manager: EntityManager, add: Add): Promise<void> {
  const [{ name, unit, hourRate, limits }, bands, pulleys, parts] = [
    await manager.findOneByOrFail(Shop, { id: 1 }),
    await manager.find(SpeedBandEntity, { order: { role: 'ASC' } }),
    await manager.find(PulleyEntity, { order: { createdAt: 'ASC', id: 'ASC' } }),
    await manager.find(PartEntity, { order: { createdAt: 'ASC', id: 'ASC' } }),
  ];
  const lists = { sums: SUMS_FILE, name, unit, hourRate, ...(limits && { limits }), bands, pulleys, parts };
  await add(SHOP_FILE, Buffer.from(`${JSON.stringify({ format: 'emery-shop', version: 1, ...lists }, null, 2)}\n`));
  const belts: Buffer[] = [];
  for await (const piece of stockCsv(manager, true)) belts.push(Buffer.from(piece));
  await add(BELTS_FILE, belts);
  const pages: Buffer[] = [];
  for (let last = ''; ;) {
    const rows = await manager
      .createQueryBuilder(Vehicle, 'vehicle')
      .where('vehicle.id > :last', { last })
      .orderBy('vehicle.id')
      .limit(PAGE * 4)
      .getMany();
    if (rows.length === 0) break;
    pages.push(Buffer.from(rows.map((row) => `${JSON.stringify(vehicleOut(row))}\n`).join('')));
    last = rows.at(-1)!.id;
  }
  await add(VEHICLES_FILE, pages.length > 0 ? pages : Buffer.alloc(0));
}

interface StoredDrive {
  id: string;
  vehicleId: string;
  name: string;
  revision: number;
  updatedAt: Date;
  deletedAt: Date | null;
  document: string;
  /** What the shop holds for every drive, as JSON. */
  limits: string | null;
  vehicleName: string;
  plate: string;
  odometer: number | null;
  odometerUnit: VehicleRow['odometerUnit'];
  notes: string;
}

const SELECT_DRIVES = `SELECT drive.id, drive.vehicleId, drive.name, drive.revision, drive.updatedAt, drive.deletedAt, drive_document.document,
    (SELECT limits FROM shop WHERE id = 1) AS limits, vehicle.name AS vehicleName, vehicle.plate, vehicle.odometer, vehicle.odometerUnit, vehicle.notes
  FROM drive FORCE INDEX (PRIMARY) STRAIGHT_JOIN vehicle ON vehicle.id = drive.vehicleId
  STRAIGHT_JOIN drive_document ON drive_document.driveId = drive.id`;

async function addDrives(runner: QueryRunner, wanted: readonly string[] | null, add: Add): Promise<void> {
  const names = new Map<string, number>();
  const put = async (drive: StoredDrive) => {
    const { name, text } = driveFile(drive, wanted === null);
    const times = (names.get(name) ?? 0) + 1;
    names.set(name, times);
    const free = times === 1 ? name : name.replace(DRIVE_FILE_EXTENSION, `-${times}${DRIVE_FILE_EXTENSION}`);
    await add(wanted === null ? `drives/${free}` : free, Buffer.from(text));
  };
  if (wanted !== null) {
    for (const id of wanted) {
      const [drive] = (await runner.query(
        `${SELECT_DRIVES} WHERE drive.id = ? AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`,
        [id],
      )) as StoredDrive[];
      // Deleted between the list on the screen and this: the others are still wanted.
      if (drive) await put(drive);
    }
    return;
  }
  for (let last = ''; ;) {
    const page = (await runner.query(`${SELECT_DRIVES} WHERE drive.id > ? ORDER BY drive.id LIMIT ${PAGE}`, [
      last,
    ])) as StoredDrive[];
    if (page.length === 0) return;
    for (const drive of page) await put(drive);
    last = page.at(-1)!.id;
  }
}

async function addJobs(runner: QueryRunner, add: Add): Promise<void> {
  for (let last = ''; ;) {
    const job = await jobFileAfter((sql, values) => runner.query(sql, values), last);
    if (!job) return;
    await add(job.name, Buffer.from(job.text));
    last = job.id;
  }
}

async function addPictures(runner: QueryRunner, add: Add): Promise<void> {
  for (let last = ''; ;) {
    const [photo] = (await runner.query('SELECT hash, bytes FROM photo WHERE hash > ? ORDER BY hash LIMIT 1', [
      last,
    ])) as { hash: string; bytes: Buffer }[];
    if (!photo) return;
    await add(`pictures/${photo.hash}.jpg`, photo.bytes, false);
    last = photo.hash;
  }
}

/** The file of one drive: with what says whose it is, and in an archive of the shop which record. */
export function driveFile(drive: StoredDrive, forArchive: boolean): { name: string; text: string } {
  const {
    id,
    vehicleId,
    name,
    revision,
    updatedAt,
    deletedAt,
    document,
    limits,
    vehicleName,
    plate,
    odometer,
    odometerUnit,
    notes,
  } = drive;
  const vehicle = { ...(forArchive && { id: vehicleId }), name: vehicleName, plate, odometer, odometerUnit, notes };
  const stored = JSON.parse(document) as Drive;
  // The archive of a shop has them apart, and knows a drive again by what is stored.
  const shown = forArchive ? stored : withShopLimits(stored, readLimits(limits));
  const record = forArchive ? { record: { id, revision, updatedAt, ...(deletedAt && { deletedAt }) } } : {};
  return {
    name: `${fileName(`${vehicleName} ${name}`)}${DRIVE_FILE_EXTENSION}`,
    text: writeDrive(shown, { vehicle, ...record }),
  };
}

export async function oneDriveFile(manager: EntityManager, id: string): Promise<{ name: string; text: string } | null> {
  const [drive] = await manager.query<StoredDrive[]>(
    `${SELECT_DRIVES} WHERE drive.id = ? AND drive.deletedAt IS NULL AND vehicle.deletedAt IS NULL`,
    [id],
  );
  return drive ? driveFile(drive, false) : null;
}

/** Letters, digits and dashes: safe in a header and on any disk. */
function fileName(text: string): string {
  const plain = text
    .normalize('NFKD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return plain.slice(0, 80).toLowerCase() || 'drive';
}
