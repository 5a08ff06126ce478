import { once } from './once';

test('a sum is done once for the same input, by its parts, and again for another', () => {
  const sum = jest.fn((a: object, b: number) => ({ a, b }));
  const asked = once(sum);
  const [one, two] = [{}, {}];
  const first = asked(one, 1);
  expect(asked(one, 1)).toBe(first);
  expect(sum).toHaveBeenCalledTimes(1);
  expect(asked(two, 1)).toEqual({ a: two, b: 1 });
  expect(asked(one, 2)).toEqual({ a: one, b: 2 });
  expect(sum).toHaveBeenCalledTimes(3);
  // Not a number is the same as itself, and 0 is not -0.
  expect(asked(one, NaN)).toBe(asked(one, NaN));
  expect(Object.is(asked(one, -0).b, -0)).toBe(true);
});

test('the last few are kept, null among them, and no more', () => {
  const sum = jest.fn((k: number) => (k === 0 ? null : k));
  const asked = once(sum, 2);
  asked(0);
  asked(0);
  expect(sum).toHaveBeenCalledTimes(1);
  asked(1);
  asked(2);
  asked(0);
  expect(sum).toHaveBeenCalledTimes(4);
});

test('a sum that failed is not kept', () => {
  let fails = true;
  const asked = once((k: number) => {
    if (fails) throw new Error('no');
    return k;
  });
  expect(() => asked(1)).toThrow('no');
  fails = false;
  expect(asked(1)).toBe(1);
});
