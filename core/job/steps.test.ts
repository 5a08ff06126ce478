import fc from 'fast-check';
import { type Adjuster, type Belt, BOLT_USES, changeBelt, type Drive, PHASES, putItem, type Station } from '../drive';
import { tensionOf, usualSetting, usualWindow } from '../loads';
import { settingFor } from '../tension';
import { DEMO } from '../test/demo';
import { driveOf, type Stop } from '../test/examples';
import { JOB_DRIVES } from '../test/job-drives';
import { cardOf } from './card';
import type { CardStep } from './step';
import { heldBelt, isSetByHand } from './held';
import { beltOrder } from './order';
import { stepsOf } from './steps';
import { setTogether } from './together';
import { draws } from '../test/draws';

/* What must hold of every card, whatever the drive. */

/** Steps at which somebody's hands are in the drive. */
const HANDS_IN: ReadonlySet<CardStep['code']> = new Set([
  ...(['covers', 'chalk', 'slacken-bolts', 'release', 'slacken', 'part-halves', 'no-adjuster', 'cut-off'] as const),
  ...(['lift', 'let-back', 'look', 'change-part', 'move', 'clean', 'cure', 'lay', 'let-down', 'bleed'] as const),
  ...(['set', 'close-halves', 'work-on', 'bolt', 'bolts', 'grooves', 'pointer', 'hand-turn', 'covers-on'] as const),
  ...(['read-tension', 'set-again'] as const),
]);
const RUNS: ReadonlySet<CardStep['code']> = new Set(['touch', 'run', 'noise', 'charge', 'load', 'run-in', 'listen']);

const adjusters: fc.Arbitrary<Adjuster | undefined> = fc.oneof(
  fc.constant(undefined),
  fc.constant<Adjuster>({ kind: 'fixed' }),
  fc.record({
    kind: fc.constant('slide' as const),
    direction: fc.integer({ min: 0, max: 359 }),
    travel: fc.integer({ min: 5, max: 60 }),
  }),
  fc.record({
    kind: fc.constant('slot-pivot' as const),
    pivot: fc.record({ x: fc.integer({ min: 100, max: 300 }), y: fc.integer({ min: 40, max: 120 }) }),
    inAngle: fc.integer({ min: 60, max: 100 }),
    outAngle: fc.integer({ min: 20, max: 55 }),
  }),
  fc.constant<Adjuster>({
    ...{ kind: 'turnbuckle', pivot: { x: 150, y: 90 }, anchor: { x: 60, y: 210 }, lug: { x: 190, y: 215 } },
    ...{ minLength: 100, maxLength: 160 },
  }),
  fc.record({
    kind: fc.constant('shims' as const),
    shims: fc.array(fc.constantFrom(0.4, 0.5, 0.8), { minLength: 1, maxLength: 5 }),
  }),
  fc.boolean().map((marked): Adjuster => ({
    ...{ kind: 'sprung-arm', pivot: { x: 210, y: 90 }, armLength: 82, freeAngle: 50, fullAngle: 120 },
    ...{ springTorqueAtFree: 12, springRate: 0.2 },
    ...(marked && { shortMark: 105, longMark: 65 }),
  })),
);

const STOPS: Stop[] = [
  ['crank', 0, 0, 140],
  ['alt', 210, 170, 70, 'drive', { role: 'alternator' }],
  ['pump', -60, 250, 130, 'drive', { role: 'water-pump' }],
];

/** One or two belts over three shafts, any adjuster on two of them, any bolts, any order of them. */
const anyDrive = fc
  .record({
    section: fc.constantFrom('AV10', 'PK'),
    build: fc.constantFrom(undefined, 'stretch' as const),
    alt: adjusters,
    pump: adjusters,
    two: fc.boolean(),
    bolts: fc.array(
      fc.record({
        station: fc.constantFrom('alt', 'pump', 'crank'),
        use: fc.constantFrom(...BOLT_USES),
        torqueNm: fc.option(fc.integer({ min: 5, max: 90 }), { nil: undefined }),
        order: fc.option(fc.integer({ min: 1, max: 9 }), { nil: undefined }),
      }),
      { maxLength: 7 },
    ),
  })
  .map(({ section, build, alt, pump, two, bolts }): Drive => {
    const made = driveOf(STOPS, { section, ...(build && section === 'PK' && { build }) });
    const given: Record<string, Adjuster | undefined> = { alt, pump };
    const stations = made.stations.map((station): Station => {
      const adjuster = given[station.id];
      return {
        ...station,
        ...(adjuster && { adjuster }),
        pulleys: two
          ? [...station.pulleys, { ...station.pulleys[0]!, id: `${station.id}-2`, plane: 25 }]
          : station.pulleys,
      };
    });
    const [belt] = made.belts as readonly [Belt];
    const outer = {
      ...belt,
      id: 'outer',
      route: ['crank-2', 'alt-2'].map((id) => ({ pulley: id, side: 'drive' as const })),
    };
    const drive: Drive = { ...made, stations, belts: two ? [belt, outer] : [belt] };
    return bolts.reduce(
      (now, { torqueNm, order, ...bolt }, k) =>
        putItem(now, 'job.bolts', {
          id: `b${k}`,
          ...bolt,
          ...(torqueNm !== undefined && { torqueNm }),
          ...(order !== undefined && { order }),
        }),
      drive,
    );
  });

