import fc from 'fast-check';
import { editableNumber, odometerDoubt, odometerDoubtWords, readNumber } from './number';
import { mixedUnits, parseLength } from './parse-length';
import { parseForce } from './force';
import { parseTorque } from './torque';

const read = (text: string, wanted?: Parameters<typeof readNumber>[1]) => {
  const reading = readNumber(text, wanted);
  return reading.ok ? reading.value : reading.twoWays ? 'asked' : 'refused';
};

test.each<[string, Parameters<typeof readNumber>[1], number | string]>([
  ['1250', {}, 1250],
  ['1,250', {}, 'asked'],
  ['1.250', {}, 'asked'],
  ['-1,250', {}, 'asked'],
  ['1,250', { whole: true }, 1250],
  ['152.000', { whole: true }, 152_000],
  ['152,000', { whole: true, min: 0, max: 1e7 }, 152_000],
  ['0,250', {}, 0.25],
  ['0.250', {}, 0.25],
  ['45.125', { min: -360, max: 360 }, 45.125],
  ['1,200', { min: 100, max: 5000 }, 1200],
  ['1 250', {}, 1250],
  ['152 000', {}, 152_000],
  ['152\u202f000', {}, 152_000],
  ["152'000", {}, 152_000],
  ['1,234,567', {}, 1_234_567],
  ['1.234.567', {}, 1_234_567],
  ['1,234.5', {}, 1234.5],
  ['1.234,5', {}, 1234.5],
  ['12,5', {}, 12.5],
  ['1,2500', {}, 1.25],
  ['1250.000', {}, 1250],
  ['−4,5', {}, -4.5],
  ['', {}, 'refused'],
  ['1,2,3', {}, 'refused'],
  ['12a', {}, 'refused'],
  ['1e3', {}, 'refused'],
  ['Infinity', {}, 'refused'],
  ['..', {}, 'refused'],
])('%s (%p) is %p', (text, wanted, expected) => expect(read(text, wanted)).toBe(expected));

test('property: what a field starts from is read back, and no figure is read a thousand times too small', () => {
  fc.assert(
    fc.property(fc.integer({ min: -10_000_000, max: 10_000_000 }), fc.constantFrom(1, 10, 100, 1000), (n, by) => {
      const value = n / by;
      expect(readNumber(editableNumber(value))).toEqual({ ok: true, value });
    }),
  );
  fc.assert(
    fc.property(fc.integer({ min: 1000, max: 9_999_999 }), fc.constantFrom('en', 'de', 'fr'), (n, locale) => {
      const text = n.toLocaleString(locale);
      expect(read(text, { whole: true })).toBe(n);
      expect([n, 'asked']).toContain(read(text));
    }),
  );
});

test('lengths: a point before three digits is asked about in mm, and is a decimal in inches', () => {
  const mm = (text: string) => {
    const reading = parseLength(text, 'mm');
    return reading.ok ? reading.mm : /could be/.test(reading.problem) ? 'asked' : 'refused';
  };
  expect(mm('1.690 mm')).toBe('asked');
  expect(mm('1.690')).toBe('asked');
  expect(mm('1,690')).toBe('asked');
  expect(mm('1.6900 mm')).toBe(1.69);
  expect(mm('1690.125')).toBe(1690.125);
  expect(mm('849.600 mm')).toBe(849.6);
  expect(mm('0.813')).toBe(0.813);
  expect(mm('7.375"')).toBeCloseTo(187.325, 9);
  expect(mm('1.690 m')).toBe(1690);
  // A lost space: 413 inches of anything is longer than any belt that is sold.
  expect(mm('6611/16')).toBe('asked');
  const reads = (text: string) => {
    const reading = parseLength(text, 'mm');
    return reading.ok ? '' : reading.problem;
  };
  expect(reads('12311/16')).toContain('123 11/16');
  expect(reads('1235/8')).toContain('123 5/8');
  expect(mm('11/8')).toBe('asked');
  expect(mm('11/16')).toBeCloseTo(17.4625, 9);
  expect(mm('66 11/16')).toBeCloseTo(1693.8625, 9);
  const reading = parseLength('6611/16', 'mm');
  expect(!reading.ok && reading.problem).toContain('66 11/16');
  expect(mm("5 1/2'")).toBeCloseTo(5.5 * 304.8, 9);
  expect(mm('5\' 8 1/2"')).toBeCloseTo(68.5 * 25.4, 9);
});

test('two diameters in one field with one of them plainly in inches: the other is asked about', () => {
  expect(mixedUnits('7.375', ' 2 5/8')).toContain('7.375" or 7.375 mm');
  expect(mixedUnits('7 3/8', '2.625')).toContain('2.625');
  expect(mixedUnits('7 3/8', '2 5/8')).toBeNull();
  expect(mixedUnits('187', '66.7')).toBeNull();
  expect(mixedUnits('187 mm', '2 5/8')).toBeNull();
});

test('forces and torques: thousands are asked about or read, and more units are known', () => {
  const newtons = (text: string) => {
    const reading = parseForce(text, 'N');
    return reading.ok ? reading.newtons : /could be/.test(reading.problem) ? 'asked' : 'refused';
  };
  expect(newtons('1,200 N')).toBe('asked');
  expect(newtons('1.200')).toBe('asked');
  expect(newtons('1 200 N')).toBe(1200);
  expect(newtons('45 daN')).toBe(450);
  expect(newtons('1.2 kN')).toBe(1200);
  expect(newtons('5,5 lbf')).toBeCloseTo(24.465, 2);
  expect(newtons('x')).toBe('refused');
  const nm = (text: string) => {
    const reading = parseTorque(text);
    return reading.ok ? reading.nm : /could be/.test(reading.problem) ? 'asked' : 'refused';
  };
  expect(nm('1,200')).toBe('asked');
  expect(nm('4.8 kgf·m')).toBeCloseTo(4.8 * 9.80665, 9);
  expect(nm('4.8 kgm')).toBeCloseTo(4.8 * 9.80665, 9);
  expect(nm('47,5 Nm')).toBe(47.5);
  expect(nm('35 lbf·ft')).toBeCloseTo(47.453, 2);
  expect(nm('9 apples')).toBe('refused');
});

test('an odometer below the last one, or with a digit too many, is asked about', () => {
  expect(odometerDoubt(151_000, 152_000)).toBe('below');
  expect(odometerDoubt(152, 152_000)).toBe('below');
  expect(odometerDoubt(1_530_000, 152_000)).toBe('far-above');
  expect(odometerDoubt(153_000, 152_000)).toBeNull();
  expect(odometerDoubt(9000, 1000)).toBeNull();
  expect(odometerDoubt(5, null)).toBeNull();
  // With the days between, what a vehicle goes in them: 120 days of long haul, then a week.
  expect(odometerDoubt(250_000, 10_000, 120)).toBeNull();
  expect(odometerDoubt(250_000, 10_000)).toBe('far-above');
  expect(odometerDoubt(250_000, 200_000, 7)).toBe('far-above');
  expect(odometerDoubt(250_000, 200_000)).toBeNull();
  // The day may have been written down wrongly: a few thousand are never odd.
  expect(odometerDoubt(204_900, 200_000, 0)).toBeNull();
  expect(odometerDoubtWords(15_200, 152_000, 'km')).toContain('152,000 km');
});
