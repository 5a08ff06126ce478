import { readStockFile } from './read-stock-file';

const file = (text: string) => Object.assign(new Blob([text]), { name: 'list.csv', text: () => Promise.resolve(text) }) as unknown as File;

test('commas, semicolons and a byte order mark; bad rows are told by line', async () => {
  const { good, bad } = await readStockFile(file('\uFEFFSection;Ribs;Length;Code\nPK;6;1805;"A;1"\nPK;;1800;B\n\nAV13;;1250;C\n'));
  expect(good.map(({ belt }) => [belt.section, belt.lengthMm, belt.code])).toEqual([['PK', 1805, 'A;1'], ['AV13', 1250, 'C']]);
  expect(bad).toEqual([{ line: 3, text: 'PK, , 1800, B', problem: expect.stringMatching(/^ribs:/) as string }]);
});

test('a list of markings is enough; a file without known columns is refused by name', async () => {
  expect((await readStockFile(file('marking,shelf\n6PK1805,2\n'))).good[0]!.belt).toMatchObject({ lengthMm: 1805, shelf: 2 });
  await expect(readStockFile(file('a,b\n1,2\n'))).rejects.toThrow('list.csv: the first line must name the columns');
});
