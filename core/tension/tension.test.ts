import fc from 'fast-check';
import { torqueStates } from '../accessory';
import type { Belt, Drive, Pulley, Station } from '../drive';
import { driveOf, SERPENTINE, station } from '../test/examples';
import { hardestLoad, lifeRatio, runDrive, tensionOf, windowOf, type BeltRunning } from '../loads';
import { toothLoads } from './findings';
import { marginMap } from './margin-map';
import { remediesFor } from './remedies';
import { waysOf, pushedBy, pushFor, spanFigures, tensionOfPluck } from './ways';
import { columnsOf } from '../test/columns';

/** A station that takes a steady torque, or nothing. */
const taking = (drive: Drive, torques: Record<string, number>, limits: Record<string, number> = {}): Drive => ({
  ...drive,
  stations: drive.stations.map((station): Station => ({
    ...station,
    torque: [{ state: 'on', points: [{ rpm: 1000, nm: torques[station.id] ?? 0 }] }],
    ...(limits[station.id] !== undefined && { hubLoadLimit: limits[station.id]! }),
  })),
});
const two = (torque: number, belt: Partial<Belt> = {}) =>
  taking(
    driveOf(
      [
        ['crank', 0, 0, 146],
        ['alt', 400, 0, 96],
      ],
      { staticTension: 500, ...belt },
    ),
    { alt: torque },
  );
const ARM = {
  kind: 'sprung-arm' as const,
  pivot: { x: -148, y: 61 },
  armLength: 77,
  freeAngle: 20,
  fullAngle: 112,
  springTorqueAtFree: 12,
  springRate: 0.22,
};
/** The serpentine with a sprung arm, as drawn. */
const sprung = (torques: Record<string, number>): Drive => {
  const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
  const stations = drive.stations.map((station) =>
    station.id === 'ten'
      ? {
          ...station,
          x: ARM.pivot.x + ARM.armLength * Math.cos(0.83),
          y: ARM.pivot.y + ARM.armLength * Math.sin(0.83),
          adjuster: ARM,
        }
      : station,
  );
  return taking({ ...drive, stations }, torques);
};
const ran = (belt: BeltRunning) => ({ belt, run: columnsOf(belt) });
const main = (drive: Drive, rpm: number, more: { wet?: boolean; given?: number } = {}) => {
  const tension = tensionOf(drive, { main: more.given });
  return {
    tension,
    standing: tension.staticBelts[0]!,
    ...ran(runDrive(tension, { rpm, wet: more.wet ?? false }).belts[0]!),
  };
};

