import { driveOf } from '../test/examples';
import { changeBelt, changeStation } from './edit';
import { driveDifferences } from './differences';
import type { Drive } from './drive';
import { fieldLabel } from './field-labels';

const base = (): Drive =>
  driveOf([
    ['crank', 0, 0, 160],
    ['alt', 260, 120, 61],
  ]);
const told = (mine: Drive, theirs: Drive) => driveDifferences(mine, theirs, 'mm').map(({ text }) => text);

test('one name in several places: an angle is no date, and source of the limit no pulley', () => {
  const reading = (at: number) =>
    ({ ...base(), align: { readings: [{ id: 'r', tool: 'laser', pulley: 'alt', at, mm: 1 }] } }) as Drive;
  expect(told(reading(0), reading(120))[0]).toMatch(/position on the rim 0° in yours, 120° in theirs/);
  const limit = (from: string) =>
    ({ ...base(), inspect: { limits: [{ check: 'rock', from, replace: 1 }] } }) as unknown as Drive;
  expect(told(limit('shop'), limit('manual'))[0]).toMatch(/source of the limit "shop" in yours, "manual" in theirs/);
  const dated = (at: string) =>
    changeBelt(base(), 'main', { tensionReadings: [{ id: 't', way: 'pluck', hz: 100, at }] });
  expect(told(dated('2026-01-01'), dated('2026-02-01'))[0]).toMatch(/date "2026-01-01"/);
});

test('figures carry their units, lengths the shop’s', () => {
  const limited = (hubLoadLimit: number) => changeStation(base(), 'alt', { hubLoadLimit });
  expect(told(limited(1800), limited(2200))[0]).toMatch(/bearing load limit 1800 N in yours, 2200 N in theirs/);
  const arm = (freeAngle: number) =>
    changeStation(base(), 'alt', {
      adjuster: { kind: 'sprung-arm', pivot: { x: 0, y: 0 }, armLength: 80, freeAngle, fullAngle: 120 },
    });
  expect(told(arm(60), arm(70))[0]).toMatch(/free angle 60° in yours, 70° in theirs/);
  expect(
    driveDifferences(
      changeBelt(base(), 'main', { length: 1270 }),
      changeBelt(base(), 'main', { length: 1295.4 }),
      'in',
    )[0]!.text,
  ).toBe('Belt: length 50" in yours, 51" in theirs');
});

test('a field that no table has is called as it is written', () => {
  expect(fieldLabel('belts', 'colour')).toEqual({ label: 'colour' });
  expect(fieldLabel('nowhere', 'x')).toEqual({ label: 'right of the crank', unit: 'mm' });
  // Names that every object has are no labels.
  expect(fieldLabel('belts', 'constructor')).toEqual({ label: 'constructor' });
});
