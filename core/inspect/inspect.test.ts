import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { draws, expectShare } from '../test/draws';
import { driveOf, SERPENTINE } from '../test/examples';
import {
  CHECK_NAMES,
  checkRules,
  changeBelt,
  type Drive,
  type InspectFinding,
  type PulleyKind,
  type ShopLimit,
  readDrive,
  writeDrive,
  changeStation,
  removeBelt,
  removeStation,
} from '../drive';
import { chanceBelow, normals } from '../numeric';
import { solveDrive } from '../path';
import {
  changeTakenBack,
  findingsOf,
  inspectDrive,
  inspectFindings,
  inspectMessage,
  kindsAsked,
  leftFigure,
  leftSpan,
  type LimitedPart,
  limitsOf,
  nothingElseSeen,
  oddFigure,
  partChanged,
  placesOf,
  putFinding,
  putLimit,
  readingFigure,
  readOdometer,
  reasonLines,
  repeatOf,
  replaceTogether,
  skipPart,
  takeBackFinding,
  wornAt,
  wornShare,
} from './index';

const truck: Drive = { ...DEMO.rescue, inspect: {}, align: { ...DEMO.rescue.align, tracks: [] } };
type Short = [
  on: InspectFinding['on'],
  target: string,
  check: InspectFinding['check'],
  what: number | string,
  more?: Partial<InspectFinding>,
];
const found = (...list: Short[]): InspectFinding[] =>
  list.map(([on, target, check, what, more = {}], k) => ({
    id: `f${k}`,
    on,
    target,
    check,
    ...(typeof what === 'number' ? { value: what } : { outcome: what }),
    ...more,
  }));
const withFound = (drive: Drive, ...list: Short[]): Drive => ({
  ...drive,
  inspect: { ...drive.inspect, findings: found(...list) },
});
const item = (drive: Drive, on: string, target: string, odometer?: number) =>
  inspectDrive(drive, odometer).find((item) => item.on === on && item.target === target)!;
const belt = (drive: Drive, odometer?: number) => item(drive, 'belt', 'main', odometer);
const codes = (drive: Drive) => inspectFindings(drive, inspectDrive(drive), solveDrive(drive)).map(({ code }) => code);