describe('two pulleys on fixed centres, by closed forms', () => {
  test('span difference is torque over radius; the crank gives it back by the ratio', () => {
    const { run } = main(two(10), 1500);
    // Cord radii 75 and 50: 10 N·m is 200 N of belt, and 15 N·m at the crank.
    expect(run.tensionN[1]! - run.tensionN[0]!).toBeCloseTo(200, 9);
    expect(run.torqueNm).toEqual([expect.closeTo(-15, 9), 10]);
  });

  test('the mean over the cord stays what it was, mass takes its share, and the margin is the capstan rule', () => {
    const { run, standing } = main(two(10), 3000);
    const mass = 6 * 0.0185;
    const v = (0.15 * Math.PI * 3000) / 60;
    expect(run.beltSpeed).toBeCloseTo(v, 12);
    expect(run.centrifugalN).toBeCloseTo(mass * v * v, 9);
    // By symmetry both spans and half of both arcs weigh the same, so the mean is the plain mean.
    expect((run.tensionN[0]! + run.tensionN[1]!) / 2).toBeCloseTo(500, 9);
    const [slack, tight] = [400 - mass * v * v, 600 - mass * v * v];
    const lean = Math.asin(25 / 400);
    expect(run.margin[1]).toBeCloseTo((slack * Math.exp(Math.PI - 2 * lean)) / tight - 1, 9);
    expect(run.margin[0]).toBeCloseTo((slack * Math.exp(Math.PI + 2 * lean)) / tight - 1, 9);
    expect(standing.from).toBe('given');
  });

  test('wet halves the grip, and a push, a pluck, a gauge and a thumb read one tension', () => {
    const dry = main(two(10), 1000).run.margin[1]! + 1;
    const wet = main(two(10), 1000, { wet: true }).run.margin[1]! + 1;
    const wrap = Math.PI - 2 * Math.asin(25 / 400);
    expect(dry / wet).toBeCloseTo(Math.exp(wrap / 2), 9);
    const { standing } = main(two(10), 1000);
    const [check] = waysOf(standing, 500);
    const length = Math.sqrt(400 ** 2 - 25 ** 2);
    expect(check!.lengthMm).toBeCloseTo(length, 9);
    expect(check!.pushN).toBeCloseTo(4 * 500 * 0.016 + 8 * 84_000 * 0.016 ** 3, 9);
    expect(check!.gaugeKgf).toBeCloseTo(500 / 9.80665, 9);
    expect(tensionOfPluck(spanFigures(standing, 0), check!.pluckHz)).toBeCloseTo(500, 9);
    expect(pushFor(spanFigures(standing, 0), 500, check!.freePlayMm)).toBeCloseTo(25, 9);
  });

  test('stretch round the path: EA · (path − belt) / belt on the cord', () => {
    const drive = two(0, { staticTension: undefined, length: 1100 });
    const { standing } = main(drive, 700);
    const belt = 1100 + 4 * Math.PI;
    expect(standing.from).toBe('stretch');
    expect(standing.tensionN).toBeCloseTo((6 * 14_000 * (standing.cordLength - belt)) / belt, 6);
    expect(main(two(0, { staticTension: undefined, length: 1400 }), 700).standing.tensionN).toBe(0);
    expect(main(two(0, { staticTension: undefined }), 700).standing.from).toBe('default');
  });

  test('least keeps a quarter and no more; most is the limit itself', () => {
    const drive = taking(two(12), { alt: 12 }, { alt: 900 });
    const tension = tensionOf(drive);
    const states = [{ rpm: 700 }, { rpm: 4000 }];
    const { leastN, mostN } = windowOf(tension, 'main', states)!;
    const margins = (newtons: number) =>
      states.flatMap(
        (running) => columnsOf(runDrive(tension, running, { main: newtons }).belts[0]!).margin as number[],
      );
    expect(Math.min(...margins(leastN!))).toBeCloseTo(0.25, 9);
    const loads = states.map((running) => runDrive(tension, running, { main: mostN! }).shafts.get('alt')!);
    expect(Math.max(...loads.map(({ x, y }) => Math.hypot(x, y)))).toBeCloseTo(900, 6);
    expect(hardestLoad(tension, 'main', 'alt', states, mostN!)).toBeCloseTo(900, 6);
  });
});

