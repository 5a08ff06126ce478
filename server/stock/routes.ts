import { Router } from 'express';
import type { DataSource, EntityManager } from 'typeorm';
import { stockCsv, stockRows } from '../files/archive-out';
import { StockEntity, type StockRow } from './entity';
import { otherTurns } from '../http/in-turns';
import { likeAnywhere, pageOf, type Page } from '../http/listing';
import { bodyOf, invalid, notFound } from '../http/problem';
import { rowsBody } from '../http/rows-body';
import { MANY } from '../vehicles/search-index';
import type { DriveProblem, JsonBounds } from '@emery/core/drive';
import { SECTION_NAMES } from '@emery/core/section';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';

const MOST_ROWS = 50_000;
/** Rows written in one statement. */
const BATCH = 1000;

/** A row has a dozen values at most. */
export const STOCK_BOUNDS: JsonBounds = { depth: 5, values: 12 * MOST_ROWS };
/** Rows read between two looks at what else is asked of the server. */
const AT_ONCE = 200;

// The rows themselves are read one by one below, once it is known that there are not too many.
const importBody = rowsBody(MOST_ROWS);

type Cells = Readonly<Record<string, string>>;

/** A row as text, or null for what is none. */
function cellsOf(row: unknown): Cells | null {
  if (typeof row !== 'object' || row === null || Array.isArray(row)) return null;
  const cells = STOCK_COLUMNS.map((name) => [name, (row as Record<string, unknown>)[name] ?? ''] as const);
  return cells.every(([, value]) => typeof value === 'string' || typeof value === 'number')
    ? Object.fromEntries(cells.map(([name, value]) => [name, String(value)]))
    : null;
}

/** Reads every row, letting other requests in between; refuses with 422 and the first twenty that cannot be read. */
async function beltsOf(rows: readonly unknown[]): Promise<StockBelt[]> {
  const belts: StockBelt[] = [];
  const problems: DriveProblem[] = [];
  for (const [index, row] of rows.entries()) {
    if (index % AT_ONCE === 0) await otherTurns();
    const cells = cellsOf(row);
    const read = cells
      ? readStockRow(cells)
      : { ok: false as const, problem: 'must be a row: an object of texts and numbers' };
    if (read.ok) belts.push(read.belt);
    else if (problems.push({ path: `rows[${index}]`, message: read.problem }) >= 20) break;
  }
  if (problems.length > 0) throw invalid(problems);
  return belts;
}

/** The shop's own list of belts: filtered a page at a time, in and out as CSV. */
export function stockRoutes(data: DataSource): Router {
  const router = Router();
  const stock = data.getRepository(StockEntity);

  router.get('/', async (request, response) => {
    response.json(await pageOfStock(data.manager, filterOf(request.query), pageOf(request, 500)));
  });

  // Every length of one kind, however long the list: Size must not miss those about its window.
  router.get('/lengths', async (request, response) => {
    const { where, values } = filterOf(request.query);
    const rows = await data.query<{ lengthMm: number; shelf: string }[]>(
      `SELECT belt.lengthMm, SUM(belt.shelf) AS shelf FROM stock_belt AS belt ${where} GROUP BY belt.lengthMm ORDER BY belt.lengthMm`,
      values,
    );
    response.json({ lengths: rows.map(({ lengthMm, shelf }) => ({ lengthMm, shelf: Number(shelf) })) });
  });

  router.get('/file', async (_request, response) => {
    response
      .type('text/csv')
      .set('Content-Disposition', 'attachment; filename="emery-belts.csv"')
      .send(stockCsv(await stockRows(data.manager)));
  });

  router.post('/', async (request, response) => {
    const { replace, rows } = await bodyOf(importBody, request.body);
    const belts = await beltsOf(rows);
    await data.transaction(async (manager) => {
      if (replace) await manager.createQueryBuilder().delete().from(StockEntity).execute();
      for (let from = 0; from < belts.length; from += BATCH)
        await manager.insert(StockEntity, belts.slice(from, from + BATCH) as StockBelt[]);
    });
    response.status(201).json({ total: await stock.count() });
  });

  router.delete('/:id', async (request, response) => {
    const { affected } = await stock.delete({ id: Number(request.params.id) || 0 });
    if (affected !== 1) throw notFound('belt');
    response.status(204).end();
  });

  return router;
}

