import { lengthCurve } from '../adjuster';
import { changeStation, type Drive } from '../drive';
import { normals } from '../numeric';
import { sizeBelt } from '../seating';
import { sectionFor } from '../section';
import { combinedLength, measuredLength } from '../size';
import { driveOf, type Stop } from '../test/examples';
import { HELD, type Held, lengthsToAsk, STATE_OF_HELD } from './lengths';
import { stringLength } from './string';

/* The counter's word held against Size's on drives it has never seen. */

/** Numbers from 0 to 1 that are the same at every run. */
function randomly(seed: number): () => number {
  let state = seed;
  return () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 2 ** 32;
}

/** Two or three V pulleys, the alternator on a slide that takes up the belt. */
function veeDrive(random: () => number, section: string): Drive {
  const between = (from: number, to: number) => from + (to - from) * random();
  const stops: Stop[] = [
    ['crank', 0, 0, between(110, 180)],
    ...(random() < 0.6 ? [['pump', between(-60, 40), between(210, 290), between(90, 140)] satisfies Stop] : []),
    ['alt', between(190, 280), between(90, 160), between(60, 85)],
  ];
  return changeStation(driveOf(stops, { section }), 'alt', { adjuster: { kind: 'slide', direction: 20, travel: 45 } });
}

test('V-belts at the slack end: what the counter calls sure goes on in Size as well, and the other way round', () => {
  const random = randomly(7);
  let [sureOnes, contradicted, looked] = [0, 0, 0];
  let drives = 0;
  for (let n = 0; n < 40 || drives < 32; n += 1) {
    const name = n % 2 ? 'AV13' : 'AV10';
    const drive = veeDrive(random, name);
    const { window, lastOn } = sizeBelt(drive, 'main', { lengths: [] })!;
    const slack = window.slackEnd;
    if (typeof slack !== 'number' || !lastOn) continue;
    drives += 1;
    const { lengths, best } = lengthsToAsk(sectionFor(name)!, { markedMm: slack, plusMinus: 3 }, 'slack');
    for (const { lengthMm, chance } of lengths) {
      const goesOn = lengthMm >= lastOn.needsMm;
      looked += 1;
      if (chance! > 0.95 || chance! < 0.05) {
        sureOnes += 1;
        if (goesOn !== chance! > 0.5) contradicted += 1;
      }
    }
    const chosen = lengths[best!]!;
    expect(chosen.lengthMm).toBeGreaterThan(slack + 8);
  }
  expect(looked).toBeGreaterThan(90);
  expect(sureOnes).toBeGreaterThan(50);
  expect(contradicted).toBeLessThanOrEqual(1);
});

test('the very question: 847 at the slack end of an AV10 is not answered with 863.6 for certain', () => {
  const { lengths, best } = lengthsToAsk(sectionFor('AV10')!, { markedMm: 847, plusMinus: 3 }, 'slack');
  expect(lengths.find(({ lengthMm }) => lengthMm === 863.6)!.chance!).toBeLessThan(0.5);
  expect(lengths[best!]!.lengthMm).toBe(876.3);
});

test('over a smooth pulley a belt slides on, with no rim to climb', () => {
  const chance = (riding: { on: 'back'; bend: 'half' }[]) =>
    lengthsToAsk(sectionFor('AV10')!, { markedMm: 847, plusMinus: 3 }, 'slack', { riding }).lengths.find(
      ({ lengthMm }) => lengthMm === 863.6,
    )!.chance!;
  expect(chance([{ on: 'back', bend: 'half' }])).toBeGreaterThan(0.99);
  expect(chance([])).toBeLessThan(0.5);
});

test('slack end and short mark are two answers: kept as what Size calls them, and each with bounds of its own', () => {
  expect(HELD.map((held) => STATE_OF_HELD[held])).toEqual([
    'as-drawn',
    'slack',
    'short-mark',
    'long-mark',
    'tight',
    'as-drawn',
  ]);
  const PK = sectionFor('PK')!;
  const best = (held: 'short-mark' | 'long-mark') => {
    const { lengths, best: at } = lengthsToAsk(PK, { markedMm: 1702, plusMinus: 1 }, held, { takesUpMm: 20 });
    return lengths[at!]!.lengthMm;
  };
  expect(best('short-mark')).toBeGreaterThanOrEqual(1705);
  expect(best('short-mark')).toBeLessThanOrEqual(1720);
  expect(best('long-mark')).toBeLessThanOrEqual(1700);
  expect(best('long-mark')).toBeGreaterThanOrEqual(1685);
});

