import fc from 'fast-check';
import {
  editableLength,
  formatInches,
  formatInchesDecimal,
  formatLength,
  formatMm,
  inchParts,
  readsAs,
} from './format-length';
import { parseLength } from './parse-length';

const read = (text: string, unit: 'mm' | 'in' = 'mm') => {
  const reading = parseLength(text, unit);
  return reading.ok ? Number(reading.mm.toFixed(6)) : reading.problem;
};

describe('parseLength reads what mechanics write', () => {
  test.each([
    ['6 11/16', 169.8625],
    ['6-11/16"', 169.8625],
    ['6 11/16 in', 169.8625],
    ['7⅞', 200.025],
    ['7 ⅞″', 200.025],
    ['½', 12.7],
    ['15⁄16', 23.8125],
    [`5' 8 1/2"`, 1739.9],
    [`5' 8-1/2`, 1739.9],
    ['5ft 8in', 1727.2],
    [`5'`, 1524],
    [`5' 1/2"`, 1536.7],
    ['169.9', 169.9],
    ['169.9 mm', 169.9],
    ['169,9', 169.9],
    ['1 000', 1000],
    ['1 805.5 mm', 1805.5],
    ['12 345', 12345],
    ['1\u202f000,5', 1000.5],
    ['-1 000', -1000],
    ['0,125', 0.125],
    ['17cm', 170],
    ['1.2 m', 1200],
    ['.5"', 12.7],
    ['  68 3/16"  ', 1731.9625],
    ['-6 11/16', -169.8625],
    ['−12.5', -12.5],
    ['-0', 0],
    ['3 in.', 76.2],
    ["8''", 203.2],
  ])('%s', (text, mm) => expect(read(text)).toBeCloseTo(mm as number, 6));

  test('a bare number is in the shop unit, a fraction always inches', () => {
    expect(read('8', 'in')).toBe(203.2);
    expect(read('8', 'mm')).toBe(8);
    expect(read('1/2', 'mm')).toBe(12.7);
    expect(read('169.9 mm', 'in')).toBe(169.9);
  });

  test.each([
    ['', /Nothing written/],
    ['abc', /not a length/],
    ['7 15/61', /on no tape/],
    ['7 1/0', /on no tape/],
    ['7 17/16', /whole inch or more/],
    ['7 1/2 mm', /read as inches/],
    ['1,731', /1731 or 1\.731/],
    ['5 parsec', /not a unit/],
    ['5 constructor', /not a unit/],
    ["5' 8 mm", /Feet go with inches/],
    [`5' 13"`, /13" is a foot or more\. Add it to the 5 feet\./],
    [`5' 12`, /a foot or more/],
    [`5' 12 1/2"`, /a foot or more/],
    ['1 00', /not a length/],
    ['1 2 3', /not a length/],
    ['--5', /not a length/],
    ['9'.repeat(400), /too large/],
    ['7 15/', /not a length/],
  ])('refuses %s', (text, problem) => expect(read(text)).toMatch(problem as RegExp));

  test('never throws and never yields a number that is none', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[-0-9 .,/'"inmcft]{0,16}$/)), (text) => {
        const reading = parseLength(text, 'in');
        return reading.ok ? Number.isFinite(reading.mm) : reading.problem.length > 10;
      }),
      { numRuns: 2000 },
    );
  });
});

describe('printing', () => {
  test('inches as reduced fractions, carried into the next inch', () => {
    expect(formatInches(169.8625)).toBe('6 11/16"');
    expect(formatInches(203)).toBe('8"');
    expect(formatInches(12.7)).toBe('1/2"');
    expect(formatInches(-12.7)).toBe('-1/2"');
    expect(formatInches(-0.1)).toBe('0"');
    expect(inchParts(25.39)).toEqual({ negative: false, inches: 1, numerator: 0, denominator: 16 });
  });

  test('decimals without a minus zero', () => {
    expect(formatMm(-0.04)).toBe('0.0 mm');
    expect(formatInchesDecimal(169.9)).toBe('6.69"');
    expect(formatLength(169.9, 'mm')).toBe('169.9 mm');
    expect(formatLength(203.2, 'in')).toBe('8"');
  });

  test('a printed fraction reads back to within 1/32 inch', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        (mm) => Math.abs(Number(read(formatInches(mm), 'in')) - mm) <= 25.4 / 32 + 1e-6,
      ),
    );
  });

  test('what a field starts from reads back to within 0.01 mm, in either unit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.constantFrom('mm' as const, 'in' as const),
        (mm, unit) => Math.abs(Number(read(editableLength(mm, unit), unit)) - mm) <= 0.01,
      ),
    );
  });
});

test('what was understood is told in both units, a small length in decimals', () => {
  expect(readsAs(169.8625)).toBe('reads 6 11/16" · 169.9 mm');
  expect(readsAs(1.016)).toBe('reads 0.040" · 1.02 mm');
  expect(readsAs(-3)).toBe('reads -0.118" · -3.00 mm');
  expect(readsAs(0)).toBe('reads 0" · 0.0 mm');
});
