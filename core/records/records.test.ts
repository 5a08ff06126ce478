import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { type Belt, changeBelt, changeStation, type Drive, putItem, type TensionReading } from '../drive';
import { partChanged, putFinding } from '../inspect';
import { cardBelts, essentialsOf, MOST_ESSENTIALS } from './essentials';
import { duesOf } from './due';
import { type Due, dueBy, dueState, expectedOf } from './due-state';
import { kindOfBelt, livesOf, ranKm } from './lives';
import { queryWords, readBeltQuery } from './query';
import { storyOf, tensionSittings } from './story';
import { survivalOf } from './survival';
import { dayAt, DEFAULT_KM_A_YEAR, usualUse } from './use';

const day = (text: string) => Date.parse(`${text}T12:00:00Z`);
const care = (drive: Drive, belt: string, more: Belt['care']) => changeBelt(drive, belt, { care: more });

describe('how far a vehicle goes', () => {
  test('the slope of its readings, whatever their order', () => {
    const readings = [
      { at: day('2026-03-01'), odometer: 105_000 },
      { at: day('2026-01-01'), odometer: 102_050 },
      { at: day('2026-06-09'), odometer: 110_000 },
    ];
    const { perDay, from, last } = usualUse(readings, 'km');
    expect(perDay).toBeCloseTo(50, 0);
    expect(from).toBe('readings');
    expect(last).toEqual(readings[2]);
    expect(dayAt(115_000, { perDay: 50, unit: 'km', from, last })).toBe('2026-09-17');
  });
  test.each([
    ['none', []],
    ['one', [{ at: day('2026-01-01'), odometer: 5 }]],
    [
      'two in one week',
      [
        { at: day('2026-01-01'), odometer: 5 },
        { at: day('2026-01-06'), odometer: 1005 },
      ],
    ],
    [
      'an odometer that runs backward',
      [
        { at: day('2026-01-01'), odometer: 500 },
        { at: day('2026-06-06'), odometer: 100 },
      ],
    ],
  ])('a default with %s, said as such', (_, readings) => {
    expect(usualUse(readings, 'km')).toMatchObject({ perDay: DEFAULT_KM_A_YEAR / 365, from: 'default' });
    expect(usualUse(readings, 'mi').perDay).toBeCloseTo(DEFAULT_KM_A_YEAR / 365 / 1.609344, 9);
  });
  test.each([0, 1, 2, 3])('one reading typed ten times too high (the %p.) changes nothing of it', (wrong) => {
    const read = [102_050, 105_000, 110_000, 113_050].map((odometer, k) => ({
      at: day(['2026-01-01', '2026-03-01', '2026-06-09', '2026-08-09'][k]!),
      odometer: k === wrong ? 10 * odometer : odometer,
    }));
    const { perDay, from, last } = usualUse(read, 'km');
    expect(from).toBe('readings');
    expect(perDay).toBeCloseTo(50, 0);
    expect(last).toEqual(wrong === 3 ? read[2] : read[3]);
  });
  test('of two that cannot both be true the lower counts: a slip of the keys adds a digit', () => {
    const read = [
      { at: day('2026-01-01'), odometer: 98_000 },
      { at: day('2026-06-09'), odometer: 1_050_000 },
    ];
    expect(usualUse(read, 'km')).toMatchObject({ from: 'default', last: read[0] });
  });
  test('whatever is mistyped, or of another odometer, the use is one that a vehicle can have', () => {
    const reading = fc.record({ at: fc.integer({ min: 0, max: 2e12 }), odometer: fc.integer({ min: 0, max: 1e7 }) });
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 30 }), (readings) => {
        const { perDay } = usualUse(readings, 'km');
        expect(perDay).toBeGreaterThan(0);
        expect(perDay).toBeLessThanOrEqual(4000);
      }),
    );
  });
  test('any day it names is the one its line says', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 0, max: 20_000 }), (perDay, ahead) => {
        const last = { at: day('2026-01-01'), odometer: 40_000 };
        const expected = dayAt(40_000 + ahead, { perDay, unit: 'km', from: 'readings', last });
        if (expected === null) return expect(ahead / perDay).toBeGreaterThan(36_000);
        expect(Math.abs((Date.parse(expected) - last.at) / 86_400_000 - ahead / perDay)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('what is due', () => {
  const use = usualUse(
    [
      { at: day('2026-01-01'), odometer: 10_000 },
      { at: day('2026-11-27'), odometer: 43_000 },
    ],
    'km',
  );
  const kinds = (drive: Drive) => duesOf(drive).map(({ kind, belt }) => `${kind} ${belt ?? ''}`.trim());
  const plain: Drive = { ...DEMO.pickup, inspect: {}, noise: {} };

  test('a belt by hand that was never set again, and then its next look by day or odometer', () => {
    expect(kinds(plain)).toEqual([]);
    const fitted = care(plain, 'outer', { fittedAt: '2026-11-20T09:00:00Z' });
    expect(kinds(fitted)).toEqual(['set-again outer', 'life outer']);
    const set = care(fitted, 'outer', {
      fittedAt: '2026-11-20T09:00:00Z',
      setAgainAt: '2026-11-20T09:30:00Z',
      nextLookAt: '2026-12-20T09:30:00Z',
      nextLookOdometer: 43_500,
    });
    const [look] = duesOf(set);
    expect(look).toMatchObject({ kind: 'look', day: '2026-12-20', odometer: 43_500, from: 'written' });
    // A hundred km a day: the odometer comes first.
    expect(expectedOf(look!, use)).toEqual({ day: '2026-12-02', by: 'odometer' });
    expect(dueBy(look!, 'km')).toBe('by 2026-12-20, or at 43,500 km');
  });

  test.each(['+275760-09-12', '-000044-03-15', 'soon', '0999-12-31'])(
    'a date outside the calendar (%s) makes no day',
    (at) => {
      const [due] = duesOf(care(plain, 'outer', { fittedAt: at }));
      expect(due).toMatchObject({ kind: 'set-again', day: null });
      expect(
        expectedOf({ day: null, odometer: 5, unit: null }, { ...use, last: { at: 8.64e15, odometer: 0 } }).day,
      ).toBeNull();
      expect(storyOf(care(plain, 'outer', { fittedAt: at }))).toHaveLength(1);
    },
  );

  test('a sprung arm needs no setting again; a belt to be replaced is due since it was found', () => {
    const quiet: Drive = { ...DEMO.rescue, inspect: {}, noise: {} };
    expect(kinds(care(quiet, 'main', { fittedAt: '2026-11-20T09:00:00Z' }))).toEqual(['life main']);
    const bad = putFinding(
      quiet,
      { on: 'belt', target: 'main' },
      { check: 'profile', outcome: 'u' },
      {
        at: '2026-10-05T09:00:00Z',
      },
    );
    expect(duesOf(bad)).toMatchObject([
      { kind: 'change', belt: 'main', day: '2026-10-05', text: 'Replace: 6-rib PK belt' },
    ]);
  });

  test('wear by its readings, with its ±; a default life where there are none, said as such', () => {
    const worn = [
      [2.8, 100_000],
      [2.4, 120_000],
    ].reduce<Drive>(
      (now, [value, odometer]) =>
        putFinding(
          now,
          { on: 'belt', target: 'main' },
          { check: 'rib-depth', value: value!, plusMinus: 0.02 },
          {
            at: odometer === 100_000 ? '2026-01-01T09:00:00Z' : '2026-11-01T09:00:00Z',
            odometer: odometer!,
          },
        ),
      { ...DEMO.rescue, inspect: { odometerUnit: 'km' }, noise: {} },
    );
    const wear = duesOf(worn).find(({ kind }) => kind === 'wear')!;
    expect(wear.odometer).toBeCloseTo(140_000, 6);
    expect(wear.plusMinus).toBeGreaterThan(500);
    expect(dueBy(wear, 'km')).toMatch(/^by 2027-\d\d-\d\d, or at 140,000 km ± /);
    const fitted = care({ ...DEMO.rescue, inspect: {}, noise: {} }, 'main', { fittedOdometer: 50_000 });
    const life = duesOf(fitted).find(({ kind }) => kind === 'life')!;
    expect(life).toMatchObject({ from: 'default', unit: 'km' });
    expect(dueBy(life, 'km')).toMatch(/^at \d{2,3},000 km \(a default\)$/);
    // A belt ages by years as well, and the sooner counts.
    const dated = care({ ...DEMO.rescue, inspect: {}, noise: {} }, 'main', {
      fittedAt: '2024-02-29T09:00:00Z',
      fittedOdometer: 50_000,
    });
    const aged = duesOf(dated).find(({ kind }) => kind === 'life')!;
    expect(aged).toMatchObject({ day: '2032-02-29', odometer: 200_000, key: 'life main' });
    expect(aged.text).toBe('6-rib PK belt: expected life reached, by distance or at 8 years');
    const slow = {
      perDay: 5,
      unit: 'km' as const,
      from: 'readings' as const,
      last: { at: day('2026-01-01'), odometer: 51_000 },
    };
    expect(expectedOf(aged, slow)).toEqual({ day: '2032-02-29', by: 'day' });
    const worked = care(worn, 'main', { fittedAt: '2018-01-01T09:00:00Z' });
    expect(duesOf(worked).find(({ kind }) => kind === 'wear')).toMatchObject({
      day: '2026-01-01',
      odometer: wear.odometer,
    });
  });

  test('a cure is listened to at once, then by its own odometer, then no more', () => {
    const cured = (listened: object[]): Drive => ({
      ...plain,
      noise: {
        cures: [
          {
            id: 'c',
            cause: 'loose',
            part: 'outer',
            at: '2026-11-01T08:00:00Z',
            odometer: 1000,
            odometerUnit: 'mi',
            listened,
          } as never,
        ],
      },
    });
    expect(duesOf(cured([]))).toMatchObject([{ kind: 'listen', day: '2026-11-01', odometer: null }]);
    const quiet = { when: 'now', outcome: 'quiet' };
    expect(duesOf(cured([quiet]))).toMatchObject([{ kind: 'listen', day: null, odometer: 1311, unit: 'mi' }]);
    // Miles are not held against an odometer that counts km.
    expect(expectedOf(duesOf(cured([quiet]))[0]!, use)).toEqual({ day: null, by: null });
    expect(duesOf(cured([quiet, { ...quiet, when: 'soon' }, { ...quiet, when: 'later' }]))).toEqual([]);
    expect(duesOf(cured([quiet, { when: 'soon', outcome: 'back' }]))).toEqual([]);
  });

  test('a belt is named as its maker writes it, after its number where there are several, by its kind where no more is known', () => {
    const single: Drive = { ...DEMO.rescue, inspect: {}, noise: {} };
    const { id } = single.belts[0]!;
    const look = (drive: Drive, id: string) =>
      duesOf(care(drive, id, { nextLookAt: '2027-01-31T09:00:00Z' })).find(({ kind }) => kind === 'look')!.text;
    expect(look(changeBelt(single, id, { length: undefined } as never), id)).toMatch(/^6-rib PK belt: /);
    expect(look(changeBelt(single, id, { length: 1734 }), id)).toMatch(/^Belt 6PK1734: /);
    expect(look(changeBelt(DEMO.pickup, 'outer', { length: 1000 }), 'outer')).toMatch(/^Belt 2, AV10x1000: /);
  });

  test('every thing due has a name of its own, that its words do not make: two cures are two', () => {
    const cure = (id: string) => ({ id, cause: 'loose', part: 'outer', at: '2026-11-01T08:00:00Z' }) as never;
    const dues = duesOf({ ...plain, noise: { cures: [cure('a'), cure('b')] } });
    expect(dues.map(({ key }) => key)).toEqual(['listen a', 'listen b']);
    expect(new Set(dues.map(({ text }) => text)).size).toBe(1);
  });

  test('what nothing can set again is neither due to be set again nor told to be', () => {
    const fixed = (by: 'fixed' | 'stretch'): Drive => {
      const drive = care(DEMO.pickup, 'outer', {
        fittedAt: '2026-11-20T09:00:00Z',
        nextLookAt: '2026-12-20T09:00:00Z',
      });
      const still = { ...drive, stations: drive.stations.map(({ adjuster: _none, ...station }) => station) };
      return by === 'fixed'
        ? changeStation(still, 'alt', { adjuster: { kind: 'fixed' } })
        : changeBelt(still, 'outer', { section: 'PK', ribs: 4, build: 'stretch' });
    };
    for (const by of ['fixed', 'stretch'] as const) {
      expect(kinds(fixed(by))).not.toContain('set-again');
      expect(duesOf(fixed(by)).find(({ kind }) => kind === 'look')!.text).toMatch(/no adjuster sets it again/);
    }
  });

  test('due once its day or its reading has come, soon a month ahead', () => {
    const due = (
      expected: string | null,
      odometer: number | null = null,
    ): Pick<Due, 'odometer' | 'unit'> & { expected: string | null } => ({
      expected,
      odometer,
      unit: null,
    });
    const vehicle = { odometer: 43_000, unit: 'km' as const };
    expect(dueState(due('2026-11-26'), '2026-11-26', vehicle)).toBe('due');
    expect(dueState(due('2026-12-26'), '2026-11-26', vehicle)).toBe('soon');
    expect(dueState(due('2026-12-27'), '2026-11-26', vehicle)).toBe('later');
    expect(dueState(due('2027-12-27', 43_000), '2026-11-26', vehicle)).toBe('due');
    expect(dueState({ ...due(null, 43_000), unit: 'mi' }, '2026-11-26', vehicle)).toBe('no day');
  });
});

describe('the lives of belts', () => {
  const look = (at: string, odometer: number) => ({ at: `${at}T09:00:00Z`, odometer });
  const twice = (() => {
    const first = care(DEMO.pickup, 'outer', {
      fittedAt: '2024-01-01T09:00:00Z',
      fittedOdometer: 10_000,
      number: 'TF 1',
    });
    const second = partChanged(first, { on: 'belt', target: 'outer' }, look('2025-01-01', 55_000), 'broke');
    return partChanged(second, { on: 'belt', target: 'outer' }, look('2026-01-01', 70_000), 'in-passing');
  })();

  test('each from when it went on to when it came off, the one that is on last', () => {
    const lives = livesOf(twice).filter(({ belt }) => belt === 'outer');
    const vehicle = { odometer: 91_000, unit: 'km' as const };
    expect(lives.map(({ why, number }) => [why, number])).toEqual([
      ['broke', 'TF 1'],
      ['in-passing', null],
      [null, null],
    ]);
    expect(lives.map((life) => ranKm(life, vehicle))).toEqual([45_000, 15_000, 21_000]);
    expect(lives.at(-1)!.to).toBeNull();
    // A vehicle that counts hours does not tell the km of one whose drive counts them.
    const counted = livesOf({ ...twice, inspect: { ...twice.inspect, odometerUnit: 'km' } }).at(-1)!;
    expect(ranKm(counted, { odometer: 91_000, unit: 'h' })).toBeNull();
  });

  test('kinds', () => {
    expect(kindOfBelt('PK', 6)).toBe('6-rib PK');
    expect(kindOfBelt('AV10', null)).toBe('AV10');
  });
});

describe('the survival of belts', () => {
  test('the published example: 21 remission times of Freireich and others, 1963, of which 9 ended', () => {
    const ended = [6, 6, 6, 7, 10, 13, 16, 22, 23];
    const running = [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35];
    const { steps, belts, medianKm } = survivalOf([
      ...ended.map((km) => ({ km, ended: true })),
      ...running.map((km) => ({ km, ended: false })),
    ]);
    expect(belts).toBe(21);
    expect(steps.map(({ km, atRisk }) => [km, atRisk])).toEqual([
      [6, 21],
      [7, 17],
      [10, 15],
      [13, 12],
      [16, 11],
      [22, 7],
      [23, 6],
    ]);
    const rounded = (values: number[]) => values.map((value) => Number(value.toFixed(4)));
    expect(rounded(steps.map(({ share }) => share))).toEqual([0.8571, 0.8067, 0.7529, 0.6902, 0.6275, 0.5378, 0.4482]);
    expect(rounded(steps.map(({ plusMinus }) => plusMinus))).toEqual([
      0.0764, 0.0869, 0.0963, 0.1068, 0.1141, 0.1282, 0.1346,
    ]);
    expect(medianKm).toBe(23);
  });

  test('so many alike are as many one by one', () => {
    const some = fc.record({
      km: fc.integer({ min: 0, max: 9 }),
      ended: fc.boolean(),
      count: fc.integer({ min: 1, max: 4 }),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 20 }), (lives) => {
        const entry = lives.flatMap(({ count, ...life }) => Array.from({ length: count }, () => life));
        expect(survivalOf(lives)).toEqual(survivalOf(entry));
      }),
    );
  });

  test('with none still running it is the plain share; with none ended it is one', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 1, maxLength: 40 }), (kms) => {
        const all = survivalOf(kms.map((km) => ({ km, ended: true })));
        for (const { km, share } of all.steps)
          expect(share).toBeCloseTo(kms.filter((other) => other > km).length / kms.length, 12);
        expect(survivalOf(kms.map((km) => ({ km, ended: false })))).toMatchObject({ steps: [], medianKm: null });
      }),
    );
  });

  test('its ± holds two thirds of the time, with half of the belts still running', () => {
    let seed = 7;
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    let inside = 0;
    const rounds = 600;
    for (let round = 0; round < rounds; round += 1) {
      const lives = Array.from({ length: 80 }, () => {
        const [life, watched] = [-60 * Math.log(random()), 120 * random()];
        return { km: Math.min(life, watched), ended: life <= watched };
      });
      const { steps } = survivalOf(lives);
      const at = steps.filter(({ km }) => km <= 50).at(-1)!;
      if (Math.abs(at.share - Math.exp(-50 / 60)) <= at.plusMinus) inside += 1;
    }
    expect(inside / rounds).toBeGreaterThan(0.62);
    expect(inside / rounds).toBeLessThan(0.74);
  });
});

