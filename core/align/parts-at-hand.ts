import { csvCell, parseLength, readNumber, textOfCell } from '../quantity';

/** What a part in a stack is. */
export const PART_KINDS = ['hub', 'pump', 'spacer', 'bracket', 'other'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** A hub, pump or spacer that the shop has or can have, by how deep it builds. */
export interface PartAtHand {
  id: string;
  label: string;
  kind: PartKind;
  /** What it adds between the block's face and the groove, mm. */
  mm: number;
  /** One standard deviation of that. */
  plusMinus: number | null;
  price: number | null;
  /** How many there are. */
  count: number;
}

export const PART_COLUMNS = ['label', 'kind', 'depth', 'plusminus', 'price', 'count'] as const;
export type PartRead = { ok: true; part: Omit<PartAtHand, 'id'> } | { ok: false; column: string; problem: string };

/** The most parts that a shop keeps. */
export const MOST_PARTS = 500;

/**
 * Reads one row of a list of parts: label, kind, depth (a bare figure is mm), plusminus, price, count; the last three
 * may be empty. The problem names the column and what is accepted.
 */
export function readPartRow(row: Readonly<Record<string, unknown>>): PartRead {
  const odd = PART_COLUMNS.find((name) => !['string', 'number'].includes(typeof (row[name] ?? '')));
  if (odd) return { ok: false, column: odd, problem: 'must be text or a number' };
  const cell = (name: (typeof PART_COLUMNS)[number]) => String(row[name] ?? '').trim();
  const bad = (column: (typeof PART_COLUMNS)[number], problem: string): PartRead => ({ ok: false, column, problem });
  const label = textOfCell(cell('label'));
  if (label === '') return bad('label', 'is missing: every part needs a name');
  if (label.length > 80) return bad('label', '80 characters at most are accepted');
  const kind = (cell('kind').toLowerCase() || 'other') as PartKind;
  if (!PART_KINDS.includes(kind)) return bad('kind', `must be one of ${PART_KINDS.join(', ')}`);
  const depth = parseLength(cell('depth'), 'mm');
  if (!depth.ok) return bad('depth', depth.problem);
  if (Math.abs(depth.mm) > 1000) return bad('depth', '−1,000 to 1,000 mm is accepted');
  const figure = (name: 'plusminus' | 'price') => {
    const text = cell(name);
    const read = readNumber(text);
    if (text === '') return null;
    return read.ok ? read.value : Number.NaN;
  };
  const [plusMinus, price] = [figure('plusminus'), figure('price')];
  if (plusMinus !== null && !(plusMinus > 0 && plusMinus <= 50))
    return bad('plusminus', 'more than 0 and up to 50 mm is accepted');
  if (price !== null && !(price >= 0 && price < 1e6)) return bad('price', 'a price of 0 or more is accepted');
  const count = cell('count') === '' ? 1 : Number(cell('count'));
  if (!Number.isInteger(count) || count < 1 || count > 9999)
    return bad('count', 'a whole number from 1 to 9999 is accepted');
  return { ok: true, part: { label, kind, mm: Math.round(depth.mm * 1000) / 1000, plusMinus, price, count } };
}

/** A part as a row of a list. */
export const partRow = ({ label, kind, mm, plusMinus, price, count }: Omit<PartAtHand, 'id'>) => ({
  label: csvCell(label),
  kind,
  depth: mm,
  plusminus: plusMinus ?? '',
  price: price ?? '',
  count,
});
