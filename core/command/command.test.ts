import { noBelt, numbersIn, UsageProblem } from './index';

const bad = (part: string) => `"${part}" is no speed`;
const speeds = (text: string) => numbersIn(text, (value) => value >= 0, bad);

test('the numbers of a list, with or without blanks', () => {
  expect(speeds('720')).toEqual([720]);
  expect(speeds('720, 2300.5 ,0')).toEqual([720, 2300.5, 0]);
});

test.each([
  ['720,', ''],
  ['', ''],
  [' ,1', ' '],
  ['720,x', 'x'],
  ['1;2', '1;2'],
  ['Infinity', 'Infinity'],
  ['-1', '-1'],
])('%j names the part that is none, or is not accepted', (text, part) => {
  expect(() => speeds(text)).toThrow(new UsageProblem(bad(part)));
});

test('a belt that is not there is told with those that are', () => {
  expect(noBelt('x', { belts: [{ id: 'main' }, { id: 'fan' }] }).message).toBe(
    '--belt: there is no belt "x"; this drive has main, fan',
  );
  expect(noBelt('x', { belts: [] }).message).toBe('--belt: there is no belt "x"; this drive has none');
});
