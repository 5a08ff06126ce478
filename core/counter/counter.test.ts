import fc from 'fast-check';
import { changeStation, readDrive, writeDrive } from '../drive';
import { chanceBelow, normals } from '../numeric';
import { sizeBelt } from '../seating';
import { askFor, markingsOf, readMarking, SCHEME_WORDS, SECTIONS, sectionFor } from '../section';
import { answerFor } from '../size';
import { tensionOf } from '../loads';
import { waysOf, meaningsOf } from '../tension';
import { driveOf, type Stop } from '../test/examples';
import {
  aroundToDiameter,
  keptDrive,
  keptMarking,
  lengthsOnFixed,
  lengthsToAsk,
  onRules,
  parsePitch,
  pulleySpeeds,
  shimToDiameter,
  spanTension,
  stringLength,
  turnsToMm,
  twoPulleys,
} from './index';

const PK = sectionFor('PK')!;

describe('two pulleys', () => {
  const inch = 25.4;
  const size = fc.double({ min: 50, max: 260, noNaN: true });

  test('length, wraps and ratio are those of the textbook for an open belt', () => {
    fc.assert(
      fc.property(size, size, fc.double({ min: 1.05, max: 6, noNaN: true }), (d1, d2, apart) => {
        const C = (apart * (d1 + d2)) / 2 + 4;
        const found = twoPulleys({
          section: 'AV13',
          crank: { diameter: d1 },
          other: { diameter: d2 },
          role: 'alternator',
          distanceMm: C,
          lengthMm: null,
        })!;
        // The cord lies 2.86 mm below the rims, and 2.86 mm inside the length that is printed.
        const [R, r] = [d1 / 2 - 2.86, d2 / 2 - 2.86];
        const lean = Math.asin((R - r) / C);
        const cord = 2 * C * Math.cos(lean) + Math.PI * (R + r) + 2 * lean * (R - r);
        expect(found.lengthMm).toBeCloseTo(cord + 2 * Math.PI * 2.86, 6);
        expect(found.wrapDeg!.crank).toBeCloseTo(180 + (360 / Math.PI) * lean, 6);
        expect(found.wrapDeg!.crank + found.wrapDeg!.other).toBeCloseTo(360, 6);
        expect(found.ratio).toBeCloseTo(R / r, 9);
        // And back: the belt in place of the distance.
        const back = twoPulleys({
          section: 'AV13',
          crank: { diameter: d1 },
          other: { diameter: d2 },
          role: 'alternator',
          distanceMm: null,
          lengthMm: found.lengthMm,
        })!;
        expect(back.distanceMm).toBeCloseTo(C, 5);
        expect(back.problem).toBeNull();
      }),
    );
  });

  test('2 5/8 in on the alternator and 7 3/8 in on the crank answer without a distance', () => {
    const found = twoPulleys({
      section: 'AV10',
      crank: { diameter: 7.375 * inch },
      other: { diameter: 2.625 * inch },
      role: 'alternator',
      distanceMm: null,
      lengthMm: null,
    })!;
    expect(found.ratio).toBeCloseTo((7.375 * inch - 4.14) / (2.625 * inch - 4.14), 9);
    expect(found.lengthMm).toBeNull();
    expect(found.wrapDeg).toBeNull();
    expect(found.problem).toBeNull();
  });

  test('a belt too short, pulleys in one another, a size of nothing and teeth for a V are told apart', () => {
    const ask = { section: 'PK', crank: { diameter: 160 }, other: { diameter: 60 }, role: 'alternator' } as const;
    expect(twoPulleys({ ...ask, distanceMm: null, lengthMm: 300 })!.problem).toBe('belt-too-short');
    expect(twoPulleys({ ...ask, distanceMm: 90, lengthMm: null })!.problem).toBe('no-belt-between');
    expect(twoPulleys({ ...ask, crank: { diameter: 0 }, distanceMm: 90, lengthMm: null })).toBeNull();
    expect(twoPulleys({ ...ask, crank: { teeth: 20 }, distanceMm: 90, lengthMm: null })).toBeNull();
    expect(twoPulleys({ ...ask, section: 'none', distanceMm: 90, lengthMm: null })).toBeNull();
  });

  test('teeth divide as teeth', () => {
    const found = twoPulleys({
      section: 'H',
      crank: { teeth: 36 },
      other: { teeth: 24 },
      role: 'supercharger',
      distanceMm: 300,
      lengthMm: null,
    })!;
    expect(found.ratio).toBeCloseTo(1.5, 12);
    expect(found.lengthMm! / 12.7).toBeGreaterThan(70);
  });
});

