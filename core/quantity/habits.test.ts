import fc from 'fast-check';
import {
  DEFAULT_HABITS,
  editableLength,
  fixed,
  formatInches,
  formatMm,
  grouped,
  parseLength,
  readHabits,
  readNumber,
  setHabits,
  torqueFigure,
} from '.';

afterEach(() => setHabits(DEFAULT_HABITS));

test('figures are written by the decimal mark, and files and commands by the point', () => {
  expect([fixed(1.25, 1), grouped(12500), formatMm(169.9), formatInches(169.9)]).toEqual([
    '1.3',
    '12,500',
    '169.9 mm',
    '6 11/16"',
  ]);
  setHabits({ ...DEFAULT_HABITS, decimal: ',' });
  expect([fixed(1.25, 1), grouped(12500), formatMm(169.9), formatMm(-0.01), formatInches(169.9)]).toEqual([
    '1,3',
    '12\u202f500',
    '169,9 mm',
    '0,0 mm',
    '6 11/16"',
  ]);
});

test('torques come in the unit that a person reads, unless the manual gave another', () => {
  expect(torqueFigure(47.5)).toBe('47.5 N·m (35 lbf·ft)');
  setHabits({ ...DEFAULT_HABITS, torque: 'lbf-ft', decimal: ',' });
  expect(torqueFigure(47.5)).toBe('35 lbf·ft (47,5 N·m)');
  expect(torqueFigure(12)).toMatch(/^106,2 lbf·in \(12 N·m\)$/);
  expect(torqueFigure(47.5, 'nm')).toBe('47,5 N·m (35 lbf·ft)');
});

test('what a field starts from is read back as it was, whatever the mark', () => {
  for (const decimal of ['.', ','] as const) {
    setHabits({ ...DEFAULT_HABITS, decimal });
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5000, noNaN: true }), fc.constantFrom('mm', 'in'), (mm, unit) => {
        const read = parseLength(editableLength(mm, unit as 'mm' | 'in'), unit as 'mm' | 'in');
        return read.ok && Math.abs(read.mm - mm) <= 0.0101;
      }),
      // Three decimals that could part thousands: once found by chance, and written so that they cannot.
      { examples: [[31.29153, 'in']] },
    );
    const read = readNumber(fixed(1234.5, 1));
    expect(read).toEqual({ ok: true, value: 1234.5 });
  }
});

test('habits that were kept damaged, by another version or by nobody are as usual', () => {
  for (const kept of [null, undefined, 7, 'x', [], { decimal: ';', unit: 'ft', clock: 24 }])
    expect(readHabits(kept)).toEqual(DEFAULT_HABITS);
  expect(readHabits({ decimal: ',', unit: 'mm', clock: 'h12', more: 1 })).toEqual({
    ...DEFAULT_HABITS,
    decimal: ',',
    unit: 'mm',
    clock: 'h12',
  });
});
