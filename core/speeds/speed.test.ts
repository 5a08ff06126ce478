import fc from 'fast-check';
import { driveOf, SERPENTINE, station, type Stop } from '../test/examples';
import { type Belt, type Drive, readDrive } from '../drive';
import { solveDrive } from '../path';
import { bandOf, DEFAULT_BANDS, placeIn } from './bands';
import { breakEvenRpm, cubedPower, marksOf, outputAt } from '../accessory';
import { type PulleyAtHand, withPulley } from './pulley-choice';
import { explainRatio, readRatio } from './ratio-mistake';
import { choosePulleys, setsOf, type SpeedTarget } from './search';
import { addLogRow, binsOfLog, logColumns, newSpeedLog } from './speed-log';
import { bandFindings, speedFindings, speedsOf } from './speeds';
import { simulatedReading, slipOf } from './tachometer';
import { normalised, presetUse, timeInBand, turnsOf, USE_PRESETS, withShare } from './use';
import { asPulley, sizesFor } from './wanted';
import { bandWords, ratioReadingWords, speedReason } from './words';

const serpentine = () =>
  driveOf(SERPENTINE, {}, { crankRotation: 'cw', speeds: { idle: 700, cruise: 2000, redline: 5000 } });
const ratio = (drive: Drive, id: string) => speedsOf(drive).shafts.find((shaft) => shaft.station === id)!.speedRatio!;

/** Crank → jackshaft (150 in, 100 out) → blower on a second belt, all V. */
function jackshaft(secondOut = 100): Drive {
  const vee = (stops: Stop[]) => stops.map((stop) => station(stop, 'vee'));
  const [crank, jack, blower] = vee([
    ['crank', 0, 0, 200],
    ['jack', 300, 0, 150],
    ['blower', 300, 250, 80],
  ]);
  const stations = [
    crank!,
    {
      ...jack!,
      role: 'jackshaft' as const,
      pulleys: [jack!.pulleys[0]!, { id: 'jack-out', surface: 'vee' as const, diameter: secondOut, plane: 20 }],
    },
    { ...blower!, pulleys: [{ ...blower!.pulleys[0]!, plane: 20 }] },
  ];
  const belt = (id: string, ...pulleys: string[]): Belt => ({
    id,
    section: 'AV13',
    length: null,
    route: pulleys.map((pulley) => ({ pulley, side: 'drive' as const })),
  });
  return {
    format: 'emery-drive',
    version: 1,
    crankRotation: 'cw',
    stations,
    belts: [belt('first', 'crank', 'jack'), belt('second', 'jack-out', 'blower')],
  };
}

describe('ratios and speeds', () => {
  test('cord diameters, product over a jackshaft', () => {
    // AV13: cord 2.86 mm below the rim.
    const cord = (rim: number) => rim - 2 * 2.86;
    const { shafts, belts } = speedsOf(jackshaft());
    expect(shafts.map(({ speedRatio }) => speedRatio)).toEqual([
      1,
      expect.closeTo(cord(200) / cord(150), 12),
      expect.closeTo((cord(200) / cord(150)) * (cord(100) / cord(80)), 12),
    ]);
    expect(shafts.every(({ direction }) => direction === 'cw')).toBe(true);
    expect(belts[0]!.metresPerSecond! * 3000).toBeCloseTo((Math.PI * cord(200) * 3000) / 60_000, 9);
    expect(belts[1]!.metresPerSecond! * 3000).toBeCloseTo(
      (((Math.PI * cord(100) * 3000) / 60_000) * cord(200)) / cord(150),
      9,
    );
  });

  test('bends per second: pulleys met in a second', () => {
    const drive = serpentine();
    const solved = solveDrive(drive).belts[0]!;
    const turnsPerSecond = ((1000 / 60) * Math.PI * 172) / solved.cordLength!;
    expect(speedsOf(drive).belts[0]!.flexPerSecond! * 1000).toBeCloseTo(6 * turnsPerSecond, 9);
  });

  test('a shaft on the back turns the other way; one on no belt has no speed', () => {
    const drive = { ...serpentine(), stations: [...serpentine().stations, station(['spare', 500, 500, 80])] };
    const { shafts } = speedsOf(drive);
    expect(Object.fromEntries(shafts.map(({ station: id, direction }) => [id, direction]))).toEqual({
      crank: 'cw',
      ten: 'ccw',
      pump: 'cw',
      idler: 'ccw',
      alt: 'cw',
      ac: 'cw',
      spare: null,
    });
    expect(shafts.at(-1)!.speedRatio).toBeNull();
  });

  test('turning, mirroring and moving a drive changes no ratio', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6, noNaN: true }),
        fc.integer({ min: -400, max: 400 }),
        fc.boolean(),
        (angle, dx, mirror) => {
          const drive = serpentine();
          const moved = {
            ...drive,
            crankRotation: mirror ? ('ccw' as const) : ('cw' as const),
            stations: drive.stations.map((s) => ({
              ...s,
              x: (mirror ? -1 : 1) * (s.x * Math.cos(angle) - s.y * Math.sin(angle)) + dx,
              y: s.x * Math.sin(angle) + s.y * Math.cos(angle),
            })),
          };
          speedsOf(moved).shafts.forEach(({ speedRatio }, k) =>
            expect(speedRatio).toBeCloseTo(speedsOf(drive).shafts[k]!.speedRatio!, 9),
          );
        },
      ),
      { numRuns: 40 },
    );
  });

  test('the first crank is the one that counts; a second is a driven shaft', () => {
    const drive = driveOf([
      ['crank', 0, 0, 160],
      ['other', 300, 0, 76, 'drive', { role: 'crankshaft' }],
    ]);
    expect(speedsOf(drive).shafts.map(({ speedRatio }) => speedRatio)).toEqual([1, expect.closeTo(164 / 80, 12)]);
    const none = { ...drive, stations: drive.stations.map((s) => ({ ...s, role: 'other' as const })) };
    expect(speedsOf(none).shafts.map(({ speedRatio, direction }) => [speedRatio, direction])).toEqual([
      [null, null],
      [null, null],
    ]);
  });

  test('toothed: teeth over teeth', () => {
    const drive = driveOf(
      [
        ['crank', 0, 0, 0, 'drive', { teeth: 28, diameter: undefined as never }],
        ['cam', 200, 0, 0, 'drive', { teeth: 20, diameter: undefined as never }],
      ],
      { section: 'H' },
    );
    expect(ratio(drive, 'cam')).toBeCloseTo(28 / 20, 12);
  });
});

