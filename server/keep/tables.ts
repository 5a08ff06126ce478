import type { EntityManager, QueryRunner } from 'typeorm';
import { PICTURES, type TableKept } from './labels';

type Ask = Pick<EntityManager | QueryRunner, 'query'>;

/** Rows read at a time of a table with long texts, and of one without. */
const FEW = 40;
const MANY = 500;

export interface Column {
  name: string;
  type: string;
  generated: boolean;
}

/** The tables of a database with their columns, as the database says: of any version of Emery. */
export async function tablesOf(ask: Ask): Promise<Map<string, Column[]>> {
  const rows = (await ask.query(
    `SELECT c.TABLE_NAME AS tableName, c.COLUMN_NAME AS name, c.DATA_TYPE AS type, c.IS_GENERATED AS made
     FROM information_schema.COLUMNS c JOIN information_schema.TABLES t
       ON t.TABLE_SCHEMA = c.TABLE_SCHEMA AND t.TABLE_NAME = c.TABLE_NAME
     WHERE c.TABLE_SCHEMA = DATABASE() AND t.TABLE_TYPE = 'BASE TABLE' ORDER BY c.TABLE_NAME, c.ORDINAL_POSITION`,
  )) as { tableName: string; name: string; type: string; made: string }[];
  const tables = new Map<string, Column[]>();
  for (const { tableName, name, type, made } of rows) {
    const columns = tables.get(tableName) ?? [];
    columns.push({ name, type, generated: made === 'ALWAYS' });
    tables.set(tableName, columns);
  }
  return tables;
}

/** The columns of each table's key, in its order. */
export async function keysOf(ask: Ask): Promise<Map<string, string[]>> {
  const rows = (await ask.query(
    `SELECT TABLE_NAME AS tableName, COLUMN_NAME AS name FROM information_schema.STATISTICS
     WHERE TABLE_SCHEMA = DATABASE() AND INDEX_NAME = 'PRIMARY' ORDER BY TABLE_NAME, SEQ_IN_INDEX`,
  )) as { tableName: string; name: string }[];
  const keys = new Map<string, string[]>();
  for (const { tableName, name } of rows) keys.set(tableName, [...(keys.get(tableName) ?? []), name]);
  return keys;
}

const LONG = /^(medium|long)(text|blob)$/;

/** So many rows of a table at a time that they fit into little memory, however long each is. */
const atOnce = (columns: readonly Column[]): number => {
  if (columns.some(({ type }) => type === 'longblob')) return 1;
  return columns.some(({ type }) => LONG.test(type)) ? FEW : MANY;
};

/** Rows of `table` in the order of its key, the given columns as a list of values each, a page at a time. */
export async function* pagesOf(
  ask: Ask,
  table: string,
  { columns, all, key }: { columns: readonly string[]; all: readonly Column[]; key: readonly string[] },
): AsyncGenerator<unknown[][]> {
  const wanted = [...new Set([...columns, ...key])];
  const limit = atOnce(all.filter(({ name }) => columns.includes(name)));
  const named = (names: readonly string[]) => names.map((name) => `\`${name}\``).join(', ');
  for (let last: unknown[] | null = null; ;) {
    const { where, values } = after(key, last);
    const rows = (await ask.query(
      `SELECT ${named(wanted)} FROM \`${table}\`${where} ORDER BY ${named(key)} LIMIT ${limit}`,
      values,
    )) as Record<string, unknown>[];
    const end = rows.at(-1);
    if (!end) return;
    yield rows.map((row) => columns.map((name) => row[name] ?? null));
    if (rows.length < limit) return;
    last = key.map((name) => end[name]);
  }
}

/** What comes after a row by its key, written so that the key's index is gone by. */
function after(key: readonly string[], last: readonly unknown[] | null): { where: string; values: unknown[] } {
  if (!last) return { where: '', values: [] };
  const values: unknown[] = [];
  const cases = key.map((name, k) => {
    values.push(...last.slice(0, k + 1));
    return [...key.slice(0, k).map((same) => `\`${same}\` = ?`), `\`${name}\` > ?`].join(' AND ');
  });
  return { where: ` WHERE ${cases.map((text) => `(${text})`).join(' OR ')}`, values };
}

/** A row as a line of a backup: a list of values, bytes written in base64. */
export const lineOf = (row: readonly unknown[]): string =>
  `${JSON.stringify(row.map((value) => (Buffer.isBuffer(value) ? { base64: value.toString('base64') } : value)))}\n`;

/** The columns of a table that a backup keeps in its rows. */
export const keptColumns = (table: string, columns: readonly Column[]): string[] =>
  columns
    .filter(({ name, generated }) => !generated && !(table === PICTURES.table && name === PICTURES.bytes))
    .map(({ name }) => name);

/** The lines of a table, some rows at a time. */
export async function* linesOfTable(
  ask: Ask,
  { name, columns }: Pick<TableKept, 'name' | 'columns'>,
  all: readonly Column[],
  key: readonly string[],
): AsyncGenerator<Buffer> {
  for await (const rows of pagesOf(ask, name, { columns, all, key }))
    yield Buffer.from(rows.map((row) => lineOf(row)).join(''));
}

/** The pictures of a shop one after the other, each as it is kept. */
export async function* picturesOf(ask: Ask): AsyncGenerator<{ hash: string; bytes: Buffer }> {
  const { table, key, bytes } = PICTURES;
  for (let last = ''; ;) {
    const [row] = (await ask.query(
      `SELECT \`${key}\` AS hash, \`${bytes}\` AS bytes FROM \`${table}\` WHERE \`${key}\` > ? ORDER BY \`${key}\` LIMIT 1`,
      [last],
    )) as { hash: string; bytes: Buffer }[];
    if (!row) return;
    yield row;
    last = row.hash;
  }
}