describe('a search in plain words', () => {
  test.each([
    ['every 6-rib belt over 80,000 km', { ribs: 6, overKm: 80_000, words: [] }],
    ['6 rib belts over 80k km', { ribs: 6, overKm: 80_000, words: [] }],
    ['6PK over 50,000 miles', { ribs: 6, section: 'PK', overKm: 80_467.2, words: [] }],
    ['v-belts older than 3 years', { kind: 'vee', overDays: 1095.75, words: [] }],
    ['AV10 belts under 20 000 km on farm', { section: 'AV10', underKm: 20_000, words: ['farm'] }],
    ['ribbed belts more than 1200 hours', { kind: 'ribbed', overKm: 48_000, words: [] }],
    ['rescue truck', { words: ['rescue', 'truck'] }],
    ['TF-88', { words: ['tf-88'] }],
    ['', { words: [], ribs: null, section: null }],
  ])('%s', (text, wanted) => {
    const query = readBeltQuery(text);
    expect(query).toMatchObject({
      ...wanted,
      ...('overKm' in wanted ? { overKm: expect.closeTo(wanted.overKm, 6) as number } : {}),
    });
    const asked = ['ribs', 'section', 'kind', 'overKm', 'underKm', 'overDays'] as const;
    for (const key of asked) if (!(key in wanted)) expect(query[key]).toBeNull();
    expect(queryWords(query)).not.toMatch(/NaN|undefined|null/);
  });
  test('nothing that is written makes it throw, or a figure that is none', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const { ribs, overKm, underKm, overDays } = readBeltQuery(text);
        for (const value of [ribs, overKm, underKm, overDays])
          expect(value === null || Number.isFinite(value)).toBe(true);
      }),
    );
  });
});

