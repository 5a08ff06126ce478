import { driveOf, SERPENTINE } from '../test/examples';
import * as drives from './index';
import { bestPlaceFor, solveBelt } from '../path';
import type { Drive } from './drive';
import { readDrive } from './index';

const sample = (): Drive => driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
const problems = (value: unknown) => {
  const reading = drives.readDrive(value);
  return reading.ok ? [] : reading.problems.map(({ path, message }) => `${path}: ${message}`);
};
/** The sample with the value at `path` replaced, or taken out with undefined. */
function spoiled(path: (string | number)[], value: unknown): unknown {
  const copy = JSON.parse(JSON.stringify(sample())) as Record<string | number, unknown>;
  const holder = path
    .slice(0, -1)
    .reduce<Record<string | number, unknown>>((at, key) => at[key] as Record<string | number, unknown>, copy);
  holder[path[path.length - 1]!] = value;
  return JSON.parse(JSON.stringify(copy));
}

describe('reading a drive file', () => {
  test('a good one comes back as it is, unknown fields and all', () => {
    const extra = {
      ...sample(),
      workshopNote: { shelf: 3 },
      stations: sample().stations.map((s) => ({ ...s, bolt: 'M10' })),
    };
    const reading = drives.parseDrive(`\uFEFF${drives.writeDrive(extra)}`);
    expect(reading).toEqual({ ok: true, drive: extra });
    expect(problems({ ...extra, belts: [{ ...extra.belts[0], length: 1731.5, maker: null }] })).toEqual([]);
  });

  test.each<[(string | number)[], unknown, RegExp]>([
    [['format'], 'other', /^format: must be "emery-drive"/],
    [['version'], 2, /^version: is 2: this file comes from a newer Emery/],
    [['version'], '1', /^version: must be 1/],
    [['crankRotation'], 'left', /^crankRotation: must be one of cw, ccw/],
    [['crankRotation'], undefined, /^crankRotation: is missing/],
    [['name'], 7, /^name: must be text/],
    [['stations'], 'none', /^stations: must be a list/],
    [['stations'], undefined, /^stations: is missing/],
    [['stations', 1], null, /^stations\[1\]: must be an object/],
    [['stations', 0, 'x'], '0', /^stations\[0\]\.x: must be a number of millimetres/],
    [['stations', 0, 'y'], null, /^stations\[0\]\.y: /],
    [['stations', 2, 'role'], 'turbine', /^stations\[2\]\.role: must be one of crankshaft, /],
    [['stations', 2, 'requires'], 'up', /^stations\[2\]\.requires: must be one of cw, ccw/],
    [['stations', 2, 'pulleys'], [], /^stations\[2\]\.pulleys: must have one pulley or more/],
    [
      ['stations', 0, 'pulleys', 0, 'diameter'],
      'big',
      /^stations\[0\]\.pulleys\[0\]\.diameter: must be a number of millimetres/,
    ],
    [['stations', 0, 'pulleys', 0, 'diameter'], -5, /^stations\[0\]\.pulleys\[0\]\.diameter: must be 0 mm or more/],
    [['stations', 0, 'pulleys', 0, 'diameter'], undefined, /^stations\[0\]\.pulleys\[0\]\.diameter: is missing/],
    [
      ['stations', 0, 'pulleys', 0, 'surface'],
      'rubber',
      /^stations\[0\]\.pulleys\[0\]\.surface: must be one of ribbed, /,
    ],
    [
      ['stations', 0, 'pulleys', 0, 'grooves'],
      2.5,
      /^stations\[0\]\.pulleys\[0\]\.grooves: must be a whole number of grooves/,
    ],
    [['stations', 1, 'id'], 'crank', /^stations\[1\]\.id: "crank" is used by another station/],
    [['stations', 1, 'adjuster'], { kind: 'magnet' }, /^stations\[1\]\.adjuster\.kind: must be one of sprung-arm, /],
    [['stations', 1, 'adjuster'], { kind: 'slide', direction: 90 }, /^stations\[1\]\.adjuster\.travel: is missing/],
    [
      ['stations', 1, 'adjuster'],
      { kind: 'slot-pivot', pivot: { x: 1 }, inAngle: 1, outAngle: 2 },
      /^stations\[1\]\.adjuster\.pivot\.y: is missing/,
    ],
    [['belts', 0, 'section'], 'ZX', /^belts\[0\]\.section: must be one of PK, AV10/],
    [['belts', 0, 'ribs'], 0, /^belts\[0\]\.ribs: must be a whole number of ribs, 1 or more/],
    [['belts', 0, 'length'], 'long', /^belts\[0\]\.length: must be a number of millimetres/],
    [
      ['belts', 0, 'sectionOverrides'],
      { driveOffset: 'x' },
      /^belts\[0\]\.sectionOverrides\.driveOffset: must be a number/,
    ],
    [
      ['belts', 0, 'route', 2, 'pulley'],
      'ghost',
      /^belts\[0\]\.route\[2\]\.pulley: names "ghost", and no station has that pulley/,
    ],
    [['belts', 0, 'route', 2, 'side'], 'top', /^belts\[0\]\.route\[2\]\.side: must be one of drive, back/],
    [['belts', 0, 'route'], {}, /^belts\[0\]\.route: must be a list/],
    [['stations', 1, 'x'], 1e308, /^stations\[1\]\.x: must be a number of millimetres from −100,000 to 100,000/],
    [['stations', 1, 'y'], -100_001, /^stations\[1\]\.y: must be a number of millimetres from −100,000/],
    [['speeds'], { redline: 1e300 }, /^speeds\.redline: must be (a speed|200,000)/],
    [['belts', 0, 'length'], 1e9, /^belts\[0\]\.length: must be a number of millimetres from/],
    [
      ['stations', 1, 'adjuster'],
      { kind: 'slide', direction: 1e9, travel: 5 },
      /^stations\[1\]\.adjuster\.direction: must be a number of degrees from −3,600/,
    ],
    [
      ['survey'],
      {
        photos: [
          {
            id: 'p',
            hash: 'a'.repeat(64),
            width: 10,
            height: 10,
            rims: [
              {
                pulley: 'crank',
                points: [
                  [1, 2],
                  [1e150, 2],
                ],
              },
            ],
          },
        ],
      },
      /^survey\.photos\[0\]\.rims\[0\]\.points\[1\]: must be a point/,
    ],
    [
      ['belts', 0, 'route'],
      Array(129).fill({ pulley: 'crank', side: 'drive' }),
      /^belts\[0\]\.route: must have 128 items at most/,
    ],
  ])('%j = %j names the field', (path, value, message) => {
    const found = problems(spoiled(path, value));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatch(message);
  });

  test('every number in the file has an end: what is beyond any is refused wherever it stands', () => {
    const full = {
      ...sample(),
      speeds: { idle: 700, cruise: 2000, redline: 5000 },
      obstacles: [{ id: 'o', x: 1, y: 2, diameter: 10, to: { x: 3, y: 4 } }],
      loads: [{ id: 'l', name: 'Lamps', amps: 10 }],
      speedChecks: [{ id: 'c', station: 'crank', crankRpm: 700, rpm: 700, plusMinus: 1 }],
      use: { bins: [{ from: 700, to: 800, share: 1 }], kmPerHour: 50 },
      survey: {
        readings: [{ id: 't', kind: 'outer', from: 'crank', to: 'ac', mm: 500, plusMinus: 1 }],
        diameters: [{ id: 'd', pulley: 'crank', method: 'calliper', mm: 160, plusMinus: 0.1 }],
      },
    };
    expect(problems(full)).toEqual([]);
    const ways = (value: unknown, at: (string | number)[] = []): (string | number)[][] =>
      typeof value === 'number'
        ? [at]
        : typeof value === 'object' && value !== null
          ? Object.entries(value).flatMap(([name, inner]) =>
              ways(inner, [...at, Array.isArray(value) ? Number(name) : name]),
            )
          : [];
    const numbers = ways(full).filter((way) => way[0] !== 'version');
    expect(numbers.length).toBeGreaterThan(40);
    for (const way of numbers) {
      const copy = JSON.parse(JSON.stringify(full)) as Record<string | number, unknown>;
      way
        .slice(0, -1)
        .reduce<Record<string | number, unknown>>(
          (holder, step) => holder[step] as Record<string | number, unknown>,
          copy,
        )[way.at(-1)!] = 1e308;
      expect([way.join('.'), problems(copy).length > 0]).toEqual([way.join('.'), true]);
    }
  });

  test('one id for two pulleys', () => {
    const twice = drives.addPulley(sample(), 'alt', { id: 'crank', surface: 'smooth', diameter: 60 });
    expect(problems(twice)).toEqual([
      'stations[4].pulleys[1].id: "crank" is used by another pulley. Each pulley needs an id of its own',
    ]);
  });

  test('every problem is told, and what is no drive at all is told once', () => {
    expect(problems({ ...sample(), crankRotation: 1, stations: [null], belts: 5 })).toHaveLength(3);
    for (const value of [null, 7, 'text', [], undefined])
      expect(problems(value)).toEqual([': must be a JSON object, an Emery drive']);
    expect(drives.parseDrive('{"format":')).toMatchObject({ ok: false, problems: [{ path: '' }] });
  });

  test('a toothed pulley needs teeth, not a diameter', () => {
    const stations = [{ id: 'a', role: 'other', x: 0, y: 0, pulleys: [{ id: 'p', surface: 'toothed', teeth: 20 }] }];
    expect(problems({ ...sample(), stations, belts: [] })).toEqual([]);
    stations[0]!.pulleys = [{ id: 'p', surface: 'toothed' } as never];
    expect(problems({ ...sample(), stations, belts: [] })).toEqual(['stations[0].pulleys[0].teeth: is missing']);
  });
});