describe('two belts on one shaft', () => {
  /** A second belt straight from a second crank sheave to a second sheave of the alternator. */
  function twice(crank2: number, alt2: number, section = 'AV10'): Drive {
    const base = driveOf(
      [
        ['crank', 0, 0, 160],
        ['alt', 300, 0, 70],
      ],
      { section: 'AV10' },
    );
    const second = (id: string, diameter: number) => ({
      id,
      diameter,
      plane: 15,
      ...(section === 'H' ? { surface: 'toothed' as const, teeth: diameter } : { surface: 'vee' as const }),
    });
    return {
      ...base,
      stations: base.stations.map((s, k) => ({
        ...s,
        pulleys: [...s.pulleys, second(`${s.id}-2`, k === 0 ? crank2 : alt2)],
      })),
      belts: [
        ...base.belts,
        {
          id: 'other',
          section,
          length: null,
          route: [
            { pulley: 'crank-2', side: 'drive' },
            { pulley: 'alt-2', side: 'drive' },
          ],
        },
      ],
    };
  }

  test('alike, nothing is amiss', () => {
    expect(speedFindings(twice(160, 70), 1000)).toEqual([]);
  });

  test('different ratios fight, by so many percent', () => {
    const cord = (rim: number) => rim - 2 * 2.07;
    const percent = 100 * (cord(164) / cord(70) / (cord(160) / cord(70)) - 1);
    const found = speedFindings(twice(164, 70), 1000);
    expect(found).toEqual([
      {
        code: 'two-ratios',
        severity: 'watch',
        belt: 'other',
        pulley: 'alt-2',
        figures: { percent: expect.closeTo(percent, 9) as number },
      },
    ]);
    expect(solveDrive(twice(164, 70)).belts[1]!.closed).toBe(true);
    expect(speedFindings(twice(180, 70), 1000)[0]!.severity).toBe('fault');
  });

  test('round any loop of belts the ratios multiply to 1, or it is a finding', () => {
    fc.assert(
      fc.property(fc.integer({ min: 120, max: 200 }), fc.integer({ min: 60, max: 100 }), (crank2, alt2) => {
        const product = (crank2 - 4.14) / (alt2 - 4.14) / ((160 - 4.14) / (70 - 4.14));
        const fights = solveDrive(twice(crank2, alt2)).belts[1]!.findings.some(({ code }) => code === 'ratios-fight');
        expect(fights).toBe(Math.abs(product - 1) > 2e-4);
      }),
    );
  });
});