describe('which lengths to ask for', () => {
  const length = { markedMm: 1702, plusMinus: 3 };

  test('where it is to run the nearest, at the slack end the next one up, at the tight end the next one down', () => {
    const ask = (held: 'running' | 'slack' | 'tight') => {
      const { lengths, best, second } = lengthsToAsk(PK, length, held);
      return [lengths[best!]!.lengthMm, lengths[second!]!.lengthMm];
    };
    expect(ask('running')).toEqual([1700, 1705]);
    expect(ask('slack')[0]).toBe(1710);
    expect(ask('tight')[0]).toBe(1695);
  });

  test('a chance is how often such a belt goes on, by drawing tape and belt at random', () => {
    // Over a smooth pulley it slides on, with no rim to climb.
    const riding = [{ on: 'back' as const, bend: 'half' as const }];
    const { lengths } = lengthsToAsk(PK, length, 'slack', { takesUpMm: 12, riding });
    const normal = normals(8);
    for (const { lengthMm, chance } of lengths) {
      let fits = 0;
      const draws = 20_000;
      for (let k = 0; k < draws; k += 1) {
        const slack = length.markedMm + length.plusMinus * normal();
        const belt = lengthMm + 0.0015 * length.markedMm * normal();
        if (belt >= slack && belt <= slack + 12) fits += 1;
      }
      expect(chance).toBeCloseTo(fits / draws, 1);
      expect(Math.abs(chance! - fits / draws)).toBeLessThan(0.015);
    }
  });

  test('on fixed centres, of a belt of which nobody said what it drives, Size does not contradict it', () => {
    let [asked, same, sure] = [0, 0, 0];
    for (const roles of [['alternator'], ['water-pump'], ['alternator', 'water-pump'], ['power-steering']] as const) {
      for (let k = 0; k < 12; k += 2) {
        const drive = driveOf([
          ['crank', 0, 0, 140 + 2 * k],
          ...roles.map((role, at): Stop => [
            role,
            280 - 390 * at + 3 * k,
            190 + 7 * k,
            70 + 40 * at,
            'drive',
            { role },
          ]),
        ]);
        const fixed = changeStation(drive, roles[0], { adjuster: { kind: 'fixed' } });
        const path = sizeBelt(fixed, 'main')!.window.slackEnd!;
        const { lengths, best } = lengthsOnFixed(PK, { markedMm: path, plusMinus: 0.01 }, { ribs: 6 });
        const verdict = (lengthMm: number) => sizeBelt(fixed, 'main', { lengths: [lengthMm] })!.candidates[0]!.verdict;
        for (const { lengthMm, chance } of lengths) {
          if (chance! < 0.75) continue;
          sure += 1;
          expect(verdict(lengthMm)).toBe('fits');
        }
        const size = answerFor(fixed, 'main')!;
        if (size.best === null) continue;
        asked += 1;
        // One common step at most, for Size knows what is driven.
        const apart = Math.abs(lengths[best!]!.lengthMm - size.candidates[size.best]!.lengthMm);
        expect(apart).toBeLessThanOrEqual(5);
        same += Number(apart === 0);
      }
    }
    expect(asked).toBeGreaterThan(20);
    expect(same / asked).toBeGreaterThan(0.9);
    expect(sure).toBeGreaterThan(10);
  });

  test('only what can be had is asked for where the shop keeps a list', () => {
    const { lengths, best } = lengthsToAsk(PK, length, 'running', { stock: [1500, 1650, 1690, 1730, 1800] });
    expect(lengths[best!]!.lengthMm).toBe(1690);
    expect(lengths.every(({ lengthMm }) => [1650, 1690, 1730, 1800].includes(lengthMm))).toBe(true);
    expect(lengthsToAsk(PK, { markedMm: -4, plusMinus: 1 }, 'running').best).toBeNull();
  });

  test('the share below a deviation is that of the tables', () => {
    for (const [at, share] of [
      [0, 0.5],
      [1, 0.8413447],
      [-1, 0.1586553],
      [1.96, 0.9750021],
      [-3, 0.0013499],
      [5, 0.9999997],
    ] as const)
      expect(chanceBelow(at)).toBeCloseTo(share, 6);
  });
});