describe('the story', () => {
  test('latest first, each with what is known of it, undated ones last', () => {
    const [from, to] = DEMO.pickup.belts.find(({ id }) => id === 'outer')!.route.map(({ pulley }) => pulley);
    const span = { from: from!, to: to! };
    const reading: TensionReading = {
      id: 'r',
      way: 'gauge',
      span,
      newtons: 400,
      at: '2026-05-01T08:00:00Z',
      odometer: 77,
    };
    const drive = [
      (now: Drive) => care(now, 'outer', { fittedAt: '2026-01-01T09:00:00Z', number: 'TF 9', fittedOdometer: 12 }),
      (now: Drive) => changeBelt(now, 'outer', { tensionReadings: [reading, { ...reading, id: 's', newtons: 420 }] }),
      (now: Drive) => putItem(now, 'align.readings', { id: 'a', tool: 'laser', pulley: 'alt-1', mm: 1 } as never),
    ].reduce((now, change) => change(now), { ...DEMO.pickup, inspect: {}, noise: {}, align: {} } as Drive);
    const story = storyOf(drive);
    expect(story.map(({ kind }) => kind)).toEqual(['tension', 'belt', 'alignment']);
    expect(story[0]).toMatchObject({ odometer: 77, belt: 'outer', detail: '2 readings' });
    expect(story[0]!.title).toMatch(/^Belt 2, AV10: tension read, 4\d\d ± \d+ N$/);
    expect(story[1]).toMatchObject({ title: 'Belt 2, AV10: fitted', detail: 'number TF 9', odometer: 12 });
    expect(story[2]!.at).toBeNull();
    const [sitting] = tensionSittings(drive);
    expect(sitting).toMatchObject({ belt: 'outer', odometer: 77, readings: 2 });
    expect(sitting!.tension!.at).toBeGreaterThan(400);
    // A tension that was read before the present belt was fitted is not said to be of its length.
    const known = changeBelt(drive, 'outer', { length: 1000 });
    const later = care(known, 'outer', { fittedAt: '2026-06-01T09:00:00Z' });
    const read = (of: Drive) => storyOf(of).find(({ kind }) => kind === 'tension')!.title;
    expect(read(known)).toMatch(/^Belt 2, AV10x1000: tension read/);
    expect(read(later)).toMatch(/^Belt 2, AV10: tension read/);
  });
  test.each(Object.entries(DEMO))('%s is told without a gap', (_name, drive) => {
    for (const { title, detail } of storyOf(drive)) expect(`${title} ${detail}`).not.toMatch(/undefined|NaN|\[object/);
  });
});

describe('the glovebox card', () => {
  test.each(Object.entries(DEMO))(
    '%s: every belt with what to ask for, route and release, short enough for a code',
    (_name, drive) => {
      const text = essentialsOf(drive, { name: 'Truck', plate: 'K4' });
      expect(text.length).toBeLessThanOrEqual(MOST_ESSENTIALS);
      expect(text).not.toMatch(/undefined|NaN|null/);
      for (const { ask, route } of cardBelts(drive)) {
        expect(text).toContain(ask);
        expect(text).toContain(route);
      }
      expect(text.split('\n').at(-1)).toMatch(/battery off/);
    },
  );
  test('a drive at its limits is cut off, and says so', () => {
    const many: Drive = {
      ...DEMO.rescue,
      belts: Array.from({ length: 16 }, (_, k) => ({ ...DEMO.rescue.belts[0]!, id: `b${k}` })),
    };
    const text = essentialsOf(many, { name: 'Truck', plate: '' });
    expect(text.length).toBeLessThanOrEqual(MOST_ESSENTIALS);
    expect(text).toMatch(/…$/);
  });
});