interface Filter {
  where: string;
  values: unknown[];
}

/** What a request asks of section, ribs and length. */
function filterOf({ section, ribs, from, to }: Record<string, unknown>): Filter {
  const asked: [string, unknown][] = [];
  if (typeof section === 'string' && section !== '') asked.push(['belt.section = ?', section]);
  if (typeof ribs === 'string' && ribs !== '' && Number.isInteger(Number(ribs)))
    asked.push(['belt.ribs = ?', Number(ribs)]);
  for (const [sign, value] of [
    ['>=', from],
    ['<=', to],
  ] as const) {
    if (typeof value === 'string' && value !== '' && Number.isFinite(Number(value)))
      asked.push([`belt.lengthMm ${sign} ?`, Number(value)]);
  }
  return {
    where: asked.length === 0 ? '' : `WHERE ${asked.map(([condition]) => condition).join(' AND ')}`,
    values: asked.map(([, value]) => value),
  };
}

/**
 * Each way for a belt to be found goes by an index of its own, and they are put together: a plain number is a length as
 * well as part of a code.
 */
function foundBy(search: string): { sql: string; values: unknown[] } {
  const ways: [string, unknown[]][] = [['codeKey LIKE ?', [Buffer.from(likeAnywhere(search.toLowerCase()))]]];
  const mm = Number(search);
  if (Number.isFinite(mm)) ways.push(['lengthMm BETWEEN ? AND ?', [mm - 0.5, mm + 0.5]]);
  const sections = SECTION_NAMES.filter((name) => name.toLowerCase().includes(search.toLowerCase()));
  if (sections.length > 0) ways.push(['section IN (?)', [sections]]);
  return {
    sql: `(${ways.map(([condition]) => `SELECT id FROM stock_belt WHERE ${condition}`).join(' UNION ')}) AS found`,
    values: ways.flatMap(([, values]) => values),
  };
}

async function pageOfStock(
  manager: EntityManager,
  { where, values }: Filter,
  { search, limit, offset }: Page,
): Promise<{ belts: StockRow[]; total: number }> {
  const order = 'ORDER BY belt.section, belt.ribs, belt.lengthMm, belt.id LIMIT ? OFFSET ?';
  const columns = 'belt.id, belt.section, belt.ribs, belt.lengthMm, belt.code, belt.price, belt.shelf';
  const found = search === '' ? null : foundBy(search);
  if (found) {
    // Few are looked at one by one, so that the list is gone through once.
    const few = await manager.query<{ id: number }[]>(`SELECT id FROM ${found.sql} LIMIT ${MANY + 1}`, found.values);
    if (few.length <= MANY) {
      const ids = few.map(({ id }) => id);
      const belts =
        ids.length === 0
          ? []
          : await manager.query<StockRow[]>(
              `SELECT ${columns} FROM stock_belt AS belt ${where === '' ? 'WHERE' : `${where} AND`} belt.id IN (?) ORDER BY belt.section, belt.ribs, belt.lengthMm, belt.id`,
              [...values, ids],
            );
      return { belts: belts.slice(offset, offset + limit), total: belts.length };
    }
  }
  const of = found
    ? `stock_belt AS belt FORCE INDEX (stock_by_size) STRAIGHT_JOIN ${found.sql} ON belt.id = found.id`
    : 'stock_belt AS belt';
  const all = [...(found?.values ?? []), ...values];
  const [counted] = await manager.query<[{ total: string }]>(
    `SELECT COUNT(*) AS total FROM ${found && where === '' ? found.sql : of} ${where}`,
    all,
  );
  return {
    belts: await manager.query<StockRow[]>(`SELECT ${columns} FROM ${of} ${where} ${order}`, [...all, limit, offset]),
    total: Number(counted.total),
  };
}
