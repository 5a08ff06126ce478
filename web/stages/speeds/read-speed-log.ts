import { grouped } from '@emery/core/quantity';
import papaparse from 'papaparse';
import { delimiterOf } from '../../stock/read-csv';
import type { UseBin } from '@emery/core/drive';
import { addLogRow, binsOfLog, logColumns, type LogColumns, newSpeedLog, type SpeedLog } from '@emery/core/speeds';

/** What a CSV log of time and engine speed comes to, or why it cannot be read. */
export type SpeedLogRead =
  | ({ ok: true; bins: UseBin[] } & Pick<SpeedLog, 'rows' | 'bad' | 'firstBad' | 'runningS' | 'standingS' | 'pauses'>)
  | { ok: false; problem: string };

/**
 * Reads a log piece by piece, so that a long one needs no more memory than a short one. Tells the share of the file
 * that is done.
 */
export async function readSpeedLog(
  file: File | string,
  onProgress: (share: number) => void = () => undefined,
): Promise<SpeedLogRead> {
  const head = typeof file === 'string' ? file.slice(0, 4096) : await file.slice(0, 4096).text();
  // Where commas are decimal, something else stands between the columns.
  const delimiter = delimiterOf(head);
  const size = typeof file === 'string' ? file.length : file.size;
  const log = newSpeedLog();
  let columns: LogColumns | null = null;
  let first = true;
  let line = 0;
  let next = 1;
  let quote: boolean | null = null;
  let problem = '';
  return new Promise((resolve) => {
    const options = {
      delimiter,
      chunkSize: 1 << 20,
      chunk: ({ data, meta, errors }: papaparse.ParseResult<string[]>, parser: papaparse.Parser) => {
        if (errors.some(({ code }) => code === 'MissingQuotes')) quote ??= true;
        for (const row of data) {
          line = next;
          next += 1 + row.reduce((sum, cell) => sum + (cell.match(/\n/g)?.length ?? 0), 0);
          if (first) {
            first = false;
            const found = logColumns(row);
            columns = found && { ...found, commas: delimiter === ',' };
            if (!columns) {
              problem = `The first line reads "${row.join(', ').slice(0, 80)}". Emery looks for two columns: a time (time, s, ms, or a clock) and the engine's speed (rpm or rev/min).`;
              parser.abort();
              return;
            }
            if (columns.heading) continue;
          }
          if (row.some((cell) => cell.includes('\n'))) quote = true;
          addLogRow(log, row, columns!, line);
        }
        onProgress(Math.min(1, meta.cursor / Math.max(1, size)));
      },
      complete: () =>
        resolve(problem === '' && !quote ? outcome(log) : { ok: false, problem: problem || unclosedQuote(line) }),
      error: ({ message }: Error) => resolve({ ok: false, problem: `The file could not be read: ${message}` }),
    };
    if (typeof file === 'string')
      papaparse.parse<string[]>(file, { ...options, download: false } as papaparse.ParseConfig<string[]>);
    else papaparse.parse<string[], File>(file, options);
  });
}

function outcome(log: SpeedLog): SpeedLogRead {
  const { rows, bad, firstBad, runningS, standingS, pauses } = log;
  if (rows === 0) return { ok: false, problem: 'The file is empty.' };
  const bins = binsOfLog(log);
  if (bins.length === 0)
    return {
      ok: false,
      problem: `The engine does not run in this log: ${grouped(rows)} rows, ${grouped(bad)} of them not understood.`,
    };
  return { ok: true, bins, rows, bad, firstBad, runningS, standingS, pauses };
}

const unclosedQuote = (line: number) =>
  `A quotation mark (") is opened near line ${line} and not closed, so the rows after it cannot be read. Remove it and import the log again.`;
