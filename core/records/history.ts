import {
  type Belt,
  type BeltCare,
  changeBelt,
  type ChangedPart,
  type ChangedWhy,
  type Drive,
  freeIdIn,
  itemsOf,
  momentOf,
  withItems,
} from '../drive';
import { readNumber, textOfCell, grouped } from '../quantity';
import { readMarking } from '../section';
import { WHY_WORDS } from './story';

/** The columns of a list of belts from before Emery. */
export const HISTORY_COLUMNS = [
  'vehicle',
  'belt',
  'number',
  'fitted',
  'odometer',
  'taken off',
  'odometer off',
  'why',
] as const;
export type HistoryColumn = (typeof HISTORY_COLUMNS)[number];

/** One belt that a vehicle had, or has on: when and at what reading of the odometer it went on, and came off. */
export interface HistoryRow {
  /** Its name or its plate. */
  vehicle: string;
  /** Its marking, its number in the drive, or nothing where there is but one. */
  belt: string;
  number: string | null;
  fittedAt: string | null;
  fittedOdometer: number | null;
  /** Both null of a belt that is still on. */
  offAt: string | null;
  offOdometer: number | null;
  why: ChangedWhy | null;
}

export type HistoryRowRead = { ok: true; row: HistoryRow } | { ok: false; problem: string };

const WHY: Readonly<Record<string, ChangedWhy>> = {
  worn: 'worn',
  'worn out': 'worn',
  broke: 'broke',
  broken: 'broke',
  'in passing': 'in-passing',
  'in-passing': 'in-passing',
  'still good': 'in-passing',
};

/** Reads one row of the list; what cannot be read is told with its column and what is accepted. */
export function readHistoryRow(cells: Readonly<Partial<Record<HistoryColumn, string>>>): HistoryRowRead {
  const cell = (name: HistoryColumn) => textOfCell((cells[name] ?? '').trim());
  const bad = (problem: string): HistoryRowRead => ({ ok: false, problem });
  const vehicle = cell('vehicle');
  if (vehicle === '') return bad('vehicle: is missing; give its name or its plate');
  if (cell('number').length > 60) return bad('number: 60 characters at most are accepted');
  const fitted = dateOf(cell('fitted'));
  if (fitted === undefined) return bad(`fitted: ${DATE_WANTED}`);
  // Where it came off may be told by a day or by a reading.
  const offIsReading = /^[\d.,' ]+$/.test(cell('taken off')) && dateOf(cell('taken off')) === undefined;
  const off = offIsReading ? null : dateOf(cell('taken off'));
  if (off === undefined) return bad(`taken off: ${DATE_WANTED}, or a reading of the odometer`);
  const fittedOdometer = readingOf(cell('odometer'));
  if (fittedOdometer === undefined) return bad(`odometer: ${READING_WANTED}`);
  const offOdometer = readingOf(offIsReading ? cell('taken off') : cell('odometer off'));
  if (offOdometer === undefined) return bad(`${offIsReading ? 'taken off' : 'odometer off'}: ${READING_WANTED}`);
  const said = cell('why').toLowerCase();
  const why = said === '' ? null : (WHY[said] ?? undefined);
  if (why === undefined) return bad('why: worn, broke or in passing is accepted');
  if (fitted === null && fittedOdometer === null && off === null && offOdometer === null)
    return bad('fitted: a day or a reading of the odometer is needed, when it went on or came off');
  if (fitted !== null && off !== null && off < fitted) return bad('taken off: is before it was fitted');
  if (fittedOdometer !== null && offOdometer !== null && offOdometer < fittedOdometer)
    return bad('odometer off: is less than when it was fitted');
  return {
    ok: true,
    row: {
      ...{ vehicle, belt: cell('belt'), number: cell('number') || null },
      ...{ fittedAt: fitted, fittedOdometer, offAt: off, offOdometer, why },
    },
  };
}

const DATE_WANTED = 'a day such as 2024-05-31 is accepted';
const READING_WANTED = 'a reading such as 84300 is accepted';

/** A day, ISO 8601; null for an empty cell, undefined for what is none or could be two. */
function dateOf(text: string): string | null | undefined {
  if (text === '') return null;
  const iso = /^(\d{4})-(\d{1,2})(?:-(\d{1,2}))?(?:[T ].*)?$/.exec(text);
  if (iso) return dayFrom(Number(iso[1]), Number(iso[2]), Number(iso[3] ?? 1));
  // With points the day stands first; with strokes either may, so that it has to be beyond twelve.
  const written = /^(\d{1,2})([./])(\d{1,2})\2(\d{4})$/.exec(text);
  if (!written) return undefined;
  const [first, mark, second, year] = [Number(written[1]), written[2], Number(written[3]), Number(written[4])];
  if (mark === '.' || first > 12) return dayFrom(year, second, first);
  return second > 12 || first === second ? dayFrom(year, first, second) : undefined;
}

function dayFrom(year: number, month: number, day: number): string | undefined {
  const date = new Date(Date.UTC(year, month - 1, day));
  const real = year >= 1900 && year < 2200 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return real ? date.toISOString().slice(0, 10) : undefined;
}

/** A reading of the odometer; null for an empty cell, undefined for what is none. */
function readingOf(text: string): number | null | undefined {
  if (text === '') return null;
  const read = readNumber(text.replace(/\s*(km|mi|miles|h)$/i, ''), { whole: true, min: 0, max: 1e7 });
  return read.ok ? read.value : undefined;
}

/** The belts of a drive that a row may mean: by marking, or by number in the drive; all of them where it says none. */
export function beltsMeant({ belts }: Drive, text: string): Belt[] {
  if (text === '') return [...belts];
  const place = /^(?:belt\s*)?(\d{1,2})$/i.exec(text);
  if (place) return belts.slice(Number(place[1]) - 1, Number(place[1]));
  const readings = readMarking(text);
  const alike = belts.filter((belt) =>
    readings.some(
      ({ section, ribs }) =>
        section === belt.section && (ribs === null || belt.ribs === undefined || ribs === belt.ribs),
    ),
  );
  if (alike.length < 2) return alike;
  // Of two of a kind the one whose length is said.
  const near = alike.filter(({ length }) =>
    readings.some((reading) => length && Math.abs(reading.lengthMm - length) < 15),
  );
  return near.length > 0 ? near : alike;
}

/**
 * A drive with belts that it had before Emery, and the one that is on where nobody wrote that down. The same rows
 * brought in twice are there once.
 */
export function withHistory(drive: Drive, beltId: string, rows: readonly HistoryRow[]): Drive {
  return rows.reduce((now, row) => {
    if (row.offAt === null && row.offOdometer === null) return stillOn(now, beltId, row);
    return cameOff(now, beltId, row);
  }, drive);
}

function careOf({ number, fittedAt, fittedOdometer }: HistoryRow): BeltCare {
  return {
    ...(number !== null && { number }),
    ...(fittedAt !== null && { fittedAt }),
    ...(fittedOdometer !== null && { fittedOdometer }),
  };
}

function stillOn(drive: Drive, beltId: string, row: HistoryRow): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId)!;
  const { care } = belt;
  // What was written down here goes before what is brought in.
  const known = care?.fittedAt !== undefined || care?.fittedOdometer !== undefined;
  return known ? drive : changeBelt(drive, beltId, { care: { ...careOf(row), ...care } });
}