describe('a span', () => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 380, 40, 70],
    ],
    { section: 'AV10', staticTension: 420 },
  );

  test('reads what Tension reads on the same span of a drive, both ways', () => {
    const standing = tensionOf(drive).staticBelts[0]!;
    const [way] = waysOf(standing, 420);
    const answer = spanTension({
      section: 'AV10',
      spanMm: way!.lengthMm,
      armHolds: false,
      readings: [{ id: 'r', way: 'push', newtons: way!.pushN, mm: way!.pushMm }],
      aimN: 420,
    });
    expect(answer.reads.runIn.pluckHz).toBeCloseTo(way!.pluckHz, 9);
    expect(answer.reads.runIn.twistNm).toBeCloseTo(way!.twistNm, 9);
    expect(answer.measured!.at).toBeCloseTo(420, 6);
    const read = { id: 'r', way: 'pluck', hz: 61, span: way!.span } as const;
    const onDrive = meaningsOf({ ...drive, belts: [{ ...drive.belts[0]!, tensionReadings: [read] }] }, standing, [
      read,
    ])[0]!.meaning;
    const [here] = spanTension({ section: 'AV10', spanMm: way!.lengthMm, armHolds: false, readings: [read] }).meanings;
    expect(here!.meaning).toEqual(onDrive);
  });

  test('schools that read one tension agree; an arm and a short span make some of them tell nothing', () => {
    const at = spanTension({ section: 'PK', ribs: 6, spanMm: 220, armHolds: false, readings: [] });
    expect(at.measured).toBeNull();
    expect(at.from).toBe('range');
    expect(at.settings.setN).toBeCloseTo(1.3 * at.settings.runInN, 9);
    const { pluckHz, gaugeKgf, freePlayMm } = at.reads.runIn;
    const all = spanTension({
      section: 'PK',
      ribs: 6,
      spanMm: 220,
      armHolds: false,
      readings: [
        { id: 'a', way: 'pluck', hz: pluckHz },
        { id: 'b', way: 'gauge', kgf: gaugeKgf },
        { id: 'c', way: 'free-play', mm: freePlayMm },
      ],
    });
    for (const { meaning } of all.meanings)
      expect((meaning as { tensionN: number }).tensionN).toBeCloseTo(at.settings.runInN, 4);
    expect(all.measured!.disagree).toBe(false);
    const arm = spanTension({
      section: 'PK',
      ribs: 6,
      spanMm: 40,
      armHolds: true,
      readings: [
        { id: 'a', way: 'push', newtons: 20, mm: 2 },
        { id: 'b', way: 'pluck', hz: 100 },
        { id: 'c', way: 'gauge', lbf: 90 },
      ],
    });
    expect(arm.meanings.map(({ meaning }) => (typeof meaning === 'string' ? meaning : 'told'))).toEqual([
      'arm-yields',
      'span-short',
      'told',
    ]);
  });
});

