/** @jest-environment node */
import { stageOf, STAGES } from '.';
import { STAGE_MARKS } from './marks';
import {
  addBelt,
  addStation,
  changeBelt,
  changePulley,
  changeStation,
  type Drive,
  newBelt,
  newDrive,
  newStation,
} from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';

const stageState = (id: string, drive: Drive, solution: ReturnType<typeof solveDrive>) =>
  STAGES.find((stage) => stage.id === id)!.state(drive, solution);

const states = (drive: Drive) =>
  (['survey', 'route'] as const).map((stage) => stageState(stage, drive, solveDrive(drive)));

function twoAtStart(): Drive {
  let drive = addBelt(newDrive('new'), newBelt(newDrive('new'), 'PK'));
  drive = addStation(drive, newStation(drive, 'crankshaft', 0, 0, 'PK'));
  return addStation(drive, newStation(drive, 'alternator', 300, 0, 'PK'));
}
/** The same with both sizes measured. */
const twoPulleys = () =>
  changePulley(changePulley(twoAtStart(), 'crank-1-1', { diameter: 161 }), 'alternator-1-1', { diameter: 59 });
const routed = (drive: Drive, ...pulleys: string[]) =>
  changeBelt(drive, 'belt-1', { route: pulleys.map((pulley) => ({ pulley, side: 'drive' as const })) });

test('a stage is untouched, in hand, settled or needs attention, by the drive alone', () => {
  expect(states(newDrive('new'))).toEqual(['untouched', 'untouched']);
  // Sizes that a drive starts with are there to be measured over.
  expect(states(twoAtStart())).toEqual(['in progress', 'untouched']);
  expect(states(twoPulleys())).toEqual(['settled', 'untouched']);
  expect(states(routed(twoPulleys(), 'crank-1-1'))).toEqual(['settled', 'in progress']);
  expect(states(routed(twoPulleys(), 'crank-1-1', 'alternator-1-1'))).toEqual(['settled', 'settled']);
});

test("a size not measured is the survey's to put right, a wrong side the route's", () => {
  const unmeasured = changePulley(twoPulleys(), 'alternator-1-1', { diameter: 0 });
  expect(states(unmeasured)[0]).toBe('in progress');
  expect(states(routed(unmeasured, 'crank-1-1', 'alternator-1-1'))).toEqual(['needs attention', 'needs attention']);
  const crossed = changeBelt(twoPulleys(), 'belt-1', {
    route: [
      { pulley: 'crank-1-1', side: 'drive' },
      { pulley: 'alternator-1-1', side: 'back' },
    ],
  });
  expect(states(crossed)).toEqual(['settled', 'needs attention']);
});

test("Size is settled with a length for every belt; Speeds once the engine's speeds are known and no limit of this vehicle is passed", () => {
  const stateOf = (drive: Drive) =>
    (['size', 'speeds'] as const).map((stage) => stageState(stage, drive, solveDrive(drive)));
  const plain = routed(twoPulleys(), 'crank-1-1', 'alternator-1-1');
  expect(stateOf(newDrive('new'))).toEqual(['untouched', 'untouched']);
  expect(stateOf(plain)).toEqual(['untouched', 'untouched']);
  expect(stateOf(changeBelt(plain, 'belt-1', { length: 1200 }))[0]).toBe('settled');
  expect(stateOf({ ...plain, use: { bins: [] } })[1]).toBe('in progress');
  const known: Drive = { ...plain, speeds: { idle: 700, redline: 5000 } };
  expect(stateOf(known)[1]).toBe('settled');
  const limited = {
    ...known,
    stations: known.stations.map((station) =>
      station.role === 'alternator' ? { ...station, speedBand: { burst: 9000 } } : station,
    ),
  };
  expect(stateOf(limited)[1]).toBe('needs attention');
});

