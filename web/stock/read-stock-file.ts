import { grouped } from '@emery/core/quantity';
import { decoded, delimiterOf, eachCsvRow } from './read-csv';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';

export interface StockFile {
  name: string;
  /** Rows as the server is to get them, for those that can be read. */
  good: { row: Record<string, string>; belt: StockBelt }[];
  /** Rows that cannot be taken in: their line in the file, what they say, and why not. */
  bad: { line: number; text: string; problem: string }[];
  /** What is to be known about how the file was read; null where nothing is. */
  note: string | null;
}

export type StockFileRead = { ok: true; file: StockFile } | { ok: false; problem: string };

const MOST_ROWS = 50_000;
const MOST_BYTES = 50_000_000;
/** Rows read between two words on how far it is. */
const AT_ONCE = 2000;

/**
 * Reads a CSV list of belts, separated by commas, semicolons or tabs, with a first line of column names. Tells the
 * share that is done.
 */
export async function readStockFile(
  file: File,
  onProgress: (share: number) => void = () => undefined,
): Promise<StockFileRead> {
  const refuse = (problem: string): StockFileRead => ({ ok: false, problem: `${file.name} ${problem}` });
  if (file.size > MOST_BYTES) return refuse(`holds ${Math.round(file.size / 1e6)} MB; 50 MB at most are read.`);
  const { text, note } = decoded(new Uint8Array(await file.arrayBuffer()));
  const read: StockFile = { name: file.name, good: [], bad: [], note };
  let columns: string[] | null = null;
  let rows = 0;
  const quote = eachCsvRow(text, delimiterOf(text), ({ line, cells }) => {
    if (!columns) {
      columns = cells.map((name) => name.trim().toLowerCase());
      return knows(columns);
    }
    rows += 1;
    if (rows > MOST_ROWS) return false;
    if (rows % AT_ONCE === 0) onProgress(Math.min(1, rows / MOST_ROWS));
    const row = Object.fromEntries(
      columns.flatMap((name, k) =>
        (STOCK_COLUMNS as readonly string[]).includes(name) ? [[name, cells[k] ?? ''] as const] : [],
      ),
    );
    const broken = cells.some((cell) => /[\r\n]/.test(cell));
    const belt = broken
      ? { ok: false as const, problem: 'a cell goes over several lines; a quotation mark (") may not be closed' }
      : readStockRow(row);
    if (belt.ok) read.good.push({ row, belt: belt.belt });
    else
      read.bad.push({
        line,
        text: Object.values(row).join(', ').replace(/\s+/g, ' ').slice(0, 120),
        problem: belt.problem,
      });
    return true;
  });
  if (!columns || !knows(columns))
    return refuse(
      'must name the columns in its first line: section, ribs, length, code, price, shelf; or marking instead of the first three.',
    );
  if (rows > MOST_ROWS)
    return refuse(`holds more than ${grouped(MOST_ROWS)} rows, the most that can be imported at once.`);
  if (quote !== null)
    read.bad.push({
      line: quote,
      text: text.split('\n')[quote - 1]!.trim().slice(0, 120),
      problem: 'a quotation mark (") is opened here and never closed, so the rest could not be read',
    });
  return { ok: true, file: read };
}

const knows = (columns: readonly string[]) =>
  columns.includes('marking') || (columns.includes('section') && columns.includes('length'));
