import { createHash } from 'node:crypto';
import { DataSource, type QueryRunner } from 'typeorm';
import { connect, optionsOf, openUnchanged } from '../data-source';
import { readDatabaseAddress } from '../storage/database-address';
import { MIGRATIONS_TABLE, pictureFile, PICTURES, tableFile, type TableKept } from './labels';
import { BackupProblem, type OpenBackup, pictureOf, rowsOf, said } from './read-backup';
import { type Column, keysOf, linesOfTable, tablesOf } from './tables';
import { KEEP } from './words';

/** Rows go to the database so many at a time, and no more than so many letters of them. */
const ROWS = 500;
const LETTERS = 2 * 1024 * 1024;

/** Whether the database holds rows to what they point at. */
const TIES = { on: 'SET FOREIGN_KEY_CHECKS = 1', off: 'SET FOREIGN_KEY_CHECKS = 0' } as const;

export interface LoadOptions {
  /** Which pictures come along. */
  pictures?: 'all' | ReadonlySet<string>;
  onPart?: (bytes: number) => void;
  signal?: AbortSignal;
}

/**
 * Makes the tables of a backup in an empty database, as they were when it was written, brings in its rows, holds what
 * then stands there against the backup's checksums, and brings the tables up to date. All or nothing: what it made is
 * taken away again where it fails. The backup is to have been checked (`checkBackup`).
 *
 * @throws BackupProblem that says what is wrong with it.
 */
export async function loadBackup(backup: OpenBackup, url: string, options: LoadOptions = {}): Promise<void> {
  const { database } = readDatabaseAddress(url);
  const empty = await openUnchanged(url);
  const there = (await tablesOf(empty.manager)).size;
  await empty.destroy();
  if (there > 0) throw new BackupProblem(KEEP.taken(database));
  try {
    await said(() => load(backup, url, options));
    // From here on it is a shop like any that is opened by a later Emery.
    await (await connect(url)).destroy();
  } catch (error) {
    await emptyAgain(url).catch(() => undefined);
    throw error;
  }
}

async function load(backup: OpenBackup, url: string, options: LoadOptions): Promise<void> {
  const known = optionsOf(url);
  const wanted = new Set(backup.head.migrations);
  const migrations = known.migrations.filter(({ name }) => wanted.delete(name));
  if (wanted.size > 0) throw new BackupProblem(KEEP.newer(backup.head.emery));
  const data = await new DataSource({ ...known, migrations, poolSize: 2 }).initialize();
  try {
    await data.runMigrations({ transaction: 'each' });
    const runner = data.createQueryRunner();
    try {
      await fill(runner, backup, options);
    } finally {
      await runner.query(TIES.on).catch(() => undefined);
      await runner.release();
    }
  } finally {
    await data.destroy();
  }
}

async function fill(runner: QueryRunner, backup: OpenBackup, options: LoadOptions): Promise<void> {
  const { onPart = () => undefined } = options;
  const [all, keys] = [await tablesOf(runner), await keysOf(runner)];
  // Rows come table by table, not in the order in which they point at one another.
  await runner.query(TIES.off);
  for (const name of all.keys()) if (name !== MIGRATIONS_TABLE) await runner.query(`DELETE FROM \`${name}\``);
  for (const table of backup.head.tables) {
    const columns = columnsOf(table, all.get(table.name));
    await fillTable(runner, backup, { table, columns, onPart, signal: options.signal });
    await holdAgainst(runner, backup, { table, columns: all.get(table.name) ?? [], key: keys.get(table.name) ?? [] });
    if (table.next !== null) await runner.query(`ALTER TABLE \`${table.name}\` AUTO_INCREMENT = ${table.next}`);
  }
  await fillPictures(runner, backup, options);
}

/** The columns of a table of the backup, as the database has them. */
function columnsOf({ name, columns }: TableKept, there: readonly Column[] | undefined): Column[] {
  if (!there) throw new BackupProblem(KEEP.noTable(name));
  return columns.map((column) => {
    const found = there.find(({ name: known, generated }) => known === column && !generated);
    if (!found) throw new BackupProblem(KEEP.noColumn(name, column));
    return found;
  });
}