test('Align is in hand once something is read, settled once every run is read and good, and warns of one that is not', async () => {
  const stateOf = (mm: number | null, front?: number) => {
    const plain = routed(twoPulleys(), 'crank-1-1', 'alternator-1-1');
    const route = plain.belts[0]!.route.map((stop, k) => (k === 1 && front !== undefined ? { ...stop, front } : stop));
    const readings = mm === null ? [] : [{ id: 'a', tool: 'laser' as const, pulley: 'alternator-1-1', mm }];
    const drive: Drive = { ...changeBelt(plain, 'belt-1', { route }), align: { readings } };
    return stageState('align', drive, solveDrive(drive));
  };
  expect(stateOf(null)).toBe('untouched');
  expect(stateOf(4)).toBe('in progress');
  await STAGES.find(({ id }) => id === 'align')!.sums!.fetch();
  expect(stateOf(0.4)).toBe('settled');
  expect(stateOf(4)).toBe('needs attention');
  expect(stateOf(null, 0)).toBe('in progress');
  expect(stateOf(null, 1)).toBe('needs attention');
  // In line by its readings, and a rib off by the count.
  expect(stateOf(0, -1)).toBe('needs attention');
});

test('Noise is in hand once something was seen, wants what must stop or came back, and is settled once it stayed quiet', () => {
  const stateOf = (noise: Drive['noise']) => {
    const drive: Drive = { ...routed(twoPulleys(), 'crank-1-1', 'alternator-1-1'), ...(noise && { noise }) };
    return stageState('noise', drive, solveDrive(drive));
  };
  const cure = { id: 'c', cause: 'loose' as const, part: 'belt-1' };
  const heard = (...outcomes: ('quiet' | 'back')[]) =>
    outcomes.map((outcome, k) => ({ when: (['now', 'soon', 'later'] as const)[k]!, outcome }));
  expect(stateOf(undefined)).toBe('untouched');
  expect(stateOf({ evidence: [{ test: 'water', outcome: 'louder' }] })).toBe('in progress');
  expect(stateOf({ evidence: [{ test: 'wobble', outcome: 'yes', pulley: 'crank-1-1' }] })).toBe('needs attention');
  expect(stateOf({ evidence: [{ test: 'water', outcome: 'louder', past: true }], cures: [cure] })).toBe('in progress');
  expect(stateOf({ cures: [{ ...cure, listened: heard('quiet', 'quiet', 'quiet') }] })).toBe('settled');
  expect(stateOf({ cures: [{ ...cure, listened: heard('quiet', 'back') }] })).toBe('needs attention');
});

test('Inspect is in hand once something was found, wants what is to be replaced, and is settled once nothing is left out', async () => {
  const stateOf = (inspect: Drive['inspect']) => {
    const drive: Drive = { ...routed(twoPulleys(), 'crank-1-1', 'alternator-1-1'), ...(inspect && { inspect }) };
    return stageState('inspect', drive, solveDrive(drive));
  };
  const depth = (value: number) => ({
    id: `d${value}`,
    on: 'belt' as const,
    target: 'belt-1',
    check: 'rib-depth' as const,
    value,
  });
  const clean = { id: 'g', on: 'pulley' as const, target: 'crank-1-1', check: 'grooves' as const, outcome: 'clean' };
  const quiet = { id: 's', on: 'pulley' as const, target: 'alternator-1-1', check: 'spin' as const, outcome: 'quiet' };
  expect(stateOf(undefined)).toBe('untouched');
  expect(stateOf({ findings: [{ ...depth(1.9), past: true }] })).toBe('untouched');
  await STAGES.find(({ id }) => id === 'inspect')!.sums!.fetch();
  expect(stateOf({ findings: [depth(2.8)] })).toBe('in progress');
  expect(stateOf({ findings: [depth(1.9)] })).toBe('needs attention');
  expect(stateOf({ findings: [depth(2.8), clean, quiet] })).toBe('settled');
  expect(stateOf({ findings: [depth(2.2), clean, quiet] })).toBe('settled');
});

test('Tension is in hand once a belt is set, settled once every one was read, and asks for a look that is due', () => {
  const stateOf = (belt: Partial<Drive['belts'][number]>) => {
    const drive = changeBelt(routed(twoPulleys(), 'crank-1-1', 'alternator-1-1'), 'belt-1', belt);
    return stageState('tension', drive, solveDrive(drive));
  };
  const span = { from: 'crank-1-1', to: 'alternator-1-1' };
  const read = [{ id: 't', way: 'gauge' as const, span, kgf: 40 }];
  expect(stateOf({})).toBe('untouched');
  expect(stateOf({ staticTension: 300 })).toBe('in progress');
  expect(stateOf({ tensionReadings: read })).toBe('settled');
  expect(stateOf({ tensionReadings: read, care: { nextLookAt: '2020-01-01T00:00:00Z' } })).toBe('needs attention');
});