describe('a ratio somebody worked out', () => {
  const explained = (text: string, drive = serpentine(), id = 'alt') =>
    explainRatio(drive, id, readRatio(text)!)!.readings[0]?.slip;

  test.each([
    ['2.77', 'right'],
    ['2.774:1', 'right'],
    ['0.36', 'upside-down'],
    ['36 %', 'upside-down-percent'],
    ['64%', 'upside-down-percent'],
    ['177 %', 'right'],
    ['277 %', 'share'],
    ['2.90', 'rims'],
    ['0.345', 'rims-upside-down'],
    ['5.55', 'radius'],
    ['1.41', 'other-shaft'],
  ])('%s is %s', (text, slip) => expect(explained(text)).toBe(slip));

  test('a jackshaft left out, and the sheave beside', () => {
    const drive = jackshaft();
    const first = (200 - 5.72) / (150 - 5.72);
    expect(explained(first.toFixed(3), drive, 'blower')).toBe('one-stage');
    const wrong = (first * (150 - 5.72)) / (80 - 5.72);
    expect(explained(wrong.toFixed(3), drive, 'blower')).toBe('other-sheave');
  });

  test('what fits nothing is said to fit nothing, and text that is none is refused', () => {
    expect(explained('1.93')).toBeUndefined();
    for (const text of ['', 'fast', '-2', '0', '2:0', '1e9x']) expect(readRatio(text)).toBeNull();
    expect(readRatio('2,94')!.value).toBe(2.94);
    expect(readRatio('1:3')!.value).toBe(3);
  });

  test('the slip is told with the true figure', () => {
    const drive = serpentine();
    const { truth, readings } = explainRatio(drive, 'alt', readRatio('36 %')!)!;
    expect(ratioReadingWords(drive, readings[0]!, truth, 'Alternator')).toMatch(
      /other way up \(0\.360\) and read as a percentage\. Alternator turns 2\.77 times.*177 % more/,
    );
  });
});

describe('bands and use', () => {
  test("own figures before the shop's before the default", () => {
    const plain = station(['alt', 0, 0, 60, 'drive', { role: 'alternator' }]);
    expect(bandOf(plain)).toEqual({ band: DEFAULT_BANDS.alternator, source: 'default' });
    expect(bandOf(plain, { alternator: { least: 1, continuous: 2, burst: 3 } }).source).toBe('shop');
    expect(bandOf({ ...plain, speedBand: { continuous: 9000 } }, {})).toEqual({
      band: { least: null, continuous: 9000, burst: null },
      source: 'vehicle',
    });
    expect([1000, 5000, 15_000, 19_000].map((rpm) => placeIn(DEFAULT_BANDS.alternator, rpm))).toEqual([
      'too-slow',
      'right',
      'too-fast',
      'beyond',
    ]);
  });

  test('what is outside a band is told, and a default limit is no reason to stop', () => {
    const drive = serpentine();
    const marks = { idle: 700, redline: 7000 };
    const bandsOf = (shop = {}) =>
      bandFindings(drive, marks, shop).map(({ station: id, place, severity, source }) => [id, place, severity, source]);
    // 7000 · 172/62 = 19,419, beyond the default 18,000.
    expect(bandsOf()).toContainEqual(['alt', 'beyond', 'watch', 'default']);
    expect(bandsOf({ alternator: { least: 2000, continuous: 12_000, burst: 16_000 } })).toEqual(
      expect.arrayContaining([
        ['alt', 'beyond', 'fault', 'shop'],
        ['alt', 'too-slow', 'watch', 'shop'],
      ]),
    );
    const [finding] = bandFindings(drive, marks).filter(({ station: id }) => id === 'alt');
    expect(finding).toMatchObject({
      at: 'redline',
      limit: 18_000,
      rpm: expect.closeTo((7000 * 172) / 62, 6) as number,
    });
    expect(bandWords(drive, finding!)).toMatchObject({
      title: 'Alternator turns 19,419 at redline.',
      why: expect.stringContaining('1,419 above its short-time limit') as string,
    });
  });

  test('a bin given a share leaves the others their proportions', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 2, maxLength: 9 }),
        fc.nat(),
        fc.double({ min: -0.5, max: 1.5, noNaN: true }),
        (shares, which, share) => {
          const bins = shares.map((share, k) => ({ from: 100 * k, to: 100 * k + 100, share }));
          fc.pre(bins.some((bin) => bin.share > 0));
          const index = which % bins.length;
          const changed = withShare({ bins }, index, share).bins;
          expect(changed.reduce((sum, bin) => sum + bin.share, 0)).toBeCloseTo(1, 9);
          expect(changed[index]!.share).toBeCloseTo(Math.min(1, Math.max(0, share)), 9);
          const before = normalised(bins);
          for (let k = 0; k < bins.length; k += 1) {
            for (let j = 0; j < bins.length; j += 1) {
              if (k !== index && j !== index && before[index]!.share < 1)
                expect(changed[k]!.share * before[j]!.share).toBeCloseTo(changed[j]!.share * before[k]!.share, 9);
            }
          }
        },
      ),
    );
  });

  test("an engine's marks come in rising order, whatever is written", () => {
    const figure = fc.option(fc.oneof(fc.integer({ min: -100, max: 12_000 }), fc.constant(0)), { nil: undefined });
    fc.assert(
      fc.property(figure, figure, figure, (idle, cruise, redline) => {
        const marks = marksOf({ idle, cruise, redline } as Drive['speeds']);
        expect(marks.idle).toBeGreaterThan(0);
        expect(marks.cruise).toBeGreaterThanOrEqual(marks.idle);
        expect(marks.redline).toBeGreaterThanOrEqual(marks.cruise);
      }),
    );
    expect(marksOf({ idle: 720, cruise: 2100, redline: 4600 })).toEqual({ idle: 720, cruise: 2100, redline: 4600 });
  });

  test('every preset shares out the whole time, most of it where its name says', () => {
    for (const preset of USE_PRESETS) {
      const { bins } = presetUse(preset, marksOf({ idle: 700, cruise: 2000, redline: 5000 }));
      expect(bins.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    }
    const spent = (preset: (typeof USE_PRESETS)[number], from: number, to: number) =>
      timeInBand(presetUse(preset, { idle: 700, cruise: 2000, redline: 5000 }), 1, {
        least: from,
        continuous: to,
        burst: null,
      }).right;
    expect(spent('work-at-idle', 600, 1000)).toBeGreaterThan(0.6);
    expect(spent('motorway', 1600, 2600)).toBeGreaterThan(0.6);
    expect(spent('track', 3000, 5000)).toBeGreaterThan(0.75);
  });

  test('time in a band by hand: 1000 to 2000 even, ratio 2', () => {
    const use = {
      bins: [
        { from: 1000, to: 2000, share: 3 },
        { from: 2000, to: 3000, share: 1 },
      ],
      kmPerHour: 50,
    };
    expect(timeInBand(use, 2, { least: 2500, continuous: 4000, burst: 5000 })).toEqual({
      tooSlow: expect.closeTo(0.1875, 12) as number,
      right: expect.closeTo(0.5625, 12) as number,
      tooFast: expect.closeTo(0.125, 12) as number,
      beyond: expect.closeTo(0.125, 12) as number,
    });
    // Mean 0.75·1500 + 0.25·2500 = 1750 at the engine.
    expect(turnsOf(use, 2)).toEqual({
      per1000Hours: expect.closeTo(1750 * 2 * 60 * 1000, 3) as number,
      per1000Km: expect.closeTo((1750 * 2 * 60 * 1000) / 50, 3) as number,
    });
    expect(turnsOf({ bins: [] }, 2)).toBeNull();
  });

  test('the four parts of the time always make the whole', () => {
    const bin = fc.record({
      from: fc.integer({ min: 0, max: 6000 }),
      width: fc.integer({ min: 0, max: 500 }),
      share: fc.double({ min: 0, max: 10, noNaN: true }),
    });
    const limit = fc.option(fc.integer({ min: 0, max: 20_000 }));
    fc.assert(
      fc.property(
        fc.array(bin, { minLength: 1, maxLength: 12 }),
        limit,
        limit,
        limit,
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        (raw, min, continuous, burst, r) => {
          const bins = raw.map(({ from, width, share }) => ({ from, to: from + width, share }));
          fc.pre(normalised(bins).some(({ share }) => share > 0));
          const { tooSlow, right, tooFast, beyond } = timeInBand({ bins }, r, { least: min, continuous, burst });
          for (const part of [tooSlow, right, tooFast, beyond]) expect(part).toBeGreaterThanOrEqual(-1e-9);
          if ((min ?? 0) <= (continuous ?? burst ?? Infinity) && (min ?? 0) <= (burst ?? Infinity))
            expect(tooSlow + right + tooFast + beyond).toBeCloseTo(1, 9);
        },
      ),
    );
  });
});

