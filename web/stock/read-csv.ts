import papaparse from 'papaparse';

/** A file as text, and how it was read where that is worth a look. */
export interface DecodedText {
  text: string;
  /** Told where the file is not UTF-8, as most programs write it. */
  note: string | null;
}

/** Reads a text file: UTF-8, UTF-16 by its mark, and else Windows-1252, which is said. */
export function decoded(bytes: Uint8Array): DecodedText {
  const mark = BYTE_ORDERS.find(([first, second]) => bytes[0] === first && bytes[1] === second)?.[2];
  if (mark) return { text: new TextDecoder(mark).decode(bytes), note: null };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), note: null };
  } catch {
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      note: 'The file is not UTF-8, so it was read as Windows-1252. Check letters with accents before you import it.',
    };
  }
}

/** A row of a CSV file with the line of the file it begins on. */
export interface CsvRow {
  line: number;
  cells: string[];
}

/** The sign between the columns: commas, unless the first line has another. */
export const delimiterOf = (head: string): string =>
  [';', '\t'].find((mark) => (head.split('\n')[0] ?? '').includes(mark)) ?? ',';

/**
 * Goes through the rows of a CSV text, blank ones left out, until `onRow` says false. Returns the line of a quotation
 * mark that is opened and never closed, and so swallows what follows; null where there is none.
 */
export function eachCsvRow(text: string, delimiter: string, onRow: (row: CsvRow) => boolean): number | null {
  let line = 1;
  let open: number | null = null;
  papaparse.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter,
    step: ({ data: cells, errors }, parser) => {
      if (errors.some(({ code }) => code === 'MissingQuotes')) {
        open = line;
        parser.abort();
        return;
      }
      const blank = cells.every((cell) => cell.trim() === '');
      if (!blank && !onRow({ line, cells })) parser.abort();
      line += 1 + cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
    },
  });
  return open;
}

/** The marks that a file in UTF-16 begins with. */
const BYTE_ORDERS = [
  [0xff, 0xfe, 'utf-16le'],
  [0xfe, 0xff, 'utf-16be'],
] as const;