describe('small change', () => {
  test('the nearest marks of a rule are never further off than half a step', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3000, noNaN: true }), (mm) => {
        for (const { denominator, mm: mark, offMm } of onRules(mm)) {
          expect(Math.abs(offMm)).toBeLessThanOrEqual(25.4 / denominator / 2 + 1e-9);
          const steps = (mark / 25.4) * denominator;
          expect(steps).toBeCloseTo(Math.round(steps), 6);
        }
      }),
    );
  });

  test.each([
    ['1.5', 1.5],
    ['1,25 mm', 1.25],
    ['24 tpi', 25.4 / 24],
    ['18 threads per inch', 25.4 / 18],
    ['.8', 0.8],
  ])('a pitch written %s', (text, mm) => expect(parsePitch(text)).toEqual({ ok: true, mm }));
  test.each(['', '0', '1.5 kg', '12', '-1', '1 tpi', 'fine'])('no pitch: %s', (text) =>
    expect(parsePitch(text)).toMatchObject({ ok: false, problem: /Pitch.*24 tpi/s }),
  );

  test('turns, shims and a taped rim', () => {
    // A link with two threads of 1.5 mm: 4 turns close it by 12 mm.
    expect(turnsToMm(4, [1.5, 1.5])).toBe(12);
    // 38 degrees: a 1 mm shim makes the sheave 1 / tan 19° = 2.904 mm larger across.
    expect(shimToDiameter(1, 38)).toBeCloseTo(2.9042, 4);
    expect(aroundToDiameter(Math.PI * 100)).toBeCloseTo(100, 12);
    expect(aroundToDiameter(Math.PI * 101, 1)).toBeCloseTo(100, 12);
  });
});

describe('what to ask for', () => {
  test('every marking of every section reads back as that belt, in a scheme that has words', () => {
    const written = new Set<string>();
    fc.assert(
      fc.property(
        fc.constantFrom(...SECTIONS),
        fc.integer({ min: 500, max: 3000 }),
        fc.integer({ min: 3, max: 8 }),
        fc.constantFrom(19.05, 25.4, 20, 30),
        (section, mm, ribs, widthMm) => {
          const lengthMm = section.kind === 'toothed' ? Math.round(mm / section.pitch) * section.pitch : mm;
          const belt = {
            section: section.name,
            lengthMm,
            ...(section.kind === 'ribbed' && { ribs }),
            ...(section.kind === 'toothed' && { widthMm }),
          };
          for (const { text, scheme } of markingsOf(belt)) {
            const [read] = readMarking(text);
            expect(read).toMatchObject({ section: section.name, ribs: section.kind === 'ribbed' ? ribs : null });
            expect(Math.abs(read!.lengthMm - lengthMm)).toBeLessThanOrEqual(1.3);
            if (section.kind === 'toothed') expect(Math.abs(read!.widthMm! - widthMm)).toBeLessThan(0.31);
            expect(SCHEME_WORDS[scheme]).toBeDefined();
            written.add(`${section.kind} ${scheme}`);
          }
        },
      ),
      { numRuns: 600 },
    );
    expect([...written].map((text) => text.split(' ')[0])).toEqual(
      expect.arrayContaining(['ribbed', 'vee', 'toothed']),
    );
  });

  test('a belt ribbed on both sides, made to stretch, or notched is never asked for as a plain one', () => {
    for (const text of ['6DPK1805', '4EPK815', 'AVX10x1000']) {
      const [read] = readMarking(text);
      const asked = askFor(read!);
      expect(asked.markings.length).toBeGreaterThan(0);
      for (const { text: again } of asked.markings) expect(readMarking(again)[0]!.build).toBe(read!.build);
      expect(asked.plain).toMatch(/ribs on both sides|stretch|notched/);
    }
  });

  test('a toothed belt is asked for by teeth, pitch and width', () => {
    expect(askFor({ section: 'L', lengthMm: 60 * 9.525, widthMm: 19.05 })).toMatchObject({
      plain: '60 teeth, L, 9.525 mm pitch, 19.1 mm wide',
      markings: expect.arrayContaining([{ text: '225L075', scheme: 'tenths-pitch-hundredths' }]) as unknown,
    });
    expect(markingsOf({ section: 'H8M', lengthMm: 1200, widthMm: 30 }).map(({ text }) => text)).toContain('1200-8M-30');
    expect(markingsOf({ section: 'L', lengthMm: 571.5 })).toEqual([]);
  });
});

