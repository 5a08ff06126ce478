import papaparse from 'papaparse';
import { readStockRow, STOCK_COLUMNS, type StockBelt } from '@emery/core/size';

export interface StockFile {
  name: string;
  /** Rows as the server is to get them, for those that can be read. */
  good: { row: Record<string, string>; belt: StockBelt }[];
  /** Rows that cannot be taken in: their line in the file, what they say, and why not. */
  bad: { line: number; text: string; problem: string }[];
}

const MOST_ROWS = 50_000;

/** Reads a CSV list of belts, separated by commas, semicolons or tabs, with a first line of column names. Rejects with words for the user. */
export async function readStockFile(file: File): Promise<StockFile> {
  const text = (await file.text()).replace(/^\uFEFF/, '');
  const { data, meta } = papaparse.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy', transformHeader: (name) => name.trim().toLowerCase() });
  const known = (meta.fields ?? []).filter((name) => (STOCK_COLUMNS as readonly string[]).includes(name));
  if (!known.includes('marking') && !(known.includes('section') && known.includes('length'))) {
    throw new Error(`${file.name}: the first line must name the columns: section, ribs, length, code, price, shelf; or marking in place of the first three.`);
  }
  if (data.length > MOST_ROWS) throw new Error(`${file.name} holds ${data.length.toLocaleString('en')} rows; ${MOST_ROWS.toLocaleString('en')} at most go in at once.`);
  const read: StockFile = { name: file.name, good: [], bad: [] };
  data.forEach((cells, index) => {
    const row = Object.fromEntries(known.map((name) => [name, cells[name] ?? '']));
    const belt = readStockRow(row);
    if (belt.ok) read.good.push({ row, belt: belt.belt });
    else read.bad.push({ line: index + 2, text: Object.values(row).join(', '), problem: belt.problem });
  });
  return read;
}
