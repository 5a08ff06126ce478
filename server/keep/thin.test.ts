import fc from 'fast-check';
import { draws } from '../../core/test/draws';
import { backupName, madeAt, thinned } from './thin';

const DAY_MS = 86_400_000;
const START = Date.UTC(2026, 0, 1, 9);

/** A shop that makes one a day for so many days, thinned each time. */
function kept(days: readonly number[]): string[] {
  let names: string[] = [];
  for (const day of days) {
    names.push(backupName(new Date(START + day * DAY_MS), false));
    const gone = new Set(thinned(names));
    names = names.filter((name) => !gone.has(name));
  }
  return names;
}

test('a shop with a backup a day keeps seven days, four weeks and twelve months of them', () => {
  const names = kept(Array.from({ length: 800 }, (_, k) => k));
  const days = names.map((name) => Math.round((madeAt(name)!.getTime() - START) / DAY_MS)).sort((a, b) => b - a);
  expect(days.slice(0, 7)).toEqual([799, 798, 797, 796, 795, 794, 793]);
  // By hand: 10 March 2028 is day 799, a Friday; the Sundays before it are days 794, 787 and 780, the ends of months
  // 789 (29 February), 760, 729 and so on.
  expect(days).toEqual(expect.arrayContaining([794, 787, 780, 789, 760, 729, 698, 668, 637, 607, 576, 545, 515, 484]));
  expect(names.length).toBeLessThanOrEqual(7 + 4 + 12);
});

test('a clock that was years ahead, or behind, takes none of the others away', () => {
  const usual = kept(Array.from({ length: 60 }, (_, k) => k));
  const ahead = [...usual, backupName(new Date(Date.UTC(2039, 5, 5)), false)];
  expect(thinned(ahead).length).toBeLessThanOrEqual(3);
  // All but the oldest day, week and month still stand.
  const left = ahead.filter((name) => !thinned(ahead).includes(name));
  expect(left.length).toBeGreaterThanOrEqual(usual.length - 2);
});

test('the latest always stays, nothing is thinned twice, and files of other names are nobody’s business', () => {
  fc.assert(
    fc.property(
      fc.array(fc.date({ min: new Date(0), max: new Date(4e12), noInvalidDate: true }), { maxLength: 60 }),
      (dates) => {
        const names = [...new Set(dates.map((date) => backupName(date, date.getTime() % 2 === 0)))];
        const others = [
          'holiday.zip',
          'emery-2026.zip',
          'before-upgrade-2026-01-01T00-00-00Z.zip',
          'emery-9999-99-99T99-99-99Z.zip.part',
        ];
        const gone = thinned([...names, ...others]);
        expect(gone.filter((name) => others.includes(name))).toEqual([]);
        const latest = [...names].sort((a, b) => madeAt(b)!.getTime() - madeAt(a)!.getTime())[0];
        if (latest) expect(gone.map((name) => madeAt(name)!.getTime())).not.toContain(madeAt(latest)!.getTime() + 1);
        if (latest)
          expect(
            gone.includes(latest) &&
              !names.some((name) => name !== latest && madeAt(name)!.getTime() === madeAt(latest)!.getTime()),
          ).toBe(false);
        const left = names.filter((name) => !gone.includes(name));
        expect(thinned(left)).toEqual([]);
        expect(left.length).toBeLessThanOrEqual(23);
        if (names.length <= 7)
          expect(
            new Set(names.map((name) => name.slice(0, 16))).size - new Set(left.map((name) => name.slice(0, 16))).size,
          ).toBe(0);
      },
    ),
    { numRuns: draws(800) },
  );
});
