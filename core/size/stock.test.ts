import { readStockRow } from './stock';

test('a row gives section, ribs and length apart, or all by its marking', () => {
  expect(readStockRow({ section: 'PK', ribs: '6', length: '1805', code: 'T 1', price: '14,50', shelf: '2' })).toEqual({
    ok: true,
    belt: { section: 'PK', ribs: 6, lengthMm: 1805, code: 'T 1', price: 14.5, shelf: 2 },
  });
  expect(readStockRow({ marking: '6PK1805' })).toEqual({
    ok: true,
    belt: { section: 'PK', ribs: 6, lengthMm: 1805, code: '', price: null, shelf: 0 },
  });
  expect(readStockRow({ section: 'AV13', length: '49 1/4"' })).toMatchObject({
    ok: true,
    belt: { ribs: null, lengthMm: 1250.95 },
  });
});

test.each([
  ['14.50', 14.5],
  ['14,50', 14.5],
  ['€ 1,234.50', 1234.5],
  ['1.234,50', 1234.5],
  ['0,125', 0.125],
  ['1234', 1234],
])('a price of %j', (price, value) => {
  expect(readStockRow({ marking: '6PK1805', price })).toMatchObject({ ok: true, belt: { price: value } });
});

test.each<[Record<string, string>, RegExp]>([
  [{}, /^section: is missing/],
  [{ section: 'ZZ', length: '900' }, /^section: "ZZ" is none/],
  [{ section: 'PK', length: '900' }, /^ribs:/],
  [{ section: 'PK', ribs: '6.5', length: '900' }, /^ribs:/],
  [{ section: 'PK', ribs: '6', length: 'long' }, /^length:/],
  [{ section: 'PK', ribs: '6', length: '5' }, /^length: 100 to/],
  [{ section: 'AV10' }, /^length: is missing/],
  [{ marking: 'nothing known' }, /^marking:/],
  [{ marking: '6PK1805', shelf: '-1' }, /^shelf:/],
  [{ marking: '6PK1805', price: '-4' }, /^price:/],
  [{ marking: '6PK1805', price: '1,234' }, /^price: "1,234" can be read two ways/],
  [{ section: 'PK', ribs: '6', length: '1,805' }, /^length: 1,805 could be/],
  [{ marking: '6PK1805', code: 'x'.repeat(61) }, /^code:/],
])('a bad row is told by its column: %j', (row, problem) => {
  const read = readStockRow(row);
  expect(read.ok ? '' : read.problem).toMatch(problem);
});

test('a marking that can be read more than one way is asked about, and read with what stands beside it', () => {
  for (const marking of ['6K1795', '5061795', '15435', '6PK4700']) {
    const row = readStockRow({ marking });
    expect(row.ok).toBe(false);
    expect(!row.ok && row.problem).toMatch(/^marking: .*(more than one way)/);
  }
  expect(readStockRow({ marking: '6K1795', section: 'PK', ribs: '6', length: '1795' })).toMatchObject({
    ok: true,
    belt: { section: 'PK', ribs: 6, lengthMm: 1795 },
  });
  expect(readStockRow({ marking: '6PK1795' })).toMatchObject({ ok: true, belt: { lengthMm: 1795 } });
});