describe('a log of engine speed', () => {
  const logOf = (rows: string[][]) => {
    const columns = logColumns(rows[0]!)!;
    const log = newSpeedLog();
    rows.slice(columns.heading ? 1 : 0).forEach((row, k) => addLogRow(log, row, columns, k + 1));
    return log;
  };

  test('time is spent between rows; pauses and a standing engine are not running', () => {
    const log = logOf([
      ['Time (s)', 'Gear', 'Engine rpm'],
      ['0', '1', '800'],
      ['1', '1', '800'],
      ['3', '1', '2000'],
      ['100', '2', '2000'],
      ['101', '2', '2000'],
      ['102', 'x', '0'],
      ['103', 'x', '0'],
    ]);
    expect([log.runningS, log.standingS, log.pauses, log.bad]).toEqual([1 + 2 + 1 + 1, 1, 1, 0]);
    const bins = binsOfLog(log);
    expect(bins.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
    // One second at 800, two at the mean of 800 and 2000, one at 2000, one at the mean of 2000 and 0.
    const at = (rpm: number) => bins.find(({ from, to }) => from <= rpm && rpm < to)!.share;
    expect([at(800), at(1400), at(2000), at(1000)]).toEqual([0.2, 0.4, 0.2, 0.2]);
  });

  test('clocks, milliseconds, decimal commas, no heading; bad rows are counted and shown', () => {
    expect(
      logOf([
        ['0:00:00', '900'],
        ['0:00:02,5', '900'],
      ]).runningS,
    ).toBe(2.5);
    expect(
      logOf([
        ['t_ms', 'rpm'],
        ['0', '900'],
        ['500', '900,5'],
      ]).runningS,
    ).toBe(0.5);
    expect(
      logOf([
        ['timestamp', 'revs'],
        ['2031-05-01T10:00:00Z', '900'],
        ['2031-05-01 10:00:01Z', '900'],
      ]).runningS,
    ).toBe(1);
    const log = logOf([['time', 'rpm'], ['0', '900'], ['one', '900'], ['1', 'n/a'], ['2', '-5'], ['3', '99999'], ['']]);
    expect([log.rows, log.bad, log.firstBad[0]]).toEqual([5, 4, { line: 2, text: 'one,900' }]);
    expect(logColumns(['speed', 'gear'])).toBeNull();
    expect(binsOfLog(newSpeedLog())).toEqual([]);
  });
});

test('the other sheave of the crank is told by its own side, where the belt drives on its back', () => {
  const plain = driveOf([
    ['crank', 0, 0, 150],
    ['pump', 300, 0, 100, 'back'],
    ['alt', 150, 250, 60],
  ]);
  const drive = {
    ...plain,
    stations: plain.stations.map((station) =>
      station.id === 'crank'
        ? { ...station, pulleys: [...station.pulleys, { ...station.pulleys[0]!, id: 'second', diameter: 120 }] }
        : station,
    ),
  };
  const truth = explainRatio(drive, 'pump', readRatio('1')!)!.truth;
  // The cord of a PK runs 2 mm above the rims.
  const claimed = (truth * (60 + 2)) / (75 + 2);
  const { readings } = explainRatio(drive, 'pump', { ...readRatio('1.2345')!, value: claimed, rounding: 1e-6 })!;
  const mistake = readings.find(({ slip }) => slip === 'other-sheave')!;
  expect([mistake.pulley, mistake.value]).toEqual(['second', expect.closeTo(claimed, 9)]);
});

test.each<[string, boolean, number | null]>([
  ['1,234', true, 1234],
  ['12,345.5', true, 12_345.5],
  ['1,234', false, null],
  ['12,345', false, null],
  ['900,5', false, 900.5],
  ['0,500', false, 0.5],
  ['123,456', false, 123.456],
  ['1 234', false, 1234],
  ['1\u202f234', true, 1234],
  ['29999', false, 29_999],
  ['30000', false, null],
  ['-1', false, null],
  ['', false, null],
])('an engine speed of %j, with commas between the columns %s: %s', (text, commas, rpm) => {
  const log = newSpeedLog();
  const columns = { time: 0, rpm: 1, unitS: 1, heading: false, commas };
  addLogRow(log, ['0', text], columns, 1);
  expect(log.last?.rpm ?? null).toBe(rpm);
  expect(log.bad).toBe(rpm === null ? 1 : 0);
});

describe('output and power', () => {
  const points = [
    { rpm: 1500, amps: 0 },
    { rpm: 2000, amps: 35 },
    { rpm: 3000, amps: 70 },
    { rpm: 6000, amps: 92 },
    { rpm: 9000, amps: 92 },
  ];

  test('passes through every point, never falls where they rise, stays between neighbours', () => {
    for (const { rpm, amps } of points) expect(outputAt(points, rpm)).toBeCloseTo(amps, 9);
    let before = 0;
    for (let rpm = 1400; rpm < 10_000; rpm += 7) {
      const now = outputAt([...points].reverse(), rpm)!;
      expect(now).toBeGreaterThanOrEqual(before - 1e-9);
      before = now;
    }
    expect([outputAt(points, 100), outputAt(points, 20_000), outputAt([], 3000)]).toEqual([0, 92, null]);
  });

  test('any entered curve stays within its points', () => {
    const point = fc.record({ rpm: fc.integer({ min: 0, max: 9000 }), amps: fc.integer({ min: 0, max: 200 }) });
    fc.assert(
      fc.property(
        fc.uniqueArray(point, { minLength: 2, maxLength: 8, selector: ({ rpm }) => rpm }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (curve, share) => {
          const sorted = [...curve].sort((a, b) => a.rpm - b.rpm);
          const rpm = sorted[0]!.rpm + share * (sorted.at(-1)!.rpm - sorted[0]!.rpm);
          const k = Math.min(sorted.length - 2, Math.max(0, sorted.findIndex((entry) => entry.rpm > rpm) - 1));
          const [low, high] = [
            Math.min(sorted[k]!.amps, sorted[k + 1]!.amps),
            Math.max(sorted[k]!.amps, sorted[k + 1]!.amps),
          ];
          if (rpm < sorted.at(-1)!.rpm) {
            expect(outputAt(curve, rpm)).toBeGreaterThanOrEqual(low - 1e-6);
            expect(outputAt(curve, rpm)).toBeLessThanOrEqual(high + 1e-6);
          }
        },
      ),
    );
  });

  test('break-even is where the curve meets the load', () => {
    const rpm = breakEvenRpm(points, 50)!;
    expect(outputAt(points, rpm)).toBeCloseTo(50, 2);
    expect(breakEvenRpm(points, 93)).toBeNull();
    expect(breakEvenRpm(points, 0)).toBe(1500);
  });

  test('twice the speed, eight times the power', () =>
    expect(cubedPower({ rpm: 2000, kw: 1.5 }, 4000)).toBeCloseTo(12, 12));
});

describe('solving for a pulley', () => {
  test('sizes put back in give the wanted speed, whichever pulley is changed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('alt', 'pump', 'ac', 'ten'),
        fc.integer({ min: 900, max: 4000 }),
        fc.integer({ min: 700, max: 2500 }),
        (id, rpm, engineRpm) => {
          const drive = serpentine();
          for (const size of sizesFor(drive, id, rpm, engineRpm)) {
            expect(
              ratio(withPulley(drive, { pulley: size.pulley, to: asPulley(size, drive) }), id) * engineRpm,
            ).toBeCloseTo(rpm, 6);
          }
        },
      ),
    );
    const drive = jackshaft();
    const sizes = sizesFor(drive, 'blower', 3000, 1500);
    expect(sizes.map(({ pulley }) => pulley).sort()).toEqual(['blower', 'crank', 'jack', 'jack-out']);
    for (const size of sizes)
      expect(ratio(withPulley(drive, { pulley: size.pulley, to: asPulley(size, drive) }), 'blower') * 1500).toBeCloseTo(
        3000,
        6,
      );
  });

  test('teeth come whole, and the speed they give is told', () => {
    const drive = driveOf(
      [
        ['crank', 0, 0, 0, 'drive', { teeth: 28, diameter: undefined as never }],
        ['cam', 200, 0, 0, 'drive', { teeth: 20, diameter: undefined as never }],
      ],
      { section: 'H' },
    );
    for (const size of sizesFor(drive, 'cam', 1500, 1000)) {
      expect(Number.isInteger(size.teeth)).toBe(true);
      expect(ratio(withPulley(drive, { pulley: size.pulley, to: asPulley(size, drive) }), 'cam') * 1000).toBeCloseTo(
        size.rpm,
        6,
      );
    }
  });

  const ribbed = (
    id: string,
    diameter: number,
    role?: PulleyAtHand['role'],
    more: Partial<PulleyAtHand> = {},
  ): PulleyAtHand => ({ id, label: id, surface: 'ribbed', diameter, grooves: 6, role, ...more });
  const list = [
    ribbed('c150', 150, 'crankshaft'),
    ribbed('c140', 140, 'crankshaft'),
    ribbed('a66', 66, 'alternator'),
    ribbed('a75', 75, 'alternator'),
    ribbed('p120', 120, 'other'),
    ribbed('thin', 70, 'alternator', { grooves: 4 }),
  ];

  test('the best answer meets the target, and no way that was left out scores better', () => {
    const drive = serpentine();
    const targets: SpeedTarget[] = [{ station: 'alt', engineRpm: 5000, min: null, max: 11_500 }];
    const { answers } = choosePulleys(drive, targets, list, { top: 40 });
    expect(answers[0]!.changes.length).toBe(1);
    expect(ratio(answers[0]!.changes.reduce(withPulley, drive), 'alt') * 5000).toBeLessThanOrEqual(11_500);
    expect(answers[0]!.reasons.map((reason) => speedReason(drive, reason))).toContainEqual(
      expect.stringMatching(/as wanted$/),
    );
    // Every way of at most two changes, tried one by one.
    const swaps = (pulley: string, role: string) => [
      null,
      ...list.filter((at) => at.role === role && at.id !== 'thin').map((to) => ({ pulley, to })),
    ];
    const brute = swaps('crank', 'crankshaft').flatMap((crank) =>
      swaps('alt', 'alternator').map((alt) => [crank, alt].flatMap((entry) => (entry ? [entry] : []))),
    );
    expect(answers.length).toBe(brute.length);
    expect(
      answers
        .map(({ changes }) =>
          changes
            .map(({ to }) => to.id)
            .sort()
            .join(),
        )
        .sort(),
    ).toEqual(
      brute
        .map((changes) =>
          changes
            .map(({ to }) => to.id)
            .sort()
            .join(),
        )
        .sort(),
    );
  });

  test('where any way meets both targets and can be run, the best answer does: tried against all ways, over random lists and targets', () => {
    const drive = serpentine();
    const outside = (rpm: number, min: number, max: number) => Math.max(0, Math.log(min / rpm), Math.log(rpm / max));
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 50, max: 200 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1500, max: 9000 }),
        fc.integer({ min: 1500, max: 9000 }),
        (diameters, forAlt, forAc) => {
          const atHand = diameters.map((diameter, k) => ribbed(`p${k}`, diameter));
          const targets: SpeedTarget[] = [
            { station: 'alt', engineRpm: 2000, min: forAlt * 0.97, max: forAlt * 1.03 },
            { station: 'ac', engineRpm: 2000, min: forAc * 0.97, max: forAc * 1.03 },
          ];
          const met = (changed: Drive) =>
            targets.filter(({ station: id, min, max }) => outside(ratio(changed, id) * 2000, min!, max!) < 1e-9).length;
          const { answers } = choosePulleys(drive, targets, atHand, { changes: 2, top: 1 });
          const best = met(answers[0]!.changes.reduce(withPulley, drive));
          const seats = ['crank', 'alt', 'ac'];
          for (const text of seats) {
            for (const other of seats) {
              for (const a of [null, ...atHand]) {
                for (const b of [null, ...atHand]) {
                  const changes = [
                    a && { pulley: text, to: a },
                    b && b !== a && other !== text ? { pulley: other, to: b } : null,
                  ].flatMap((change) => (change ? [change] : []));
                  const changed = changes.reduce(withPulley, drive);
                  if (met(changed) === 2 && best < 2)
                    expect(solveDrive(changed).belts[0]!.findings.some(({ severity }) => severity === 'fault')).toBe(
                      true,
                    );
                }
              }
            }
          }
        },
      ),
      { numRuns: 12 },
    );
  });

  test('an accessory that would then be too slow or too fast is told', () => {
    const { answers } = choosePulleys(
      serpentine(),
      [{ station: 'alt', engineRpm: 700, min: 2400, max: null }],
      [ribbed('c240', 240, 'crankshaft')],
      { bands: { 'ac-compressor': { least: null, continuous: 7600, burst: 8000 } } },
    );
    const big = answers.find(({ changes }) => changes.length === 1)!;
    expect(big.reasons).toContainEqual(expect.objectContaining({ code: 'too-fast-elsewhere', station: 'ac' }));
  });

  test('through a jackshaft the shared pulleys are chosen with those they drive', () => {
    const vee = (id: string, diameter: number, role?: PulleyAtHand['role']): PulleyAtHand => ({
      id,
      label: id,
      surface: 'vee',
      diameter,
      role,
    });
    const drive = jackshaft();
    const wanted = ratio(jackshaft(120), 'blower') * 1000;
    const { answers } = choosePulleys(
      drive,
      [{ station: 'blower', engineRpm: 1000, min: wanted * 0.999, max: wanted * 1.001 }],
      [vee('out', 120, 'jackshaft'), vee('small', 60, 'crankshaft')],
    );
    expect(answers[0]!.changes).toEqual([
      { pulley: 'jack-out', to: expect.objectContaining({ id: 'out' }) as PulleyAtHand },
    ]);
    expect(answers[0]!.reasons[0]).toMatchObject({ code: 'meets', station: 'blower' });
  });

  test('a set goes on as one', () => {
    const sets = setsOf(serpentine(), [
      ribbed('u1', 140, 'crankshaft', { set: 'Under' }),
      ribbed('u2', 70, 'alternator', { set: 'Under' }),
      ribbed('x', 90, 'supercharger', { set: 'None' }),
    ]);
    expect(sets).toEqual([
      {
        set: 'Under',
        changes: [expect.objectContaining({ pulley: 'crank' }), expect.objectContaining({ pulley: 'alt' })],
      },
    ]);
  });
});

