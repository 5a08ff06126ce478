import { readSpeedLog } from './read-speed-log';

test('a log with headings becomes bins of running time time', async () => {
  const rows = Array.from({ length: 601 }, (_, s) => `${s},${s < 300 ? 800 : 2400}`);
  const read = await readSpeedLog(`time_s,engine_rpm\n${rows.join('\n')}\n`);
  if (!read.ok) throw new Error(read.problem);
  expect([read.rows, read.bad, Math.round(read.runningS)]).toEqual([601, 0, 600]);
  expect(read.bins.find(({ from, to }) => from <= 800 && 800 < to)!.share).toBeCloseTo(0.5, 2);
  expect(read.bins.find(({ from, to }) => from <= 2400 && 2400 < to)!.share).toBeCloseTo(0.5, 2);
});

test('semicolons and decimal commas; bad rows by their line in the file', async () => {
  const read = await readSpeedLog('t;rpm\n0;900,5\n0,5;901\nx;y\n1;902\n');
  expect(read).toMatchObject({ ok: true, rows: 4, bad: 1, firstBad: [{ line: 4, text: 'x,y' }], runningS: 1 });
});

test.each([
  ['', /empty/],
  ['speed,gear\n1,2\n', /two columns/],
  ['time,rpm\n0,0\n1,0\n', /does not run/],
])('what is no log is refused with what is looked for: %j', async (text, problem) => {
  const read = await readSpeedLog(text);
  expect(read.ok ? '' : read.problem).toMatch(problem);
});

test('thousands parted by commas, a quote that is not closed, and lines counted over blank ones', async () => {
  const parted = await readSpeedLog('s,rpm\n0,"1,234"\n1,"1,234"\n2,"1,234"\n');
  expect(parted).toMatchObject({ ok: true, rows: 3, bad: 0, runningS: 2 });
  // Where commas are decimal nobody can tell, so the row is told and left out.
  expect(await readSpeedLog('s;rpm\n0;900\n1;1,234\n2;900\n')).toMatchObject({
    ok: true,
    bad: 1,
    firstBad: [{ line: 3 }],
  });
  expect(await readSpeedLog('s,rpm\n0,"900\n1,900\n2,900\n')).toMatchObject({
    ok: false,
    problem: expect.stringMatching(/quotation mark/) as string,
  });
  expect(await readSpeedLog('s,rpm\n\n\n0,900\n1,x\n2,900\n')).toMatchObject({ ok: true, firstBad: [{ line: 5 }] });
});
