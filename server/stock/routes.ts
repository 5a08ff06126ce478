import { Router } from 'express';
import type { DataSource, EntityManager } from 'typeorm';
import { piecesOf } from '../check';
import { StockEntity, type StockRow } from './entity';
import { bytesOf } from '../http/json-body';
import { likeAnywhere, pageOf, type Page } from '../http/listing';
import { notFound } from '../http/problem';
import { sendFile } from '../http/send-file';
import { alone } from '../storage/alone';
import { change } from '../storage/change';
import { inSnapshot } from '../storage/snapshot';
import { stockCsv } from './stock-csv';
import { addBelts, replaceBelts } from './take-belts';
import { MANY } from '../vehicles/search-index';
import { SECTION_NAMES } from '@emery/core/section';
import type { StockBelt } from '@emery/core/size';

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
    const lines = inSnapshot(data, (manager) => stockCsv(manager, false));
    await sendFile(response, { name: 'emery-belts.csv', type: 'text/csv' }, lines);
  });

  router.post('/', async (request, response) => {
    const bytes = bytesOf(request.body);
    let replace = false;
    const belts: StockBelt[] = [];
    for await (const piece of piecesOf('stock', bytes, bytes.length))
      if ('replace' in piece) ({ replace } = piece);
      else belts.push(...piece);
    // One list at a time: two that are brought in anew would otherwise both stay.
    await alone(data, 'belts', () =>
      change(data, (manager) => (replace ? replaceBelts(manager, belts) : addBelts(manager, belts))),
    );
    response.status(201).json({ total: await stock.count() });
  });

  router.delete('/:id', async (request, response) => {
    const id = Number(request.params.id);
    if (!Number.isSafeInteger(id)) throw notFound('belt');
    const { affected } = await stock.delete({ id });
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
  const from = found
    ? `stock_belt AS belt FORCE INDEX (stock_by_size) STRAIGHT_JOIN ${found.sql} ON belt.id = found.id`
    : 'stock_belt AS belt FORCE INDEX (stock_by_size)';
  const all = [...(found?.values ?? []), ...values];
  const [counted] = await manager.query<[{ total: string }]>(
    `SELECT COUNT(*) AS total FROM ${found && where === '' ? found.sql : from} ${where}`,
    all,
  );
  return {
    belts: await manager.query<StockRow[]>(`SELECT ${columns} FROM ${from} ${where} ${order}`, [...all, limit, offset]),
    total: Number(counted.total),
  };
}