describe('the tachometer', () => {
  test('slip by hand, and its sign', () => {
    expect(slipOf({ crankRpm: 1000, rpm: 1900, plusMinus: 1 }, 2, [80, 40])).toMatchObject({
      percent: expect.closeTo(5, 9) as number,
      verdict: 'slips',
    });
    expect(slipOf({ crankRpm: 1000, rpm: 2100, plusMinus: 1 }, 2, [80, 40])!.verdict).toBe('overruns');
    expect(slipOf({ crankRpm: 0, rpm: 2100 }, 2, [])).toBeNull();
  });

  test('simulated readings of a hidden slip find it within their own ± as often as they claim', () => {
    let seed = 7;
    const random = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    let within = 0;
    for (let k = 0; k < 2000; k += 1) {
      const hidden = 8 * random();
      const slip = slipOf(
        { crankRpm: simulatedReading(2000, random), rpm: simulatedReading(2000 * 2.5 * (1 - hidden / 100), random) },
        2.5,
        [],
      )!;
      within += Number(Math.abs(slip.percent - hidden) <= 2 * slip.plusMinus);
    }
    expect(within / 2000).toBeGreaterThan(0.93);
  });
});

test('the drive file keeps what Speeds writes, and refuses what cannot be', () => {
  const drive = serpentine();
  const written = {
    ...drive,
    use: { name: 'x', bins: [{ from: 0, to: 500, share: 1 }] },
    loads: [{ id: 'l1', name: 'Lamps', amps: 12, on: true }],
    speedChecks: [{ id: 's1', station: 'alt', crankRpm: 800, rpm: 2200 }],
    stations: drive.stations.map((s) =>
      s.id === 'alt' ? { ...s, speedBand: { least: 1500, continuous: null }, output: [{ rpm: 2000, amps: 40 }] } : s,
    ),
  };
  expect(readDrive(JSON.parse(JSON.stringify(written)))).toEqual({ ok: true, drive: written });
  const refused = (change: object) => {
    const reading = readDrive({ ...written, ...change });
    return reading.ok ? null : reading.problems[0]!.path;
  };
  expect(refused({ speedChecks: [{ id: 's1', station: 'ghost', crankRpm: 800, rpm: 2200 }] })).toBe(
    'speedChecks[0].station',
  );
  expect(refused({ use: { bins: [{ from: 0, to: 'x', share: 1 }] } })).toBe('use.bins[0].to');
  expect(refused({ loads: [{ id: 'a', amps: -1 }] })).toBe('loads[0].amps');
});

