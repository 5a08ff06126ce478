import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';
import type { Drive } from '@emery/core/drive';
import { writeWav } from '@emery/core/sound';
import { runDrive, tensionOf, windowOf } from '@emery/core/loads';
import { simulatedPlucks, waysOf } from '@emery/core/tension';
import { columnsOf } from '../core/test/columns';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-tension-'));
afterAll(() => rmSync(folder, { recursive: true }));

const truck = 'demo/1-rescue-truck.emery.json';
const drive = JSON.parse(readFileSync(truck, 'utf8')) as Drive;

interface Printed {
  static: { tensionN: number; from: string };
  running: {
    rpm: number;
    spans: { tensionN: number }[];
    pulleys: { pulley: string; torqueNm: number; margin: number | null; hubLoadN: number }[];
    worst: { pulley: string; margin: number };
  }[];
  window: { leastN: number | null; mostN: number | null };
  ways: object[];
}

test('tension prints what core has: at rest, running, the window, every check', () => {
  const { status, stdout } = emery('tension', truck, '--belt', 'main', '--rpm', '720,4600', '--wet');
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as Printed;
  const tension = tensionOf(drive);
  const standing = tension.staticBelts[0]!;
  expect(printed.static).toEqual({ tensionN: standing.tensionN, from: 'arm' });
  const states = [720, 4600].map((rpm) => ({ rpm, wet: true }));
  states.forEach((running, k) => {
    const run = columnsOf(runDrive(tension, running).belts[0]!);
    expect(printed.running[k]!.spans.map(({ tensionN }) => tensionN)).toEqual(run.tensionN);
    expect(printed.running[k]!.pulleys.map(({ margin }) => margin)).toEqual(run.margin);
    expect(printed.running[k]!.worst.margin).toBe(Math.min(...run.margin.filter((entry) => entry !== null)));
  });
  const { leastN, mostN } = windowOf(tension, 'main', states)!;
  expect(printed.window).toEqual({ leastN, mostN });
  expect(mostN).toBeNull();
  expect(printed.ways).toEqual(waysOf(standing, standing.tensionN));
});

test('a tension and a state that are named go before what the drive has', () => {
  const steer = { ...drive.stations.find(({ id }) => id === 'steer')! };
  const torque = [
    { state: 'straight', points: [{ rpm: 1000, nm: 2 }] },
    { state: 'full lock', points: [{ rpm: 1000, nm: 9 }] },
  ];
  const file = path.join(folder, 'states.emery.json');
  const stations = drive.stations.map((station) => (station.id === 'steer' ? { ...steer, torque } : station));
  writeFileSync(file, JSON.stringify({ ...drive, stations }));
  const steering = (...more: string[]) => {
    const printed = JSON.parse(emery('tension', file, '--belt', 'main', '--rpm', '900', ...more).stdout) as Printed;
    return [printed.static.from, printed.running[0]!.pulleys.find(({ pulley }) => pulley === 'steer-1')!.torqueNm];
  };
  expect(steering()).toEqual(['arm', 2]);
  expect(steering('--static', '500', '--state', 'full lock')).toEqual(['given', 9]);
});

test('pluck hears the note of a file, and says when there is none', () => {
  const span = { lengthMm: 268, kgPerMetre: 0.111 };
  const [sound, noise] = [path.join(folder, 'span.wav'), path.join(folder, 'noise.wav')];
  writeFileSync(sound, writeWav(simulatedPlucks(span, 420, { hum: 0.1, hiss: 0.03, plucks: 3 }, 11)));
  writeFileSync(noise, writeWav(simulatedPlucks(span, 420, { hum: 0, hiss: 0.3, plucks: 0 }, 12)));
  const heard = (file: string) =>
    JSON.parse(emery('pluck', file, '--length-mm', '268', '--mass', '0.111').stdout) as {
      tensionN: number | null;
      findings: { code: string; message: string }[];
    };
  expect(Math.abs(heard(sound).tensionN! / 420 - 1)).toBeLessThan(0.01);
  expect(heard(noise)).toMatchObject({ tensionN: null, findings: [{ code: expect.any(String) as string }] });
});

test.each<[string[], RegExp]>([
  [['tension', truck, '--rpm', '700'], /^emery: usage: emery tension FILE --belt ID --rpm a,b/],
  [['tension', truck, '--belt', 'main', '--rpm', 'idle'], /^emery: --rpm: "idle" is not an engine speed/],
  [
    ['tension', truck, '--belt', 'none', '--rpm', '700'],
    /^emery: --belt: there is no belt "none"; this drive has main/,
  ],
  [['tension', truck, '--belt', 'main', '--rpm', '700', '--static', '-5'], /^emery: (--static: "-5"|usage:)/],
  [['pluck', truck, '--length-mm', '200', '--mass', '0.1'], /^emery: FILE is not a WAV file/],
  [
    ['pluck', 'none.wav', '--length-mm', '200', '--mass', '0.1'],
    /^emery: FILE none.wav cannot be read: there is no such/,
  ],
  [['pluck', truck, '--length-mm', 'long', '--mass', '0.1'], /^emery: --length-mm: "long" is not a length of the span/],
])('bad input is one plain line and exit code 2: %s', (args, line) => {
  const { status, stderr, stdout } = emery(...args);
  expect([status, stdout]).toEqual([2, '']);
  expect(stderr).toMatch(line);
});