test('nothing known of the adjuster: no chance is given', () => {
  const { lengths } = lengthsToAsk(sectionFor('PK')!, { markedMm: 1702, plusMinus: 3 }, 'running');
  expect(lengths.every(({ chance }) => chance === null)).toBe(true);
});

describe('a string that nobody looked at', () => {
  const ask = (lay?: 'groove' | 'rim', more: object = {}) =>
    stringLength({
      section: sectionFor('PK')!,
      measurement: { tool: 'string', mm: 1700, ...(lay && { lay }), ...more },
      riding: [],
    });

  test('both lengths are told, the ± holds both, and what to bring covers both', () => {
    const open = ask();
    const [groove, rim] = [ask('groove'), ask('rim')];
    expect(open.eitherWay!.groove.markedMm).toBeCloseTo(groove.markedMm, 9);
    expect(open.eitherWay!.rim.markedMm).toBeCloseTo(rim.markedMm, 9);
    // The middle of both, and every figure beside it, lies as far from what the groove gives.
    const by = open.markedMm - groove.markedMm;
    expect(open.correctionMm - groove.correctionMm).toBeCloseTo(by, 9);
    expect(open.doubts.lay).toBeCloseTo(Math.abs(by), 9);
    open.rules.forEach(({ offMm }, k) => expect(groove.rules[k]!.offMm - offMm).toBeCloseTo(by, 9));
    expect(open.rules.length).toBeGreaterThan(0);
    expect(groove.markedMm - rim.markedMm).toBeGreaterThan(10);
    for (const { markedMm } of [groove, rim])
      expect(Math.abs(markedMm - open.markedMm)).toBeLessThanOrEqual(open.plusMinus);
    const { lengths, best, second } = lengthsToAsk(sectionFor('PK')!, open, 'slack', { takesUpMm: 12 });
    const brought = [lengths[best!]!.lengthMm, lengths[second!]!.lengthMm];
    for (const { markedMm } of [groove, rim])
      expect(brought.some((mm) => mm > markedMm && mm < markedMm + 15)).toBe(true);
  });

  test('calibration: half of them on the rims, the truth lies within the ± half the time and within twice it always', () => {
    const normal = normals(5);
    let [once, twice] = [0, 0];
    const draws = 400;
    for (let n = 0; n < draws; n += 1) {
      const lay = n % 2 ? 'groove' : 'rim';
      const truth = 1650;
      const read = truth - (ask(lay).markedMm - 1700 * 1.003) + 3 * normal();
      const answer = ask(undefined, { mm: read / 1.003 });
      const apart = Math.abs(answer.markedMm - truth) / answer.plusMinus;
      if (apart <= 1) once += 1;
      if (apart <= 2) twice += 1;
    }
    expect(once / draws).toBeGreaterThan(0.45);
    expect(once / draws).toBeLessThan(0.85);
    expect(twice / draws).toBeGreaterThan(0.95);
  });

  test('in Size the drawing decides where it can, and both ways stay where it cannot', () => {
    const drive = driveOf([
      ['crank', 0, 0, 160],
      ['alt', 260, 120, 61],
      ['pump', -60, 250, 130],
    ]);
    const belt = drive.belts[0]!;
    const curve = lengthCurve(drive, belt);
    const drawn = sizeBelt(drive, 'main', { lengths: [] })!.window.drawn!;
    const laid = (lay: 'groove' | 'rim') =>
      measuredLength(drive, belt, curve, { id: 'm', tool: 'string', mm: 1000, stretch: 0, lay })!.correctionMm;
    const measured = { id: 'm', tool: 'string' as const, stretch: 0, mm: drawn - laid('rim') };
    const by = (sigma: number) => combinedLength(drive, { ...belt, measurements: [measured] }, curve, sigma);
    expect(by(3).measured[0]).toMatchObject({ lay: 'rim', layTold: true });
    expect(Math.abs(by(3).shiftMm)).toBeLessThan(1);
    // With a drawing that is good to 40 mm nothing tells, and the ± says so.
    const open = by(40);
    expect(open.measured[0]!.eitherWay).not.toBeNull();
    expect(open.plusMinus).toBeGreaterThan(6);
    expect(Math.abs(open.shiftMm)).toBeLessThan(1.5 * open.plusMinus);
  });
});

