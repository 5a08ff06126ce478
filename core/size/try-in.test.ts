import { DEMO } from '../test/demo';
import { expectShare, THOROUGH } from '../test/draws';
import { driveOf } from '../test/examples';
import { boughtUntilOneFits, coverageOf, preparedLayouts, type Tenth, TRY_IN_LAYOUTS } from '../test/try-in';
import { fractionFor, lengthCurve, pathLength } from '../adjuster';
import { type Adjuster, changeBelt, changeStation, type Drive, readDrive, type TriedBelt } from '../drive';
import { deviates } from '../numeric';
import { answerFor, askForBelt, markedMisfitOf } from './answer';
import { sizeMessage } from './words';

const SEED = 20261202;
const slot = TRY_IN_LAYOUTS['slot']!;
const tried = (...list: (Partial<TriedBelt> & Pick<TriedBelt, 'id'>)[]): Drive =>
  changeBelt(slot, 'main', { tried: list.map((entry) => ({ outcome: 'on' as const, ...entry })) });
const answer = (drive: Drive) => answerFor(drive, 'main', { lengths: [1180, 1190, 1200, 1210, 1220, 1230, 1240] })!;

describe('what is said is as likely as it is said to be', () => {
  // With all draws 2,000 layouts, each with no, one and two belts tried on, one label in fifty wrong.
  const each = THOROUGH ? 500 : 6;
  const found = preparedLayouts().map(([, layout]) => coverageOf(layout, each, deviates(SEED)));
  const over = (level: number) => found.map((levels) => levels[level]!);
  const sum = (list: readonly number[]) => list.reduce((total, next) => total + next, 0);

  test.each([0, 1, 2])('with %i belts tried on: the ± of the path at either end and in the middle', (level) => {
    const [places, one, two] = (['places', 'withinOne', 'withinTwo'] as const).map((key) =>
      sum(over(level).map((coverage) => coverage[key])),
    ) as [number, number, number];
    // The three places of a layout hang together.
    expectShare(one, places, { from: 0.62, to: 0.82 }, 3);
    expectShare(two, places, { from: 0.92, to: 0.995 }, 3);
  });

  test.each(['chances', 'own'] as const)('%s: by tenths, as often so as said', (what) => {
    const tenths = Array.from({ length: 10 }, (_, k): Tenth => {
      const all = found.flatMap((levels) => levels.map((coverage) => coverage[what][k]!));
      return {
        count: sum(all.map(({ count }) => count)),
        said: sum(all.map(({ said }) => said)),
        so: sum(all.map(({ so }) => so)),
      };
    });
    for (const { count, said, so } of tenths) {
      if (count < 20) continue;
      // Chances of one layout hang together: its errors move all of them.
      const apart = 4 * Math.sqrt((said / count) * (1 - said / count) * count * 3) + 0.02 * count + 2;
      expect(Math.abs(so - said)).toBeLessThan(apart);
    }
  });
});

test('brought home by what the last one showed, few belts are bought until one fits, and fewer than by rule of thumb', () => {
  const count = THOROUGH ? 500 : 2;
  const all = preparedLayouts().map(([, layout]) => boughtUntilOneFits(layout, count, deviates(SEED)));
  const mean = (way: keyof (typeof all)[number]) => {
    const list = all.flatMap((bought) => bought[way]);
    return list.reduce((sum, next) => sum + next, 0) / list.length;
  };
  // From a string, learning: 1.2 on the average is what is wanted.
  expect(mean('learning')).toBeLessThan(THOROUGH ? 1.2 : 1.35);
  expect(mean('by-thumb')).toBeGreaterThan(mean('learning') + 0.5);
});

