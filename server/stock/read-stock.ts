import { readJson } from '../http/json-body';
import { invalid, readBody } from '../http/problem';
import { rowsBody } from '../http/rows-body';
import type { DriveProblem, JsonBounds } from '@emery/core/drive';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';

const MOST_ROWS = 50_000;
/** Rows handed over at a time. */
const AT_ONCE = 500;
/** A row has a dozen values at most. */
const STOCK_BOUNDS: JsonBounds = { depth: 5, values: 12 * MOST_ROWS };

// The rows themselves are read one by one below, once it is known that there are not too many.
const body = rowsBody(MOST_ROWS);

type Cells = Readonly<Record<string, string>>;

/** A row as text, or null for what is none. */
function cellsOf(row: unknown): Cells | null {
  if (typeof row !== 'object' || row === null || Array.isArray(row)) return null;
  const cells = STOCK_COLUMNS.map((name) => [name, (row as Record<string, unknown>)[name] ?? ''] as const);
  return cells.every(([, value]) => typeof value === 'string' || typeof value === 'number')
    ? Object.fromEntries(cells.map(([name, value]) => [name, String(value)]))
    : null;
}

/**
 * Reads a list of belts that is brought in: first whether it takes the place of the one that is there, then its belts.
 * Refuses with 422 and the first twenty rows that cannot be read.
 */
export function* readStock(bytes: Uint8Array): Generator<{ replace: boolean } | readonly StockBelt[]> {
  const { replace, rows } = readBody(body, readJson(bytes, STOCK_BOUNDS));
  const belts: StockBelt[] = [];
  const problems: DriveProblem[] = [];
  for (const [index, row] of rows.entries()) {
    const cells = cellsOf(row);
    const read = cells
      ? readStockRow(cells)
      : { ok: false as const, problem: 'must be a row: an object of texts and numbers' };
    if (read.ok) belts.push(read.belt);
    else if (problems.push({ path: `rows[${index}]`, message: read.problem }) >= 20) break;
  }
  if (problems.length > 0) throw invalid(problems);
  yield { replace: replace === true };
  for (let from = 0; from < belts.length; from += AT_ONCE) yield belts.slice(from, from + AT_ONCE);
}