/** Every card that a drive can have: for all belts, and for each alone. */
const cardsOf = (drive: Drive) =>
  [undefined, ...drive.belts.map(({ id }) => id)].map((belt) => ({ belt, card: cardOf(drive, belt) }));

function holds(drive: Drive): void {
  for (const { belt, card } of cardsOf(drive)) {
    const { steps } = card;
    const put = stepsOf(drive, beltOrder(drive, belt));
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    expect(steps.map(({ phase }) => PHASES.indexOf(phase))).toEqual(
      steps.map(({ phase }) => PHASES.indexOf(phase)).sort((a, b) => a - b),
    );
    let [power, covered] = [true, true];
    const open = new Set<string>();
    const held = new Set<string>();
    for (const step of steps) {
      const { code, caution, id } = step;
      if (code === 'key' || code === 'stop') power = false;
      if (code === 'covers') covered = false;
      if (code === 'covers-on') covered = true;
      if (HANDS_IN.has(code)) expect(`${id} ${power ? 'with power' : ''}`).toBe(`${id} `);
      if (code === 'slacken-bolts' || code === 'part-halves') open.add(step.station!);
      if (code === 'release' && /hold it there/.test(step.text)) held.add(step.station!);
      if (code === 'let-back') held.delete(step.station!);
      if (code === 'set' || code === 'close-halves' || code === 'set-again') open.delete(step.station!);
      if ((code === 'bolt' || code === 'bolts') && step.phase !== 'set') expect(open.has(step.station!)).toBe(false);
      if (code === 'battery') {
        // What was undone is done up, what came off is on, no arm is held, and every groove was looked at.
        expect([power, covered, open.size, held.size]).toEqual([false, true, 0, 0]);
        power = true;
      }
      if (RUNS.has(code)) {
        expect(covered).toBe(true);
        expect(caution).toMatch(/Nothing loose near a running drive/);
      }
      expect(step.text).not.toMatch(/undefined|NaN|\[object|^\s|\s{2}|\.\.|,\.|: \./);
      if (step.phase !== 'set' && !['bolt', 'covers-on', 'set', 'set-again'].includes(code))
        expect(step.text).not.toMatch(/N·m/);
    }
    namesWhatIsThere(drive, put);
    screwsBeforeLocks(put);
    const grooves = steps.flatMap((step) => (step.code === 'grooves' ? [step.belt] : []));
    for (const id of card.order.off) expect(grooves).toContain(id);
  }
}

/** No step names an arm, marks, a strut, a link or an adjuster that the drive has not. */
function namesWhatIsThere(drive: Drive, steps: ReturnType<typeof stepsOf>): void {
  const byBelt = new Map(drive.belts.map((belt) => [belt.id, heldBelt(drive, belt)]));
  for (const { code, station, belt } of steps) {
    const adjuster = drive.stations.find(({ id }) => id === station)?.adjuster;
    if (['release', 'let-back', 'let-down', 'pointer', 'bleed'].includes(code))
      expect(adjuster?.kind).toBe('sprung-arm');
    if (code === 'part-halves' || code === 'close-halves') expect(adjuster?.kind).toBe('shims');
    if (code === 'slacken' || code === 'slacken-bolts')
      expect(adjuster && !['sprung-arm', 'shims', 'fixed'].includes(adjuster.kind)).toBe(true);
    if (code === 'set-again') expect(isSetByHand(byBelt.get(belt!)!)).toBe(true);
    if (code === 'cut-off') expect(byBelt.get(belt!)!.by).toBe('stretch-fit');
    if (code === 'chalk') expect(byBelt.get(belt!)!.by).not.toBe('stretch-fit');
  }
  const set = steps.filter(({ code }) => code === 'set' || code === 'close-halves').map(({ station }) => station);
  const again = steps.filter(({ code }) => code === 'set-again').map(({ station }) => station);
  expect([...again].sort()).toEqual([...set].sort());
}

/** A screw turns to set the belt, and is in no tightening step; what was slackened is tightened, once a time. */
function screwsBeforeLocks(steps: ReturnType<typeof stepsOf>): void {
  for (const phase of ['on', 'after'] as const) {
    const tightened = steps
      .filter((step) => step.phase === phase && step.code === 'bolt')
      .flatMap(({ bolts }) => bolts!);
    expect(tightened.filter(({ use }) => use === 'adjust')).toEqual([]);
    const slackened = steps
      .filter((step) => step.phase === (phase === 'on' ? 'off' : phase))
      .filter(({ code }) => code === 'slacken-bolts' || code === 'part-halves')
      .flatMap(({ bolts }) => bolts!);
    const sheaves = steps
      .filter((step) => step.phase === phase && step.by === 'shims')
      .flatMap(({ station }) => station!);
    const missing = tightened.filter((bolt) => !slackened.includes(bolt) && !sheaves.includes(bolt.station));
    expect(missing).toEqual([]);
    expect(slackened.filter((bolt) => !tightened.includes(bolt))).toEqual([]);
  }
}

test('any drive: no hand goes in with power on, nothing is tightened before it is set, all that came off is on', () => {
  fc.assert(fc.property(anyDrive, holds), { numRuns: draws(30) });
});

test.each(Object.entries(JOB_DRIVES).filter(([name]) => name !== 'no-belt'))('%s: the same', (_name, { drive }) =>
  holds(drive),
);

test('a drive without a belt: one step, that asks for it, and a finding', () => {
  const { steps, findings, order } = cardOf(JOB_DRIVES['no-belt']!.drive);
  expect(order.off).toEqual([]);
  expect(steps.map(({ code }) => code)).toEqual(['missing']);
  expect(findings).toEqual([{ code: 'no-belts', severity: 'fault' }]);
});

test('two belts, one adjuster: at one place of it both figures are had, each in its range', () => {
  const drive = ['inner', 'outer'].reduce((now, id) => changeBelt(now, id, { staticTension: undefined }), DEMO.pickup);
  const belts = drive.belts.map((belt) => heldBelt(drive, belt));
  const { lead, figures, apart } = setTogether(drive, belts, new Set(['inner', 'outer']));
  const { staticBelts } = tensionOf(drive);
  const places = figures.map(({ belt, setN }) => {
    const standing = staticBelts.find((staticBelt) => staticBelt?.belt.id === belt)!;
    return settingFor(drive, standing, setN!)!.mm!;
  });
  // The way to each belt's own figure is the same way.
  expect(places[0]).toBeCloseTo(places[1]!, 3);
  expect(apart).toEqual([]);
  for (const { setN, runInN, leastN, mostN } of figures) {
    expect(runInN).toBeGreaterThanOrEqual(leastN!);
    expect(setN).toBeLessThanOrEqual(mostN!);
  }
  expect(figures.map(({ belt }) => belt)).toContain(lead);
});

test('one belt alone is set to what Tension says of it', () => {
  const { drive } = JOB_DRIVES['slide-outward']!;
  const { figures } = setTogether(drive, [heldBelt(drive, drive.belts[0]!)], new Set());
  const [window, setting] = [usualWindow(drive, 'main')!, usualSetting(drive, 'main')!];
  expect(figures).toEqual([
    { belt: 'main', setN: setting.setN, runInN: setting.runInN, leastN: window.leastN, mostN: window.mostN },
  ]);
});

test('an idler that presses inward is let go outward, as the drawing shows it', () => {
  const { steps } = cardOf(JOB_DRIVES['idler-that-presses-inward']!.drive);
  expect(steps.find(({ code }) => code === 'slacken')!.text).toMatch(/^Move Idler to the right on the drawing/);
  expect(steps.find(({ code }) => code === 'set')!.text).toMatch(/ Move Idler to the left on the drawing\./);
});

test('a job for one belt of two on one adjuster: the other comes slack, and both are set, looked at and read', () => {
  const { steps } = cardOf(DEMO.pickup, 'outer');
  const stepsNamed = (code: CardStep['code']) => steps.filter((step) => step.code === code);
  expect(stepsNamed('slacken')[0]!.text).toMatch(/Belt 1 goes slack with it and stays on/);
  expect(stepsNamed('lift').map(({ belt }) => belt)).toEqual(['outer']);
  for (const code of ['set', 'set-again'] as const)
    expect([...stepsNamed(code)[0]!.belts!].sort()).toEqual(['inner', 'outer']);
  expect(stepsNamed('grooves').map(({ belt }) => belt)).toEqual(['outer', 'inner']);
  for (const phase of ['check', 'after'])
    expect(
      stepsNamed('read-tension')
        .filter((step) => step.phase === phase)
        .map(({ belt }) => belt)
        .sort(),
    ).toEqual(['inner', 'outer']);
});

test('a stretch-fit belt is cut off and drawn on, and nothing of it is set again, whatever else is on the engine', () => {
  const { drive } = JOB_DRIVES['stretch-fit-in-front-of-a-serpentine']!;
  const stepsOn = (id: string) => cardOf(drive, id).steps.filter(({ belt }) => belt === id);
  const codes = stepsOn('outer').map(({ code }) => code);
  expect(codes).toEqual(expect.arrayContaining(['print', 'cut-off', 'work-on', 'grooves', 'read-tension', 'number']));
  for (const never of ['chalk', 'lift', 'set', 'set-again', 'no-adjuster'] as const) expect(codes).not.toContain(never);
});