describe('verdicts', () => {
  test('the walk meets the belt, then its parts in the order of the route, an arm before its roller', () => {
    expect(inspectDrive(truck).map(({ on, target }) => `${on} ${target}`)).toEqual([
      'belt main',
      'pulley crank-1',
      'arm ten-1',
      'pulley ten-1',
      'pulley steer-1',
      'pulley pump-1',
      'pulley alt-1',
      'pulley ac-1',
    ]);
  });

  const table: [Short, string][] = [
    [['belt', 'main', 'rib-depth', 2.9], 'keep'],
    [['belt', 'main', 'rib-depth', 2.31], 'keep'],
    [['belt', 'main', 'rib-depth', 2.29], 'watch'],
    [['belt', 'main', 'rib-depth', 2], 'replace'],
    // Its doubt reaches the limit.
    [['belt', 'main', 'rib-depth', 2.5, { plusMinus: 0.3 }], 'watch'],
    [['belt', 'main', 'profile', 'v'], 'keep'],
    [['belt', 'main', 'profile', 'worn'], 'watch'],
    [['belt', 'main', 'profile', 'u'], 'replace'],
    [['belt', 'main', 'cracks', 3], 'replace'],
    [['belt', 'main', 'cracks', 1], 'watch'],
    // EPDM wears without a crack.
    [['belt', 'main', 'cracks', 0], 'not looked at'],
    [['belt', 'main', 'material', 'epdm'], 'not looked at'],
    [['belt', 'main', 'oil', 'no'], 'not looked at'],
    [['belt', 'main', 'oil', 'yes'], 'replace'],
    [['belt', 'main', 'chunks', 'yes'], 'replace'],
    [['arm', 'ten-1', 'stroke', 'smooth'], 'keep'],
    [['arm', 'ten-1', 'stroke', 'binds'], 'replace'],
    [['arm', 'ten-1', 'by-hand', 'yes'], 'replace'],
    [['arm', 'ten-1', 'cocked', 'yes'], 'replace'],
    [['arm', 'ten-1', 'pointer', 70], 'not looked at'],
    [['arm', 'ten-1', 'pointer', 70 - 360], 'not looked at'],
    [['arm', 'ten-1', 'pointer', 50], 'watch'],
    [['pulley', 'alt-1', 'spin', 'quiet'], 'keep'],
    [['pulley', 'ten-1', 'spin', 'freewheels'], 'replace'],
    [['pulley', 'alt-1', 'clutch', 'slips'], 'replace'],
    [['pulley', 'alt-1', 'rock', 0.1], 'keep'],
    [['pulley', 'alt-1', 'rock', 0.3], 'watch'],
    [['pulley', 'alt-1', 'rock', 0.5], 'replace'],
    [['pulley', 'crank-1', 'run-out', 0.6], 'replace'],
    [['pulley', 'alt-1', 'grooves', 'paint'], 'watch'],
    [['pulley', 'alt-1', 'grooves', 'dent'], 'replace'],
    [['pulley', 'pump-1', 'track', -2], 'watch'],
    [['pulley', 'pump-1', 'track', 30], 'watch'],
  ];
  test.each(table)('%j is %s', (finding, verdict) => {
    expect(item(withFound(truck, finding), finding[0], finding[1]).verdict).toBe(verdict);
  });

  test('a neoprene belt without a crack is sound, and one whose cracks nobody counted lacks that', () => {
    const neoprene: Short = ['belt', 'main', 'material', 'neoprene'];
    expect(belt(withFound(truck, neoprene, ['belt', 'main', 'cracks', 0])).verdict).toBe('keep');
    expect(belt(withFound(truck, neoprene)).missing).toContain('cracks');
    expect(belt(truck).missing).not.toContain('cracks');
  });

  test('a V-belt goes by how it rides, a taped length by its growth over the one it had', () => {
    const pickup = changeBelt(DEMO.pickup, DEMO.pickup.belts[0]!.id, { length: 1000 });
    const id = pickup.belts[0]!.id;
    const finding = (check: 'ride' | 'length' | 'slot', value: number) =>
      item(withFound(pickup, ['belt', id, check, value, { plusMinus: 0.1 }]), 'belt', id).verdict;
    expect([finding('ride', 0.2), finding('ride', 1.2), finding('ride', 2)]).toEqual(['keep', 'watch', 'replace']);
    expect([finding('length', 1004), finding('length', 1006), finding('length', 1010)]).toEqual([
      'keep',
      'watch',
      'replace',
    ]);
    expect([finding('slot', 20), finding('slot', 6), finding('slot', 2)]).toEqual(['keep', 'watch', 'replace']);
  });

  const anyFound = fc
    .tuple(
      fc.constantFrom(...CHECK_NAMES),
      fc.nat(),
      fc.double({ min: 0, max: 5, noNaN: true }),
      fc.option(fc.integer({ min: 0, max: 9 })),
    )
    .map(([check, pick, value, day]): Short => {
      const { on, outcomes } = checkRules(check);
      const target = on === 'belt' ? 'main' : on === 'arm' ? 'ten-1' : ['crank-1', 'alt-1', 'pump-1'][pick % 3]!;
      const at = day === null ? {} : { at: `2026-03-0${1 + (day % 9)}T10:00:00Z`, odometer: 1000 * day };
      return [on, target, check, outcomes ? outcomes[pick % outcomes.length]! : value, at];
    });
  test('a part that nobody looked at is never called sound, and one bad finding outweighs any number of good ones', () => {
    fc.assert(
      fc.property(fc.array(anyFound, { maxLength: 20 }), (list) => {
        for (const item of inspectDrive(withFound(truck, ...list))) {
          const grades = item.judged.map(({ grade }) => grade);
          if (!list.some(([on, target]) => on === item.on && target === item.target))
            expect(item.verdict).toBe('not looked at');
          if (item.verdict === 'keep') expect(grades).toContain('sound');
          expect(item.verdict === 'replace').toBe(grades.includes('replace'));
          expect(item.reasons.length > 0).toBe(item.verdict === 'replace' || item.verdict === 'watch');
          expect(reasonLines(item).length > 0).toBe(item.verdict !== 'not looked at');
        }
      }),
    );
  });

  test('in one look the worst place counts; a later look takes over; no day at all is one look', () => {
    const depth = (...readings: [number, string?, number?][]): Short[] =>
      readings.map(([value, at, odometer]) => [
        'belt',
        'main',
        'rib-depth',
        value,
        { ...(at && { at }), ...(odometer !== undefined && { odometer }) },
      ]);
    const verdict = (...readings: [number, string?, number?][]) =>
      belt(withFound(truck, ...depth(...readings))).verdict;
    expect(verdict([2.8, '2026-03-01T09:00:00Z'], [1.9, '2026-03-01T09:05:00Z'], [2.8, '2026-03-01T09:10:00Z'])).toBe(
      'replace',
    );
    expect(verdict([1.9, '2026-03-01T09:00:00Z'], [2.8, '2026-03-09T09:00:00Z'])).toBe('keep');
    expect(verdict([2.8, '2026-03-09T09:00:00Z'], [1.9, '2026-03-01T09:00:00Z'])).toBe('keep');
    expect(verdict([2.8, undefined, 9000], [1.9, undefined, 4000])).toBe('keep');
    expect(verdict([2.8], [1.9], [2.8])).toBe('replace');
  });

  test('the manual goes before the shop, and both before a default; each says whose it is', () => {
    const worn = withFound(truck, ['belt', 'main', 'rib-depth', 2.2]);
    expect(belt(worn).verdict).toBe('watch');
    const shop = putLimit(worn, 'rib-depth', { replace: 2.25, from: 'shop' });
    expect(belt(shop).verdict).toBe('replace');
    expect(reasonLines(belt(shop))[0]).toMatch(/drive’s own/);
    const limits = [...shop.inspect!.limits!, { check: 'rib-depth' as const, replace: 1.5, from: 'manual' as const }];
    const manual = { ...shop, inspect: { ...shop.inspect, limits } };
    expect(belt(manual).verdict).toBe('keep');
    expect(belt(manual).judged[0]!.limits!.from).toBe('manual');
    expect(putLimit(shop, 'rib-depth', null).inspect!.limits).toEqual([]);
  });

  test('a spring that Tension found weak condemns the arm, until another arm is on', () => {
    // Half of what its spring gives at that pointer.
    const standing = { way: 'pointer' as const, id: 'p', degrees: 70, at: '2026-05-01T10:00:00Z' };
    const gauge = {
      way: 'gauge' as const,
      id: 'g',
      span: { from: 'ac-1', to: 'crank-1' },
      newtons: 60,
      at: '2026-05-01T10:01:00Z',
    };
    const weak = changeBelt(truck, 'main', { tensionReadings: [standing, gauge] });
    expect(item(weak, 'arm', 'ten-1')).toMatchObject({ verdict: 'replace', reasons: ['spring'] });
    const changed = partChanged(weak, { on: 'arm', target: 'ten-1' }, { at: '2026-05-02T10:00:00Z' });
    expect(item(changed, 'arm', 'ten-1').verdict).toBe('not looked at');
  });

  test('a track read under Align counts here, the later of the two', () => {
    const at = (date?: string): Drive => ({
      ...truck,
      align: { tracks: [{ pulley: 'pump-1', mm: 4, ...(date && { date }) }] },
    });
    expect(item(at(), 'pulley', 'pump-1')).toMatchObject({ verdict: 'watch', reasons: ['track'] });
    const found: Short = ['pulley', 'pump-1', 'track', 0.2, { at: '2026-05-01T10:00:00Z' }];
    expect(item(withFound(at(), found), 'pulley', 'pump-1').verdict).toBe('not looked at');
    expect(item(withFound(at('2026-06-01'), found), 'pulley', 'pump-1').verdict).toBe('watch');
  });
});

