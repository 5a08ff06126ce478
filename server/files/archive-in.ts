import { createHash } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';
import papaparse from 'papaparse';
import type { DataSource, EntityManager } from 'typeorm';
import { array, date, mixed, number, object, string, type ValidationError } from 'yup';
import { BELTS_FILE, SHOP_FILE, VEHICLES_FILE } from './archive-out';
import { driveCheck, type CheckedDrive } from '../drives/check';
import { alone } from '../storage/alone';
import { createDrive } from '../drives/drive-store';
import { DriveDocument, DriveEntity } from '../drives/entity';
import { bringInJob, JOB_FILE } from '../jobs/archive';
import { Photo } from '../photos/entity';
import { PartEntity, type PartRow } from '../parts/entity';
import { Shop } from '../shop/entity';
import { PulleyEntity, SpeedBandEntity, type PulleyRow, type SpeedBandRow } from '../speeds/entity';
import { StockEntity } from '../stock/entity';
import { Vehicle } from '../vehicles/entity';
import { MOST_DRIVE_BYTES } from '../http/json-body';
import { keepPhoto, photoAsIs } from '../photos/photo-store';
import { otherTurns } from '../http/in-turns';
import { invalid, Problem } from '../http/problem';
import { newVehicle } from '../vehicles/entity';
import { vehicleBody, type VehicleBody } from '../vehicles/routes';
import { indexVehicles } from '../vehicles/search-index';
import { DRIVE_FILE_EXTENSION, type DriveProblem, parseDriveJson } from '@emery/core/drive';
import { readStockRow } from '@emery/core/size';

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

/** One file to be brought in. */
export interface FileIn {
  name: string;
  text: string;
}

/** An entry of an archive may hold so much, bytes: a picture as it is kept, or the lines of very many vehicles. */
const MOST_ENTRY = 256 * 1024 * 1024;

const recordBody = object({
  id: string().uuid().required(),
  revision: number().integer().min(1).max(1e9).required(),
  updatedAt: date().required(),
  deletedAt: date().nullable(),
});
const vehicleLine = vehicleBody.concat(recordBody);
const shopBody = object({
  format: mixed().oneOf(['emery-shop'], 'must be "emery-shop"').required('is missing'),
  version: mixed().oneOf([1], 'must be 1: this archive comes from a newer Emery').required('is missing'),
  name: string().required().max(120),
  unit: string().oneOf(['in', 'mm']).required(),
  // One from before the shop said it has none.
  hourRate: number().min(0).max(1e6).nullable(),
  bands: array()
    .of(
      object({
        role: string().required().max(40),
        least: number().nullable().defined(),
        continuous: number().nullable().defined(),
        burst: number().nullable().defined(),
      }).required(),
    )
    .max(100)
    .required(),
  pulleys: array()
    .of(
      object({
        id: string().uuid().required(),
        label: string().required().max(120),
        role: string().nullable().defined().max(40),
        surface: string().required().max(20),
        diameter: number().nullable().defined(),
        teeth: number().nullable().defined(),
        grooves: number().nullable().defined(),
        setName: string().nullable().defined().max(80),
        pieces: number().integer().min(1).required(),
        createdAt: date().required(),
      }).required(),
    )
    .max(500)
    .required(),
  // Archives from before there were any have none.
  parts: array()
    .of(
      object({
        id: string().uuid().required(),
        label: string().required().max(80),
        kind: string().required().max(20),
        mm: number().required(),
        plusMinus: number().nullable().defined(),
        price: number().nullable().defined(),
        pieces: number().integer().min(1).required(),
        createdAt: date().required(),
      }).required(),
    )
    .max(500)
    .default([]),
}).required();

/** Brings in drive files that stand alone. All or none: half an import would leave the user guessing which half. */
export async function bringInFiles(data: DataSource, files: readonly FileIn[]): Promise<BroughtIn> {
  const shelf = new Shelf();
  const read: ReadFile[] = [];
  for (const [index, file] of files.entries()) {
    read.push(await readFile(file, `files[${index}]`));
    await otherTurns();
  }
  // One at a time, so that two who bring in the drives of one new vehicle make one vehicle.
  return alone(data, 'import', () =>
    data.transaction(async (manager) => {
      for (const one of read) await shelf.put(manager, one);
      return shelf.done(manager);
    }),
  );
}

/**
 * Brings in a ZIP: an archive of a shop, or drive files put together. Read an entry at a time; all or none. `gone`
 * tells that nobody waits for it any more.
 */