describe('what a tape is out by', () => {
  const lengthBy = (measurement: Parameters<typeof stringLength>[0]['measurement'], section = 'PK') =>
    stringLength({ section: sectionFor(section)!, measurement, riding: [] });

  test('doubled, the reading is out by twice the tape', () => {
    for (const tool of ['strap', 'string', 'wire'] as const) {
      const once = lengthBy({ tool, mm: 1700, lay: 'rim', plusMinus: 2 });
      const twice = lengthBy({ tool, mm: 850, doubled: true, lay: 'rim', plusMinus: 2 });
      expect(twice.doubts.reading).toBeCloseTo(2 * once.doubts.reading, 9);
      expect(twice.markedMm).toBeCloseTo(once.markedMm, 9);
    }
  });

  test('an old belt doubled flat has its bent ends added, 20 to 35 mm of them, with their own ±', () => {
    const flat = lengthBy({ tool: 'old-belt', mm: 850, doubled: true, worn: 0 });
    const round = lengthBy({ tool: 'old-belt', mm: 1700, worn: 0 });
    const ends = flat.markedMm - round.markedMm;
    expect(ends).toBeGreaterThan(20);
    expect(ends).toBeLessThan(35);
    expect(flat.plusMinus).toBeCloseTo(Math.hypot(2 * 4, 15 / Math.sqrt(12)), 9);
  });

  test('a thin string on the floor of a V groove is as doubtful as the groove is deep; a thick rope is not', () => {
    const reading = (tool: 'string' | 'rope', thickness: number) =>
      lengthBy({ tool, mm: 1000, thickness, lay: 'groove', plusMinus: 1 }, 'AV10').doubts.reading;
    // Three grooves, each ± 1.5 mm deep, over one turn together.
    expect(reading('string', 2)).toBeCloseTo(Math.hypot(1, (1.5 * 2 * Math.PI) / Math.sqrt(3)), 6);
    expect(reading('rope', 8)).toBeCloseTo(1, 6);
  });

  test('a gauge tells nothing without the way round its wheels', () => {
    expect(() => lengthBy({ tool: 'gauge', mm: 845 })).toThrow(/circumference/);
    const drive = driveOf([
      ['crank', 0, 0, 160],
      ['alt', 260, 120, 61],
    ]);
    const gauge = { id: 'g', tool: 'gauge' as const, mm: 400 };
    expect(measuredLength(drive, drive.belts[0]!, null, gauge)).toBeNull();
    expect(measuredLength(drive, drive.belts[0]!, null, { ...gauge, circumference: 314 })!.markedMm).toBe(1114);
  });
});

test.each(HELD.filter((held): held is Exclude<Held, 'fixed'> => held !== 'fixed'))(
  'a list of belts that holds none near is no answer: a 177 mm string, held %s, is not answered with 850 mm',
  (held) => {
    const stock = [850, 865, 880];
    const PK = sectionFor('PK')!;
    const { lengths, best, second } = lengthsToAsk(PK, { markedMm: 177, plusMinus: 3.4 }, held, { stock });
    expect(lengths.length).toBeGreaterThan(1);
    for (const at of [best, second]) expect(Math.abs(lengths[at!]!.lengthMm - 177)).toBeLessThan(20);
    // Where the list has them, they are what is asked for.
    const near = lengthsToAsk(PK, { markedMm: 862, plusMinus: 3.4 }, held, { stock });
    expect(stock).toContain(near.lengths[near.best!]!.lengthMm);
  },
);
