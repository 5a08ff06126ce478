import fc from 'fast-check';
import { editableTorque, formatTorque, parseTorque, torqueFigure, TORQUE_UNITS } from './torque';

const read = (text: string, unit?: Parameters<typeof parseTorque>[1]) => {
  const reading = parseTorque(text, unit);
  if (!reading.ok) throw new Error(reading.problem);
  return reading;
};

test.each([
  // Handbook figures: 1 lbf·ft is 1.35582 N·m, 1 lbf·in is 0.112985 N·m.
  ['47 N·m', 47, 'nm'],
  ['47Nm', 47, 'nm'],
  ['47 n m', 47, 'nm'],
  ['47,5 newton metres', 47.5, 'nm'],
  ['35 lbf·ft', 47.4537, 'lbf-ft'],
  ['35 lb-ft', 47.4537, 'lbf-ft'],
  ['35 ft lbs', 47.4537, 'lbf-ft'],
  ['35 foot pounds', 47.4537, 'lbf-ft'],
  ['120 in-lb', 13.5582, 'lbf-in'],
  ['120 lbf.in', 13.5582, 'lbf-in'],
  ['120 inch pounds', 13.5582, 'lbf-in'],
])('reads %s', (text, nm, unit) => {
  expect(read(text).nm).toBeCloseTo(nm, 3);
  expect(read(text).unit).toBe(unit);
});

test('a bare number is in the unit it stands in', () => {
  expect(read('12', 'lbf-ft').nm).toBeCloseTo(12 * read('12 lbf·in').nm, 9);
});

test.each(['', 'tight', '-5 Nm', '0', '5000 N·m', '35 ft', '3 5 Nm', '1e3', 'Infinity', '35 lb'])(
  'refuses %p and says what is accepted',
  (text) => {
    const reading = parseTorque(text);
    expect(reading.ok).toBe(false);
    expect((reading as { problem: string }).problem).toMatch(/47 N·m, 35 lbf·ft or 120 lbf·in/);
  },
);

test('what a field shows reads back, in every unit', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.1, max: 1999, noNaN: true }), fc.constantFrom(...TORQUE_UNITS), (nm, unit) => {
      const back = read(editableTorque(nm, unit));
      expect(back.unit).toBe(unit);
      expect(Math.abs(back.nm - nm)).toBeLessThan(1e-6 * nm);
      // What is shown is never further off than half of what it shows last.
      const shown = read(formatTorque(nm, unit));
      const tenth = read(`0.1 ${editableTorque(1, unit).split(' ')[1]!}`).nm;
      expect(Math.abs(shown.nm - nm)).toBeLessThanOrEqual(0.5 * tenth * (1 + 1e-9) + 1e-9);
    }),
  );
});

test('stands as it was written, with the other unit beside it', () => {
  expect(torqueFigure(read('35 lbf·ft').nm, 'lbf-ft')).toBe('35 lbf·ft (47.5 N·m)');
  expect(torqueFigure(47)).toBe('47 N·m (34.7 lbf·ft)');
  expect(torqueFigure(9)).toBe('9 N·m (79.7 lbf·in)');
});