test('what was entered goes to the bench as a drive that any Emery reads, and Size finds the string on it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SECTIONS.map(({ name }) => name)),
      fc.integer({ min: 300, max: 4000 }),
      fc.array(fc.constantFrom('kisses' as const, 'half' as const, 47), { maxLength: 8 }),
      (section, mm, bends) => {
        const drive = keptDrive('From the counter', {
          section,
          measurement: { tool: 'string', mm, state: 'slack' },
          riding: bends.map((bend) => ({ on: 'back', bend })),
        });
        const read = readDrive(JSON.parse(writeDrive(drive)));
        expect(read).toMatchObject({ ok: true });
        expect(drive.stations.filter(({ role }) => role === 'crankshaft')).toHaveLength(1);
        expect(drive.stations).toHaveLength(1 + bends.length);
        expect(drive.belts[0]!.measurements![0]).toMatchObject({ tool: 'string', mm, state: 'slack' });
        const spots = drive.stations.map(({ x, y }) => `${x} ${y}`);
        expect(new Set(spots).size).toBe(spots.length);
      },
    ),
  );
  const kept = keptMarking(readMarking('225L075')[0]!);
  expect(kept.belts[0]).toMatchObject({ section: 'L', length: 571.5, sectionOverrides: { width: 19.05 } });
  expect(readDrive(JSON.parse(writeDrive(kept)))).toMatchObject({ ok: true });
});

test('a string that reads nothing gives no length to ask for, and no figure that is none', () => {
  const answer = stringLength({ section: PK, measurement: { tool: 'string', mm: 0 }, riding: [] });
  expect(Number.isFinite(answer.markedMm)).toBe(true);
  expect(lengthsToAsk(PK, answer, 'running').best).toBeNull();
});

test('two pulleys at speed: what is too fast, and the size that brings it to the limit', () => {
  const found = twoPulleys({
    section: 'AV10',
    crank: { diameter: 187.325 },
    other: { diameter: 66.675 },
    role: 'alternator',
    distanceMm: null,
    lengthMm: null,
  })!;
  const { rows, tooFast, source, fastest } = pulleySpeeds(found, 6000);
  expect(source).toBe('default');
  expect(rows.map(({ at }) => at)).toEqual(['asked', 'idle', 'cruise', 'redline']);
  expect(fastest).toMatchObject({ at: 'asked', engineRpm: 6000, place: 'too-fast' });
  for (const { engineRpm, rpm, beltMetresPerSecond } of rows) {
    expect(rpm).toBeCloseTo(found.ratio * engineRpm, 9);
    // The belt runs as fast as the crank's cord: π·D·n.
    expect(beltMetresPerSecond).toBeCloseTo((Math.PI * (0.187325 - 2 * 0.00207) * engineRpm) / 60, 9);
  }
  expect(tooFast!.limit).toBe(14_000);
  for (const { station, diameter } of tooFast!.instead) {
    const changed = twoPulleys({
      section: 'AV10',
      crank: { diameter: station === found.station ? 187.325 : diameter! },
      other: { diameter: station === found.station ? diameter! : 66.675 },
      role: 'alternator',
      distanceMm: null,
      lengthMm: null,
    })!;
    expect(changed.ratio * 6000).toBeCloseTo(14_000, 6);
  }
  // What the shop says of its alternators goes before the default.
  const shop = pulleySpeeds(found, null, { alternator: { least: 1000, continuous: 20_000, burst: 22_000 } });
  expect([shop.source, shop.tooFast]).toEqual(['shop', null]);
});