test('Job card is in hand once something of it is written, settled with every bolt known, and tells belts in each other’s way', async () => {
  const plain = routed(twoPulleys(), 'crank-1-1', 'alternator-1-1');
  const stateOf = (job: Drive['job'], drive = plain) =>
    stageState('job', { ...drive, ...(job && { job }) }, solveDrive(drive));
  const bolt = { id: 'b', station: 'alternator-1', use: 'pivot' as const };
  expect(stateOf(undefined)).toBe('untouched');
  expect(stateOf({ own: [{ id: 'o', phase: 'check', text: 'Look' }] })).toBe('in progress');
  expect(stateOf({ bolts: [bolt] })).toBe('in progress');
  expect(stateOf({ bolts: [{ ...bolt, torqueNm: 40 }] })).toBe('settled');
  // Two belts, each in front of the other on one of their two shafts.
  const second = (station: string, plane: number) => ({
    id: `${station}-2`,
    surface: 'ribbed' as const,
    diameter: 90,
    plane,
  });
  const tangled: Drive = {
    ...plain,
    stations: plain.stations.map((station, k) => ({
      ...station,
      pulleys: [...station.pulleys, second(station.id, k === 0 ? 30 : -30)],
    })),
    belts: [
      ...plain.belts,
      {
        id: 'other',
        section: 'PK',
        ribs: 4,
        route: plain.stations.map(({ id }) => ({ pulley: `${id}-2`, side: 'drive' as const })),
      },
    ],
  };
  await STAGES.find(({ id }) => id === 'job')!.sums!.fetch();
  expect(stateOf(undefined, tangled)).toBe('needs attention');
});

test('every stage of the list can be told apart, has a place on the rail and in the keys, and answers for any drive', () => {
  expect(new Set(STAGES.map(({ id }) => id)).size).toBe(STAGES.length);
  expect(STAGES.length).toBeLessThanOrEqual(9);
  const drives = [newDrive('new'), twoPulleys(), routed(twoPulleys(), 'crank-1-1', 'alternator-1-1')];
  for (const stage of STAGES) {
    for (const drive of drives) expect(Object.keys(STAGE_MARKS)).toContain(stage.state(drive, solveDrive(drive)));
    // A stage's keys hide none of the bench's own, nor one another.
    const keys = (stage.keys ?? []).map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const key of keys) expect(key).not.toMatch(/^([0-9?]|Escape|Tab|Arrow.*)$/);
  }
});

test('a stage that is not in the list, or not said, is Route for a drive with a route and the first for new belt', () => {
  expect(stageOf('speeds', false).id).toBe('speeds');
  expect(stageOf('none', true).id).toBe('route');
  expect(stageOf(undefined, false).id).toBe(STAGES[0]!.id);
});

test('a drag does what the stage says: a shaft anywhere, the adjuster along its way, nothing', () => {
  const drive = routed(twoPulleys(), 'crank-1-1', 'alternator-1-1');
  const pivot = { x: 300, y: -100 };
  const swinging = changeStation(drive, 'alternator-1', {
    adjuster: { kind: 'slot-pivot', pivot, inAngle: 120, outAngle: 60 },
  });
  const step = (id: string, drive: Drive) => stageOf(id, true).drag(drive, drive.belts[0], 'alternator-1');
  const moved = (id: string, drive: Drive) => {
    const outcome = step(id, drive)!({ x: 333.333, y: 44.44 });
    return ('change' in outcome ? outcome.change(drive) : outcome.pose).stations[1]!;
  };
  expect(moved('survey', drive)).toMatchObject({ x: 333.3, y: 44.4 });
  expect(moved('route', drive)).toMatchObject({ x: 333.3, y: 44.4 });
  expect(step('size', drive)).toBeNull();
  const { x, y } = moved('size', swinging);
  expect(Math.hypot(x - pivot.x, y - pivot.y)).toBeCloseTo(100, 6);
  expect(step('speeds', swinging)).toBeNull();
});
