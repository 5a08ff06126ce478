import fc from 'fast-check';
import { lengthCurve } from '../adjuster';
import {
  addStation,
  changeBelt,
  changePulley,
  changeStation,
  type Drive,
  newBelt,
  newDrive,
  newStation,
  putItem,
  readDrive,
  tapped,
  writeDrive,
} from '../drive';
import { solveDrive } from '../path';
import { SECTIONS } from '../section';
import { DEMO } from '../test/demo';
import { driveOf, SERPENTINE } from '../test/examples';
import { LAYOUT_SECTION, LAYOUT_WORDS, layoutDrive, LAYOUTS, nextAsk, nextWords, startedFrom } from './index';

describe('layouts', () => {
  test.each(LAYOUTS)('%s reads back, and its belts go round with nothing that would stop them', (layout) => {
    for (const section of SECTIONS.map(({ name }) => name)) {
      const drive = layoutDrive(layout, 'New', section);
      expect(readDrive(JSON.parse(writeDrive(drive)))).toMatchObject({ ok: true });
      expect(drive.stations[0]).toMatchObject({ role: 'crankshaft', x: 0, y: 0 });
      expect(drive.belts.every((belt) => belt.section === section && (belt.length ?? null) === null)).toBe(true);
      if (layout === 'crank') continue;
      const { belts, findings } = solveDrive(drive);
      const faults = [...findings, ...belts.flatMap((belt) => belt.findings)].filter(
        ({ severity }) => severity === 'fault',
      );
      expect({ section, faults }).toEqual({ section, faults: [] });
      expect(belts.every(({ closed }) => closed)).toBe(true);
    }
  });

  test('those with an adjuster stand inside its travel, and tightening takes up belt', () => {
    for (const layout of LAYOUTS.filter((entry) => entry !== 'crank')) {
      const drive = layoutDrive(layout, 'New', LAYOUT_SECTION[layout]);
      for (const belt of drive.belts) {
        const { travel, lengths } = lengthCurve(drive, belt)!;
        expect(travel.now).toBeGreaterThan(0.05);
        expect(travel.now).toBeLessThan(0.95);
        expect(lengths.at(-1)! - lengths[0]!).toBeGreaterThan(8);
      }
    }
    expect(Object.keys(LAYOUT_WORDS)).toEqual([...LAYOUTS]);
  });
});

describe('another drive to start from', () => {
  test.each(Object.entries(DEMO))('%s: with its parts, and without', (_name, drive) => {
    const kept = startedFrom(drive, 'Like it', true);
    const bare = startedFrom(drive, 'Like it', false);
    for (const made of [kept, bare]) {
      expect(readDrive(JSON.parse(writeDrive(made)))).toMatchObject({ ok: true });
      expect(made.name).toBe('Like it');
      expect(made.stations.map(({ x, y }) => [x, y])).toEqual(drive.stations.map(({ x, y }) => [x, y]));
      expect(made.belts.map(({ route }) => route)).toEqual(drive.belts.map(({ route }) => route));
      // Nothing that was read, found or done on the other is told of this one.
      expect([made.survey, made.noise, made.inspect, made.job]).toEqual([undefined, undefined, undefined, undefined]);
      for (const belt of made.belts)
        expect([belt.length, belt.care, belt.measurements, belt.tensionReadings]).toEqual([
          null,
          undefined,
          undefined,
          undefined,
        ]);
    }
    expect(kept.stations).toEqual(drive.stations);
    expect(bare.stations.every((station) => !('torque' in station) && !('speedBand' in station))).toBe(true);
  });
});