describe('whatever the drive', () => {
  const torques = fc.record({
    pump: fc.double({ min: 0, max: 15, noNaN: true }),
    alt: fc.double({ min: 0, max: 8, noNaN: true }),
    ac: fc.double({ min: 0, max: 25, noNaN: true }),
  });
  const rpm = fc.double({ min: 300, max: 7000, noNaN: true });

  test('power in is power out, and all shafts together are pulled nowhere', () => {
    fc.assert(
      fc.property(torques, rpm, fc.boolean(), (torque, speed, arm) => {
        const drive = arm ? sprung(torque) : taking(driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), torque);
        const tension = tensionOf(drive);
        const all = runDrive(tension, { rpm: speed });
        const [line, run] = [tension.lines[0]!, columnsOf(all.belts[0]!)];
        const power = run.torqueNm.reduce((sum, nm, k) => sum + nm * line.contacts[k]!.speedRatio!, 0);
        expect(power).toBeCloseTo(0, 6);
        const sum = [...all.shafts.values()].reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }), { x: 0, y: 0 });
        expect(Math.hypot(sum.x, sum.y)).toBeLessThan(1e-6);
      }),
    );
  });

  test('more tension is never less margin; more speed never more grip on fixed centres, and none lost on an arm', () => {
    fc.assert(
      fc.property(torques, rpm, rpm, fc.double({ min: 0, max: 2000, noNaN: true }), (torque, a, b, more) => {
        const fixed = taking(driveOf(SERPENTINE, { staticTension: 300 }, { crankRotation: 'cw' }), torque);
        const low = main(fixed, a).run.margin;
        main(fixed, a, { given: 300 + more }).run.margin.forEach((entry, k) =>
          expect((entry ?? 0) - (low[k] ?? 0)).toBeGreaterThan(-1e-9),
        );
        const [slow, fast] = [Math.min(a, b), Math.max(a, b)].map((speed) => main(fixed, speed).run.margin);
        fast!.forEach((entry, k) => expect((entry ?? 0) - (slow![k] ?? 0)).toBeLessThan(1e-9));
        const [before, after] = [a, b].map((speed) => main(sprung(torque), speed).run.margin);
        after!.forEach((entry, k) => expect(entry ?? 0).toBeCloseTo(before![k] ?? 0, 9));
      }),
      { numRuns: 40 },
    );
  });

  test('an arm holds its roller: torque over the change of path with its angle, by a step of another size', () => {
    const drive = sprung({ ac: 12, alt: 4 });
    const { standing, run } = main(drive, 2000);
    expect(standing.from).toBe('arm');
    const turned = (by: number) => {
      const angle = 0.83 + by;
      const x = ARM.pivot.x + ARM.armLength * Math.cos(angle);
      const y = ARM.pivot.y + ARM.armLength * Math.sin(angle);
      const moved = {
        ...drive,
        stations: drive.stations.map((station) => (station.id === 'ten' ? { ...station, x, y } : station)),
      };
      return tensionOf(moved).staticBelts[0]!.cordLength;
    };
    const perRadian = Math.abs(turned(0.01) - turned(-0.01)) / 0.02;
    const torque = 12 + 0.22 * ((0.83 * 180) / Math.PI - 20);
    expect(standing.tensionN).toBeCloseTo((torque * 1000) / perRadian, 0);
    const at = standing.arm!;
    expect(run.tensionN[at]! - run.centrifugalN).toBeCloseTo(standing.tensionN, 9);
    expect(run.tensionN[at - 1]! - run.centrifugalN).toBeCloseTo(standing.tensionN, 9);
  });
});

describe('several belts', () => {
  const shaft = (id: string, x: number, y: number, diameters: [number, number], role: Station['role']): Station => ({
    id,
    role,
    x,
    y,
    pulleys: diameters.map((diameter, k): Pulley => ({
      id: `${id}-${k + 1}`,
      surface: 'vee',
      diameter,
      plane: 40 * k,
    })),
  });
  const belt = (id: string, ...pulleys: string[]): Belt => ({
    id,
    section: 'AV13',
    length: null,
    staticTension: 400,
    route: pulleys.map((pulley) => ({ pulley, side: 'drive' })),
  });

  test('a jackshaft takes what its own belt takes, by its radii; power goes through', () => {
    const drive: Drive = {
      ...driveOf([], {}),
      stations: [
        station(['crank', 0, 0, 205.72], 'vee'),
        shaft('jack', 400, 0, [105.72, 165.72], 'jackshaft'),
        station(['fan', 400, 400, 85.72, 'drive', { plane: 40, role: 'fan' }], 'vee'),
      ],
      belts: [belt('first', 'crank', 'jack-1'), belt('second', 'jack-2', 'fan')],
    };
    const tension = tensionOf(taking(drive, { fan: 8 }));
    const { belts: ran, shafts } = runDrive(tension, { rpm: 1000 });
    const belts = ran.map((belt) => columnsOf(belt!));
    // Cord radii 100; 50 and 80; 40: the fan's 8 N·m are 200 N, 16 N·m on the jackshaft, 320 N, 32 N·m at the crank.
    expect(belts[1]!.torqueNm[0]).toBeCloseTo(-16, 9);
    expect(belts[0]!.torqueNm[1]).toBeCloseTo(16, 9);
    expect(belts[0]!.torqueNm[0]).toBeCloseTo(-32, 9);
    const [a, b] = [belts[0]!.hub[1]!, belts[1]!.hub[0]!];
    expect(shafts.get('jack')).toEqual({ x: expect.closeTo(a.x + b.x, 9), y: expect.closeTo(a.y + b.y, 9) });
  });

  test('twin belts share what their shaft takes', () => {
    const drive: Drive = {
      ...driveOf([], {}),
      stations: [shaft('crank', 0, 0, [150, 150], 'crankshaft'), shaft('alt', 400, 0, [90, 90], 'alternator')],
      belts: [belt('inner', 'crank-1', 'alt-1'), belt('outer', 'crank-2', 'alt-2')],
    };
    const { belts } = runDrive(tensionOf(taking(drive, { alt: 9 })), { rpm: 1000 });
    expect(belts.map((belt) => columnsOf(belt!).torqueNm[1])).toEqual([4.5, 4.5]);
  });
});