test('a belt taut at a reading moves the whole curve there, as far as its own tolerance lets it', () => {
  const curve = lengthCurve(slot, slot.belts[0]!)!;
  const range = curve.travel.readingAt(1);
  const drawn = pathLength(curve.travel.at(0.5), slot.belts[0]!)!;
  // It should sit in the middle by the drawing, and sat 12 mm of path further out.
  const longer = fractionFor(curve, slot.belts[0]!, drawn + 12)!;
  const { layout, tried: shown } = answer(
    tried({ id: 'a', lengthMm: drawn, travelMm: longer * range, plusMinus: 0.5 }),
  );
  const plain = answer(slot).layout;
  expect(plain!.offsetMm).toBe(0);
  // By hand: the drawing's variance against the belt's and the reading's.
  const reads =
    (0.5 * (pathLength(curve.travel.at(1), slot.belts[0]!)! - pathLength(curve.travel.at(0), slot.belts[0]!)!)) / range;
  const other = Math.hypot(0.0015 * drawn, reads);
  const share = plain!.plusMinusMm ** 2 / (plain!.plusMinusMm ** 2 + other ** 2);
  // So far out that a mistake somewhere is weighed too: between a tenth less and as much as the normal sum gives.
  expect(layout!.offsetMm).toBeLessThan(-12 * share * 0.5);
  expect(layout!.offsetMm).toBeGreaterThan(-12 * share * 1.4);
  expect(shown[0]).toMatchObject({ id: 'a', lengthMm: drawn, outcome: 'on' });
  expect(shown[0]!.fraction).toBeCloseTo(longer, 6);
});

test('a belt that would not go on makes the next one up the one to bring, and shorter ones no choice', () => {
  const before = answer(slot);
  const first = before.candidates.find(({ chance }) => chance! > 0.5)!.lengthMm;
  const after = answer(tried({ id: 'a', lengthMm: first, outcome: 'will-not-go-on' }));
  const chanceOf = ({ candidates }: typeof after, mm: number) =>
    candidates.find(({ lengthMm }) => lengthMm === mm)!.chance!;
  expect(chanceOf(after, first)).toBeLessThan(chanceOf(before, first) - 0.2);
  expect(after.layout!.offsetMm).toBeGreaterThan(0);
  expect(after.candidates[after.best!]!.lengthMm).toBeGreaterThan(first);
  // Of the two to bring home neither is the one that failed.
  for (const k of after.pair!.both) expect(after.candidates[k]!.lengthMm).not.toBe(first);
});

test('two belts that cannot both be right: the one whose label is wrong is named, with the chance of it', () => {
  const fits = { travelMm: 15 };
  const contradicting = tried(
    { id: 'a', lengthMm: 1205, ...fits },
    { id: 'b', lengthMm: 1206, travelMm: 15.5 },
    { id: 'c', lengthMm: 1240, travelMm: 16 },
  );
  const { findings, tried: shown } = answer(contradicting);
  const [, , wrong] = shown;
  expect(wrong!.mislabelled).toBeGreaterThan(0.9);
  expect(shown[0]!.mislabelled).toBeLessThan(0.1);
  const finding = findings.find(({ code }) => code === 'tried-contradicts')!;
  expect(finding).toMatchObject({ reading: 'c', figures: { what: 'label', lengthMm: 1240 } });
  expect(sizeMessage(finding)).toMatch(/^The belt marked 1,?240\.0 mm.* is not of that length, \d\d % likely\./);
  // One belt alone that is far from the drawing leaves open which of the two is wrong.
  const alone = answer(tried({ id: 'c', lengthMm: 1240, travelMm: 16 }));
  const open = alone.findings.find(({ code }) => code === 'tried-contradicts')!;
  expect(open.figures).toMatchObject({ what: 'drawing', or: { what: 'label' } });
  // Belts that agree contradict nothing.
  expect(answer(tried({ id: 'a', lengthMm: 1205, ...fits })).findings).toEqual([]);
});

