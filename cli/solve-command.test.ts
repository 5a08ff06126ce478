import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';

const ROOT = path.resolve(__dirname, '..');
const folder = mkdtempSync(path.join(tmpdir(), 'emery-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

function fileOf(
  change: (drive: { stations: { pulleys: Record<string, unknown>[] }[] }) => void = () => undefined,
): string {
  const pulley = (id: string) => ({ id, surface: 'ribbed', diameter: 100, grooves: 6, plane: 0 });
  const drive = {
    format: 'emery-drive',
    version: 1,
    name: 'two',
    crankRotation: 'cw',
    stations: [
      { id: 'crank', role: 'crankshaft', x: 0, y: 0, pulleys: [pulley('crank-1')] },
      { id: 'alt', role: 'alternator', x: 300, y: 0, pulleys: [pulley('alt-1')] },
    ],
    belts: [
      {
        id: 'main',
        section: 'PK',
        ribs: 6,
        length: null,
        route: [
          { pulley: 'crank-1', side: 'drive' },
          { pulley: 'alt-1', side: 'drive' },
        ],
      },
    ],
  };
  change(drive);
  const file = path.join(folder, `${Math.random()}.emery.json`);
  writeFileSync(file, JSON.stringify(drive));
  return file;
}

describe('emery solve', () => {
  test('prints the documented object, full precision, and nothing else', () => {
    const { status, stdout, stderr } = emery('solve', fileOf());
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    const { belts } = JSON.parse(stdout) as { belts: Record<string, unknown>[] };
    expect(belts).toHaveLength(1);
    expect(Object.keys(belts[0]!)).toEqual(['id', 'closed', 'length', 'cordLength', 'contacts', 'spans', 'findings']);
    expect(belts[0]).toMatchObject({
      id: 'main',
      closed: true,
      length: { basis: 'effective', mm: 600 + 100 * Math.PI },
    });
    expect((belts[0]!['contacts'] as object[])[1]).toEqual({
      pulley: 'alt-1',
      side: 'drive',
      wrapDeg: 180,
      rotation: 'cw',
      speedRatio: 1,
      cordRadius: 52,
    });
    expect((belts[0]!['spans'] as object[])[0]).toEqual({ from: 'crank-1', to: 'alt-1', length: 300 });
  });

  test('a drive with a fault still exits 0 and says so in plain words', () => {
    const { status, stdout } = emery(
      'solve',
      fileOf((drive) => (drive.stations[1]!.pulleys[0]!['diameter'] = 0)),
    );
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({
      belts: [
        {
          closed: false,
          cordLength: null,
          length: { mm: null },
          findings: [
            {
              code: 'no-size',
              severity: 'fault',
              pulley: 'alt-1',
              message: expect.stringContaining('Alternator has no size') as string,
            },
          ],
        },
      ],
    });
  });

  test.each([
    [
      'a wrong field',
      () => ['solve', fileOf((drive) => (drive.stations[0]!.pulleys[0]!['diameter'] = 'wide'))],
      /^emery: stations\[0\]\.pulleys\[0\]\.diameter must be a number of millimetres\n$/,
    ],
    ['no file', () => ['solve'], /^emery: usage: emery solve FILE\n$/],
    [
      'a file that is not there',
      () => ['solve', path.join(folder, 'none.json')],
      /^emery: FILE .*none\.json cannot be read: there is no such file\n$/,
    ],
    ['an unknown command', () => ['fly'], /^emery: usage: .*\n$/],
    ['a name every object has', () => ['constructor'], /^emery: usage: .*\n$/],
  ] as [string, () => string[], RegExp][])('%s is one line on standard error and exit 2', (_, args, line) => {
    const { status, stdout, stderr } = emery(...args());
    expect({ status, stdout }).toEqual({ status: 2, stdout: '' });
    expect(stderr).toMatch(line);
  });

  test('every finished demo drive solves without a fault', () => {
    const files = readdirSync(path.join(ROOT, 'demo')).filter((name) => /^[1-5].*\.emery\.json$/.test(name));
    expect(files).toHaveLength(5);
    for (const name of files) {
      const { belts } = JSON.parse(emery('solve', path.join('demo', name)).stdout) as {
        belts: { closed: boolean; findings: { severity: string }[] }[];
      };
      for (const belt of belts)
        expect({
          name,
          closed: belt.closed,
          faults: belt.findings.filter(({ severity }) => severity === 'fault'),
        }).toEqual({ name, closed: true, faults: [] });
    }
  });
});
