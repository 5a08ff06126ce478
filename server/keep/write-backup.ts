import { createHash } from 'node:crypto';
import { PassThrough, Readable, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import type { DataSource, QueryRunner } from 'typeorm';
import { otherTurns } from '../http/in-turns';
import {
  BACKUP_FILE,
  BACKUP_FORMAT,
  BACKUP_VERSION,
  type BackupHead,
  EMERY_VERSION,
  MIGRATIONS_TABLE,
  pictureFile,
  PICTURES,
  tableFile,
  type TableKept,
} from './labels';
import { SUMS_FILE } from '../files/names';
import { AT_ONE_MOMENT } from '../storage/snapshot';
import { BackupProblem } from './read-backup';
import { sealed } from './seal';
import { KEEP } from './words';
import { keptColumns, keysOf, linesOfTable, picturesOf, tablesOf } from './tables';

/** Entries bear no time of their own: the same shop is the same parts. */
const SAME_TIME = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };
/** So much is summed up and handed on in one turn of the loop, bytes. */
const PIECE = 64 * 1024;

export interface BackupOptions {
  passphrase?: string | undefined;
  /** Told after each part how much of it there is, bytes of its content. */
  onPart?: (bytes: number) => void;
  /** Ends it in the middle. */
  signal?: AbortSignal;
}

/**
 * Writes all that the shop's database holds into `out`, as it is at one moment, whatever is saved meanwhile; as fast as
 * `out` takes it, and never as a whole in memory. Of any version's tables, for it asks the database what there is.
 * Returns the SHA-256 of what was written before it was sealed.
 */
export async function writeBackup(data: DataSource, out: Writable, options: BackupOptions = {}): Promise<string> {
  const { passphrase, onPart = () => undefined, signal } = options;
  const runner = data.createQueryRunner();
  const all = createHash('sha256');
  const zip = new yazl.ZipFile();
  const summed = async function* () {
    for await (const piece of zip.outputStream as unknown as AsyncIterable<Buffer>) {
      all.update(piece);
      yield piece;
    }
  };
  const written = (async () => {
    const plain = Readable.from(summed(), { objectMode: false });
    await pipeline(passphrase === undefined ? plain : await sealed(plain, passphrase), out);
  })();
  written.catch(() => undefined);
  const sums: string[] = [];
  const add = async (name: string, pieces: AsyncIterable<Buffer> | Iterable<Buffer>, compressionLevel: number) => {
    const hash = createHash('sha256');
    let bytes = 0;
    const counted = async function* () {
      for await (const page of pieces)
        for (let from = 0; from < page.length; from += PIECE) {
          signal?.throwIfAborted();
          const piece = page.subarray(from, from + PIECE);
          hash.update(piece);
          bytes += piece.length;
          yield piece;
          await otherTurns();
        }
    };
    // The ZIP keeps to its end what each entry came by: it is given a pipe, which holds nothing once it is empty.
    const pipe = new PassThrough();
    zip.addReadStream(pipe, name, { compressionLevel, ...SAME_TIME });
    await Promise.race([pipeline(counted, pipe), written]);
    sums.push(`${hash.digest('hex')}  ${name}\n`);
    onPart(bytes);
  };
  try {
    await runner.startTransaction(AT_ONE_MOMENT);
    await addAll(runner, add);
    zip.addBuffer(Buffer.from(sums.join('')), SUMS_FILE, SAME_TIME);
    zip.end();
    await written;
    return all.digest('hex');
  } catch (error) {
    zip.end();
    out.destroy();
    throw error;
  } finally {
    if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => undefined);
    await runner.release();
  }
}

type Add = (name: string, pieces: AsyncIterable<Buffer> | Iterable<Buffer>, compressionLevel: number) => Promise<void>;

async function addAll(runner: QueryRunner, add: Add): Promise<void> {
  const [all, keys] = [await tablesOf(runner), await keysOf(runner)];
  if (!all.has('shop')) throw new BackupProblem(KEEP.noShop);
  const head = await headOf(runner);
  await add(BACKUP_FILE, [Buffer.from(`${JSON.stringify(head, null, 2)}\n`)], 6);
  for (const table of head.tables) {
    const lines = linesOfTable(runner, table, all.get(table.name) ?? [], keys.get(table.name) ?? []);
    await add(tableFile(table.name), lines, 6);
  }
  if (!all.has(PICTURES.table)) return;
  // Pictures are packed already.
  for await (const { hash, bytes } of picturesOf(runner)) await add(pictureFile(hash), [bytes], 0);
}

/** The head of a backup of the shop, as a transaction sees it. */
export async function headOf(runner: Pick<QueryRunner, 'query'>): Promise<BackupHead> {
  const all = await tablesOf(runner);
  // The first look at any table is the moment that all of it is of.
  const migrations = all.has(MIGRATIONS_TABLE)
    ? ((await runner.query('SELECT name FROM migrations ORDER BY timestamp')) as { name: string }[])
    : [];
  const [shop] = all.has('shop')
    ? ((await runner.query('SELECT name FROM shop WHERE id = 1')) as { name: string }[])
    : [];
  const counters = (await runner.query(
    'SELECT TABLE_NAME AS name, AUTO_INCREMENT AS next FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE()',
  )) as { name: string; next: string | number | null }[];
  const tables: TableKept[] = [];
  for (const [name, columns] of all) {
    if (name === MIGRATIONS_TABLE) continue;
    const [counted] = (await runner.query(`SELECT COUNT(*) AS n FROM \`${name}\``)) as { n: string }[];
    const next = counters.find((counter) => counter.name === name)?.next ?? null;
    tables.push({
      ...{ name, columns: keptColumns(name, columns), rows: Number(counted?.n ?? 0) },
      next: next === null ? null : Number(next),
    });
  }
  return {
    ...{ format: BACKUP_FORMAT, version: BACKUP_VERSION, emery: EMERY_VERSION },
    writtenAt: new Date().toISOString(),
    shop: shop?.name ?? '',
    migrations: migrations.map(({ name }) => name),
    tables,
  };
}
