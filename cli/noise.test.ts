import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';
import { type Drive, driveDifferences } from '@emery/core/drive';
import { lessonsOf, soundOfLesson } from '@emery/core/noise';
import { writeWav } from '@emery/core/sound';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-noise-'));
afterAll(() => rmSync(folder, { recursive: true }));

const truck = 'demo/1-rescue-truck.emery.json';
const drive = JSON.parse(readFileSync(truck, 'utf8')) as Drive;
function changed(name: string, noise: object): string {
  const file = path.join(folder, `${name}.emery.json`);
  writeFileSync(file, JSON.stringify({ ...drive, inspect: {}, noise }));
  return file;
}

interface Printed {
  causes: { cause: string; id: string; probability: number }[];
  byCause: { cause: string; probability: number; parts: { id: string; probability: number }[] }[];
  elsewhere: number;
  next: { test: string; gainBits: number; minutes: number; caution: string | null }[];
  findings: { code: string; message: string }[];
}
const diagnosed = (file: string) => JSON.parse(emery('diagnose', file).stdout) as Printed;

test('listen prints what was heard and what repeats with it', () => {
  const lesson = lessonsOf(drive, 720).find(({ kind, rate }) => kind === 'chirp' && rate.what === 'belt')!;
  const file = path.join(folder, 'chirp.wav');
  writeFileSync(file, writeWav(soundOfLesson(drive, 720, lesson, { seed: 4, seconds: 6 })));
  const { status, stdout } = emery('listen', file, '--drive', truck, '--rpm', '720');
  expect(status).toBe(0);
  const heard = JSON.parse(stdout) as { matches: { what: string; hz: number; probability: number }[] };
  expect(heard).toMatchObject({
    kind: 'chirp',
    repeat: { hz: expect.closeTo(lesson.rate.hz, 1) as number },
    tryRpm: null,
    told: { rpm: 720, from: 'needle' },
  });
  // The engine's own beat sharpens the speed that was told, and with it every rate.
  expect(heard.matches[0]).toMatchObject({ what: 'belt', id: 'main', harmonic: 1 });
  expect(Math.abs(heard.matches[0]!.hz / lesson.rate.hz - 1)).toBeLessThan(0.003);
  expect(heard.matches.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
  expect(heard.matches.some(({ what }) => what === 'none')).toBe(true);
});

test('a compressed sound is unpacked where a program for it is there, and refused in plain words where none can', () => {
  const wav = path.join(folder, 'plain.wav');
  const lesson = lessonsOf(drive, 720).find(({ kind, rate }) => kind === 'chirp' && rate.what === 'belt')!;
  writeFileSync(wav, writeWav(soundOfLesson(drive, 720, lesson, { seed: 4, seconds: 6 })));
  const packed = path.join(folder, 'packed.flac');
  const made = spawnSync('sox', [wav, packed], { stdio: 'ignore' }).status === 0;
  if (made) {
    const heardIn = (file: string) =>
      JSON.parse(emery('listen', file, '--drive', truck, '--rpm', '720').stdout) as object;
    expect(heardIn(packed)).toEqual(heardIn(wav));
  }
  for (const [name, start] of [
    ['broken.ogg', 'OggS no sound at all'],
    ['broken.flac', 'fLaC no sound at all'],
    ['broken.m4a', '0000ftyp no sound at all'],
  ] as const) {
    const file = path.join(folder, name);
    writeFileSync(file, start);
    for (const args of [
      ['listen', file, '--drive', truck, '--rpm', '720'],
      ['pluck', file, '--span-mm', '300'],
    ]) {
      const { status, stderr } = emery(...args);
      expect(status).toBe(2);
      if (args[0] === 'listen') expect(stderr).toMatch(/compressed sound .*convert it to WAV/);
      expect(stderr.trim().split('\n')).toHaveLength(1);
    }
  }
});

test('diagnose prints causes that sum to one, and tests with minutes and cautions', () => {
  const { causes, byCause, elsewhere, next, findings } = diagnosed(changed('none', {}));
  expect(causes.reduce((sum, { probability }) => sum + probability, elsewhere)).toBeCloseTo(1, 9);
  // Each cause with all its parts, the likeliest first, and the rows in that order.
  expect(causes.map(({ cause, id }) => `${cause} ${id}`)).toEqual(
    byCause.flatMap(({ cause, parts }) => parts.map(({ id }) => `${cause} ${id}`)),
  );
  expect(byCause.map(({ probability }) => probability)).toEqual(
    byCause.map(
      ({ parts }) =>
        expect.closeTo(
          parts.reduce((sum, part) => sum + part.probability, 0),
          12,
        ) as number,
    ),
  );
  expect(findings.map(({ code }) => code)).toContain('only-priors');
  expect(next.find(({ test }) => test === 'water')!.caution).toMatch(/squeeze bottle/);
  const wet = diagnosed(changed('wet', { evidence: [{ test: 'water', outcome: 'no-change' }] }));
  expect(wet.causes[0]!.cause).toBe('bearing');
  expect(wet.next.map(({ test }) => test)).not.toContain('water');
  // While a stop stands, no test needs the engine to run.
  const stopped = diagnosed(changed('stop', { evidence: [{ test: 'wobble', outcome: 'yes', pulley: 'crank-1' }] }));
  expect(stopped.findings[0]!.code).toBe('hub-stop');
  expect(stopped.next.length).toBeGreaterThan(0);
  for (const { test } of stopped.next)
    expect(['kind', 'repeat', 'water', 'under-load', 'flapping', 'arm-swing', 'belt-off']).not.toContain(test);
  for (const { message } of wet.findings) expect(message).toMatch(/^[A-Z0-9].*\.$/);
});

test.each([
  [{ evidence: [{ test: 'water', outcome: 'damp' }] }, /noise\.evidence\[0\]\.outcome.*quiet-then-back/],
  [{ evidence: [{ test: 'spin', outcome: 'grinds', pulley: 'x' }] }, /noise\.evidence\[0\]\.pulley/],
  [{ evidence: ['loud'] }, /noise\.evidence\[0\]/],
  [{ cylinders: 0 }, /noise\.cylinders/],
  [{ cures: [{ id: 'c', cause: 'ghost', part: 'main' }] }, /noise\.cures\[0\]\.cause/],
])('a bad noise is one line that names the field: %j', (noise, line) => {
  const { status, stderr } = emery('diagnose', changed('bad', noise));
  expect(status).toBe(2);
  expect(stderr).toMatch(line);
  expect(stderr.trim().split('\n')).toHaveLength(1);
});

test.each([
  [['x.wav'], /usage: emery listen/],
  [[truck, '--drive', truck, '--rpm', '720'], /not a WAV file/],
  [[truck, '--drive', truck, '--rpm', 'fast'], /--rpm: "fast"/],
  [[truck, '--drive', 'no-such-file', '--rpm', '720'], /no-such-file/],
  [[truck, '--drive', truck, '--rpm', '720', '--rpm-from', 'ear'], /--rpm-from: "ear" is none of scan, needle, idle/],
])('a wrong call of listen says so: %j', (args, line) => {
  const { status, stderr } = emery('listen', ...args);
  expect(status).toBe(2);
  expect(stderr).toMatch(line);
});

test('what differs in two noises is told in words', () => {
  const mine: Drive = { ...drive, noise: { evidence: [{ test: 'water', outcome: 'louder' }] } };
  const theirs: Drive = {
    ...drive,
    noise: {
      evidence: [{ test: 'water', outcome: 'no-change' }],
      cures: [{ id: 'c', cause: 'loose', part: 'main' }],
    },
  };
  const differences = driveDifferences(mine, theirs, 'mm').map(({ part, text }) => `${part} | ${text}`);
  expect(differences.length).toBeGreaterThan(0);
  for (const line of differences) expect(line).toMatch(/^Noise \| /);
});