interface Filling {
  table: TableKept;
  columns: readonly Column[];
  onPart: (bytes: number) => void;
  signal: AbortSignal | undefined;
}

async function fillTable(runner: QueryRunner, backup: OpenBackup, { table, columns, onPart, signal }: Filling) {
  const { name } = table;
  // Whose bytes are parts of their own: none until they come.
  const bytesToCome = name === PICTURES.table;
  const named = [...columns.map((column) => column.name), ...(bytesToCome ? [PICTURES.bytes] : [])];
  const asked = `INSERT INTO \`${name}\` (${named.map((column) => `\`${column}\``).join(', ')}) VALUES ?`;
  let some: unknown[][] = [];
  let letters = 0;
  const send = async () => {
    signal?.throwIfAborted();
    if (some.length > 0) await runner.query(asked, [some]);
    onPart(letters);
    some = [];
    letters = 0;
  };
  await runner.startTransaction();
  let number = 0;
  for await (const row of rowsOf(backup, name)) {
    number += 1;
    const values = row.map((value, k) => valueFor(value, columns[k]?.type, tableFile(name), number));
    some.push(bytesToCome ? [...values, Buffer.alloc(0)] : values);
    letters += values.reduce((sum: number, value) => sum + lettersOf(value), 0);
    if (some.length >= ROWS || letters >= LETTERS) await send();
  }
  await send();
  await runner.commitTransaction();
  if (number !== table.rows) throw new BackupProblem(KEEP.rows(tableFile(name), number, table.rows));
}

const lettersOf = (value: unknown): number => (typeof value === 'string' || Buffer.isBuffer(value) ? value.length : 8);

function valueFor(value: unknown, type: string | undefined, part: string, line: number): unknown {
  if (value === null || (type !== 'datetime' && type !== 'timestamp')) return value;
  const date = new Date(String(value));
  if (Number.isNaN(date.getTime())) throw new BackupProblem(KEEP.notABackup(KEEP.line(part, line, KEEP.date)));
  return date;
}

interface Held {
  table: TableKept;
  columns: readonly Column[];
  key: readonly string[];
}

/** What stands in the database now is, written again, letter for letter what was brought in. */
async function holdAgainst(runner: QueryRunner, backup: OpenBackup, { table, columns, key }: Held): Promise<void> {
  const hash = createHash('sha256');
  for await (const lines of linesOfTable(runner, table, columns, key)) hash.update(lines);
  const part = tableFile(table.name);
  if (hash.digest('hex') !== backup.sums.get(part)) throw new BackupProblem(KEEP.otherContent(part));
}

async function fillPictures(runner: QueryRunner, backup: OpenBackup, { pictures = 'all', ...options }: LoadOptions) {
  const { table, key, bytes } = PICTURES;
  for (const hash of backup.pictures) {
    options.signal?.throwIfAborted();
    if (pictures !== 'all' && !pictures.has(hash)) continue;
    const picture = await pictureOf(backup, hash);
    if (picture === null || createHash('sha256').update(picture).digest('hex') !== hash)
      throw new BackupProblem(KEEP.notABackup(KEEP.otherPicture(pictureFile(hash))));
    await runner.query(`UPDATE \`${table}\` SET \`${bytes}\` = ? WHERE \`${key}\` = ?`, [picture, hash]);
    options.onPart?.(picture.length);
  }
}

/** Takes away all that stands in a database. */
async function emptyAgain(url: string): Promise<void> {
  const data = await openUnchanged(url);
  const runner = data.createQueryRunner();
  try {
    await runner.query(TIES.off);
    for (const name of (await tablesOf(runner)).keys()) await runner.query(`DROP TABLE IF EXISTS \`${name}\``);
    await runner.query(TIES.on);
  } finally {
    await runner.release();
    await data.destroy();
  }
}
