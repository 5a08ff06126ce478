import { readHistoryFile } from './read-history-file';

const read = (text: string) => readHistoryFile('old.csv', new TextEncoder().encode(text));

test('commas, semicolons or tabs, columns in any order and case, with the line of each row', () => {
  for (const mark of [',', ';', '\t']) {
    const answer = read(
      [
        ['Number', 'VEHICLE ', 'taken off', 'colour'],
        ['TF 1', 'Truck', '2023-01-01', 'red'],
        [],
        ['TF 2', '"A\nB"', '', ''],
      ]
        .map((cells) => cells.join(mark))
        .join('\r\n'),
    );
    expect(answer).toMatchObject({
      ok: true,
      file: {
        rows: [
          { line: 2, cells: { number: 'TF 1', vehicle: 'Truck', 'taken off': '2023-01-01' } },
          { line: 4, cells: { number: 'TF 2', vehicle: 'A\nB', 'taken off': '' } },
        ],
      },
    });
  }
});

test.each([
  ['', /no first line with the columns vehicle, belt/],
  ['number,fitted\n1,2', /no first line with the columns/],
  ['vehicle,number\n', /holds no rows/],
  ['vehicle,number\nA,"1', /quotation mark \("\) on line 2/],
  [`vehicle\n${'A\n'.repeat(2001)}`, /more than 2,000 rows/],
])('a file that is no such list says why', (text, why) => {
  const answer = read(text);
  expect(answer.ok ? '' : answer.problem).toMatch(why);
});
