import papaparse from 'papaparse';
import { mixed, number, object, optionalList, string } from '../http/fields';
import { readJson } from '../http/json-body';
import { moment } from '../http/moment';
import { invalid, Problem, readBody } from '../http/problem';
import { type JobIn, readJobFile } from '../jobs/read-job-file';
import type { PartRow } from '../parts/entity';
import { photoAsIs } from '../photos/read-photo';
import type { PhotoRow } from '../photos/entity';
import { shopBody } from '../shop/body';
import { isRole, MOST_PULLEYS, readBand, readPulley } from '../speeds/body';
import type { PulleyRow, SpeedBandRow } from '../speeds/entity';
import { vehicleBody, type VehicleBody } from '../vehicles/body';
import { BELTS_FILE, JOB_FILE, PICTURE_FILE, SHOP_FILE, SUMS_FILE, VEHICLES_FILE } from './names';
import { type DriveIn, readDriveFile, recordFields, type RecordIn, UUID } from './read-files';
import { Another, openZip, type ZipEntry, expectSums } from './zip-in';
import { MOST_PARTS, partRow, readPartRow } from '@emery/core/align';
import { DRIVE_FILE_EXTENSION, type JsonBounds, ROLES, type ShopLimit } from '@emery/core/drive';
import { readStockRow, type StockBelt } from '@emery/core/size';

/*
 * An archive, or a ZIP of drive files, read an entry at a time beside the requests. What each kind of entry may hold is
 * known, so that what a ZIP costs goes by what a shop may hold and not by what the ZIP says. What comes out has passed
 * the same checks as what is typed.
 */
const MB = 1024 * 1024;
/** Bytes of each kind: a drive is written with spaces, for people. */
const MOST = {
  sums: 64 * MB,
  shop: 2 * MB,
  vehicles: 256 * MB,
  belts: 32 * MB,
  drive: 8 * MB,
  job: 16 * MB,
  picture: 32 * MB,
};
const MOST_LINE = 64 * 1024;
const MOST_VEHICLES = 250_000;
/** Vehicles and belts handed over at a time. */
const AT_ONCE = 200;
const SHOP_BOUNDS: JsonBounds = { depth: 6, values: 20_000 };

export interface ShopIn {
  name: string;
  unit: 'in' | 'mm';
  hourRate: number | null;
  limits: readonly ShopLimit[] | null;
  bands: SpeedBandRow[];
  pulleys: PulleyRow[];
  parts: PartRow[];
}
export interface VehicleIn extends RecordIn {
  fields: VehicleBody;
  odometerAt: Date | null;
}
/** A belt of the list, with the number that the archive's jobs know it by. */
export type BeltIn = StockBelt & { id: number | null };

export type ArchiveItem =
  | { kind: 'shop'; shop: ShopIn }
  | { kind: 'vehicles'; vehicles: readonly VehicleIn[] }
  | { kind: 'belts'; belts: readonly BeltIn[] }
  | { kind: 'drive'; drive: DriveIn }
  | { kind: 'job'; job: JobIn }
  | { kind: 'picture'; picture: PhotoRow };

export async function* readArchive(file: string): AsyncGenerator<ArchiveItem> {
  const zip = await openZip(file);
  try {
    const names = [...zip.entries.keys()];
    const drives = names.filter((name) => name.endsWith(DRIVE_FILE_EXTENSION));
    const shop = zip.entries.get(SHOP_FILE);
    if (drives.length === 0 && !shop)
      throw new Problem(422, 'Nothing to import', `No ${DRIVE_FILE_EXTENSION} file is in this archive.`);
    await expectSums(zip, MOST.sums);
    if (shop) {
      const { read, summed } = await shop.read(MOST.shop, readShop);
      if (summed && !zip.entries.has(SUMS_FILE))
        throw invalid([{ path: SUMS_FILE, message: 'is missing: the archive is incomplete' }]);
      yield { kind: 'shop', shop: read };
    }
    const [vehicles, belts] = [zip.entries.get(VEHICLES_FILE), zip.entries.get(BELTS_FILE)];
    if (vehicles) yield* vehiclesOf(vehicles);
    if (belts) yield* await belts.read(MOST.belts, (bytes) => [...beltsOf(bytes)]);
    const entry = (name: string) => zip.entries.get(name)!;
    for (const name of drives) {
      const drive = await entry(name).read(MOST.drive, (bytes) =>
        readDriveFile({ name, text: bytes.toString() }, name),
      );
      yield { kind: 'drive', drive };
    }
    for (const name of names.filter((name) => JOB_FILE.test(name)))
      yield { kind: 'job', job: await entry(name).read(MOST.job, (bytes) => readJobFile(name, bytes)) };
    for (const name of names.filter((name) => PICTURE_FILE.test(name)))
      yield { kind: 'picture', picture: await entry(name).read(MOST.picture, (bytes) => readPicture(name, bytes)) };
  } finally {
    zip.close();
  }
}