export async function bringInArchive(data: DataSource, file: string, gone: () => boolean): Promise<BroughtIn> {
  const { entries, close } = await openZip(file);
  const shelf = new Shelf();
  try {
    return await alone(data, 'import', () =>
      data.transaction(async (manager) => {
        const one = (name: string) => entries.find((entry) => entry.name === name);
        await shelf.shop(
          manager,
          await one(SHOP_FILE)?.read(),
          await one(VEHICLES_FILE)?.read(),
          await one(BELTS_FILE)?.read(),
        );
        const drives = entries.filter(({ name }) => name.endsWith(DRIVE_FILE_EXTENSION));
        const jobs = entries.filter(({ name }) => JOB_FILE.test(name));
        const pictures = entries.filter(({ name }) => /^pictures\/[0-9a-f]{64}\.jpg$/.test(name));
        if (drives.length === 0 && !one(SHOP_FILE))
          throw new Problem(422, 'Nothing to bring in', `No ${DRIVE_FILE_EXTENSION} file is in this archive.`);
        for (const entry of drives) {
          if (gone()) throw new Problem(499, 'Called off', 'The import was called off; nothing was brought in.');
          await shelf.put(
            manager,
            await readFile({ name: entry.name, text: (await entry.read()).toString('utf8') }, entry.name),
          );
        }
        for (const entry of jobs) {
          if (gone()) throw new Problem(499, 'Called off', 'The import was called off; nothing was brought in.');
          await shelf.job(manager, entry.name, await entry.read());
        }
        for (const entry of pictures) {
          if (gone()) throw new Problem(499, 'Called off', 'The import was called off; nothing was brought in.');
          await shelf.picture(manager, entry.name, await entry.read());
        }
        return shelf.done(manager);
      }),
    );
  } finally {
    close();
  }
}

interface ReadFile {
  checked: CheckedDrive;
  vehicle: Partial<VehicleBody> & { name: string; id?: string };
  record: { id: string; revision: number; updatedAt: Date; deletedAt?: Date | null } | null;
}

