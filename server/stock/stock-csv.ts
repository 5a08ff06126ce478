import papaparse from 'papaparse';
import type { EntityManager } from 'typeorm';
import { otherTurns } from '../http/in-turns';
import type { StockRow } from './entity';
import { csvCell } from '@emery/core/quantity';
import { STOCK_COLUMNS } from '@emery/core/size';

/** Rows read, and written, between two looks at what else is asked of the server. */
const PAGE = 500;
const COLUMNS = STOCK_COLUMNS.filter((column) => column !== 'marking');

/**
 * The list of belts in its order as CSV, a page at a time. An archive has the number of each row as well, by which its
 * jobs name it.
 */
export async function* stockCsv(manager: EntityManager, withIds: boolean): AsyncGenerator<string> {
  const columns = withIds ? ['id', ...COLUMNS] : COLUMNS;
  // The head goes with the first of them: until there is one, what goes wrong can still be told.
  let head = papaparse.unparse([columns]);
  for await (const belts of stockPages(manager)) {
    await otherTurns();
    const cells = belts.map(({ id, section, ribs, lengthMm, code, price, shelf }) => [
      ...(withIds ? [id] : []),
      ...[section, ribs ?? '', lengthMm, csvCell(code), price ?? '', shelf],
    ]);
    yield `${head}\r\n${papaparse.unparse(cells)}`;
    head = '';
  }
  if (head !== '') yield head;
}

/** One kind of belt after the other, and within it by length: each page goes on where the last one ended. */
async function* stockPages(manager: EntityManager): AsyncGenerator<StockRow[]> {
  const kinds = await manager.query<Pick<StockRow, 'section' | 'ribs'>[]>(
    'SELECT section, ribs FROM stock_belt GROUP BY section, ribs ORDER BY section, ribs',
  );
  for (const { section, ribs } of kinds) {
    for (let last = { lengthMm: -1, id: 0 }; ;) {
      const page = await manager.query<StockRow[]>(
        `SELECT id, section, ribs, lengthMm, code, price, shelf FROM stock_belt
         WHERE section = ? AND ribs <=> ? AND (lengthMm > ? OR (lengthMm = ? AND id > ?))
         ORDER BY lengthMm, id LIMIT ${PAGE}`,
        [section, ribs, last.lengthMm, last.lengthMm, last.id],
      );
      if (page.length > 0) yield page;
      if (page.length < PAGE) break;
      last = page.at(-1)!;
    }
  }
}