describe('wear', () => {
  const read = (...readings: [odometer: number, value: number, sigma?: number, at?: string][]) =>
    withFound(
      truck,
      ...readings.map(([odometer, value, plusMinus = 0.1, at]): Short => [
        'belt',
        'main',
        'rib-depth',
        value,
        { odometer, plusMinus, ...(at && { at }) },
      ]),
    );

  test('two readings make a rate and what is left, with the ± that both of theirs come to', () => {
    const { wear, life } = belt(read([100_000, 2.6], [120_000, 2.4]));
    expect(wear!.left).toMatchObject({
      distance: expect.closeTo(40_000, 6) as number,
      odometer: expect.closeTo(160_000, 6) as number,
    });
    // L = d (b − lim) / (a − b): dL/da = −d (b − lim) / (a − b)², dL/db = d (a − lim) / (a − b)².
    const [d, a, b, lim] = [20_000, 2.6, 2.4, 2];
    expect(wear!.left!.plusMinus).toBeCloseTo((0.1 * d * Math.hypot(b - lim, a - lim)) / (a - b) ** 2, 4);
    expect(life).toBeNull();
    expect(belt(read([100_000, 2.6], [120_000, 2.4]), 130_000).wear!.left!.distance).toBeCloseTo(30_000, 6);
    expect(belt(read([100_000, 2.6], [120_000, 2.4]), 999_999).wear!.left!.distance).toBe(0);
  });

  test('one reading makes none: the default life, said to be one, and what is left of it where it was fitted', () => {
    const item = belt(read([100_000, 2.6]));
    expect(item.wear).toMatchObject({ left: null, told: 'one-reading' });
    expect(item.life).toMatchObject({ distance: 150_000, from: 'default', left: null });
    const fitted = changeBelt(read([100_000, 2.6]), 'main', { care: { fittedOdometer: 40_000 } });
    expect(belt(fitted).life!.left).toBe(90_000);
    expect(belt(fitted, 200_000)).toMatchObject({ verdict: 'watch', reasons: ['default-life'] });
    expect(codes(fitted)).toContain('one-reading');
  });

  test('readings at one odometer make no rate, and figures that grow are no wear or another belt', () => {
    expect(belt(read([100_000, 2.6], [100_000, 2.4])).wear!.left).toBeNull();
    expect(belt(read([100_000, 2.5], [110_000, 2.55])).wear).toMatchObject({ left: null, told: 'no-wear', before: 0 });
    const changed = belt(read([80_000, 2.1], [100_000, 2.9], [120_000, 2.7]));
    expect(changed.wear).toMatchObject({ before: 1 });
    expect(changed.wear!.left!.distance).toBeCloseTo(70_000, 6);
  });

  test('a rate with dates makes a day', () => {
    const { wear } = belt(
      read([100_000, 2.6, 0.05, '2026-01-01T00:00:00Z'], [110_000, 2.4, 0.05, '2026-04-11T00:00:00Z']),
    );
    // 100 days for 10,000; 20,000 to go are 200 days from the last.
    expect(wear!.left!.day).toBe('2026-10-28');
  });

  test('a line through many is the weighted least squares of it', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 200 }), { minLength: 2, maxLength: 8 }),
        fc.double({ min: 0.002, max: 0.01, noNaN: true }),
        (at, rate) => {
          const readings = at.map((k): [number, number, number] => [1000 * k, 2.9 - rate * k, 0.05 + (k % 3) / 50]);
          const { wear } = belt(read(...readings));
          const first = Math.max(...at) * 1000;
          expect(wear!.left!.distance).toBeCloseTo(Math.max(0, (0.9 / rate) * 1000 - first), 3);
        },
      ),
    );
  });

  test('the forecast covers the truth as often as it claims', () => {
    const normal = normals(11);
    let [within, span, hits] = [0, 0, 0];
    for (let n = 0; n < 1500; n += 1) {
      const count = 2 + (n % 4);
      const rate = 0.9 / (60_000 + 40 * (n % 1000));
      const odometers = Array.from({ length: count }, (_, k) => 5000 + (k * 45_000) / (count - 1));
      const readings = odometers.map((o): [number, number, number] => [o, 2.9 - rate * o + 0.06 * normal(), 0.06]);
      const { wear } = belt(read(...readings));
      const last = odometers[count - 1]!;
      const truth = 0.9 / rate - last;
      if (!wear!.left) continue;
      hits += 1;
      const { distance, plusMinus, from, to } = wear!.left;
      if (Math.abs(distance - truth) <= plusMinus) within += 1;
      if (truth >= from && (to === null || truth <= to)) span += 1;
    }
    expect(hits).toBeGreaterThan(1450);
    // Two thirds of the time or a little more: a ratio's ± is not quite even.
    expect(within / hits).toBeGreaterThan(0.66);
    expect(within / hits).toBeLessThan(0.82);
    // The span is over ways of wearing that bend, so that one that keeps its pace is held oftener than it claims.
    expect(span / hits).toBeGreaterThan(0.95);
  });
});

