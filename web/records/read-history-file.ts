import { grouped } from '@emery/core/quantity';
import { decoded, delimiterOf, eachCsvRow } from '../stock/read-csv';
import { HISTORY_COLUMNS, type HistoryColumn } from '@emery/core/records';

export interface HistoryFile {
  name: string;
  /** Rows as the server is to get them, each with its line in the file. */
  rows: { line: number; cells: Partial<Record<HistoryColumn, string>> }[];
  note: string | null;
}
export type HistoryFileRead = { ok: true; file: HistoryFile } | { ok: false; problem: string };

const MOST_ROWS = 2000;
const MOST_BYTES = 2_000_000;

/** Reads a CSV list of old belts, with a first line of column names; tells what is wrong with one that is none. */
export function readHistoryFile(name: string, bytes: Uint8Array): HistoryFileRead {
  const refuse = (problem: string): HistoryFileRead => ({ ok: false, problem: `${name} ${problem}` });
  if (bytes.length > MOST_BYTES) return refuse('holds more than 2 MB: import it in parts.');
  const { text, note } = decoded(bytes);
  const rows: HistoryFile['rows'] = [];
  let columns: string[] | null = null;
  const quote = eachCsvRow(text, delimiterOf(text), ({ line, cells }) => {
    if (!columns) {
      columns = cells.map((cell) => cell.trim().toLowerCase());
      return columns.includes('vehicle');
    }
    const known = columns.flatMap((column, k) =>
      (HISTORY_COLUMNS as readonly string[]).includes(column) ? [[column, cells[k] ?? ''] as const] : [],
    );
    rows.push({ line, cells: Object.fromEntries(known) });
    return rows.length <= MOST_ROWS;
  });
  if (quote !== null) return refuse(`has a quotation mark (") on line ${quote} that is not closed.`);
  // Assigned inside the walk, which the compiler does not see.
  if (!(columns as string[] | null)?.includes('vehicle'))
    return refuse(`has no first line with the columns ${HISTORY_COLUMNS.join(', ')}.`);
  if (rows.length > MOST_ROWS) return refuse(`holds more than ${grouped(MOST_ROWS)} rows: import it in parts.`);
  if (rows.length === 0) return refuse('holds no rows below its first line.');
  return { ok: true, file: { name, rows, note } };
}
