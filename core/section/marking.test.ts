import fc from 'fast-check';
import { readMarking } from './marking';

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
