import { Router } from 'express';
import papaparse from 'papaparse';
import type { DataSource, SelectQueryBuilder } from 'typeorm';
import { array, mixed, object } from 'yup';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';
import { StockEntity, type StockRow } from '../entities';
import { likeAnywhere, pageOf } from '../listing';
import { bodyOf, invalid, notFound } from '../problem';

const MOST_ROWS = 50_000;
/** Rows written in one statement. */
const BATCH = 1000;

const importBody = object({
  replace: mixed<boolean>().test('boolean', 'must be true or false', (value) => value === undefined || typeof value === 'boolean'),
  rows: array().of(object().required()).max(MOST_ROWS, `holds more than ${MOST_ROWS} rows`).required('is missing'),
}).required();

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
    const belts = await stock.find({ order: { section: 'ASC', ribs: 'ASC', lengthMm: 'ASC', id: 'ASC' } });
    const rows = belts.map(({ section, ribs, lengthMm, code, price, shelf }) => ({ section, ribs: ribs ?? '', length: lengthMm, code: asText(code), price: price ?? '', shelf }));
    const columns = STOCK_COLUMNS.filter((column) => column !== 'marking');
    response.type('text/csv').set('Content-Disposition', 'attachment; filename="emery-belts.csv"').send(papaparse.unparse(rows, { columns: [...columns] }));
  });

  router.post('/', async (request, response) => {
    const { replace, rows } = await bodyOf(importBody, request.body);
    const belts = rows.map((row, index) => {
      const read = readStockRow(Object.fromEntries(Object.entries(row as object).map(([name, value]) => [name, value === null || value === undefined ? '' : String(value)])));
      if (read.ok) return read.belt;
      throw invalid([{ path: `rows[${index}]`, message: read.problem }]);
    });
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

function filtered(query: SelectQueryBuilder<StockRow>, asked: Record<string, unknown>, search: string): SelectQueryBuilder<StockRow> {
  const { section, ribs, from, to } = asked;
  if (typeof section === 'string' && section !== '') query.andWhere('belt.section = :section', { section });
  if (typeof ribs === 'string' && Number.isInteger(Number(ribs)) && ribs !== '') query.andWhere('belt.ribs = :ribs', { ribs: Number(ribs) });
  for (const [name, sign, value] of [['from', '>=', from], ['to', '<=', to]] as const) {
    if (typeof value === 'string' && value !== '' && Number.isFinite(Number(value))) query.andWhere(`belt.lengthMm ${sign} :${name}`, { [name]: Number(value) });
  }
  // A plain number is a length as well as part of a code.
  const mm = Number(search);
  if (search !== '' && Number.isFinite(mm)) query.andWhere('(belt.code LIKE :like OR belt.lengthMm BETWEEN :least AND :most)', { like: likeAnywhere(search), least: mm - 0.5, most: mm + 0.5 });
  else if (search !== '') query.andWhere('(belt.code LIKE :like OR belt.section LIKE :like)', { like: likeAnywhere(search) });
  return query;
}

/** A code that a spreadsheet would take for a formula goes out as plain text. */
function asText(code: string): string {
  return /^[=+\-@\t]/.test(code) ? `'${code}` : code;
}