test('what wrap is worth is what the window asks less with it; wrap wanted makes the present tension do', () => {
  // Turned by 90° of wrap on the back of the belt, by an idler that takes 2 N·m.
  const drive = taking(driveOf(SERPENTINE, { staticTension: 400 }, { crankRotation: 'cw' }), { idler: 9, ac: 8 });
  const tension = tensionOf(drive);
  const remedies = remediesFor(tension, 'main', 'idler', [{ rpm: 900 }])!;
  expect(remedies.wrapWorthN).toBeGreaterThan(0);
  expect(remedies.drivenSideNeedsN!).toBeLessThan(remedies.needsN!);
  const run = columnsOf(runDrive(tension, { rpm: 900 }, { main: remedies.needsN! }).belts[0]!);
  expect(run.margin[3]).toBeCloseTo(0.25, 9);
  expect(remedies.wrapWantedDeg!).toBeGreaterThan(remedies.wrapDeg);
  // At the tension that it needs, the wrap it has is the wrap wanted.
  const just = remediesFor(tension, 'main', 'idler', [{ rpm: 900 }], remedies.needsN! - 1e-6)!;
  expect(just.wrapWantedDeg!).toBeCloseTo(just.wrapDeg, 4);
});

test('the map holds the same margins as a single state, and its first slip lies on the edge', () => {
  const drive = two(60);
  const tension = tensionOf(drive);
  const map = marginMap(tension, {
    belt: 'main',
    running: { rpm: 0 },
    rpmFrom: 500,
    rpmTo: 5000,
    columns: 10,
    rows: 7,
  })!;
  const entry = columnsOf(
    runDrive(tension, { rpm: map.columns[4]!.rpm, load: map.columns[4]!.cells[3]!.load }).belts[0]!,
  );
  expect(map.columns[4]!.cells[3]!.margin).toBeCloseTo(Math.min(...(entry.margin as number[])), 12);
  const cells = map.columns.flatMap((column) => column.cells);
  expect(cells.filter(({ load }) => load === 0).every(({ margin }) => margin === null)).toBe(true);
  expect(map.first!.pulley).toBe('alt');
  const below = cells.filter(({ load }) => load < map.first!.load);
  expect(below.length).toBeGreaterThan(0);
  expect(below.every(({ margin }) => margin === null || margin >= 0)).toBe(true);
});

test('bearing life: half the load again leaves under a third', () => {
  expect(lifeRatio(150, 100)).toBeCloseTo(1 / 1.5 ** 3, 12);
  expect(lifeRatio(150, 100)!).toBeLessThan(1 / 3);
});

