import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { simulatedBay } from '@emery/core/noise';
import { writeWav } from '@emery/core/sound';
import { simulatedPlucks } from '@emery/core/tension';
import { DEMO } from '../core/test/demo';
import { DRIVE_COMMANDS, FILE_COMMANDS, SOUND_COMMANDS, TEXT_COMMANDS } from './commands';
import { emery, emeryByNpm, emeryProcess } from './test/emery';

/*
 * Each command once in a process of its own, as a person calls it: it prints and ends as the same call does without
 * one, which is how all other tests of the command line call it.
 */
const folder = mkdtempSync(path.join(tmpdir(), 'emery-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

const truck = 'demo/1-rescue-truck.emery.json';
const wav = (name: string, sound: Parameters<typeof writeWav>[0]) => {
  const file = path.join(folder, name);
  writeFileSync(file, writeWav(sound));
  return file;
};
const plucks = () =>
  simulatedPlucks({ lengthMm: 268, kgPerMetre: 0.111 }, 420, { hum: 0.1, hiss: 0.03, plucks: 3 }, 11);

/** What each command is called with. */
const CALLS: Record<string, () => string[]> = {
  solve: () => [truck],
  survey: () => ['demo/6-parish-minibus.emery.json'],
  route: () => [truck, '--belt', 'main', '--top', '3'],
  size: () => [truck, '--belt', 'main', '--lengths', '1780,1805,1900'],
  speeds: () => [truck, '--rpm', '850,2300'],
  tension: () => [truck, '--belt', 'main', '--rpm', '720,4600'],
  align: () => [truck, '--belt', 'main'],
  diagnose: () => [truck],
  inspect: () => [truck, '--odometer', '112000'],
  job: () => [truck],
  marking: () => ['6PK1735'],
  string: () => ['66 1/2"', '--section', 'PK', '--held', 'slack'],
  'two-pulleys': () => ['5", 3"', '--distance', '12"', '--section', 'AV13'],
  pluck: () => [wav('plucks.wav', plucks()), '--length-mm', '268', '--mass', '0.111'],
  listen: () => [wav('bay.wav', simulatedBay(DEMO.rescue, 720, 3).sound), '--drive', truck, '--rpm', '720'],
};

test.each([...DRIVE_COMMANDS, ...TEXT_COMMANDS, ...FILE_COMMANDS, ...SOUND_COMMANDS].map(({ name }) => name))(
  '%s in a process of its own prints what it prints without one',
  (name) => {
    const args = [name, ...CALLS[name]!()];
    const { status, stdout, stderr } = emeryProcess(...args);
    expect({ status, stdout, stderr }).toEqual(emery(...args));
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    expect(JSON.parse(stdout)).not.toEqual({});
  },
);

test('npm run emery is that process', () => {
  const { status, stdout, stderr } = emeryByNpm('solve', truck);
  expect({ status, stdout, stderr }).toEqual(emery('solve', truck));
});

test('what is wrong is one plain line on standard error and 2, in a process of its own as without one', () => {
  for (const args of [['solve', 'none.json'], ['size', truck], ['nothing']]) {
    const { status, stdout, stderr } = emeryProcess(...args);
    expect({ status, stdout, stderr }).toEqual(emery(...args));
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  }
});
