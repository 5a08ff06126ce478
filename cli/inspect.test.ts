import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';
import { type Drive, driveDifferences } from '@emery/core/drive';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-inspect-'));
afterAll(() => rmSync(folder, { recursive: true }));

const drive = JSON.parse(readFileSync('demo/1-rescue-truck.emery.json', 'utf8')) as Drive;
function changed(name: string, inspect: object): string {
  const file = path.join(folder, `${name}.emery.json`);
  writeFileSync(file, JSON.stringify({ ...drive, inspect }));
  return file;
}
const depth = (id: string, odometer: number, value: number) => ({
  id,
  on: 'belt',
  target: 'main',
  check: 'rib-depth',
  value,
  plusMinus: 0.05,
  odometer,
});

test('inspect prints a verdict for every part, what is left with ±, and what is changed together', () => {
  const findings = [
    depth('a', 100_000, 2.4),
    depth('b', 110_000, 2.2),
    { id: 'c', on: 'belt', target: 'main', check: 'oil', outcome: 'yes' },
    { id: 'd', on: 'pulley', target: 'alt-1', check: 'spin', outcome: 'quiet' },
  ];
  const { status, stdout } = emery('inspect', changed('two', { findings }), '--odometer', '112000');
  expect(status).toBe(0);
  const {
    items,
    replaceTogether,
    findings: printed,
  } = JSON.parse(stdout) as {
    items: { on: string; target: string; verdict: string; reasons: string[]; left: object | null }[];
    replaceTogether: string[][];
    findings: { code: string; message: string }[];
  };
  expect(items[0]).toMatchObject({ on: 'belt', target: 'main', verdict: 'replace', reasons: ['oil', 'rib-depth'] });
  expect(items[0]!.left).toEqual({
    distance: expect.closeTo(8000, 6) as number,
    plusMinus: expect.closeTo((0.05 * 10_000 * Math.hypot(0.2, 0.4)) / 0.04, 6) as number,
  });
  expect(items.find(({ target, on }) => on === 'pulley' && target === 'alt-1')!.verdict).toBe('keep');
  expect(items.filter(({ on }) => on === 'arm')).toMatchObject([
    { target: 'ten-1', verdict: 'not looked at', left: null },
  ]);
  expect(replaceTogether).toEqual([['main', 'ten-1']]);
  expect(printed.map(({ code }) => code)).toContain('cure-oil');
  for (const { message } of printed) expect(message).toMatch(/^[A-Z0-9].*\.$/);
});

test.each([
  [
    { findings: [{ id: 'a', on: 'belt', target: 'main', check: 'smell', outcome: 'yes' }] },
    /findings\[0\]\.check.*one of/,
  ],
  [{ findings: [{ id: 'a', on: 'pulley', target: 'alt-1', check: 'oil', outcome: 'yes' }] }, /findings\[0\]\.on.*belt/],
  [
    { findings: [{ id: 'a', on: 'belt', target: 'alt-1', check: 'oil', outcome: 'yes' }] },
    /findings\[0\]\.target.*no such belt/,
  ],
  [
    { findings: [{ id: 'a', on: 'belt', target: 'main', check: 'profile', outcome: 'w' }] },
    /findings\[0\]\.outcome.*v, worn, u/,
  ],
  [{ findings: [{ id: 'a', on: 'belt', target: 'main', check: 'rib-depth' }] }, /findings\[0\]\.value/],
  [{ findings: [{ ...depth('a', 1, 2), value: -1 }] }, /findings\[0\]\.value.*0 or more/],
  [{ findings: [{ ...depth('a', 1, 2), photo: { hash: 'x', width: 3, height: 4 } }] }, /photo\.hash/],
  [{ findings: [{ ...depth('a', 1, 2), marks: { tips: [[1, 2], [3]], valleys: [] } }] }, /marks\.tips\[1\]/],
  [{ limits: [{ check: 'rib-depth', replace: 1 }] }, /limits\[0\]\.from/],
  [{ odometerUnit: 'furlong' }, /inspect\.odometerUnit.*km, mi, h/],
])('a bad inspection is one line that names the field: %j', (inspect, line) => {
  const { status, stderr } = emery('inspect', changed('bad', inspect));
  expect(status).toBe(2);
  expect(stderr.trim().split('\n')).toHaveLength(1);
  expect(stderr).toMatch(line);
});

test('a bad odometer is named', () => {
  for (const bad of ['-1', 'far', '1,2', ''])
    expect(emery('inspect', changed('odometer', {}), '--odometer', bad).stderr).toMatch(/--odometer/);
});

test('two people’s inspections are told apart in words', () => {
  const mine = { ...drive, inspect: { findings: [depth('a', 1000, 2.4)] } } as unknown as Drive;
  const theirs = {
    ...drive,
    inspect: {
      findings: [depth('a', 1000, 2.1)],
      changed: [{ id: 'n', on: 'arm', target: 'ten-1' }],
      limits: [{ check: 'rib-depth', replace: 1.8, from: 'shop' }],
    },
  } as unknown as Drive;
  const text = driveDifferences(mine, theirs, 'mm').map((difference) => `${difference.part}: ${difference.text}`);
  expect(text).toContain('Inspection: Belt, Rib depth: value 2.4 in yours, 2.1 in theirs');
  expect(text).toContain('Inspection: Change of Tensioner: only in theirs');
  expect(text).toContain('Inspection: Limit, Rib depth: only in theirs');
});
