import { createReadStream, createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { array, number, object, string } from '../http/fields';
import { readBody, Problem } from '../http/problem';
import { PICTURE_FILE, SUMS_FILE } from '../files/names';
import { expectSums, openZip, type OpenZip, type ZipEntry } from '../files/zip-in';
import {
  BACKUP_FILE,
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupHead,
  PICTURES,
  SEALED_START,
  tableFile,
  pictureFile,
} from './labels';
import { unsealed } from './seal';
import { KEEP } from './words';

/** A backup whose head has been read and whose parts are known; their content is held against the sums when read. */
export interface OpenBackup {
  head: BackupHead;
  /** The SHA-256 of each part. */
  sums: ReadonlyMap<string, string>;
  part: (name: string) => ZipEntry | undefined;
  /** The hashes of its pictures. */
  pictures: string[];
  close: () => void;
}

/** What is wrong with a backup, in words for whoever wants it restored. */
export class BackupProblem extends Error {}

const refused = (why: string, cause?: unknown) => new BackupProblem(KEEP.notABackup(why), { cause });
/** A part of any size may come: it is read a piece at a time. */
const ANY = Number.MAX_SAFE_INTEGER;
const MOST_HEAD = 4 * 1024 * 1024;
const MOST_SUMS = 200 * 1024 * 1024;

export async function isSealed(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(SEALED_START.length), 0, SEALED_START.length, 0);
    return buffer.subarray(0, bytesRead).toString('latin1') === SEALED_START;
  } finally {
    await handle.close();
  }
}

/** Opens a sealed backup into a file of its own, which the caller takes away again. */
export async function unsealInto(file: string, passphrase: string, plain: string): Promise<void> {
  try {
    await pipeline(
      await unsealed(createReadStream(file), passphrase),
      createWriteStream(plain, { flags: 'wx', mode: 0o600 }),
    );
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== undefined) throw error;
    throw refused((error as Error).message, error);
  }
}

/**
 * Opens a backup that is not sealed, or was opened already.
 *
 * @throws BackupProblem that says what is wrong with it.
 */
export async function openBackup(file: string): Promise<OpenBackup> {
  return said(async () => {
    const zip = await openZip(file);
    try {
      const entry = zip.entries.get(BACKUP_FILE);
      if (!entry) throw refused(zip.entries.has('shop.json') ? KEEP.archive : KEEP.noHead);
      const head = await entry.read(MOST_HEAD, (bytes) => readHead(bytes.toString()));
      const sums = await sumsOf(zip);
      return {
        ...{ head, sums, close: zip.close },
        part: (name) => zip.entries.get(name),
        pictures: [...zip.entries.keys()].flatMap((name) => PICTURE_FILE.exec(name)?.[1] ?? []),
      };
    } catch (error) {
      zip.close();
      throw error;
    }
  });
}

/** What a reader of ZIP files says, as what is wrong with a backup. */
export async function said<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw error instanceof Problem ? refused(error.detail, error) : error;
  }
}

async function sumsOf(zip: OpenZip): Promise<ReadonlyMap<string, string>> {
  const sums = await expectSums(zip, MOST_SUMS);
  if (!sums) throw refused(KEEP.noSums);
  for (const name of zip.entries.keys()) if (name !== SUMS_FILE && !sums.has(name)) throw refused(KEEP.unsummed(name));
  return sums;
}

const NAME = /^\w{1,64}$/;
const headShape = object({
  format: string().oneOf([BACKUP_FORMAT]).required(),
  version: number().integer().required(),
  emery: string().max(40).required(),
  writtenAt: string().max(40).required(),
  shop: string().max(200).defined(),
  migrations: array(string().matches(NAME).required()).required(),
  tables: array(
    object({
      name: string().matches(NAME).required(),
      columns: array(string().matches(NAME).required()).required(),
      rows: number().integer().min(0).required(),
      next: number().integer().min(1).nullable().defined(),
    }).required(),
  ).required(),
}).required();

function readHead(text: string): BackupHead {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw refused((error as Error).message, error);
  }
  // A later form may have other fields: its number is looked at before them.
  const { version, emery } = (value ?? {}) as { version?: unknown; emery?: unknown };
  if (typeof version === 'number' && version > BACKUP_VERSION) throw new BackupProblem(KEEP.newer(String(emery)));
  try {
    return readBody(headShape, value) as BackupHead;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const [{ path, message } = { path: '', message: error.detail }] = error.errors;
    throw refused(KEEP.field(path, message), error);
  }
}

/** Reads all of a backup, and holds it against its checksums and against what its head says that it has. */
export async function checkBackup(
  backup: OpenBackup,
  onPart: (bytes: number) => void = () => undefined,
): Promise<void> {
  const { head, part, pictures } = backup;
  await said(async () => {
    for (const { name, rows } of head.tables) {
      const file = tableFile(name);
      let lines = 0;
      let bytes = 0;
      const entry = part(file);
      if (!entry) throw refused(KEEP.missing(file));
      for await (const piece of entry.pieces(ANY)) {
        bytes += piece.length;
        for (let at = piece.indexOf(10); at !== -1; at = piece.indexOf(10, at + 1)) lines += 1;
      }
      if (lines !== rows) throw refused(KEEP.rows(file, lines, rows));
      onPart(bytes);
    }
    const listed = head.tables.find(({ name }) => name === PICTURES.table)?.rows ?? 0;
    if (pictures.length !== listed) throw refused(KEEP.rows('pictures', pictures.length, listed));
    for (const hash of pictures) {
      let bytes = 0;
      for await (const piece of part(pictureFile(hash))?.pieces(ANY) ?? []) bytes += piece.length;
      onPart(bytes);
    }
  });
}

/** The rows of a table, a list of values each, as they were written. */
export async function* rowsOf(backup: OpenBackup, table: string): AsyncGenerator<unknown[]> {
  const file = tableFile(table);
  const width = backup.head.tables.find(({ name }) => name === table)?.columns.length ?? 0;
  let number = 0;
  for await (const line of linesOf(backup.part(file))) {
    number += 1;
    let row: unknown;
    try {
      row = JSON.parse(line);
    } catch (error) {
      throw refused(KEEP.line(file, number, (error as Error).message), error);
    }
    if (!Array.isArray(row)) throw refused(KEEP.line(file, number, KEEP.notAList));
    if (row.length !== width) throw refused(KEEP.line(file, number, KEEP.width(row.length, width)));
    yield row.map(bytesAgain);
  }
}

const bytesAgain = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && 'base64' in value
    ? Buffer.from(String(value.base64), 'base64')
    : value;

/** The lines of a part, each whole; a letter that lies over two pieces is one. */
async function* linesOf(entry: ZipEntry | undefined): AsyncGenerator<string> {
  if (!entry) return;
  let rest: Buffer[] = [];
  for await (const piece of entry.pieces(ANY)) {
    let from = 0;
    for (let at = piece.indexOf(10); at !== -1; at = piece.indexOf(10, from)) {
      yield Buffer.concat([...rest, piece.subarray(from, at)]).toString();
      rest = [];
      from = at + 1;
    }
    if (from < piece.length) rest.push(piece.subarray(from));
  }
  if (rest.length > 0) yield Buffer.concat(rest).toString();
}

/** A picture's bytes, or null where the backup has none of that name. */
export async function pictureOf(backup: OpenBackup, hash: string): Promise<Buffer | null> {
  const entry = backup.part(pictureFile(hash));
  if (!entry) return null;
  return said(() => entry.read(ANY, (bytes) => bytes));
}