describe('what comes next', () => {
  test('one thing at a time, from an empty drive to a length', () => {
    let drive: Drive = newDrive('New');
    drive = { ...drive, belts: [newBelt(drive, 'PK')] };
    const asked: string[] = [];
    const next = () => {
      const ask = nextAsk(drive);
      asked.push(ask?.code ?? 'nothing');
      if (ask) expect(nextWords(drive, ask).line).toMatch(/^[A-Z].*\.$/);
      return ask;
    };
    next();
    drive = addStation(drive, newStation(drive, 'crankshaft', 0, 0, 'PK'));
    next();
    drive = addStation(drive, newStation(drive, 'alternator', 200, 200, 'PK'));
    expect(next()).toEqual({ code: 'diameter', pulley: 'crank-1-1' });
    // One that truly has the starting size is settled by being read.
    drive = putItem(drive, 'survey.diameters', { id: 'd', pulley: 'crank-1-1', method: 'calliper', mm: 160 });
    expect(next()).toEqual({ code: 'diameter', pulley: 'alternator-1-1' });
    drive = changePulley(drive, 'alternator-1-1', { diameter: 61 });
    expect(next()).toEqual({ code: 'tape', left: 1 });
    drive = putItem(drive, 'survey.readings', {
      id: 't',
      kind: 'outer',
      from: 'crank-1-1',
      to: 'alternator-1-1',
      mm: 393,
    });
    next();
    drive = tapped(tapped(drive, 'belt-1', 'crank-1'), 'belt-1', 'alternator-1');
    next();
    drive = changeStation(drive, 'alternator-1', { adjuster: { kind: 'slide', direction: 45, travel: 20 } });
    next();
    drive = changeBelt(drive, 'belt-1', { length: 900 });
    next();
    expect(asked).toEqual([
      'crank',
      'pulleys',
      'diameter',
      'diameter',
      'tape',
      'route',
      'adjuster',
      'length',
      'nothing',
    ]);
  });

  test('a layout asks for its sizes first; places said to be right, fixed centres and a route that does not close', () => {
    const drive = layoutDrive('arm', 'New', 'PK');
    expect(nextAsk(drive)).toMatchObject({ code: 'diameter' });
    const sized = drive.stations.reduce(
      (now, { pulleys: [pulley] }) => changePulley(now, pulley!.id, { diameter: pulley!.diameter! + 1 }),
      drive,
    );
    expect(nextAsk(sized)).toEqual({ code: 'tape', left: 9 });
    expect(nextAsk(sized, { placed: true })).toEqual({ code: 'length', belt: 'belt-1' });
    const loose = {
      ...sized,
      stations: sized.stations.map(({ adjuster: _adjuster, ...station }) => station),
    };
    expect(nextAsk(loose, { placed: true })).toEqual({ code: 'adjuster', belt: 'belt-1' });
    const centres = changeStation(loose, 'idler-1', { adjuster: { kind: 'fixed' } });
    expect(nextAsk(centres, { placed: true })).toEqual({ code: 'length', belt: 'belt-1' });
    const crossed = changeBelt(sized, 'belt-1', {
      route: sized.belts[0]!.route.map((stop) => ({ ...stop, side: 'drive' as const })),
    });
    expect(nextAsk(crossed, { placed: true })?.code).toBe('route-open');
  });

  test('nothing is wanted of a drive whose belts have their lengths; every ask has words, whatever the drive', () => {
    expect(nextAsk({ ...driveOf(SERPENTINE, { length: 1700 }) })).toBeNull();
    for (const drive of Object.values(DEMO)) {
      const ask = nextAsk(drive);
      if (ask) expect(nextWords(drive, ask).button).toMatch(/^[A-Z]/);
    }
    fc.assert(
      fc.property(fc.subarray(LAYOUTS.slice()), fc.subarray(SECTIONS.map(({ name }) => name)), (layouts, sections) => {
        for (const layout of layouts)
          for (const section of sections) {
            const drive = layoutDrive(layout, 'New', section);
            const ask = nextAsk(drive);
            expect(ask).not.toBeNull();
            expect(nextWords(drive, ask!).line.length).toBeLessThan(80);
          }
      }),
      { numRuns: 20 },
    );
  });
});