describe('wear that bends', () => {
  /** Belts of a life of 80,000 to 140,000, read two to six times on their way, wear going with a power of the use. */
  const drawn = (seed: number, power: number, noise: number, known: boolean, times = 0, plusMinus?: number) => {
    const normal = normals(seed);
    const random = () => chanceBelow(normal());
    const life = 80_000 + 60_000 * random();
    const count = times || 2 + Math.floor(4 * random());
    const at = Array.from({ length: count }, () => life * (0.15 + 0.6 * random())).sort((a, b) => a - b);
    const readings = at.map((o): [number, number] => [
      20_000 + o,
      2.9 - 0.9 * (o / life) ** power + 0.1 * noise * normal(),
    ]);
    const findings = readings.map(([odometer, value], k) => ({
      ...{ id: `f${k}`, on: 'belt', target: 'main', check: 'rib-depth', value, odometer },
      ...(plusMinus !== undefined && { plusMinus }),
    })) as InspectFinding[];
    const belts = truck.belts.map((belt) => (known ? { ...belt, care: { fittedOdometer: 20_000 } } : belt));
    const last = readings[count - 1]![0];
    const { wear } = inspectDrive({ ...truck, belts, inspect: { findings } }, last).find(({ on }) => on === 'belt')!;
    return { wear: wear!, truth: 20_000 + life - last, seen: at[count - 1]! - at[0]! > 0.15 * life };
  };

  test('the span of nineteen in twenty holds it nine times in ten and more, whatever the bend, at twice the noise', () => {
    for (const known of [false, true])
      for (const power of [1, 1.3, 1.6])
        for (const noise of [1, 2]) {
          let [held, count] = [0, 0];
          for (let k = 0; k < draws(400); k += 1) {
            const { wear, truth, seen } = drawn(900 + k, power, noise, known);
            if (!seen || !wear.left) continue;
            count += 1;
            if (truth >= wear.left.from && (wear.left.to === null || truth <= wear.left.to)) held += 1;
          }
          expectShare(held, count, { from: 0.88 });
        }
  });

  test('a bend is told where three readings speak for it, by which it is forecast, and hardly ever where there is none', () => {
    let [count, nearer, falsely] = [0, 0, 0];
    const rounds = draws(160);
    for (let k = 0; k < rounds; k += 1) {
      const { wear, truth } = drawn(5000 + k, 1.8, 0.2, true, 6, 0.02);
      if (wear.bend && wear.left) {
        count += 1;
        expect(wear.bend.power).toBeGreaterThan(1);
        const straight = wear.line!.odometer + (2 - wear.line!.value) / wear.line!.rate;
        const end = wear.left.odometer;
        const last = wear.readings[wear.readings.length - 1]!.odometer;
        if (Math.abs(end - last - truth) < Math.abs(straight - last - truth)) nearer += 1;
        // It runs through its own readings, and comes to the limit where it says.
        expect(wornAt(wear.bend, end)).toBeCloseTo(0.9, 6);
      }
      if (drawn(7000 + k, 1, 0.2, true, 6, 0.02).wear.bend) falsely += 1;
    }
    expectShare(count, rounds, { from: 0.7 });
    expectShare(nearer, count, { from: 0.8 });
    expectShare(rounds - falsely, rounds, { from: 0.9 });
    // Two readings never speak for one.
    for (let k = 0; k < 20; k += 1) expect(drawn(9000 + k, 1.8, 0.1, true, 2, 0.01).wear.bend).toBeNull();
  });
});

describe('what a belt is held to grow', () => {
  const inspected = (care: object, ...found: Short[]) =>
    inspectDrive(withFound({ ...truck, belts: truck.belts.map((belt) => ({ ...belt, care })) }, ...found)).find(
      ({ on }) => on === 'belt',
    )!;

  test('of its wear and its years the sooner is due, and a belt whose fitting nobody dated is as old as it was seen', () => {
    const slow: Short[] = [
      ['belt', 'main', 'rib-depth', 2.8, { at: '2020-05-01T00:00:00Z', odometer: 10_000, plusMinus: 0.01 }],
      ['belt', 'main', 'rib-depth', 2.7, { at: '2024-05-01T00:00:00Z', odometer: 20_000, plusMinus: 0.01 }],
    ];
    const { wear, age, due } = inspected({}, ...slow);
    expect(wear!.left!.day! > '2039').toBe(true);
    expect(age).toMatchObject({ years: 8, from: 'first-seen', day: '2028-05-01', over: false });
    expect(due).toEqual({ day: '2028-05-01', by: 'age' });
    expect(inspected({ fittedAt: '2019-01-01T00:00:00Z' }, ...slow).age).toMatchObject({
      from: 'fitted',
      day: '2027-01-01',
    });
    const old = inspected({ fittedAt: '2015-01-01T00:00:00Z' }, ...slow);
    expect(old.verdict).toBe('watch');
    expect(old.reasons).toContain('default-age');
    expect(reasonLines(old).join(' ')).toMatch(/8 years old or more.*a default/);
  });
});