describe('edits keep the drive whole', () => {
  test('removing a station takes its pulleys off every belt', () => {
    const smaller = drives.removeStation(sample(), 'alt');
    expect(problems(smaller)).toEqual([]);
    expect(smaller.belts[0]!.route.map(({ pulley }) => pulley)).not.toContain('alt');
  });

  test('a tension reading names the pulleys of its span: no others, and it falls with them', () => {
    const read = (from: string, to: string) => ({
      id: `${from} ${to}`,
      way: 'pluck' as const,
      span: { from, to },
      hz: 90,
    });
    const drive = sample();
    const belts = [{ ...drive.belts[0]!, tensionReadings: [read('crank', 'ten'), read('alt', 'ac')] }];
    const left = drives.removeStation({ ...drive, belts }, 'alt').belts[0]!.tensionReadings!;
    expect(left.map(({ id }) => id)).toEqual(['crank ten']);
    expect(problems({ ...drive, belts: [{ ...belts[0], tensionReadings: [read('crank', 'ghost')] }] })).toEqual([
      'belts[0].tensionReadings[0].span.to: names "ghost", and no station has that pulley',
    ]);
    const wrong = { id: 'r', way: 'pluck', hz: -3 };
    expect(problems({ ...drive, belts: [{ ...belts[0], tensionReadings: [wrong] }] })).toEqual([
      'belts[0].tensionReadings[0].hz: must be more than 0',
    ]);
  });

  test('a second sheave comes and goes; the last one stays', () => {
    const drive = drives.addPulley(sample(), 'crank', drives.newPulley(sample(), 'crank', 'crankshaft', 'AV13', 30));
    expect(drive.stations[0]!.pulleys).toHaveLength(2);
    expect(problems(drive)).toEqual([]);
    expect(drives.pulleyLabel(drive, 'crank-1')).toBe('Crank, sheave 2');
    expect(drives.removePulley(drive, 'crank-1').stations[0]!.pulleys).toHaveLength(1);
    expect(drives.removePulley(sample(), 'crank')).toEqual(sample());
  });

  test('a duplicate has ids of its own and is on no belt', () => {
    const { drive, id } = drives.duplicateStation(sample(), 'alt');
    expect(problems(drive)).toEqual([]);
    expect(drive.stations.at(-1)).toMatchObject({ id, label: 'Alternator copy', x: 208, y: 276 });
    expect(drive.belts).toEqual(sample().belts);
  });

  test('a field set to undefined leaves the file', () => {
    const drive = drives.changeStation(drives.changeStation(sample(), 'alt', { requires: 'cw' }), 'alt', {
      requires: undefined,
    });
    expect('requires' in drive.stations[4]!).toBe(false);
  });

  test('reversing keeps the first pulley first, and twice is nothing', () => {
    const once = drives.reverseRoute(sample(), 'main');
    expect(once.belts[0]!.route.map(({ pulley }) => pulley)).toEqual(['crank', 'ac', 'alt', 'idler', 'pump', 'ten']);
    expect(drives.reverseRoute(once, 'main')).toEqual(sample());
  });

  test('a pulley taken off finds its own place and side again', () => {
    for (const [index, { pulley }] of sample().belts[0]!.route.entries()) {
      if (index === 0) continue;
      const without = drives.removeStop(sample(), 'main', index);
      const place = bestPlaceFor(without, 'main', pulley)!;
      const again = drives.insertStop(without, 'main', place.index, place.stop);
      expect(solveBelt(again, 'main')!.length.mm).toBeCloseTo(solveBelt(sample(), 'main')!.length.mm!, 9);
    }
  });

  test('of two sheaves the belt takes the one with its face, in its plane', () => {
    const start = driveOf(
      [
        ['crank', 0, 0, 160],
        ['pump', 300, 0, 120],
      ],
      { section: 'AV13' },
    );
    const twin = drives.addPulley(start, 'pump', { id: 'pump-2', surface: 'vee', diameter: 100, plane: 15 });
    const belt = { ...drives.newBelt(twin, 'AV13'), route: [{ pulley: 'crank', side: 'drive' as const }] };
    expect(drives.fittingPulley({ ...twin, belts: [] }, belt, twin.stations[1]!).id).toBe('pump');
    const outer = drives.changePulley(twin, 'crank', { plane: 15 });
    expect(drives.fittingPulley({ ...outer, belts: [] }, belt, outer.stations[1]!).id).toBe('pump-2');
  });

  test('new stations are valid, numbered and never share an id', () => {
    let drive = drives.newDrive('fresh');
    for (const role of [...drives.ROLES, 'idler' as const]) {
      for (const section of ['PK', 'AV13', 'L'])
        drive = drives.addStation(drive, drives.newStation(drive, role, 0, 0, section));
    }
    expect(problems(drive)).toEqual([]);
    expect(drives.stationLabel(drive.stations[1]!)).toBe('Crank 2');
  });
});

