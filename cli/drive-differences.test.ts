import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { type Drive, driveDifferences, parseDrive, readDrive } from '@emery/core/drive';
import { draws } from '../core/test/draws';

const FOLDER = path.resolve(import.meta.dirname, '../demo');
const demos = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.emery.json'))
  .map((name) => {
    const reading = parseDrive(readFileSync(path.join(FOLDER, name), 'utf8'));
    if (!reading.ok) throw new Error(name);
    return reading.drive;
  });
type Any = Record<string, unknown>;
const copy = (drive: Drive) => JSON.parse(JSON.stringify(drive)) as Any;
const texts = (mine: unknown, theirs: unknown) =>
  driveDifferences(mine as Drive, theirs as Drive, 'mm').map(({ part, text }) => `${part} | ${text}`);

/** Every value in a document with the way to it: numbers for places in lists, ids told by the item. */
function places(value: unknown, at: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [at];
  const below = Array.isArray(value)
    ? value.flatMap((item, k) => places(item, [...at, k]))
    : Object.entries(value).flatMap(([key, item]) => places(item, [...at, key]));
  return at.length === 0 ? below : [at, ...below];
}

/** What an item of a list is known by: its id, or what it is about where it has none. */
function keyOf({ id, pulley, belt, test: made, past, at, on, target }: Any): string {
  if (id !== undefined) return String(id);
  if (made !== undefined) return [made, pulley ?? belt, past && at].filter(Boolean).join(' ');
  return String(pulley ?? (on === undefined ? '' : `${String(on)} ${String(target)}`));
}

/** The way as a difference writes it: an item of a list by its id where it has one. */
function named(document: unknown, way: readonly (string | number)[]): string {
  let here = document;
  return way
    .map((step) => {
      here = (here as Any)[step];
      const item = here as Any | null;
      return typeof step === 'number' ? (item && keyOf(item)) || String(step) : step;
    })
    .join('.');
}

test('two that are the same have none, whatever the order of their fields', () => {
  for (const drive of demos) {
    const turned = JSON.parse(JSON.stringify(drive), (_key, value: unknown) =>
      value && typeof value === 'object' && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).reverse())
        : value,
    ) as Drive;
    expect(driveDifferences(drive, turned, 'in')).toEqual([]);
  }
});

test('every difference is named, at its place, in both directions: a value changed, taken out, or put in', () => {
  fc.assert(
    fc.property(fc.constantFrom(...demos), fc.nat(), fc.constantFrom('change', 'remove', 'add'), (drive, pick, how) => {
      const [mine, theirs] = [copy(drive), copy(drive)];
      const all = places(mine).filter((way) => !['id', 'pulley'].includes(String(way.at(-1))));
      const way = all[pick % all.length]!;
      const holder = way.slice(0, -1).reduce<Any>((at, step) => at[step] as Any, mine);
      const [last, value] = [way.at(-1)!, holder[way.at(-1)!]];
      const path = named(theirs, way);
      const isObject = typeof value === 'object' && value !== null;
      if (how === 'remove' || (how === 'change' && isObject)) {
        if (Array.isArray(holder)) holder.splice(Number(last), 1);
        else delete holder[last];
      } else if (isObject) {
        if (Array.isArray(value)) value.push({ ...(value[0] as Any), id: 'new', pulley: 'new' });
        else (value as Any)['newField'] = { a: 1 };
      } else holder[last] = typeof value === 'number' ? value + 1e-7 : `${String(value)}x`;
      // The server keeps no other.
      fc.pre(readDrive(mine).ok);
      for (const [a, b] of [
        [mine, theirs],
        [theirs, mine],
      ] as const) {
        const found = driveDifferences(a as unknown as Drive, b as unknown as Drive, 'mm');
        expect(found.length).toBeGreaterThan(0);
        for (const difference of found) {
          expect(difference.text).not.toMatch(/undefined|NaN|\[object/);
          // At the place itself, or at what holds it and is told whole.
          expect(
            `${path}.`.startsWith(`${difference.path}.`) || difference.path.startsWith(path) || Array.isArray(holder),
          ).toBe(true);
        }
      }
    }),
    { numRuns: draws(300) },
  );
});

test('tapes, pictures, use, loads and checks that only one of them has are told one by one', () => {
  const mine = demos.find(({ survey }) => (survey?.readings?.length ?? 0) > 3)!;
  const theirs = {
    ...mine,
    survey: { ...mine.survey, readings: [] },
    use: { name: 'Town', bins: [] },
    loads: [{ id: 'l', name: 'Lights', amps: 12 }],
    speedChecks: [{ id: 'c', station: mine.stations[1]!.id, crankRpm: 700, rpm: 1400 }],
  } as unknown as Drive;
  const found = texts(mine, theirs);
  expect(found.filter((text) => /^Tapes \| .+: only in yours$/.test(text))).toHaveLength(mine.survey!.readings!.length);
  expect(found).toEqual(
    expect.arrayContaining([
      'Electrical loads | Lights: only in theirs',
      expect.stringMatching(/^Speed checks \| .+ at 1400 rev\/min: only in theirs$/),
      expect.stringMatching(/^The drive \| use/),
    ]),
  );
});

test("what both have and tell differently is told with both figures, in the shop's unit, and finer where they look alike", () => {
  const theirs = copy(demos[0]!) as unknown as Drive;
  const at = (x: number): Drive => ({
    ...theirs,
    stations: theirs.stations.map((station, k) => (k === 1 ? { ...station, x, label: 'Aft alternator' } : station)),
  });
  const [difference] = driveDifferences(at(254), at(266.7), 'in');
  expect(difference).toMatchObject({
    part: 'Shafts and pulleys',
    path: `stations.${theirs.stations[1]!.id}.x`,
    text: 'Aft alternator: right of the crank 10" in yours, 10 1/2" in theirs',
  });
  expect(driveDifferences(at(254), at(254.001), 'mm')[0]!.text).toBe(
    'Aft alternator: right of the crank 254 in yours, 254.001 in theirs',
  );
  const swapped = { ...theirs, stations: [...theirs.stations].reverse() };
  expect(texts(theirs, swapped)).toEqual(['Shafts and pulleys | the shafts are in another order']);
});
