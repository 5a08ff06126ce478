import fc from 'fast-check';
import { jsonText, RawJson } from './raw-json';

test('what is put in as it is reads back as what it was written from, wherever it stands', () => {
  fc.assert(
    fc.property(fc.array(fc.record({ name: fc.string(), value: fc.jsonValue() })), (rows) => {
      const raw = rows.map(({ name, value }) => ({ name, value: new RawJson(JSON.stringify(value)) }));
      expect(JSON.parse(jsonText({ rows: raw }))).toEqual(JSON.parse(JSON.stringify({ rows })));
    }),
  );
});

test('a text that looks like a mark is a text', () => {
  const value = { a: new RawJson('[1]'), b: 'raw 0 ', c: '"$&"', d: new RawJson('{"e":"$1"}') };
  expect(JSON.parse(jsonText(value))).toEqual({ a: [1], b: 'raw 0 ', c: '"$&"', d: { e: '$1' } });
});