test('a marking says the length, one of another section teaches nothing and is named', () => {
  const by = (entry: Partial<TriedBelt>) => answer(tried({ id: 'a', travelMm: 15, ...entry }));
  expect(by({ marking: '5PK1205' }).layout).toEqual(by({ lengthMm: 1205 }).layout);
  const unread = by({ marking: 'AV13x1205' });
  expect(unread.tried).toEqual([]);
  expect(unread.layout!.offsetMm).toBe(0);
  expect(unread.findings.map(sizeMessage)).toEqual([expect.stringMatching(/AV13x1205/)]);
});

test('each adjuster is read in its own way: degrees, mm, turns left, shims left, or by name', () => {
  const fractionOf = (drive: Drive, entry: Partial<TriedBelt>) => {
    const [belt] = drive.belts;
    const now = { id: 'a', lengthMm: belt!.length ?? 1200, outcome: 'on' as const, ...entry };
    return answerFor(changeBelt(drive, belt!.id, { tried: [now] }), belt!.id, { lengths: [] })!.tried[0]!.fraction;
  };
  const arm = TRY_IN_LAYOUTS['arm']!;
  const { adjuster } = arm.stations.find((station) => station.adjuster)! as {
    adjuster: Extract<Adjuster, { kind: 'sprung-arm' }>;
  };
  const middle = (adjuster.freeAngle + adjuster.fullAngle) / 2;
  expect(fractionOf(arm, { pointerDeg: middle })).toBeCloseTo(0.5, 9);
  expect(fractionOf(arm, { pointerDeg: middle - 360 })).toBeCloseTo(0.5, 9);
  expect(fractionOf(arm, { travelMm: 10 })).toBeNull();
  expect(fractionOf(slot, { state: 'tight' })).toBe(1);
  expect(fractionOf(slot, {})).toBeNull();
  const turned = (adjuster: Adjuster, section = 'PK') =>
    changeStation(
      driveOf(
        [
          ['crank', 0, 0, 150],
          ['alt', 20, 260, 90],
        ],
        { section },
        { crankRotation: 'cw' },
      ),
      'alt',
      { adjuster },
    );
  const link = turned({
    ...{ kind: 'turnbuckle', pivot: { x: 120, y: 250 }, anchor: { x: -100, y: 230 }, lug: { x: 0, y: 280 } },
    ...{ minLength: 100, maxLength: 130, pitches: [1.5, 1.5] },
  });
  // 3 mm a turn over 30 mm: two and a half turns left are a quarter of the travel.
  expect(fractionOf(link, { turns: 2.5 })).toBeCloseTo(0.75, 9);
  const split = turned({ kind: 'shims', shims: [1, 1, 1, 1] }, 'AV13');
  expect(fractionOf(split, { shims: 1 })).toBeCloseTo(0.75, 9);
});