/** What is wrong with a thing that was read in its own words, with the way to it in front. */
function within<T>(where: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const errors = error.errors.length > 0 ? error.errors : [{ path: '', message: error.detail }];
    throw invalid(errors.map(({ path, message }) => ({ path: path === '' ? where : `${where}${path}`, message })));
  }
}

const items = (max: number) => optionalList(mixed().required() as never, max);
const shopFile = object({
  format: mixed().oneOf(['emery-shop'], 'must be "emery-shop"').required('is missing'),
  version: mixed().oneOf([1], 'must be 1: this archive comes from a newer Emery').required('is missing'),
  sums: string().oneOf([SUMS_FILE]),
  bands: items(ROLES.length),
  pulleys: items(MOST_PULLEYS),
  // Archives from before there were any have none.
  parts: items(MOST_PARTS),
}).required();
const namedItem = object({
  id: string().matches(UUID, 'must be a UUID in small letters').required(),
  createdAt: moment().required(),
}).required();

type Json = Readonly<Record<string, unknown>>;

function readShop(bytes: Uint8Array): { read: ShopIn; summed: boolean } {
  return within(`${SHOP_FILE} `, () => {
    const value = readJson(bytes, SHOP_BOUNDS) as Json;
    const { sums, bands = [], pulleys = [], parts = [] } = readBody(shopFile, value);
    const { name = '', unit = 'mm', hourRate = null, limits = null } = readBody(shopBody, value);
    return {
      summed: sums !== undefined,
      read: {
        ...{ name, unit: unit as 'in' | 'mm', hourRate, limits: limits?.length ? limits : null },
        bands: each('bands', bands, bandOf, ({ role }) => role),
        pulleys: each('pulleys', pulleys, pulleyOf, ({ id }) => id),
        parts: each('parts', parts, partOf, ({ id }) => id),
      },
    };
  });
}

/** The items of a list, each read by itself; two that have one key are refused. */
function each<T>(list: string, given: readonly unknown[], read: (item: Json) => T, key: (item: T) => string): T[] {
  const seen = new Set<string>();
  return given.map((item, k) =>
    within(`${list}[${k}].`, () => {
      if (typeof item !== 'object' || item === null) throw invalid([{ path: '', message: 'must be an object' }]);
      const entry = read(item as Json);
      if (seen.has(key(entry))) throw invalid([{ path: '', message: 'is listed twice' }]);
      seen.add(key(entry));
      return entry;
    }),
  );
}

function bandOf({ role, ...band }: Json): SpeedBandRow {
  if (!isRole(role)) throw invalid([{ path: 'role', message: 'is no kind of accessory' }]);
  return readBand(role, band);
}

function pulleyOf(given: Json): PulleyRow {
  const { id, createdAt } = readBody(namedItem, given);
  const { setName, pieces, ...rest } = given;
  return { id, ...readPulley({ ...rest, set: setName, count: pieces }), createdAt: new Date(createdAt) };
}