test.each<[string, number, (list: object[]) => object]>([
  ['stations', 64, (stations) => ({ stations })],
  ['belts', 16, (belts) => ({ belts })],
  ['obstacles', 64, (obstacles) => ({ obstacles })],
  ['loads', 100, (loads) => ({ loads })],
  ['speedChecks', 200, (speedChecks) => ({ speedChecks })],
  ['use.bins', 200, (bins) => ({ use: { name: 'town', bins } })],
  ['survey.readings', 400, (readings) => ({ survey: { readings } })],
  ['align.readings', 400, (readings) => ({ align: { readings } })],
  ['align.moves', 120, (moves) => ({ align: { moves } })],
  ['align.stacks', 64, (stacks) => ({ align: { stacks } })],
  ['align.tracks', 64, (tracks) => ({ align: { tracks } })],
  ['noise.clips', 60, (clips) => ({ noise: { clips } })],
  ['noise.cures', 60, (cures) => ({ noise: { cures } })],
  ['inspect.findings', 1000, (findings) => ({ inspect: { findings } })],
  ['job.own', 100, (own) => ({ job: { own } })],
  ['job.words', 200, (words) => ({ job: { words } })],
])('%s may have %d items, and one more is told', (path, max, put) => {
  const messages = (count: number) => {
    const list = Array.from({ length: count }, () => ({}));
    const read = readDrive({
      format: 'emery-drive',
      version: 1,
      crankRotation: 'cw',
      stations: [],
      belts: [],
      ...put(list),
    });
    return read.ok ? [] : read.problems.filter((problem) => problem.path === path).map(({ message }) => message);
  };
  expect(messages(max + 1)).toEqual([`must have ${max} items at most`]);
  expect(messages(max)).toEqual([]);
});
