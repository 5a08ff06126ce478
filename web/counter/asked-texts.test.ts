import fc from 'fast-check';
import { searchOf, textsOf } from './asked-texts';

test('what is asked comes back from its address as it was written', () => {
  const name = fc.stringMatching(/^[a-z]{1,8}$/);
  fc.assert(
    fc.property(fc.dictionary(name, fc.string({ minLength: 1, maxLength: 60 }), { maxKeys: 20 }), (texts) => {
      expect({ ...textsOf(searchOf(texts)) }).toEqual({ ...texts });
    }),
  );
  expect(searchOf({ read: '', back: '' })).toBe('');
});

test('an address carries at most a page can be asked', () => {
  const many = Array.from({ length: 500 }, (_, k) => `n${k}=${'9'.repeat(1000)}`).join('&');
  const texts = textsOf(`?${many}`);
  expect(Object.keys(texts)).toHaveLength(40);
  expect(Math.max(...Object.values(texts).map((text) => text!.length))).toBe(120);
  expect(() => textsOf('?%E0%A4%A&=&&&a')).not.toThrow();
});