function partOf(given: Json): PartRow {
  const { id, createdAt } = readBody(namedItem, given);
  const { pieces, ...rest } = given as unknown as PartRow;
  if (typeof rest.label !== 'string') throw invalid([{ path: 'label', message: 'must be text' }]);
  const read = readPartRow(partRow({ ...rest, count: pieces }));
  if (!read.ok) throw invalid([{ path: read.column, message: read.problem }]);
  const { count, ...part } = read.part;
  return { id, ...part, pieces: count, createdAt: new Date(createdAt) };
}

const vehicleRecord = object({ ...recordFields, odometerAt: moment().nullable() }).required();

/** The vehicles, a line each. */
async function* vehiclesOf(file: ZipEntry): AsyncGenerator<ArchiveItem> {
  const seen = new Set<string>();
  let some: VehicleIn[] = [];
  let number = 0;
  for await (const line of linesOf(file)) {
    number += 1;
    if (number > MOST_VEHICLES)
      throw invalid([{ path: VEHICLES_FILE, message: `has more than ${MOST_VEHICLES.toLocaleString('en')} lines` }]);
    if (line.trim() === '') continue;
    const vehicle = within(`${VEHICLES_FILE}, line ${number} `, () => vehicleIn(line));
    if (seen.has(vehicle.id))
      throw invalid([{ path: `${VEHICLES_FILE}, line ${number}`, message: 'is a vehicle that is already listed' }]);
    seen.add(vehicle.id);
    some.push(vehicle);
    if (some.length < AT_ONCE) continue;
    yield { kind: 'vehicles', vehicles: some };
    some = [];
  }
  if (some.length > 0) yield { kind: 'vehicles', vehicles: some };
}

function vehicleIn(line: string): VehicleIn {
  const value = readJson(Buffer.from(line), { depth: 4, values: 60 });
  const { name, plate, odometer, odometerUnit, notes } = readBody(vehicleBody, value);
  const { id, revision, updatedAt, deletedAt, odometerAt } = readBody(vehicleRecord, value);
  const time = (text: string | null | undefined) => (text ? new Date(text) : null);
  return {
    fields: { name, plate, odometer, odometerUnit, notes },
    ...{ id, revision, updatedAt: new Date(updatedAt), deletedAt: time(deletedAt), odometerAt: time(odometerAt) },
  };
}

async function* linesOf(file: ZipEntry): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  let other: Another | null = null;
  try {
    for await (const piece of file.pieces(MOST.vehicles)) {
      const lines = (rest + decoder.decode(piece, { stream: true })).split('\n');
      rest = lines.pop()!;
      yield* lines;
      if (rest.length > MOST_LINE)
        throw invalid([{ path: file.name, message: 'has a line that is longer than any vehicle' }]);
    }
  } catch (error) {
    if (!(error instanceof Another)) throw error;
    other = error;
  }
  if (rest !== '') yield rest;
  if (other) throw other;
}

const beltId = number()
  .integer()
  .min(1)
  .max(2 ** 31 - 1);

/** The list of belts; the rows of archives from before they had numbers have none. */
function* beltsOf(bytes: Buffer): Generator<ArchiveItem> {
  const { data } = papaparse.parse<Record<string, string>>(bytes.toString('utf8'), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  for (let from = 0; from < data.length; from += AT_ONCE)
    yield {
      kind: 'belts',
      belts: data.slice(from, from + AT_ONCE).map((row, k) => {
        const refuse = (message: string) => invalid([{ path: `${BELTS_FILE}, row ${from + k + 1}`, message }]);
        const read = readStockRow(row);
        if (!read.ok) throw refuse(read.problem);
        const id = row['id'] === undefined || row['id'] === '' ? null : Number(row['id']);
        if (id !== null && !beltId.isValidSync(id, { strict: true })) throw refuse('id: must be the number of a belt');
        return { ...read.belt, id };
      }),
    };
}

async function readPicture(name: string, bytes: Buffer): Promise<PhotoRow> {
  const photo = await photoAsIs(bytes).catch(() => null);
  if (!photo || photo.hash !== PICTURE_FILE.exec(name)![1])
    throw invalid([{ path: name, message: 'is damaged: it is not the picture its name says' }]);
  return photo;
}
