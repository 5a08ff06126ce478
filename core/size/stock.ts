import { parseLength, textOfCell } from '../quantity';
import { readMarking, sectionFor } from '../section';

/** A belt in the shop's own list. */
export interface StockBelt {
  section: string;
  ribs: number | null;
  lengthMm: number;
  code: string;
  price: number | null;
  /** How many lie on the shelf. */
  shelf: number;
}

export const STOCK_COLUMNS = ['marking', 'section', 'ribs', 'length', 'code', 'price', 'shelf'] as const;

/** A marking that is read with less certainty than this is asked about. A default. */
const SURE_ENOUGH = 0.8;

export type StockRowRead = { ok: true; belt: StockBelt } | { ok: false; problem: string };

/**
 * Reads one row of a stock list. Section, ribs and length may be given apart (a bare length is mm), or together as the
 * belt's `marking`; what is given apart wins. The problem names the column and what is accepted.
 */
export function readStockRow(row: Readonly<Record<string, string | undefined>>): StockRowRead {
  const cell = (name: (typeof STOCK_COLUMNS)[number]) => (row[name] ?? '').trim();
  const bad = (problem: string): StockRowRead => ({ ok: false, problem });
  const readings = cell('marking') === '' ? [] : readMarking(cell('marking'));
  const marked = readings[0] ?? null;
  if (cell('marking') !== '' && !marked && cell('section') === '')
    return bad(`marking: "${cell('marking')}" is in no general scheme; give section, ribs and length instead`);
  if (marked && marked.likelihood < SURE_ENOUGH && (cell('section') === '' || cell('length') === ''))
    return bad(
      `marking: "${cell('marking')}" can be read more than one way (${readings
        .slice(0, 2)
        .map(
          ({ section: name, ribs, lengthMm }) =>
            `${ribs === null ? '' : `${ribs}-rib `}${name}, ${Math.round(lengthMm)} mm`,
        )
        .join('; or ')}); give section, ribs and length as well`,
    );
  const section = cell('section') || marked?.section || '';
  const known = sectionFor(section);
  if (!known)
    return bad(
      section === ''
        ? 'section: is missing; give it, or a marking'
        : `section: "${section}" is none Emery knows, such as PK or AV13`,
    );
  const ribs = cell('ribs') === '' ? (marked?.ribs ?? null) : Number(cell('ribs'));
  if (known.kind === 'ribbed' && (ribs === null || !Number.isInteger(ribs) || ribs < 1 || ribs > 60))
    return bad('ribs: a whole number from 1 to 60 is accepted for a ribbed belt');
  const printed = marked ? { ok: true as const, mm: marked.lengthMm } : null;
  const length = cell('length') === '' ? printed : parseLength(cell('length'), 'mm');
  if (!length) return bad('length: is missing; give it, or a marking');
  if (!length.ok) return bad(`length: ${length.problem}`);
  if (length.mm < 100 || length.mm > 20_000) return bad('length: 100 to 20,000 mm is accepted');
  const price = cell('price') === '' ? null : priceOf(cell('price'));
  if (price === 'unclear')
    return bad(`price: "${cell('price')}" can be read two ways; write it without parting the thousands`);
  if (price !== null && !(price >= 0 && price < 1e6)) return bad('price: a figure of 0 or more is accepted');
  const shelf = cell('shelf') === '' ? 0 : Number(cell('shelf'));
  if (!Number.isInteger(shelf) || shelf < 0 || shelf > 9999)
    return bad('shelf: a whole number from 0 to 9999 is accepted');
  const code = textOfCell(cell('code'));
  if (code.length > 60) return bad('code: 60 characters at most are accepted');
  return {
    ok: true,
    belt: {
      section,
      ribs: known.kind === 'ribbed' ? ribs : null,
      lengthMm: Math.round(length.mm * 100) / 100,
      code,
      price,
      shelf,
    },
  };
}

/**
 * A price as it is written here or there; NaN for what is none, 'unclear' for one sign before three figures, which may
 * part the thousands or begin the cents.
 */
function priceOf(text: string): number | 'unclear' {
  const figures = text.replace(/[^\d.,-]/g, '');
  if (/^\d{1,3}[.,]\d{3}$/.test(figures) && !figures.startsWith('0')) return 'unclear';
  if (/^[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/.test(figures)) return Number(figures.replaceAll(',', ''));
  if (/^[1-9]\d{0,2}(\.\d{3})+(,\d+)?$/.test(figures)) return Number(figures.replaceAll('.', '').replace(',', '.'));
  return Number(figures.replace(',', '.'));
}
