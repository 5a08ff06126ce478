import { changeBelt, changeStation, type Drive, readDrive, removeStation } from '../drive';
import { sizeBelt } from '../seating';
import { driveOf, station } from '../test/examples';
import { adjustersOf, newAdjuster, stiffnessN, travelOf } from './index';

/** The crank drives an alternator in a slot; the alternator drives an air pump on a slide by a second belt. */
function chain(): Drive {
  const drive = driveOf(
    [
      ['crank', 0, 0, 150],
      ['alt', 260, 40, 80, 'drive', { role: 'alternator' }],
    ],
    { section: 'AV13' },
    { crankRotation: 'cw' },
  );
  const sheave = (id: string, diameter: number) => ({ id, surface: 'vee' as const, diameter, plane: 20 });
  const slotted = changeStation(drive, 'alt', {
    adjuster: { kind: 'slot-pivot', pivot: { x: 260, y: -60 }, inAngle: 100, outAngle: 80 },
    pulleys: [...drive.stations[1]!.pulleys, sheave('alt-2', 80)],
  });
  return {
    ...slotted,
    stations: [
      ...slotted.stations,
      {
        id: 'air',
        role: 'air-pump',
        x: 260,
        y: 260,
        adjuster: { kind: 'slide', direction: 90, travel: 30 },
        pulleys: [sheave('air', 110)],
      },
    ],
    belts: [
      { ...slotted.belts[0]!, id: 'first' },
      {
        id: 'second',
        section: 'AV10',
        length: null,
        route: ['alt-2', 'air'].map((pulley) => ({ pulley, side: 'drive' as const })),
      },
    ],
  };
}
const tightens = (drive: Drive, belt: string) =>
  travelOf(
    drive,
    drive.belts.find(({ id }) => id === belt)!,
  )?.station;

test('a shaft that another belt cannot do without is left to that one, whatever the order of the file', () => {
  const drive = chain();
  for (const stations of [drive.stations, [...drive.stations].reverse()]) {
    expect(tightens({ ...drive, stations }, 'first')).toBe('alt');
    expect(tightens({ ...drive, stations }, 'second')).toBe('air');
    expect(adjustersOf({ ...drive, stations }, drive.belts[1]!).unclear).toBe(false);
  }
});

test('where nothing tells, it is asked; the answer is kept in the file and taken', () => {
  const alone: Drive = { ...chain(), belts: chain().belts.slice(1) };
  expect(adjustersOf(alone, alone.belts[0]!).unclear).toBe(true);
  expect(sizeBelt(alone, 'second')!.findings.map(({ code }) => code)).toContain('two-adjusters');
  for (const id of ['alt', 'air']) {
    const said = changeBelt(alone, 'second', { adjuster: id });
    expect(readDrive(JSON.parse(JSON.stringify(said)))).toMatchObject({ ok: true });
    expect(tightens(said, 'second')).toBe(id);
    expect(sizeBelt(said, 'second')!.findings.map(({ code }) => code)).not.toContain('two-adjusters');
  }
  // An answer that names what is gone, or what cannot move, is none.
  expect(tightens(changeBelt(alone, 'second', { adjuster: 'nowhere' }), 'second')).toBeDefined();
  expect(removeStation(changeBelt(alone, 'second', { adjuster: 'air' }), 'air').belts[0]).not.toHaveProperty(
    'adjuster',
  );
});

test('a tensioner goes before an accessory that could move as well', () => {
  const drive = chain();
  const tensioned = changeStation(drive, 'air', { role: 'tensioner' });
  const alone: Drive = { ...tensioned, belts: tensioned.belts.slice(1) };
  expect(tightens(alone, 'second')).toBe('air');
  expect(adjustersOf(alone, alone.belts[0]!).unclear).toBe(false);
});

describe('stiffness', () => {
  const belt = (section: string, overrides?: object) => ({
    id: 'b',
    section,
    route: [],
    ...(overrides && { sectionOverrides: overrides }),
  });
  test('teeth go by their width: 200 kN an inch', () => {
    expect(stiffnessN(belt('H'))).toBeCloseTo(200_000, 6);
    expect(stiffnessN(belt('H', { width: 12.7 }))).toBeCloseTo(100_000, 6);
    expect(stiffnessN(belt('H', { width: 50.8 }))).toBeCloseTo(400_000, 6);
  });
  test('a V-belt has some at any width that is accepted', () => {
    for (const width of [0.5, 2, 4, 8, 10, 13, 22]) expect(stiffnessN(belt('AV10', { width }))).toBeGreaterThan(0);
    expect(stiffnessN(belt('AV13'))).toBeCloseTo(90_000, 6);
  });
});

test('an absurd width or thickness is refused by its name', () => {
  const problems = (sectionOverrides: object) => {
    const reading = readDrive(
      JSON.parse(
        JSON.stringify(
          changeBelt(
            driveOf([
              ['crank', 0, 0, 160],
              ['alt', 300, 0, 60],
            ]),
            'main',
            { sectionOverrides },
          ),
        ),
      ),
    );
    return reading.ok ? [] : reading.problems.map(({ path, message }) => `${path}: ${message}`);
  };
  expect(problems({ width: 5000 })[0]).toMatch(/^belts\[0\]\.sectionOverrides\.width: must be from 0.5 to 300 mm/);
  expect(problems({ width: -3 })[0]).toMatch(/sectionOverrides\.width/);
  expect(problems({ thickness: 400 })[0]).toMatch(/sectionOverrides\.thickness: must be from 0.5 to 60 mm/);
  expect(problems({ thickness: 1 })[0]).toMatch(/sectionOverrides\.thickness: must be more than 1.3 mm/);
  expect(problems({ thickness: 4, width: 3.6 })).toEqual([]);
});

test('the adjuster that a belt names does first, and each that could stands once', () => {
  const [first, second] = [station(['one', 300, 0, 80]), station(['two', 0, 300, 80])];
  const adjuster = newAdjuster('slide', first);
  const drive = {
    ...driveOf([
      ['crank', 0, 0, 150],
      ['one', 300, 0, 80],
      ['two', 0, 300, 80],
    ]),
    stations: [station(['crank', 0, 0, 150]), { ...first, adjuster }, { ...second, adjuster }],
  };
  const ids = (more: object) => {
    const { stations, unclear } = adjustersOf(drive, { ...drive.belts[0]!, ...more });
    return [stations.map(({ id }) => id), unclear];
  };
  expect(ids({ adjuster: 'two' })).toEqual([['two', 'one'], false]);
  expect(ids({ adjuster: 'one' })).toEqual([['one', 'two'], false]);
  expect(ids({})).toEqual([['one', 'two'], true]);
});