describe('a pulley by its kind', () => {
  const kinded = (kind: PulleyKind | undefined, pulley = 'alt-1'): Drive => ({
    ...truck,
    stations: truck.stations.map((station) => ({
      ...station,
      pulleys: station.pulleys.map((otherPulley) =>
        otherPulley.id === pulley && kind ? { ...otherPulley, kind } : otherPulley,
      ),
    })),
  });
  const verdict = (kind: PulleyKind | undefined, check: 'spin' | 'clutch', outcome: string, pulley = 'alt-1') => {
    const drive = withFound(kinded(kind, pulley), ['pulley', pulley, check, outcome]);
    const items = inspectDrive(drive);
    const codes = inspectFindings(drive, items, solveDrive(drive)).map(({ code }) => code);
    return {
      verdict: items.find(({ on, target }) => on === 'pulley' && target === pulley)!.verdict,
      asks: codes.includes('ask-kind'),
    };
  };

  test.each([
    ['solid', 'spin', 'freewheels', 'keep'],
    ['solid', 'clutch', 'locked', 'not looked at'],
    ['solid', 'clutch', 'slips', 'replace'],
    ['one-way', 'spin', 'freewheels', 'keep'],
    ['one-way', 'clutch', 'locked', 'replace'],
    ['one-way', 'clutch', 'slips', 'replace'],
    ['decoupling', 'clutch', 'locked', 'replace'],
    ['decoupling', 'spin', 'grinds', 'replace'],
    ['solid', 'spin', 'grinds', 'replace'],
  ] as const)('%s: %s %s is %s', (kind, check, outcome, expected) => {
    expect(verdict(kind, check, outcome)).toEqual({ verdict: expected, asks: false });
  });

  test('what says nothing before the kind is known asks for it, and condemns nothing', () => {
    expect(verdict(undefined, 'spin', 'freewheels')).toEqual({ verdict: 'not looked at', asks: true });
    expect(verdict(undefined, 'clutch', 'locked')).toEqual({ verdict: 'not looked at', asks: true });
    expect(verdict(undefined, 'clutch', 'slips').verdict).toBe('replace');
    // An idler has no rotor to keep it going.
    expect(verdict(undefined, 'spin', 'freewheels', 'ten-1')).toEqual({ verdict: 'replace', asks: false });
    expect(verdict('magnetic-clutch', 'spin', 'freewheels', 'ac-1').verdict).toBe('watch');
    expect(kindsAsked(truck, 'alt-1')).toEqual(['solid', 'one-way', 'decoupling']);
    expect(kindsAsked(truck, 'crank-1')).toEqual([]);
  });
});

describe('figures and limits', () => {
  test('one crack at the root of a tooth is the end of a toothed belt', () => {
    const toothed = driveOf(
      [
        ['crank', 0, 0, 160],
        ['cam', 300, 0, 160],
      ],
      { section: 'L' },
    );
    const at = (cracks: number) =>
      inspectDrive(withFound(toothed, ['belt', 'main', 'cracks', cracks])).find(({ on }) => on === 'belt')!.verdict;
    expect([at(0), at(1)]).toEqual(['keep', 'replace']);
  });

  test('a pump’s play has a limit of its own', () => {
    const at = (pulley: string, mm: number) =>
      inspectDrive(withFound(truck, ['pulley', pulley, 'rock', mm, { plusMinus: 0.01 }])).find(
        ({ on, target }) => on === 'pulley' && target === pulley,
      )!.verdict;
    expect([at('pump-1', 0.05), at('pump-1', 0.2), at('pump-1', 0.35)]).toEqual(['keep', 'watch', 'replace']);
    expect([at('ac-1', 0.05), at('ac-1', 0.2), at('ac-1', 0.35)]).toEqual(['keep', 'keep', 'watch']);
  });

  test.each([
    ['rib-depth', 3.6],
    ['rib-depth', 29],
    ['rock', 20],
    ['run-out', 12],
  ] as const)('%s of %s mm can hardly be, is asked about, and calls nothing sound', (check, value) => {
    const [on, target] = check === 'rib-depth' ? (['belt', 'main'] as const) : (['pulley', 'alt-1'] as const);
    const drive = withFound(truck, [on, target, check, value]);
    const items = inspectDrive(drive);
    const item = items.find((item) => item.on === on && item.target === target)!;
    // What would be sound is not called so; what condemns does until it is read again.
    expect(item.verdict).toBe(check === 'rib-depth' ? 'not looked at' : 'replace');
    expect(item.judged[0]!.odd).toBeDefined();
    const odd = inspectFindings(drive, items, solveDrive(drive)).find(({ code }) => code === 'odd-figure')!;
    expect(inspectMessage(drive, odd)).toMatch(/\?/);
  });

  test('a V belt that stands 4 mm proud is asked about, a new one 1 mm proud is not', () => {
    const limits = limitsOf(truck, 'ride');
    expect(oddFigure('ride', -4, limits)).not.toBeNull();
    expect(oddFigure('ride', -1, limits)).toBeNull();
  });

  test('the shop’s limits stand before Emery’s and behind the drive’s own, the one that names most first, and say so', () => {
    const belt = truck.belts[0]!;
    const shop: readonly ShopLimit[] = [
      { check: 'rib-depth', replace: 2.2 },
      { check: 'rib-depth', section: 'PK', replace: 2.3 },
      { check: 'rib-depth', section: 'PK', material: 'neoprene', replace: 2.4 },
      { check: 'rock', kind: 'one-way', replace: 0.2 },
    ];
    const wide = (drive: Drive): Drive => ({ ...drive, inspect: { ...drive.inspect, shop } });
    const at = (drive: Drive, part: LimitedPart) => {
      const { replace, from } = limitsOf(wide(drive), 'rib-depth', part)!;
      return [replace, from];
    };
    expect(limitsOf(truck, 'rib-depth', { belt })!.from).toBe('default');
    expect(at(truck, { belt })).toEqual([2.3, 'shop-wide']);
    expect(at(truck, { belt, material: 'neoprene' })).toEqual([2.4, 'shop-wide']);
    expect(at(truck, { belt: { ...belt, section: 'PJ' } })).toEqual([2.2, 'shop-wide']);
    const own = putLimit(truck, 'rib-depth', { from: 'shop', replace: 1.8 });
    expect(at(own, { belt })).toEqual([1.8, 'shop']);
    expect(limitsOf(wide(truck), 'rock', { pulley: 'alt-1' })!.from).toBe('default');
    // The verdict follows it, and says whose it is.
    const drive = withFound(truck, ['belt', 'main', 'rib-depth', 2.25, { plusMinus: 0.01 }]);
    const item = inspectDrive(wide(drive)).find(({ on }) => on === 'belt')!;
    expect(item.verdict).toBe('replace');
    expect(reasonLines(item)[0]).toMatch(/the shop’s limit for every drive/);
    expect(inspectDrive(drive).find(({ on }) => on === 'belt')!.verdict).toBe('watch');
  });
});

