import type { EntityManager } from 'typeorm';
import { inTurns, otherTurns } from '../http/in-turns';
import type { StockRow } from './entity';
import type { StockBelt } from '@emery/core/size';

/** Rows compared between two looks at what else is asked of the server, and rows written in one statement. */
const AT_ONCE = 200;
const BATCH = 1000;

/** What makes two rows the same belt, whatever it costs and however many there are. */
export const stockKey = ({ section, ribs, lengthMm, code }: Omit<StockBelt, 'price' | 'shelf'>) =>
  JSON.stringify([section, ribs, lengthMm, code]);

/** Adds belts to the list. */
export async function addBelts(manager: EntityManager, belts: readonly StockBelt[]): Promise<void> {
  for (let from = 0; from < belts.length; from += BATCH) {
    await otherTurns();
    const rows = belts.slice(from, from + BATCH);
    await manager.query('INSERT INTO stock_belt (section, ribs, lengthMm, code, price, shelf) VALUES ?', [
      rows.map(({ section, ribs, lengthMm, code, price, shelf }) => [section, ribs, lengthMm, code, price, shelf]),
    ]);
  }
}

/**
 * Puts belts in place of the list. A belt that is in the list that was and in the one that comes stays the row it is:
 * jobs in hand know it by that.
 */
export async function replaceBelts(manager: EntityManager, belts: readonly StockBelt[]): Promise<void> {
  const rows = new Map<string, StockRow[]>();
  for (let last = 0; ;) {
    const page = await manager.query<StockRow[]>(
      `SELECT id, section, ribs, lengthMm, code, price, shelf FROM stock_belt WHERE id > ? ORDER BY id
       LIMIT ${BATCH} FOR UPDATE`,
      [last],
    );
    for (const row of page) {
      const alike = rows.get(stockKey(row));
      if (alike) alike.push(row);
      else rows.set(stockKey(row), [row]);
    }
    if (page.length < BATCH) break;
    last = page.at(-1)!.id;
  }
  const changed: StockRow[] = [];
  const fresh: StockBelt[] = [];
  await inTurns(belts, AT_ONCE, (belt) => {
    const row = rows.get(stockKey(belt))?.shift();
    if (!row) fresh.push(belt);
    else if (row.price !== belt.price || row.shelf !== belt.shelf) changed.push({ ...belt, id: row.id });
  });
  for (let from = 0; from < changed.length; from += BATCH) {
    await otherTurns();
    const some = changed.slice(from, from + BATCH);
    await manager.query(
      `INSERT INTO stock_belt (id, section, ribs, lengthMm, code, price, shelf) VALUES ?
       ON DUPLICATE KEY UPDATE price = VALUES(price), shelf = VALUES(shelf)`,
      [
        some.map(({ id, section, ribs, lengthMm, code, price, shelf }) => [
          id,
          section,
          ribs,
          lengthMm,
          code,
          price,
          shelf,
        ]),
      ],
    );
  }
  const gone: number[] = [];
  await inTurns([...rows.values()], AT_ONCE, (left) => gone.push(...left.map(({ id }) => id)));
  for (let from = 0; from < gone.length; from += BATCH)
    await manager.query('DELETE FROM stock_belt WHERE id IN (?)', [gone.slice(from, from + BATCH)]);
  await addBelts(manager, fresh);
}
