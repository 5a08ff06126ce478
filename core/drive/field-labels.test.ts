import { driveOf } from '../test/examples';
import { changeBelt, changeStation } from './edit';
import { driveDifferences } from './differences';
import type { Drive } from './drive';
import { fieldLabel, fileFields } from './field-labels';
import { readDrive } from './read-drive';

const base = (): Drive =>
  driveOf([
    ['crank', 0, 0, 160],
    ['alt', 260, 120, 61],
  ]);
const differences = (mine: Drive, theirs: Drive) => driveDifferences(mine, theirs, 'mm').map(({ text }) => text);

test('one name in several places: an angle is no date, and source of the limit no pulley', () => {
  const reading = (at: number) =>
    ({ ...base(), align: { readings: [{ id: 'r', tool: 'laser', pulley: 'alt', at, mm: 1 }] } }) as Drive;
  expect(differences(reading(0), reading(120))[0]).toMatch(/position on the rim 0° in yours, 120° in theirs/);
  const limit = (from: string) =>
    ({ ...base(), inspect: { limits: [{ check: 'rock', from, replace: 1 }] } }) as unknown as Drive;
  expect(differences(limit('shop'), limit('manual'))[0]).toMatch(
    /source of the limit "shop" in yours, "manual" in theirs/,
  );
  const dated = (at: string) =>
    changeBelt(base(), 'main', { tensionReadings: [{ id: 't', way: 'pluck', hz: 100, at }] });
  expect(differences(dated('2026-01-01'), dated('2026-02-01'))[0]).toMatch(/date "2026-01-01"/);
});

test('figures carry their units, lengths the shop’s', () => {
  const limited = (hubLoadLimit: number) => changeStation(base(), 'alt', { hubLoadLimit });
  expect(differences(limited(1800), limited(2200))[0]).toMatch(/bearing load limit 1800 N in yours, 2200 N in theirs/);
  const arm = (freeAngle: number) =>
    changeStation(base(), 'alt', {
      adjuster: { kind: 'sprung-arm', pivot: { x: 0, y: 0 }, armLength: 80, freeAngle, fullAngle: 120 },
    });
  expect(differences(arm(60), arm(70))[0]).toMatch(/free angle 60° in yours, 70° in theirs/);
  expect(
    driveDifferences(
      changeBelt(base(), 'main', { length: 1270 }),
      changeBelt(base(), 'main', { length: 1295.4 }),
      'in',
    )[0]!.text,
  ).toBe('Belt: length 50" in yours, 51" in theirs');
});

test('a field that no schema has is called as it is written', () => {
  expect(fieldLabel('belts', 'colour')).toEqual({ label: 'colour' });
  expect(fieldLabel('nowhere', 'x')).toEqual({ label: 'x' });
  // Names that every object has are no labels.
  expect(fieldLabel('belts', 'constructor')).toEqual({ label: 'constructor' });
  const odd = (value: unknown) => ({ ...base(), constructor: value }) as unknown as Drive;
  expect(differences(odd('a'), base())).toEqual(['constructor "a" in yours, nothing in theirs']);
});

test('places have their names wherever they stand', () => {
  const way = 'stations.adjuster.strut.anchor';
  expect(fieldLabel(way, 'x')).toEqual({ label: 'right of the crank', unit: 'mm' });
  expect(fieldLabel('obstacles.to', 'y')).toEqual({ label: 'above the crank', unit: 'mm' });
});

test('what a field may be, and whether a file needs it, is what the check of a file says', () => {
  const tables = fileFields();
  const drive = { ...base(), obstacles: [{ id: 'o', x: 0, y: 0, diameter: 10 }] };
  const problems = (change: object) => {
    const read = readDrive({ ...drive, obstacles: [{ ...drive.obstacles[0], ...change }] });
    return read.ok ? [] : read.problems.map(({ path: at, message }) => [at, message]);
  };
  expect(problems({ diameter: undefined })).toEqual([['obstacles[0].diameter', 'is missing']]);
  expect(tables['obstacles']!['diameter']!.needed).toBe(true);
  expect(problems({ plane: undefined })).toEqual([]);
  expect(tables['obstacles']!['plane']!.needed).toBe(false);
  expect(problems({ diameter: -1 })).toEqual([['obstacles[0].diameter', 'must be 0 mm or more']]);
  expect(tables['obstacles']!['diameter']!.accepted).toEqual([
    'a number of millimetres from −100,000 to 100,000',
    '0 mm or more',
  ]);
  expect(tables['belts.tensionReadings']!['way']!.accepted).toEqual([
    'one of push, free-play, twist, gauge, pluck, pointer',
  ]);
});