function cameOff(drive: Drive, beltId: string, row: HistoryRow): Drive {
  const changed = itemsOf(drive, 'inspect.changed');
  const { offAt, offOdometer, why, number } = row;
  const there = changed.some(
    ({ on, target, at, odometer, careBefore }) =>
      on === 'belt' &&
      target === beltId &&
      (at?.slice(0, 10) ?? null) === offAt &&
      (odometer ?? null) === offOdometer &&
      (careBefore?.number ?? null) === number,
  );
  if (there) return drive;
  const part: ChangedPart = {
    id: freeIdIn('changed', changed),
    on: 'belt',
    target: beltId,
    ...(offAt !== null && { at: offAt }),
    ...(offOdometer !== null && { odometer: offOdometer }),
    ...(why && { why }),
    careBefore: careOf(row),
  };
  return withItems(drive, 'inspect.changed', inOrder([...changed, part]));
}

/** In the order of time, as lives are read off them: by day, those without one by their odometer among the others. */
function inOrder(changed: readonly ChangedPart[]): ChangedPart[] {
  const after = (a: ChangedPart, b: ChangedPart) => {
    const [left, right] = [momentOf(a.at), momentOf(b.at)];
    if (left !== null && right !== null) return left - right;
    if (a.odometer !== undefined && b.odometer !== undefined) return a.odometer - b.odometer;
    return 0;
  };
  // Inserted one by one, each before the first that is later: what cannot be compared stays where it was.
  return changed.reduce<ChangedPart[]>((sorted, part) => {
    const at = sorted.findIndex((other) => after(other, part) > 0);
    return at < 0 ? [...sorted, part] : sorted.toSpliced(at, 0, part);
  }, []);
}

/** A row as it is shown before it is taken in. */
export function historyText({ number, fittedAt, fittedOdometer, offAt, offOdometer, why }: HistoryRow): string {
  const when = (day: string | null, odometer: number | null) =>
    [day, odometer === null ? '' : `at ${grouped(odometer)}`].filter(Boolean).join(' ');
  const [on, off] = [when(fittedAt, fittedOdometer), when(offAt, offOdometer)];
  return [
    number && `number ${number}`,
    on && `fitted ${on}`,
    off === '' ? 'still on' : `taken off ${off}`,
    why && WHY_WORDS[why],
  ]
    .filter(Boolean)
    .join(', ');
}