describe('what goes together, and what must be cured', () => {
  test('a belt that is done takes its tensioner with it, and the other way round; a sound one is an offer', () => {
    const done = withFound(truck, ['belt', 'main', 'profile', 'u']);
    expect(replaceTogether(done, inspectDrive(done))).toEqual([
      { targets: ['main', 'ten-1'], why: 'arm', offered: ['ten-1'] },
    ]);
    const roller = withFound(truck, ['pulley', 'ten-1', 'spin', 'grinds']);
    expect(replaceTogether(roller, inspectDrive(roller))).toEqual([
      { targets: ['main', 'ten-1'], why: 'arm', offered: ['main'] },
    ]);
    expect(replaceTogether(truck, inspectDrive(truck))).toEqual([]);
  });

  test('belts side by side over the same shafts are changed as a pair', () => {
    const drive = driveOf(
      [
        ['crank', 0, 0, 160],
        ['alt', 300, 0, 60],
      ],
      { section: 'AV13' },
    );
    const doubled: Drive = {
      ...drive,
      stations: drive.stations.map((s) => ({
        ...s,
        pulleys: [...s.pulleys, { ...s.pulleys[0]!, id: `${s.id}-2`, plane: 16 }],
      })),
      belts: [
        ...drive.belts,
        {
          ...drive.belts[0]!,
          id: 'second',
          route: [
            { pulley: 'crank-2', side: 'drive' },
            { pulley: 'alt-2', side: 'drive' },
          ],
        },
      ],
    };
    const worn = withFound(doubled, ['belt', 'second', 'ride', 3]);
    expect(replaceTogether(worn, inspectDrive(worn))).toEqual([
      { targets: ['main', 'second'], why: 'pair', offered: ['main'] },
    ]);
  });

  test.each([
    [['belt', 'main', 'oil', 'yes'], 'cure-oil'],
    [['belt', 'main', 'frayed', 'yes'], 'cure-line'],
    [['belt', 'main', 'pilling', 'yes'], 'cure-slip'],
    [['belt', 'main', 'chunks', 'yes'], 'cure-chunks'],
    [['pulley', 'alt-1', 'grooves', 'grit'], 'cure-grooves'],
    [['pulley', 'pump-1', 'track', 3], 'cure-line'],
    [['pulley', 'pump-1', 'rock', 0.4], 'rocks'],
    [['pulley', 'crank-1', 'run-out', 0.8], 'stop-wobble'],
    [['arm', 'ten-1', 'stroke', 'stuck'], 'cure-arm'],
    [['belt', 'main', 'cracks', 0], 'cracks-blind'],
  ] as [Short, string][])('%j asks for %s', (finding, code) => {
    expect(codes(withFound(truck, finding))).toContain(code);
  });

  test('damage that comes back once a turn of a pulley names it, and places at random name none', () => {
    const solution = solveDrive(truck).belts[0]!;
    const alt = solution.contacts.find(({ pulley }) => pulley === 'alt-1')!;
    const turn = 2 * Math.PI * alt.cordRadius;
    const places = [0, 1, 3, 4, 6].map((k, n) => 40 + k * turn + (n % 2 === 0 ? 2 : -2));
    expect(repeatOf(solution, places)).toMatchObject({ pulley: 'alt-1', turnMm: turn });
    expect(repeatOf(solution, places.slice(0, 2))).toBeNull();
    const lcg = normals(3);
    const named = Array.from({ length: 400 }, () =>
      repeatOf(
        solution,
        Array.from({ length: 5 }, () => (Math.abs(lcg() * 997) % 1) * solution.cordLength!),
      ),
    ).filter(Boolean).length;
    expect(named).toBeLessThan(20);
    const marked = withFound(truck, ['belt', 'main', 'chunks', 'yes', { places }]);
    expect(placesOf(findingsOf(marked, { on: 'belt', target: 'main' }))).toHaveLength(5);
    expect(codes(marked)).toContain('repeats');
  });
});

