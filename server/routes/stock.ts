import { Router } from 'express';
import type { DataSource, SelectQueryBuilder } from 'typeorm';
import { mixed, object } from 'yup';
import type { DriveProblem, JsonBounds } from '@emery/core/drive';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';
import { stockCsv, stockRows } from '../archive-out';
import { StockEntity, type StockRow } from '../entities';
import { likeAnywhere, pageOf } from '../listing';
import { bodyOf, invalid, notFound } from '../problem';

const MOST_ROWS = 50_000;
/** Rows written in one statement. */
const BATCH = 1000;

/** A row has a dozen values at most. */
export const STOCK_BOUNDS: JsonBounds = { depth: 5, values: 12 * MOST_ROWS };
/** Rows read between two looks at what else is asked of the server. */
const AT_ONCE = 200;

const importBody = object({
  replace: mixed<boolean>().test('boolean', 'must be true or false', (value) => value === undefined || typeof value === 'boolean'),
  // The rows themselves are read one by one below, once it is known that there are not too many.
  rows: mixed<unknown[]>()
    .required('is missing')
    .test('list', 'must be a list', (value) => value === undefined || Array.isArray(value))
    .test('most', `holds more than ${MOST_ROWS.toLocaleString('en')} rows`, (value) => !Array.isArray(value) || value.length <= MOST_ROWS),
}).required();

type Cells = Readonly<Record<string, string>>;

/** A row as text, or null for what is none. */
function cellsOf(row: unknown): Cells | null {
  if (typeof row !== 'object' || row === null || Array.isArray(row)) return null;
  const cells = STOCK_COLUMNS.map((name) => [name, (row as Record<string, unknown>)[name] ?? ''] as const);
  return cells.every(([, value]) => typeof value === 'string' || typeof value === 'number') ? Object.fromEntries(cells.map(([name, value]) => [name, String(value)])) : null;
}

/** Reads every row, letting other requests in between; refuses with 422 and the first twenty that cannot be read. */
async function beltsOf(rows: readonly unknown[]): Promise<StockBelt[]> {
  const belts: StockBelt[] = [];
  const problems: DriveProblem[] = [];
  for (const [index, row] of rows.entries()) {
    if (index % AT_ONCE === 0) await new Promise((resolve) => setImmediate(resolve));
    const cells = cellsOf(row);
    const read = cells ? readStockRow(cells) : { ok: false as const, problem: 'must be a row: an object of texts and numbers' };
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
    const { search, limit, offset } = pageOf(request, 500);
    const query = filtered(stock.createQueryBuilder('belt'), request.query, search);
    const [belts, total] = await Promise.all([query.clone().orderBy('belt.section').addOrderBy('belt.ribs').addOrderBy('belt.lengthMm').addOrderBy('belt.id').offset(offset).limit(limit).getMany(), query.getCount()]);
    response.json({ belts, total });
  });

  // Every length of one kind, however long the list: Size must not miss those about its window.
  router.get('/lengths', async (request, response) => {
    const rows = await filtered(stock.createQueryBuilder('belt'), request.query, '')
      .select('belt.lengthMm', 'lengthMm')
      .addSelect('SUM(belt.shelf)', 'shelf')
      .groupBy('belt.lengthMm')
      .orderBy('belt.lengthMm')
      .getRawMany<{ lengthMm: number; shelf: string }>();
    response.json({ lengths: rows.map(({ lengthMm, shelf }) => ({ lengthMm, shelf: Number(shelf) })) });
  });

  router.get('/file', async (_request, response) => {
    response.type('text/csv').set('Content-Disposition', 'attachment; filename="emery-belts.csv"').send(stockCsv(await stockRows(data.manager)));
  });

  router.post('/', async (request, response) => {
    const { replace, rows } = await bodyOf(importBody, request.body);
    const belts = await beltsOf(rows);
    await data.transaction(async (manager) => {
      if (replace) await manager.createQueryBuilder().delete().from(StockEntity).execute();
      for (let from = 0; from < belts.length; from += BATCH) await manager.insert(StockEntity, belts.slice(from, from + BATCH) as StockBelt[]);
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

/** A pattern that finds `text` anywhere in a code in small letters. */
const inCode = (text: string) => Buffer.from(likeAnywhere(text.toLowerCase()));

function filtered(query: SelectQueryBuilder<StockRow>, asked: Record<string, unknown>, search: string): SelectQueryBuilder<StockRow> {
  const { section, ribs, from, to } = asked;
  if (typeof section === 'string' && section !== '') query.andWhere('belt.section = :section', { section });
  if (typeof ribs === 'string' && Number.isInteger(Number(ribs)) && ribs !== '') query.andWhere('belt.ribs = :ribs', { ribs: Number(ribs) });
  for (const [name, sign, value] of [['from', '>=', from], ['to', '<=', to]] as const) {
    if (typeof value === 'string' && value !== '' && Number.isFinite(Number(value))) query.andWhere(`belt.lengthMm ${sign} :${name}`, { [name]: Number(value) });
  }
  // A plain number is a length as well as part of a code.
  const mm = Number(search);
  if (search !== '' && Number.isFinite(mm)) query.andWhere('(belt.codeKey LIKE :like OR belt.lengthMm BETWEEN :least AND :most)', { like: inCode(search), least: mm - 0.5, most: mm + 0.5 });
  else if (search !== '') query.andWhere('(belt.codeKey LIKE :like OR belt.section LIKE :section_like)', { like: inCode(search), section_like: likeAnywhere(search) });
  return query;
}
