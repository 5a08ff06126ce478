import fc from 'fast-check';
import { readMarking } from './index';

test.each<[string, object]>([
  ['6PK1735', { section: 'PK', ribs: 6, lengthMm: 1735, basis: 'effective', scheme: 'ribs-PK-mm' }],
  ['6 pk 1735', { section: 'PK', ribs: 6, lengthMm: 1735 }],
  ['680K6', { section: 'PK', ribs: 6, lengthMm: 1727.2, scheme: 'tenths-K-ribs' }],
  ['K060683', { section: 'PK', ribs: 6, lengthMm: 1734.82 }],
  ['4060683', { section: 'PK', ribs: 6, lengthMm: 1734.82, scheme: 'style-ribs-tenths' }],
  ['AV10x1125', { section: 'AV10', widthMm: 10, lengthMm: 1125, basis: 'outside' }],
  ['AV13 x 1250 La', { section: 'AV13', lengthMm: 1250 }],
  ['13 x 1250', { section: 'AV13', lengthMm: 1250 }],
  ['15455', { section: 'SAE 0.380', lengthMm: 1158.88, basis: 'outside' }],
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
  expect(readings.map(({ likelihood }) => likelihood)).toEqual([...readings.map(({ likelihood }) => likelihood)].sort((a, b) => b - a));
});

test.each(['', 'banana', '99PK1735', '6PK12', '0PK1000', '6PK', '51L075', '1234567890123', '6PK1735; DROP TABLE belt'])('nonsense gives nothing: %s', (text) => {
  expect(readMarking(text)).toEqual([]);
});

test('any text is read without throwing, and a ribbed marking comes back whole', () => {
  fc.assert(fc.property(fc.string({ maxLength: 60 }), (text) => Array.isArray(readMarking(text))));
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 8 }), fc.integer({ min: 500, max: 3000 }), (ribs, mm) => {
      expect(readMarking(`${ribs}PK${mm}`)[0]).toMatchObject({ section: 'PK', ribs, lengthMm: mm });
    }),
  );
});