describe('edits', () => {
  const part = { on: 'belt', target: 'main' } as const;
  const look = { at: '2026-05-01T10:00:00.000Z', odometer: 1000 };

  test('a check of one look is written once, taken back, and done again; an older look stays', () => {
    const old = putFinding(truck, part, { check: 'rib-depth', value: 2.7 }, { at: '2025-05-01T10:00:00.000Z' });
    const now = putFinding(
      putFinding(old, part, { check: 'rib-depth', value: 2.4 }, look),
      part,
      { check: 'rib-depth', value: 2.3 },
      look,
    );
    expect(now.inspect!.findings!.map(({ value }) => value)).toEqual([2.7, 2.3]);
    expect(takeBackFinding(now, part, 'rib-depth', look).inspect!.findings!.map(({ value }) => value)).toEqual([2.7]);
    expect(new Set(now.inspect!.findings!.map(({ id }) => id)).size).toBe(2);
  });

  test('a glance answers what was not answered, and skipping goes once something is found', () => {
    const oily = putFinding(skipPart(truck, part, look), part, { check: 'oil', outcome: 'yes' }, look);
    expect(belt(skipPart(truck, part, look)).skipped).toBe(look.at);
    expect(oily.inspect!.skipped).toEqual([]);
    const outcomes = nothingElseSeen(oily, part, look).inspect!.findings!.map(
      ({ check, outcome }) => `${check} ${outcome}`,
    );
    expect(outcomes.sort()).toEqual(['chunks no', 'frayed no', 'glazed no', 'oil yes', 'pilling no']);
  });

  test('the odometer of a look is written to all of it', () => {
    const drive = putFinding(
      putFinding(truck, part, { check: 'oil', outcome: 'no' }, { at: '2020-01-01T00:00:00Z', odometer: 5 }),
      part,
      { check: 'profile', outcome: 'v' },
      { at: look.at },
    );
    expect(readOdometer(drive, 777, look).inspect!.findings!.map(({ odometer }) => odometer)).toEqual([5, 777]);
  });

  test('a new belt makes the old one’s findings past, and that can be taken back', () => {
    const worn = putFinding(truck, part, { check: 'profile', outcome: 'u' }, look);
    const changed = partChanged(worn, part, { at: '2026-05-01T12:00:00.000Z', odometer: 1010 });
    expect(belt(changed).verdict).toBe('not looked at');
    expect(changed.belts[0]!.care).toMatchObject({ fittedOdometer: 1010 });
    expect(readDrive(JSON.parse(writeDrive(changed)))).toMatchObject({ ok: true, drive: changed });
    expect(belt(changeTakenBack(changed, part)).verdict).toBe('replace');
  });
});

test('every demo drive and a drive without a length is told without a fault', () => {
  for (const drive of [...Object.values(DEMO), driveOf(SERPENTINE)]) {
    const items = inspectDrive(drive);
    expect(items.length).toBeGreaterThan(2);
    expect(inspectFindings(drive, items, solveDrive(drive)).length).toBeGreaterThan(0);
  }
});