describe('what an accessory takes', () => {
  const shaft = (role: Station['role'], more: Partial<Station> = {}) => ({ role, ...more }) as Station;
  test('points go before power, power before a default; held beyond the points', () => {
    const points = [
      { rpm: 1000, nm: 4 },
      { rpm: 3000, nm: 10 },
    ];
    const both = shaft('ac-compressor', { torque: [{ state: 'in', points }], power: { rpm: 2000, kw: 2 } });
    const [first] = torqueStates(both);
    expect([500, 1000, 3000, 9000].map((rpm) => first!.nm(rpm))).toEqual([4, 4, 10, 10]);
    expect(first!.nm(2000)).toBeGreaterThan(4);
    const [fan] = torqueStates(shaft('fan', { power: { rpm: 2000, kw: 2 } }));
    expect(fan!.nm(2000)).toBeCloseTo(2000 / ((2000 * 2 * Math.PI) / 60), 9);
    expect(fan!.nm(4000) / fan!.nm(2000)).toBeCloseTo(4, 12);
  });
  test('an alternator by its current: watts over efficiency and speed, no more than it gives', () => {
    const loads = [
      { id: 'a', amps: 40, on: true },
      { id: 'b', amps: 60, on: false },
    ];
    const [now, all] = torqueStates(shaft('alternator'), loads);
    expect(now!.nm(3000)).toBeCloseTo((40 * 14) / 0.6 / ((3000 * 2 * Math.PI) / 60), 9);
    expect(all!.nm(3000) / now!.nm(3000)).toBeCloseTo(2.5, 9);
    const output = [
      { rpm: 1000, amps: 10 },
      { rpm: 4000, amps: 20 },
    ];
    expect(torqueStates(shaft('alternator', { output }), loads)[0]!.nm(4000)).toBeCloseTo(now!.nm(4000) / 2, 9);
    expect(torqueStates(shaft('idler'))[0]!.nm(3000)).toBe(0);
  });
});

test('a push read backwards is the push, whatever the tension and stiffness', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 3000, noNaN: true }),
      fc.constantFrom(0, 84_000),
      fc.double({ min: 1, max: 100, noNaN: true }),
      (tensionN, stiffness, newtons) => {
        fc.pre(tensionN > 1 || stiffness > 0);
        const span = { lengthMm: 300, kgPerMetre: 0.1, stiffness, widthMm: 21, twistStiffness: 800 };
        expect(pushFor(span, tensionN, pushedBy(span, tensionN, newtons))).toBeCloseTo(newtons, 6);
      },
    ),
  );
});

test('a tooth carries the pull of its pulley over the whole teeth in mesh, by hand', () => {
  // 20 and 40 teeth of 9.525 mm, 300 mm apart: cord radii as many pitches over a whole turn.
  const drive = taking(
    driveOf(
      [
        ['crank', 0, 0, 60, 'drive', { teeth: 20 } as never],
        ['alt', 300, 0, 120, 'drive', { teeth: 40 } as never],
      ],
      { section: 'L', staticTension: 400 },
    ),
    { alt: 12 },
  );
  const { standing, belt } = main(drive, 2000);
  const [small, large] = [20, 40].map((teeth) => (teeth * 9.525) / (2 * Math.PI)) as [number, number];
  const lean = Math.asin((large - small) / 300);
  const pullN = 12_000 / large;
  const loads = toothLoads(standing, belt);
  expect(loads).toEqual([
    {
      pulley: 'crank',
      teeth: expect.closeTo((small * (Math.PI - 2 * lean)) / 9.525, 9) as number,
      pullN: expect.closeTo(pullN, 9) as number,
      perToothN: expect.closeTo(pullN / 9, 9) as number,
    },
    {
      pulley: 'alt',
      teeth: expect.closeTo((large * (Math.PI + 2 * lean)) / 9.525, 9) as number,
      pullN: expect.closeTo(pullN, 9) as number,
      perToothN: expect.closeTo(pullN / 21, 9) as number,
    },
  ]);
  expect(toothLoads(main(two(10), 1500).standing, main(two(10), 1500).belt)).toEqual([]);
});