async function readFile({ name, text }: FileIn, within: string): Promise<ReadFile> {
  const refuse = (problems: readonly DriveProblem[]) => {
    const { path, message } = problems[0]!;
    const errors = problems.map((problem) => ({
      path: problem.path === '' ? within : `${within}.${problem.path}`,
      message: problem.message,
    }));
    return new Problem(422, 'Not an Emery drive', `${name}: ${path} ${message}`.replace(/ {2,}/g, ' '), errors);
  };
  const { value, problem } = parseDriveJson(text);
  if (problem) throw refuse([problem]);
  // What is no object at all is told by the check.
  const { vehicle, record, ...document } = (
    typeof value === 'object' && value !== null && !Array.isArray(value) ? value : { '': value }
  ) as Record<string, unknown>;
  // What could not be saved again is not let in.
  if (Buffer.byteLength(JSON.stringify(document)) > MOST_DRIVE_BYTES)
    throw refuse([{ path: '', message: 'is over 1 MB, more than a drive may hold' }]);
  const check = await driveCheck(document);
  if (!check.ok) throw refuse(check.problems);
  const named = check.document.name?.trim() || name.replace(/^.*\//, '').replace(DRIVE_FILE_EXTENSION, '');
  return {
    checked: check,
    vehicle: vehicleOf(vehicle) ?? { name: named.slice(0, 120) || 'Vehicle without a name' },
    record: recordBody.isValidSync(record) ? recordBody.cast(record) : null,
  };
}

/** The vehicle a file names, as far as it can be read. */
function vehicleOf(given: unknown): ReadFile['vehicle'] | null {
  if (!vehicleBody.isValidSync(given, { strict: true })) return null;
  const { id } = given as { id?: unknown };
  const { name, plate, odometer, odometerUnit, notes } = given;
  return {
    name,
    plate,
    odometer,
    odometerUnit,
    notes,
    ...(typeof id === 'string' && string().uuid().isValidSync(id) && { id }),
  };
}

/** Where things are put, each once, however often they are brought in. */
class Shelf {
  readonly brought: BroughtIn = { drives: [], vehicles: 0, pictures: 0, belts: 0, pulleys: 0, jobs: 0, there: 0 };
  /** Vehicles of the archive that are here under another id. */
  private readonly sameAs = new Map<string, string>();
  private readonly touched = new Set<string>();

  /** Brings what searches find up to date, once for all. */
  async done(manager: EntityManager): Promise<BroughtIn> {
    for (const { vehicleId } of this.brought.drives) this.touched.add(vehicleId);
    await indexVehicles(manager, [...this.touched]);
    return this.brought;
  }

  /** The shop's own lists. What stands here goes before what the archive has. */
  async shop(manager: EntityManager, shop?: Buffer, vehicles?: Buffer, belts?: Buffer): Promise<void> {
    if (shop) {
      const {
        name,
        unit,
        hourRate = null,
        bands,
        pulleys,
        parts,
      } = await shopBody.validate(parsed(shop, SHOP_FILE)).catch(({ path: field = '', message }: ValidationError) => {
        throw invalid([{ path: `${SHOP_FILE} ${field}`.trim(), message }]);
      });
      if ((await manager.count(Vehicle)) === 0)
        await manager.update(Shop, { id: 1 }, { name, unit: unit as 'in' | 'mm', hourRate });
      const known = new Set((await manager.find(SpeedBandEntity)).map(({ role }) => role as string));
      await manager.insert(SpeedBandEntity, bands.filter(({ role }) => !known.has(role)) as SpeedBandRow[]);
      const there = await manager.find(PulleyEntity);
      const likeness = ({
        label,
        role,
        surface,
        diameter,
        teeth,
        grooves,
        setName,
      }: Omit<PulleyRow, 'id' | 'pieces' | 'createdAt'>) =>
        JSON.stringify([label, role, surface, diameter, teeth, grooves, setName]);
      const [ids, alike] = [new Set(there.map(({ id }) => id)), new Set(there.map(likeness))];
      const fresh = (pulleys as PulleyRow[]).filter((pulley) => !ids.has(pulley.id) && !alike.has(likeness(pulley)));
      await manager.insert(PulleyEntity, fresh);
      this.brought.pulleys = fresh.length;
      const kept = await manager.find(PartEntity);
      const partAlike = ({ label, kind, mm }: Pick<PartRow, 'label' | 'kind' | 'mm'>) =>
        JSON.stringify([label, kind, mm]);
      const [partIds, partsAlike] = [new Set(kept.map(({ id }) => id)), new Set(kept.map(partAlike))];
      const rows = parts as PartRow[];
      await manager.insert(
        PartEntity,
        rows.filter((part) => !partIds.has(part.id) && !partsAlike.has(partAlike(part))),
      );
    }
    for (const [index, line] of (vehicles?.toString('utf8') ?? '').split('\n').entries()) {
      if (line.trim() === '') continue;
      const given = parsed(Buffer.from(line), `${VEHICLES_FILE}, line ${index + 1}`);
      if (!vehicleLine.isValidSync(given))
        throw invalid([{ path: `${VEHICLES_FILE}, line ${index + 1}`, message: 'is no vehicle as Emery writes it' }]);
      const { id, name, plate, odometer, odometerUnit, notes, revision, updatedAt, deletedAt } =
        vehicleLine.cast(given);
      await this.vehicle(
        manager,
        { id, name, plate, odometer, odometerUnit, notes },
        { revision, updatedAt, deletedAt: deletedAt ?? null },
      );
    }
    if (belts) await this.belts(manager, belts.toString('utf8'));
  }

  /** Finds the vehicle by its id, else a living one of the same name and plate; makes it where there is none. */
  private async vehicle(
    manager: EntityManager,
    { id, ...fields }: ReadFile['vehicle'],
    kept: { revision?: number; updatedAt?: Date; deletedAt?: Date | null } = {},
  ): Promise<string> {
    if (id !== undefined) {
      const known = this.sameAs.get(id);
      if (known) return known;
      if (await manager.existsBy(Vehicle, { id })) return id;
    }
    const [same] = await manager.query<{ id: string }[]>(
      'SELECT id FROM vehicle WHERE name = ? AND plate = ? AND deletedAt IS NULL LIMIT 1',
      [fields.name, fields.plate ?? ''],
    );
    if (same && !kept.deletedAt) {
      if (id !== undefined) this.sameAs.set(id, same.id);
      return same.id;
    }
    const made = { ...newVehicle(fields), ...(id !== undefined && { id }), ...kept };
    await manager.insert(Vehicle, made);
    this.touched.add(made.id);
    this.brought.vehicles += 1;
    return made.id;
  }

  async put(manager: EntityManager, { checked, vehicle, record }: ReadFile): Promise<void> {
    const vehicleId = await this.vehicle(manager, vehicle);
    if (!record) {
      this.brought.drives.push({ id: await createDrive(manager, vehicleId, checked), vehicleId });
      return;
    }
    const there = async (id: string) =>
      (await manager.findOne(DriveDocument, { where: { driveId: id }, select: { driveId: true, document: true } }))
        ?.document;
    const text = JSON.stringify(checked.document);
    const stored = await there(record.id);
    if (stored === undefined) {
      await createDrive(manager, vehicleId, checked, { ...record, deletedAt: record.deletedAt ?? null });
      this.brought.drives.push({ id: record.id, vehicleId });
    } else if (JSON.stringify(stored) === text) this.brought.there += 1;
    else {
      // It was worked on since, here or there: both are kept, and the same archive brought in again finds this one by
      // its content.
      const id = idOf(record.id + text);
      if ((await there(id)) !== undefined) this.brought.there += 1;
      else {
        const { vehicleId: own } = await manager.findOneByOrFail(DriveEntity, { id: record.id });
        const name = `${checked.document.name ?? 'Drive'} (from the archive)`.slice(0, 200);
        await createDrive(
          manager,
          own,
          { ...checked, document: { ...checked.document, name } },
          { id, deletedAt: record.deletedAt ?? null },
        );
        this.brought.drives.push({ id, vehicleId: own });
      }
    }
  }

  async job(manager: EntityManager, name: string, bytes: Buffer): Promise<void> {
    const vehicleId = await bringInJob(manager, name, parsed(bytes, name));
    if (vehicleId === null) return;
    this.touched.add(vehicleId);
    this.brought.jobs += 1;
  }

  async picture(manager: EntityManager, name: string, bytes: Buffer): Promise<void> {
    const hash = /[0-9a-f]{64}/.exec(name)![0];
    if (await manager.existsBy(Photo, { hash })) return;
    const photo = await photoAsIs(bytes).catch(() => null);
    if (photo?.hash !== hash)
      throw invalid([{ path: name, message: 'is damaged: it is not the picture its name says' }]);
    await keepPhoto(manager, photo);
    this.brought.pictures += 1;
  }

  private async belts(manager: EntityManager, text: string): Promise<void> {
    const key = (belt: { section: string; ribs: number | null; lengthMm: number; code: string }) =>
      JSON.stringify([belt.section, belt.ribs, belt.lengthMm, belt.code]);
    const there = new Set((await manager.find(StockEntity)).map(key));
    const { data } = papaparse.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' });
    const fresh = data.flatMap((row, index) => {
      const read = readStockRow(row);
      if (!read.ok) throw invalid([{ path: `${BELTS_FILE}, row ${index + 1}`, message: read.problem }]);
      return there.has(key(read.belt)) ? [] : [read.belt];
    });
    for (let from = 0; from < fresh.length; from += 1000)
      await manager.insert(StockEntity, fresh.slice(from, from + 1000));
    this.brought.belts = fresh.length;
  }
}

function parsed(bytes: Buffer, where: string): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw invalid([{ path: where, message: 'is not JSON' }]);
  }
}

/** An id that the same content always gets. */
function idOf(content: string): string {
  const hash = createHash('sha256').update(content).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-5${hash.slice(13, 16)}-a${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}

interface ZipEntry {
  name: string;
  read: () => Promise<Buffer>;
}

/**
 * The entries of a ZIP, none of them read yet. What an entry says it holds is refused beyond `MOST_ENTRY`, and what it
 * holds is held to what it says.
 */
async function openZip(file: string): Promise<{ entries: ZipEntry[]; close: () => void }> {
  const refused = (why: string) => new Problem(422, 'Not an archive', `The archive cannot be read: ${why}.`);
  try {
    const zip = await yauzl.openPromise(file, { autoClose: false });
    const entries: ZipEntry[] = [];
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      if (entry.uncompressedSize > MOST_ENTRY) throw refused(`${name} is larger than anything Emery writes`);
      entries.push({
        name,
        read: async () => {
          try {
            return await buffer(await zip.openReadStreamPromise(entry));
          } catch (error) {
            throw refused(`${name}: ${(error as Error).message}`);
          }
        },
      });
    }
    return { entries, close: () => zip.close() };
  } catch (error) {
    throw error instanceof Problem ? error : refused((error as Error).message);
  }
}