describe('pulleys are used as often as there are of them', () => {
  const hand: PulleyAtHand = { id: 'one', label: 'one', surface: 'ribbed', diameter: 90, grooves: 6 };
  const targets: SpeedTarget[] = ['alt', 'ac'].map((id) => ({ station: id, engineRpm: 2000, min: 3400, max: 4000 }));
  const uses = (count?: number) =>
    Math.max(
      ...choosePulleys(serpentine(), targets, [count === undefined ? hand : { ...hand, count }], {
        changes: 2,
        top: 40,
      }).answers.map(({ changes }) => changes.length),
    );

  test('once where nothing is said, twice where there are two', () => {
    expect(uses()).toBe(1);
    expect(uses(2)).toBe(2);
    expect(setsOf(serpentine(), [{ ...hand, set: 'S' }])[0]!.changes).toHaveLength(1);
    expect(setsOf(serpentine(), [{ ...hand, set: 'S', count: 2 }])[0]!.changes).toHaveLength(2);
  });
});

test('property: whatever the order of its limits, the parts of a band share out all of the time and no more', () => {
  const limit = fc.option(fc.double({ min: 0, max: 12_000, noNaN: true }));
  fc.assert(
    fc.property(limit, limit, limit, fc.double({ min: 0.3, max: 4, noNaN: true }), (min, continuous, burst, turns) => {
      const parts = timeInBand(presetUse('traffic', marksOf(undefined)), turns, { least: min, continuous, burst });
      for (const part of Object.values(parts)) expect(part).toBeGreaterThanOrEqual(-1e-12);
      expect(parts.tooSlow + parts.right + parts.tooFast + parts.beyond).toBeCloseTo(1, 9);
    }),
  );
});

