import fc from 'fast-check';
import { markingsOf, readMarking } from './marking';

test.each<[string, object]>([
  ['6PK1735', { section: 'PK', ribs: 6, lengthMm: 1735, basis: 'effective', scheme: 'ribs-PK-mm' }],
  ['6 pk 1735', { section: 'PK', ribs: 6, lengthMm: 1735 }],
  ['680K6', { section: 'PK', ribs: 6, lengthMm: 1727.2, scheme: 'tenths-K-ribs' }],
  ['K060683', { section: 'PK', ribs: 6, lengthMm: 1734.82 }],
  ['4060683', { section: 'PK', ribs: 6, lengthMm: 1734.82, scheme: 'style-ribs-tenths' }],
  ['AV10x1125', { section: 'AV10', widthMm: 10, lengthMm: 1125, basis: 'outside' }],
  ['AV13 x 1250 La', { section: 'AV13', lengthMm: 1250 }],
  ['13 x 1250', { section: 'AV13', lengthMm: 1250 }],
  ['15455', { section: 'SAE 0.440', widthMm: 11.9, lengthMm: 1155.7, basis: 'outside', scheme: 'width-inches-tenths' }],
  ['24500', { section: 'SAE 3/4', lengthMm: 1270 }],
  ['6PKx1805', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['PK 6x1805', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['6PK1805mm', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['6PK 1805 Le', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['6PK1805 EPDM', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['6PK01805', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['６ＰＫ１８０５', { section: 'PK', ribs: 6, lengthMm: 1805 }],
  ['K06-0735', { section: 'PK', ribs: 6, lengthMm: 1866.9 }],
  ['6K735', { section: 'PK', ribs: 6, lengthMm: 1866.9 }],
  ['6DPK1195', { section: 'PK', ribs: 6, lengthMm: 1195, build: 'double' }],
  ['6EPK1195', { section: 'PK', ribs: 6, lengthMm: 1195, build: 'stretch' }],
  ['12PJ1200', { section: 'PJ', ribs: 12, lengthMm: 1200 }],
  ['480J6', { section: 'PJ', ribs: 6, lengthMm: 1219.2 }],
  ['8PL1600', { section: 'PL', ribs: 8, lengthMm: 1600 }],
  ['6PM2500', { section: 'PM', ribs: 6, lengthMm: 2500 }],
  ['AVX10x1250', { section: 'AV10', lengthMm: 1250, build: 'cogged' }],
  ['AV17 x 1500', { section: 'AV17', lengthMm: 1500 }],
  ['11A1030', { section: 'SAE 0.440', widthMm: 11, lengthMm: 1030 }],
  ['13A0965', { section: 'AV13', lengthMm: 965 }],
  ['13/1250', { section: 'AV13', lengthMm: 1250 }],
  ['9.5x1000', { section: 'AV10', lengthMm: 1000 }],
  ['12,5x1250', { section: 'AV13', lengthMm: 1250 }],
  // Inside, the belt's whole height further in; on the datum line, its cord's depth.
  ['13x1025 Li', { section: 'AV13', lengthMm: 1087.83 }],
  ['13x1025 Ld', { section: 'AV13', lengthMm: 1042.97 }],
  ['A38', { section: 'A', lengthMm: 1015.47 }],
  ['B 60', { section: 'B', lengthMm: 1593.12 }],
  ['136-9.525-25', { section: 'L', lengthMm: 1295.4, widthMm: 25 }],
  ['160XL037', { section: 'XL', lengthMm: 406.4 }],
  ['1280-8M-20', { section: 'H8M', lengthMm: 1280, widthMm: 20 }],
  ['1400 H14M 40', { section: 'H14M', lengthMm: 1400, widthMm: 40 }],
  ['510L075', { section: 'L', lengthMm: 1295.4, widthMm: 19.05, basis: 'pitch' }],
  ['120 H 25', { section: 'H', lengthMm: 1524, widthMm: 25 }],
  ['100x9.525x19', { section: 'L', lengthMm: 952.5, widthMm: 19 }],
])('%s', (text, expected) => {
  expect(readMarking(text)[0]).toMatchObject(expected);
});

test('an ambiguous marking lists its readings with their likelihood, which add up', () => {
  const readings = readMarking('15455');
  expect(readings.length).toBeGreaterThan(1);
  expect(readings.reduce((sum, { likelihood }) => sum + likelihood, 0)).toBeCloseTo(1, 9);
  expect(readings.map(({ likelihood }) => likelihood)).toEqual(
    [...readings.map(({ likelihood }) => likelihood)].sort((a, b) => b - a),
  );
});

test.each(['', 'banana', '99PK1735', '6PK12', '0PK1000', '6PK', '51L075', '1234567890123', '6PK1735; DROP TABLE belt'])(
  'nonsense gives nothing: %s',
  (text) => {
    expect(readMarking(text)).toEqual([]);
  },
);

test('any text is read without throwing, and a ribbed marking comes back whole', () => {
  fc.assert(fc.property(fc.string({ maxLength: 60 }), (text) => Array.isArray(readMarking(text))));
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 8 }), fc.integer({ min: 500, max: 3000 }), (ribs, mm) => {
      expect(readMarking(`${ribs}PK${mm}`)[0]).toMatchObject({ section: 'PK', ribs, lengthMm: mm });
    }),
  );
});

describe('markings that were read wrongly or not at all', () => {
  const best = (text: string) => readMarking(text)[0];

  test.each([
    ['6K1795', 'PK', 6],
    ['1795K6', 'PK', 6],
    ['K061795', 'PK', 6],
    ['5061795', 'PK', 6],
  ])('%s: four figures may be mm, and 4,559 mm is a doubt', (text, section, ribs) => {
    const [first, second, ...more] = readMarking(text);
    expect(first).toMatchObject({ section, ribs, lengthMm: 1795 });
    expect(second).toMatchObject({ section, ribs, lengthMm: 4559.3 });
    expect(more).toEqual([]);
    expect(first!.likelihood).toBeLessThan(0.9);
    expect(second!.likelihood).toBeGreaterThan(0.1);
  });

  test('a length that hardly any belt has leaves even the only reading in doubt', () => {
    expect(best('6PK1795')!.likelihood).toBe(1);
    expect(best('6PK4700')!.likelihood).toBeLessThan(0.5);
    expect(readMarking('6PK9900')).toEqual([]);
  });

  test('8M and 14M are teeth before they are eight ribs of PM', () => {
    expect(best('8M1200')).toMatchObject({ section: 'H8M', lengthMm: 1200, widthMm: null });
    expect(best('14M1400')).toMatchObject({ section: 'H14M', lengthMm: 1400 });
    expect(readMarking('8M1200').some(({ section }) => section === 'PM')).toBe(true);
    expect(best('8M-1200-30')).toMatchObject({ section: 'H8M', lengthMm: 1200, widthMm: 30, likelihood: 1 });
  });

  // By hand: 41 inches are 1041.4 mm, 43 are 1092.2; 42 inside an A, 8 mm thick, are 1066.8 + 2π·8 outside.
  test.each<[string, object]>([
    ['17/32 x 41', { section: 'AV13', lengthMm: 1041.4, basis: 'outside' }],
    ['3/8x41', { section: 'SAE 0.380', lengthMm: 1041.4 }],
    ['4L430', { section: 'SAE 0.500', lengthMm: 1092.2 }],
    ['AX42', { section: 'A', build: 'cogged', lengthMm: 1117.07 }],
    ['BX56', { section: 'B', build: 'cogged' }],
    ['13x1067 A42', { section: 'A', lengthMm: 1117.07 }],
    ['PK1795', { section: 'PK', ribs: null, lengthMm: 1795 }],
    ['1795-6PK', { section: 'PK', ribs: 6, lengthMm: 1795 }],
    ['6PK1795HD', { section: 'PK', ribs: 6, lengthMm: 1795 }],
    ['6pk1795 dr', { section: 'PK', ribs: 6, lengthMm: 1795 }],
    ['6PK1795K', { section: 'PK', ribs: 6, lengthMm: 1795 }],
    ['SPZ 1060', { section: 'SPZ', lengthMm: Number((1060 + 4 * Math.PI).toFixed(2)) }],
    ['XPZ1060', { section: 'SPZ', build: 'cogged' }],
    ['spa1232', { section: 'SPA' }],
  ])('%s is read', (text, wanted) => expect(best(text)).toMatchObject(wanted));

  test('narrow V-belts are written as they are read, and never stand in for another of their width', () => {
    for (const name of ['SPZ', 'SPA', 'SPB', 'SPC']) {
      for (const build of [undefined, 'cogged'] as const) {
        const [written] = markingsOf({ section: name, lengthMm: 1400, ...(build && { build }) });
        expect(best(written!.text)).toMatchObject({ section: name, ...(build && { build }) });
        expect(Math.abs(best(written!.text)!.lengthMm - 1400)).toBeLessThan(0.6);
      }
    }
    expect(best('16,3x1200')!.section).not.toBe('SPB');
  });
});
