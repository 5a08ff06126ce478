import fc from 'fast-check';
import { CODE_MS, Codes } from './codes';

const BROUGHT = { person: 'p', job: null, name: 'Ines', place: '/', by: 'by a code of Ines' };

function clocked() {
  let now = 1_000_000;
  return { codes: new Codes(() => now), pass: (ms: number) => (now += ms) };
}

test('a code is good once, by its secret or by its digits, and for two minutes', () => {
  const { codes, pass } = clocked();
  const [first, second, third] = [codes.make(BROUGHT)!, codes.make(BROUGHT)!, codes.make(BROUGHT)!];
  expect(first.digits).toMatch(/^\d{6}$/);
  expect(codes.byToken(first.token)).toEqual(BROUGHT);
  expect(codes.byToken(first.token)).toBeNull();
  expect(codes.byDigits(first.digits).brought).toBeNull();
  expect(codes.byDigits(second.digits).brought).toEqual(BROUGHT);
  expect(codes.byToken(second.token)).toBeNull();
  expect([first, second, third].map(({ id }) => codes.stateOf(id))).toEqual(['used', 'used', 'open']);
  pass(CODE_MS - 1);
  expect(codes.stateOf(third.id)).toBe('open');
  pass(1);
  expect(codes.stateOf(third.id)).toBe('over');
  expect(codes.byToken(third.token)).toBeNull();
  expect(codes.byDigits(third.digits).brought).toBeNull();
});

test('one that is withdrawn is good for nobody; one that was used stays used', () => {
  const { codes } = clocked();
  const [open, used] = [codes.make(BROUGHT)!, codes.make(BROUGHT)!];
  codes.byToken(used.token);
  for (const { id } of [open, used]) codes.withdraw(id);
  expect([open, used].map(({ id }) => codes.stateOf(id))).toEqual(['withdrawn', 'used']);
  expect(codes.byToken(open.token)).toBeNull();
  expect(codes.stateOf('nobody’s')).toBe('over');
});

test('whoever tries digits through meets ten tries at most in the life of a code', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 119 }), fc.integer({ min: 1, max: 400 }), (before, tries) => {
      const { codes, pass } = clocked();
      pass(before * 1000);
      const { digits, token } = codes.make(BROUGHT)!;
      const wrong = (k: number) => String((Number(digits) + 1 + k) % 1_000_000).padStart(6, '0');
      let withdrawn = false;
      for (let k = 0; k < tries; k += 1) withdrawn = codes.byDigits(wrong(k)).guessed || withdrawn;
      expect(withdrawn).toBe(tries >= 10);
      expect(codes.byDigits(digits).brought === null).toBe(tries >= 10);
      // The square on the screen stays good: nobody guesses it.
      if (tries >= 10) expect(codes.byToken(token)).toEqual(BROUGHT);
    }),
  );
});

test('no more than so many are open at once, and each has digits of its own', () => {
  const { codes, pass } = clocked();
  const made = Array.from({ length: 60 }, () => codes.make(BROUGHT));
  expect(made.filter(Boolean)).toHaveLength(50);
  expect(new Set(made.flatMap((code) => code?.digits ?? [])).size).toBe(50);
  pass(CODE_MS);
  expect(codes.make(BROUGHT)).not.toBeNull();
});
