import { driveOf } from '../test/examples';
import { DEMO } from '../test/demo';
import { specimensOf } from '../specimens';

const drive = driveOf([
  ['crank', 0, 0, 160],
  ['alt', 300, 0, 60],
]);
const named = (part: typeof drive) =>
  specimensOf(part).map(({ kind, code, words }, k): [string, string, number, typeof words] => [kind, code, k, words]);

test.each([...named(drive), ...named(DEMO.rescue), ...named(DEMO.pickup)])(
  '%s: %s (%i) is told in whole sentences',
  (_kind, _code, _at, words) => {
    for (const unit of ['mm', 'in'] as const) {
      const { title, why, todo } = words(unit);
      expect(title).toMatch(/^[A-Z0-9].*[.?]$/);
      for (const text of [why, todo]) expect(text === '' || /^[A-Z0-9].*[.!?]$/.test(text)).toBe(true);
      expect(`${title} ${why} ${todo}`).not.toMatch(/undefined|NaN|null|\[object|Infinity| {2}/);
    }
  },
);

test('every code of every folder is told', () => {
  const codes = new Set(specimensOf(drive).map(({ kind, code }) => `${kind} ${code}`));
  // By hand: a folder that drops a code, or gains one, changes this figure knowingly.
  expect(codes.size).toBe(173);
});