describe('what is one fact in several places', () => {
  const at = '2026-05-01T10:00:00.000Z';

  test('a belt that goes back on has the care it had', () => {
    const part = { on: 'belt', target: 'main' } as const;
    const cared = changeBelt(truck, 'main', { care: { fittedAt: '2024-01-01T00:00:00Z', fittedOdometer: 90_000 } });
    const changed = partChanged(cared, part, { at, odometer: 120_000 });
    expect(changed.belts[0]!.care).toEqual({ fittedAt: at, fittedOdometer: 120_000 });
    expect(changeTakenBack(changed, part).belts[0]!.care).toEqual(cared.belts[0]!.care);
    expect(changeTakenBack(changed, part).inspect!.changed).toEqual([]);
  });

  test('of two changes the later is taken back, and only the findings between come back with it', () => {
    const arm = { on: 'arm', target: 'ten-1' } as const;
    const day = (n: number) => ({ at: `2026-05-0${n}T10:00:00.000Z` });
    let drive = putFinding(truck, arm, { check: 'stroke', outcome: 'stuck' }, day(1));
    drive = partChanged(drive, arm, day(2));
    drive = putFinding(drive, arm, { check: 'stroke', outcome: 'binds' }, day(3));
    drive = partChanged(drive, arm, day(4));
    expect(item(drive, 'arm', 'ten-1').verdict).toBe('not looked at');
    const back = changeTakenBack(drive, arm);
    expect(back.inspect!.findings!.map(({ past }) => past ?? false)).toEqual([true, false]);
    expect(item(back, 'arm', 'ten-1').reasons).toEqual(['stroke']);
    expect(reasonLines(item(back, 'arm', 'ten-1'))).toEqual(['Stroke: binds.']);
    expect(changeTakenBack(truck, arm)).toBe(truck);
  });

  test('findings of a belt that was fitted since count no more, by day or by odometer', () => {
    const worn: Short = ['belt', 'main', 'rib-depth', 1.8, { at, odometer: 50_000 }];
    const fitted = (care: object) => belt(changeBelt(withFound(truck, worn), 'main', { care })).verdict;
    expect(fitted({})).toBe('replace');
    expect(fitted({ fittedAt: '2026-06-01T00:00:00Z' })).toBe('not looked at');
    expect(fitted({ fittedOdometer: 60_000 })).toBe('not looked at');
    expect(fitted({ fittedAt: '2026-04-01T00:00:00Z', fittedOdometer: 40_000 })).toBe('replace');
  });

  test('a belt is a belt and a pulley a pulley in the file, and what is deleted takes its findings with it', () => {
    const drive = withFound(truck, ['belt', 'main', 'oil', 'yes'], ['pulley', 'alt-1', 'spin', 'quiet']);
    const skipped = skipPart(drive, { on: 'pulley', target: 'ac-1' }, { at });
    const reading = readDrive(JSON.parse(writeDrive(skipped)));
    expect(reading.ok).toBe(true);
    const left = removeStation(removeStation(skipped, 'alt'), 'ac');
    expect(left.inspect!.findings!.map(({ target }) => target)).toEqual(['main']);
    expect(left.inspect!.skipped).toEqual([]);
    expect(removeBelt(skipped, 'main').inspect!.findings!.map(({ target }) => target)).toEqual(['alt-1']);
  });

  test('a worn idler is changed with its belt; one that is sound is not offered', () => {
    const drive = driveOf(SERPENTINE);
    const done: Short = ['belt', 'main', 'profile', 'u'];
    const verdictAt = (mm: number) => {
      const looked = withFound(drive, done, ['pulley', 'idler', 'rock', mm]);
      return replaceTogether(looked, inspectDrive(looked));
    };
    expect(verdictAt(0)).toEqual([]);
    expect(verdictAt(0.3)).toEqual([{ targets: ['main', 'idler'], why: 'idler', offered: ['idler'] }]);
    expect(verdictAt(0.7)).toEqual([{ targets: ['main', 'idler'], why: 'idler', offered: [] }]);
  });

  test('the arm is one, whichever of its pulleys names it; a second sheave has no bearings of its own', () => {
    const two = changeStation(truck, 'alt', {
      pulleys: [
        ...truck.stations.find(({ id }) => id === 'alt')!.pulleys,
        { id: 'alt-2', surface: 'ribbed', diameter: 60 },
      ],
    });
    const rollers = changeStation(truck, 'ten', {
      pulleys: [
        ...truck.stations.find(({ id }) => id === 'ten')!.pulleys,
        { id: 'ten-2', surface: 'smooth', diameter: 60 },
      ],
    });
    expect(item(withFound(rollers, ['arm', 'ten-2', 'stroke', 'stuck']), 'arm', 'ten-1').verdict).toBe('replace');
    expect(item(two, 'pulley', 'alt-1').missing).toContain('spin');
    expect(item(two, 'pulley', 'alt-2').missing).toEqual(['run-out', 'grooves']);
  });

  test('a figure is told with its limit and whose that is, in the words of the screen', () => {
    const reasons = (...entry: Short[]) => reasonLines(belt(withFound(truck, ...entry)));
    expect(reasons(['belt', 'main', 'rib-depth', 1.9])).toEqual([
      'Rib depth 1.9 mm: new 2.9 mm, worn out at or under 2 mm, watch at or under 2.3 mm (a default).',
    ]);
    expect(reasons(['belt', 'main', 'cracks', 1])).toEqual([
      'Cracks in 75 mm 1 crack: worn out from 3 cracks, watch from 0.5 cracks (a default).',
    ]);
    // Kept: what was found sound.
    expect(reasons(['belt', 'main', 'profile', 'v'], ['belt', 'main', 'oil', 'no'])).toEqual([
      'Profile: V.',
      'Oil: no.',
    ]);
    expect(reasons(['belt', 'main', 'oil', 'no'])).toEqual([]);
  });

  test('what is worn is a share of what there is between new and done, over 1 past it', () => {
    const { limits } = belt(withFound(truck, ['belt', 'main', 'rib-depth', 2.45])).judged[0]!;
    expect([2.9, 2.45, 2, 1.91].map((mm) => wornShare(mm, limits!))).toEqual(
      [0, 0.5, 1, 1.1].map((share) => expect.closeTo(share, 9) as number),
    );
    expect(wornShare(3, { ...limits!, fresh: null })).toBeNull();
  });

  test('a forecast is told no finer than it is known', () => {
    expect(leftFigure({ distance: 35_977.6, plusMinus: 12_120 }, 'km')).toBe('36,000 km, ± 12,000');
    expect(leftSpan({ from: 19_949, to: 82_100 }, 'mi')).toBe('20,000 to 82,000 mi, 19 times in 20');
    expect(leftSpan({ from: 4321, to: null }, 'h')).toMatch(/^at least 4,300 h.*no upper limit$/);
    expect(readingFigure(184_207, 12_120)).toBe('184,000');
    expect(readingFigure(984, 3)).toBe('984');
  });
});

test('two readings of an odometer a slip of the pen apart are asked about, and tell no wear', () => {
  const part = { on: 'belt', target: 'main' } as const;
  const depth = (drive: Drive, value: number, day: string, odometer: number) =>
    putFinding(drive, part, { check: 'rib-depth', value }, { at: `${day}T09:00:00Z`, odometer });
  const wear = (second: number) => {
    const drive = depth(depth(truck, 2.6, '2026-01-01', 104_000), 2.4, '2026-05-01', second);
    const belt = inspectDrive(drive).find(({ on }) => on === 'belt')!;
    const codes = inspectFindings(drive, inspectDrive(drive), { belts: [] }).map(({ code }) => code);
    return { wear: belt.wear!, told: codes };
  };
  for (const slip of [1_120_000, 11_200]) {
    expect(wear(slip).wear).toMatchObject({ told: 'odometer-doubted', left: null });
    expect(wear(slip).wear.doubted).toEqual({ odometer: slip, before: 104_000 });
    expect(wear(slip).told).toContain('odometer-doubted');
  }
  expect(wear(112_000).wear.left).not.toBeNull();
  expect(wear(112_000).told).not.toContain('odometer-doubted');
});

test('a belt that is drawn over a pulley which is not there is looked at all the same', () => {
  const belt = truck.belts[0]!;
  const lost = { ...truck, belts: [{ ...belt, route: [...belt.route, { pulley: 'gone', side: 'drive' as const }] }] };
  const items = inspectDrive(lost, 60_000);
  expect(items.some(({ on, target }) => on === 'belt' && target === belt.id)).toBe(true);
  expect(items.filter(({ on }) => on === 'arm')).toHaveLength(1);
});
