import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';

const ROOT = path.resolve(__dirname, '..');
const folder = mkdtempSync(path.join(tmpdir(), 'emery-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

const demo = (name: string) => path.join('demo', `${name}.emery.json`);

function changed(name: string, change: (drive: Record<string, unknown>) => void): string {
  const drive = JSON.parse(readFileSync(path.join(ROOT, demo(name)), 'utf8')) as Record<string, unknown>;
  change(drive);
  const file = path.join(folder, `${Math.random()}.json`);
  writeFileSync(file, JSON.stringify(drive));
  return file;
}

test('survey prints every shaft and reading, the crank at 0, 0', () => {
  const { status, stdout } = emery('survey', demo('6-parish-minibus'));
  expect(status).toBe(0);
  const { stations, readings, findings } = JSON.parse(stdout) as {
    stations: Record<string, unknown>[];
    readings: Record<string, unknown>[];
    findings: Record<string, unknown>[];
  };
  expect(stations[0]).toEqual({ id: 'crank', x: 0, y: 0, plusMinusX: 0, plusMinusY: 0 });
  expect(stations.map(({ id }) => id)).toEqual(['crank', 'alt', 'pump', 'ten']);
  expect(Object.keys(readings[0]!)).toEqual(['id', 'residual', 'normalised', 'suspect']);
  expect(findings).toContainEqual(
    expect.objectContaining({
      code: 'undetermined',
      pulley: 'ten-1',
      message: expect.stringContaining('Tensioner is not fixed yet.') as string,
    }),
  );
});

test('survey names the field of a reading that is wrong', () => {
  const file = changed('6-parish-minibus', (drive) => {
    (drive['survey'] as { readings: Record<string, unknown>[] }).readings[1]!['mm'] = 'long';
  });
  expect(emery('survey', file)).toMatchObject({
    status: 2,
    stdout: '',
    stderr: 'emery: survey.readings[1].mm must be a number of millimetres\n',
  });
});

test('route ignores the route that is there and prints the best first', () => {
  const { status, stdout } = emery('route', demo('1-rescue-truck'), '--belt', 'main', '--top', '3');
  expect(status).toBe(0);
  const { searched, routes } = JSON.parse(stdout) as {
    searched: number;
    routes: { route: object[]; lengthMm: number; leastWrapDeg: number; score: number; reasons: string[] }[];
  };
  expect(searched).toBeGreaterThan(10);
  expect(routes).toHaveLength(3);
  expect(routes[0]!.route[0]).toEqual({ pulley: 'crank-1', side: 'drive' });
  expect(routes.map(({ score }) => score)).toEqual(routes.map(({ score }) => score).sort((a, b) => b - a));
  for (const { lengthMm, leastWrapDeg, reasons } of routes) {
    expect(lengthMm).toBeGreaterThan(1000);
    expect(leastWrapDeg).toBeGreaterThan(0);
    expect(reasons.length).toBeGreaterThan(1);
  }
});

test.each([
  [['route', demo('1-rescue-truck')], 'emery: usage: emery route FILE --belt ID [--top N]\n'],
  [
    ['route', demo('1-rescue-truck'), '--belt', 'ghost'],
    'emery: --belt names "ghost", and the drive has no such belt\n',
  ],
  [
    ['route', demo('1-rescue-truck'), '--belt', 'main', '--top', 'all'],
    'emery: --top must be a whole number, 1 or more, not all\n',
  ],
  [['survey'], 'emery: usage: emery survey FILE\n'],
])('%j is one line and exit 2', (args, stderr) => {
  expect(emery(...args)).toMatchObject({ status: 2, stdout: '', stderr });
});
