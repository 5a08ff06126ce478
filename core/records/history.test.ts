import fc from 'fast-check';
import { changeBelt, type Drive, itemsOf, readDrive } from '../drive';
import { DEMO } from '../test/demo';
import { beltsMeant, type HistoryColumn, type HistoryRow, readHistoryRow, withHistory } from './history';
import { livesOf } from './lives';

const read = (cells: Partial<Record<HistoryColumn, string>>) => readHistoryRow({ vehicle: 'Truck', ...cells });
const row = (cells: Partial<Record<HistoryColumn, string>>): HistoryRow => {
  const answer = read(cells);
  if (!answer.ok) throw new Error(answer.problem);
  return answer.row;
};
const problem = (cells: Partial<Record<HistoryColumn, string>>) => {
  const answer = read(cells);
  return answer.ok ? null : answer.problem;
};

describe('a row of old belts', () => {
  test('days and readings as people write them; the day it came off, or the reading', () => {
    expect(row({ fitted: '2021-03-04', odometer: '84,300 km', 'taken off': '13.05.2023', why: 'Broke' })).toMatchObject(
      {
        ...{ fittedAt: '2021-03-04', fittedOdometer: 84_300, offAt: '2023-05-13', offOdometer: null, why: 'broke' },
      },
    );
    expect(row({ fitted: '2021-03', 'taken off': '121 450' })).toMatchObject({
      ...{ fittedAt: '2021-03-01', offAt: null, offOdometer: 121_450, why: null },
    });
    expect(row({ fitted: '25/12/2020', 'odometer off': '9000' })).toMatchObject({ fittedAt: '2020-12-25' });
  });
  test.each([
    [{ fitted: '03/04/2021' }, /^fitted: a day such as/],
    [{ fitted: '2021-02-30' }, /^fitted: a day such as/],
    [{ fitted: 'spring' }, /^fitted: a day such as/],
    [{ fitted: '2021-01-01', 'taken off': 'later' }, /^taken off: a day such as .* or a reading/],
    [{ fitted: '2021-01-01', odometer: 'far' }, /^odometer: a reading such as/],
    [{ fitted: '2021-01-01', 'taken off': '2020-01-01' }, /^taken off: is before/],
    [{ odometer: '900', 'odometer off': '800' }, /^odometer off: is less/],
    [{ fitted: '2021-01-01', why: 'dog' }, /^why: worn, broke or in passing/],
    [{ number: '1' }, /^fitted: a day or a reading/],
    [{ vehicle: ' ', fitted: '2021-01-01' }, /^vehicle: is missing/],
  ] as const)('%j is told with its column', (cells, text) => expect(problem(cells)).toMatch(text));
  test('whatever a cell holds, it is read or told, and never throws', () => {
    const cell = fc.oneof(fc.string({ maxLength: 30 }), fc.constantFrom('2021-01-01', '1.2.2020', "'=1+1", '84.300'));
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom('vehicle', 'fitted', 'odometer', 'taken off', 'why'), cell),
        (cells) => {
          const answer = readHistoryRow(cells);
          if (!answer.ok)
            expect(answer.problem).toMatch(/^(vehicle|number|fitted|odometer|taken off|odometer off|why): /);
        },
      ),
    );
  });
});

test('a belt is meant by its marking, by its place, or by being the only one', () => {
  const ids = (drive: Drive, text: string) => beltsMeant(drive, text).map(({ id }) => id);
  expect(ids(DEMO.rescue, '')).toEqual(['main']);
  expect(ids(DEMO.rescue, '6PK1730')).toEqual(['main']);
  expect(ids(DEMO.rescue, 'AV10x1000')).toEqual([]);
  expect(ids(DEMO.pickup, 'belt 2')).toEqual(['outer']);
  expect(ids(DEMO.pickup, 'AV10x1240')).toEqual(['inner', 'outer']);
  const known = changeBelt(DEMO.pickup, 'outer', { length: 1242 });
  expect(ids(known, 'AV10x1240')).toEqual(['outer']);
});

describe('what they make of a drive', () => {
  const list = [
    row({ number: 'C', fitted: '2023-06-01', odometer: '120000' }),
    row({ number: 'A', fitted: '2018-01-01', odometer: '10000', 'taken off': '2021-01-01', 'odometer off': '70000' }),
    row({
      number: 'B',
      fitted: '2021-01-01',
      odometer: '70000',
      'taken off': '2023-06-01',
      'odometer off': '120000',
      why: 'broke',
    }),
  ];
  const before: Drive = { ...DEMO.rescue, inspect: {} };
  const bare = changeBelt(before, 'main', { care: undefined });

  test('in any order: every life from where it began to where it ended, the one that is on last', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(list, { minLength: 3 }), (rows) => {
        const drive = withHistory(bare, 'main', rows);
        expect(
          livesOf(drive).map(({ number, from, to, why }) => [number, from.odometer, to?.odometer ?? null, why]),
        ).toEqual([
          ['A', 10_000, 70_000, 'worn'],
          ['B', 70_000, 120_000, 'broke'],
          ['C', 120_000, null, null],
        ]);
        expect(readDrive(JSON.parse(JSON.stringify(drive))).ok).toBe(true);
      }),
    );
  });
  test('brought in twice it is there once, and what was written here stays', () => {
    const once = withHistory(bare, 'main', list);
    expect(withHistory(once, 'main', list)).toBe(once);
    const own = changeBelt(bare, 'main', { care: { fittedAt: '2024-01-01T00:00:00Z', number: 'own' } });
    const with2 = withHistory(own, 'main', list);
    expect(with2.belts[0]!.care).toEqual(own.belts[0]!.care);
    expect(itemsOf(with2, 'inspect.changed')).toHaveLength(2);
  });
});