test('the belt that was kept seats and grows: later readings are weighed, and say when the mark is reached', () => {
  const arm = DEMO.rescue;
  const belt = { ...arm.belts[0]!, measurements: [], tensionReadings: [], length: 1805 };
  const drive = { ...arm, belts: [belt], inspect: { odometerUnit: 'km' as const, findings: [] } };
  const curve = lengthCurve(drive, belt)!;
  const angleAt = (mm: number) => curve.travel.readingAt(fractionFor(curve, belt, mm)!);
  const kept: TriedBelt = {
    id: 'k',
    lengthMm: 1805,
    outcome: 'on',
    kept: true,
    pointerDeg: angleAt(1805),
    plusMinus: 0.3,
    at: '2026-01-10',
  };
  const at = (km: number, grownMm: number, id: string) => ({
    ...{ id, way: 'pointer' as const, degrees: angleAt(1805 + grownMm), plusMinus: 0.3, odometer: 50_000 + km },
    at: '2026-06-10',
  });
  const withReadings = (...readings: ReturnType<typeof at>[]) =>
    answerFor(
      { ...drive, belts: [{ ...belt, tried: [kept], care: { fittedOdometer: 50_000 }, tensionReadings: readings }] },
      belt.id,
      { lengths: [1805] },
    )!.service!;
  const plain = withReadings();
  expect(plain.readings).toBe(0);
  expect(plain.growth.seat.fraction).toBeCloseTo(0.001, 4);
  // It seats by 4 mm where 1.8 would be expected, and grows by 4 mm more in 20,000 km.
  const seated = withReadings(at(1500, 4, 'a'));
  expect(seated.growth.seat.fraction).toBeGreaterThan(plain.growth.seat.fraction + 0.0003);
  expect(seated.growth.seat.plusMinus).toBeLessThan(plain.growth.seat.plusMinus);
  const grown = withReadings(at(1500, 4, 'a'), at(21_500, 8, 'b'));
  expect(grown.growth.rate.fraction).toBeGreaterThan(plain.growth.rate.fraction);
  expect(grown.reachesKm.likely!).toBeLessThan(plain.reachesKm.likely ?? Infinity);
  const { from, likely, to } = grown.reachesKm;
  expect(from!).toBeLessThan(likely!);
  expect(likely!).toBeLessThan(to ?? Infinity);
  // By hand from the reading and the rate: the room left to the mark over the growth of 10,000 km.
  const mark = pathLength(curve.travel.at(curve.travel.marks!.long), belt)!;
  const byHand = 21_500 + (10_000 * (mark - 1813)) / (1805 * grown.growth.rate.fraction);
  expect(Math.abs(likely! / byHand - 1)).toBeLessThan(0.25);
});

test('a marked length that was tried on and went on is no misfit, whatever the drawing says', () => {
  const window = answer(slot).window as { slackEnd: number };
  const short = window.slackEnd - 4;
  const marked = (list: Partial<TriedBelt>[]) =>
    changeBelt(tried(...list.map((entry, k) => ({ id: `t${k}`, ...entry }))), 'main', { length: short });
  expect(markedMisfitOf(marked([]), 'main')?.verdict).toBe('will-not-go-on');
  const went = [
    { lengthMm: short, travelMm: 6 },
    { lengthMm: short + 1, travelMm: 6.5 },
  ];
  expect(markedMisfitOf(marked(went), 'main')).toBeNull();
});

test('the file names what is wrong with a belt that was tried on, and keeps what it does not know', () => {
  const read = (entry: object) => {
    const reading = readDrive(changeBelt(slot, 'main', { tried: [entry as TriedBelt] }));
    return reading.ok ? [] : reading.problems.map(({ path, message }) => `${path}: ${message}`);
  };
  expect(read({ id: 'a', lengthMm: 1200, outcome: 'on', colour: 'black' })).toEqual([]);
  expect(read({ id: 'a', outcome: 'on' })).toEqual([expect.stringMatching(/tried\[0\].*marking or the length/)]);
  expect(read({ id: 'a', lengthMm: 1200, outcome: 'maybe' })).toEqual([
    expect.stringMatching(/outcome: must be one of will-not-go-on, forced, on/),
  ]);
  expect(read({ id: 'a', lengthMm: 1200, outcome: 'on', turns: 'two' })).toEqual([
    expect.stringMatching(/turns: must be a number/),
  ]);
  expect(read({ id: 'a', lengthMm: -1, outcome: 'on' })).toHaveLength(1);
  const twice = readDrive(tried({ id: 'a', lengthMm: 1200 }, { id: 'a', lengthMm: 1210 }));
  expect(twice.ok).toBe(false);
});

test('an answer is the same for the same evidence, and plain data', () => {
  const drive = tried(
    { id: 'a', lengthMm: 1200, outcome: 'will-not-go-on' },
    { id: 'b', lengthMm: 1215, travelMm: 12, kept: true },
  );
  const [one, two] = [answer(drive), answer(drive)];
  expect(one).toEqual(two);
  expect(JSON.parse(JSON.stringify(one))).toEqual(one);
  expect(askForBelt(drive.belts[0]!, 1215)).toBeDefined();
});
