/** @jest-environment node */
import { decoded } from './read-csv';
import { readStockFile, type StockFile } from './read-stock-file';
import { csvCell } from '@emery/core/quantity';

const file = (content: string | Uint8Array) => new File([content as BlobPart], 'list.csv');
const read = async (content: string | Uint8Array): Promise<StockFile> => {
  const outcome = await readStockFile(file(content));
  if (!outcome.ok) throw new Error(outcome.problem);
  return outcome.file;
};

test('commas, semicolons and a byte order mark; bad rows are told by their line in the file, blank lines or not', async () => {
  const { good, bad } = await read('\uFEFFSection;Ribs;Length;Code\nPK;6;1805;"A;1"\n\n\nPK;;1800;B\n\nAV13;;1250;C\n');
  expect(good.map(({ belt }) => [belt.section, belt.lengthMm, belt.code])).toEqual([
    ['PK', 1805, 'A;1'],
    ['AV13', 1250, 'C'],
  ]);
  expect(bad).toEqual([{ line: 5, text: 'PK, , 1800, B', problem: expect.stringMatching(/^ribs:/) as string }]);
});

test('a list of markings is enough; a file without known columns, or with too many rows, is refused by name', async () => {
  expect((await read('marking,shelf\n6PK1805,2\n')).good[0]!.belt).toMatchObject({ lengthMm: 1805, shelf: 2 });
  await expect(read('a,b\n1,2\n')).rejects.toThrow('list.csv must name the columns in its first line');
  await expect(read('')).rejects.toThrow('list.csv must name the columns in its first line');
  await expect(read(`marking\n${'6PK1805\n'.repeat(50_001)}`)).rejects.toThrow('list.csv holds more than 50,000 rows');
});

test('a quotation mark that is never closed, or closes lines later, is told at its line, and what is before it is read', async () => {
  const open = await read('marking,code\n6PK1805,A\n6PK1810,"B\n6PK1815,C\n6PK1820,D\n');
  expect(open.good.map(({ belt }) => belt.code)).toEqual(['A']);
  expect(open.bad).toMatchObject([
    { line: 3, problem: expect.stringMatching(/opened here and never closed/) as string },
  ]);
  const later = await read('marking,code\n6PK1805,"A\n6PK1810,B"\n6PK1815,C\nnone,D\n');
  expect(later.bad.map(({ line }) => line)).toEqual([2, 5]);
  expect(later.bad[0]!.problem).toMatch(/over several lines/);
});

test('a file that is not UTF-8 is read as Windows-1252, and that is said', async () => {
  const { good, note } = await read(new Uint8Array([...Buffer.from('marking,code\n6PK1805,caf'), 0xe9, 0x0a]));
  expect([good[0]!.belt.code, note]).toEqual(['café', expect.stringMatching(/Windows-1252/)]);
  expect(decoded(new Uint8Array([0xff, 0xfe, 0x41, 0x00])).text.replace('\uFEFF', '')).toBe('A');
  expect((await read('marking,code\n6PK1805,café\n')).note).toBeNull();
});

test.each(['-12', "'-12", '=1+1', '+4', '@x', "'x", 'plain'])(
  'a code comes back from a list as it went in: %j',
  async (code) => {
    const cell = csvCell(code);
    expect(cell).not.toMatch(/^[=+\-@]/);
    expect((await read(`marking,code\n6PK1805,${cell}\n`)).good[0]!.belt.code).toBe(code);
  },
);