test.each<[string, string[], object | null]>([
  ['minutes in brackets', ['Time [min]', 'RPM'], { time: 0, rpm: 1, unitS: 60 }],
  ['minutes behind an underscore', ['time_min', 'rpm'], { time: 0, rpm: 1, unitS: 60 }],
  ['minutes alone', ['minutes', 'engine speed'], { time: 0, rpm: 1, unitS: 60 }],
  ['hours', ['Run time (h)', 'Engine RPM'], { time: 0, rpm: 1, unitS: 3600 }],
  ['a date beside the time', ['Date', 'Time', 'RPM'], { time: 1, rpm: 2, unitS: 1 }],
  ['a date before seconds', ['date', 'elapsed s', 'engine rpm'], { time: 1, rpm: 2, unitS: 1 }],
  ['a date alone', ['date', 'rpm'], { time: 0, rpm: 1, unitS: 1 }],
  ['a limit before the speed', ['t', 'rpm limit', 'rpm'], { time: 0, rpm: 2 }],
  ['a target before the speed', ['t', 'Target RPM', 'Engine Speed (1/min)'], { time: 0, rpm: 2 }],
  ['another shaft before the engine', ['sec', 'Turbo rpm', 'Engine RPM'], { time: 0, rpm: 2 }],
  ['km/h beside a time', ['km/h', 's', '1/min'], { time: 1, rpm: 2 }],
  ['a limit and no speed', ['t', 'rpm limit'], null],
  ['reverse is no revolution', ['t', 'reverse'], null],
])('columns of a log: %s', (_, heading, expected) => {
  if (expected === null) expect(logColumns(heading)).toBeNull();
  else expect(logColumns(heading)).toMatchObject(expected);
});

test('a log of a row a minute is running time, and a pause in it is not', () => {
  const log = newSpeedLog();
  const columns = logColumns(['minutes', 'rpm'])!;
  [0, 1, 2, 3, 60, 61].forEach((minute, line) => addLogRow(log, [String(minute), '1000'], columns, line));
  expect([log.runningS, log.pauses]).toEqual([240, 1]);
});
