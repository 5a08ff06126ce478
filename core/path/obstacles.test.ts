import fc from 'fast-check';
import { driveOf, SERPENTINE } from '../test/examples';
import { type Drive, type Obstacle, putItem, readDrive } from '../drive';
import { proposeIdlers, searchRoutes } from '../route';
import { beltClearances } from './clearance';
import { solveBelt, solveDrive } from './solve';
import { nearestOfSegments } from './tangent';

/** Two equal pulleys 400 apart: spans at y = ±52, cord radius 52. */
const pair = (...obstacles: Obstacle[]): Drive =>
  obstacles.reduce(
    (drive, obstacle) => putItem(drive, 'obstacles', obstacle),
    driveOf([
      ['crank', 0, 0, 100],
      ['alt', 400, 0, 100],
    ]),
  );
const bolt = (x: number, y: number, more: Partial<Obstacle> = {}): Obstacle => ({
  id: 'bolt',
  x,
  y,
  diameter: 10,
  ...more,
});
const codes = (drive: Drive) => solveDrive(drive).belts[0]!.findings.map(({ code }) => code);

test('a bolt in a span stops the belt, one close by is watched, one further off is nothing', () => {
  // The belt's back is 1.3 mm outside the cord, so a bolt of radius 5 touches at 52 + 1.3 + 5.
  expect(codes(pair(bolt(200, 58.2)))).toEqual(['hits-obstacle']);
  expect(solveDrive(pair(bolt(200, 58.2))).belts[0]!.closed).toBe(false);
  expect(codes(pair(bolt(200, 60)))).toEqual(['near-obstacle']);
  expect(codes(pair(bolt(200, 61.5)))).toEqual([]);
});

test('an arm counts along its whole length, a bolt against a wrap, and neither in another plane', () => {
  expect(codes(pair(bolt(200, 20, { to: { x: 200, y: 120 } })))).toEqual(['hits-obstacle']);
  expect(codes(pair(bolt(-57, 0)))).toEqual(['hits-obstacle']);
  expect(codes(pair(bolt(200, 52, { plane: 40 })))).toEqual([]);
});

test('the distance between two pieces is what many points along them make it', () => {
  const at = fc.record({
    x: fc.double({ min: -50, max: 50, noNaN: true }),
    y: fc.double({ min: -50, max: 50, noNaN: true }),
  });
  fc.assert(
    fc.property(at, at, at, at, (a, b, c, d) => {
      let min = Infinity;
      for (let i = 0; i <= 60; i += 1) {
        for (let j = 0; j <= 60; j += 1) {
          const p = { x: a.x + ((b.x - a.x) * i) / 60, y: a.y + ((b.y - a.y) * i) / 60 };
          const q = { x: c.x + ((d.x - c.x) * j) / 60, y: c.y + ((d.y - c.y) * j) / 60 };
          min = Math.min(min, Math.hypot(p.x - q.x, p.y - q.y));
        }
      }
      const { mm: exact, onA, onB } = nearestOfSegments(a, b, c, d);
      if (exact > 0) expect(Math.hypot(onA.x - onB.x, onA.y - onB.y)).toBeCloseTo(exact, 9);
      expect(exact).toBeLessThanOrEqual(min + 1e-9);
      expect(min - exact).toBeLessThan(3);
    }),
    { numRuns: 60 },
  );
});

test('the clearance of a span names the nearest thing, from the face of the belt', () => {
  const drive = pair(bolt(200, 70, { id: 'near' }), bolt(200, 95, { id: 'far' }));
  const { spans, least } = beltClearances(drive, solveBelt(drive, 'main')!);
  expect(spans.map((span) => span?.obstacle)).toEqual(['near', 'near']);
  expect(least).toBeCloseTo(70 - 52 - 5 - 1.3, 6);
  expect(
    beltClearances(driveOf(SERPENTINE), solveBelt(driveOf(SERPENTINE), 'main')!).spans.every(
      (span) => span === null || Number.isFinite(span.mm),
    ),
  ).toBe(true);
});

test('routes that hit an obstacle are not found, and those found are clear of it', () => {
  const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
  const free = searchRoutes(drive, 'main', { top: 100 });
  const best = solveBelt(
    { ...drive, belts: drive.belts.map((belt) => ({ ...belt, route: free.routes[0]!.route })) },
    'main',
  )!;
  const { start, end } = best.spans.reduce((longest, span) => (span.length! > longest.length! ? span : longest));
  const blocked = putItem(drive, 'obstacles', bolt((start.x + end.x) / 2, (start.y + end.y) / 2));
  const found = searchRoutes(blocked, 'main', { top: 100 }).routes;
  const still = free.routes.filter(
    ({ route }) => solveBelt({ ...blocked, belts: blocked.belts.map((belt) => ({ ...belt, route })) }, 'main')!.closed,
  );
  expect(found.map(({ route }) => JSON.stringify(route)).sort()).toEqual(
    still.map(({ route }) => JSON.stringify(route)).sort(),
  );
  expect(found.length).toBeLessThan(free.routes.length);
});

describe('where an idler helps', () => {
  // A small alternator on a long, nearly straight run: little wrap.
  const poor = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 190, 250, 58, 'drive', { role: 'alternator' }],
      ['pump', 330, 30, 120],
    ],
    {},
    { crankRotation: 'cw' },
  );

  test('every proposal runs, and does what it says', () => {
    const drive = { ...poor, belts: poor.belts.map((belt) => ({ ...belt, route: [...belt.route] })) };
    const before = solveBelt(drive, 'main')!;
    const { proposals } = proposeIdlers(drive, 'main', { diameter: 70 });
    expect(proposals.length).toBeGreaterThan(0);
    for (const { station, index, stop, after, before: was, worst, lengthMm } of proposals) {
      const placed: Drive = {
        ...drive,
        stations: [...drive.stations, station],
        belts: drive.belts.map((belt) => ({
          ...belt,
          route: [...belt.route.slice(0, index), stop, ...belt.route.slice(index)],
        })),
      };
      const solved = solveBelt(placed, 'main')!;
      expect(solved.closed).toBe(true);
      expect(after).toBeGreaterThan(was);
      expect(solved.contacts.find(({ pulley }) => pulley === worst.pulley)!.wrapDeg!).toBeGreaterThan(
        before.contacts.find(({ pulley }) => pulley === worst.pulley)!.wrapDeg!,
      );
      // Rounded to whole millimetres after the search, so the length is near, not equal.
      expect(Math.abs(solved.length.mm! - lengthMm)).toBeLessThan(4);
    }
  });

  test('an idler drawn with a region stays in it', () => {
    const station = {
      id: 'new',
      role: 'idler' as const,
      x: 250,
      y: 120,
      optional: true,
      region: { x: 250, y: 120, radius: 45 },
      pulleys: [{ id: 'new-1', surface: 'smooth' as const, diameter: 60 }],
    };
    const drive = { ...poor, stations: [...poor.stations, station] };
    expect(readDrive(drive).ok).toBe(true);
    for (const proposal of proposeIdlers(drive, 'main', { station: 'new' }).proposals) {
      expect(Math.hypot(proposal.station.x - 250, proposal.station.y - 120)).toBeLessThanOrEqual(46);
      expect(proposal.station.id).toBe('new');
    }
  });

  test('it can be stopped, and a belt that cannot run has none', () => {
    expect(proposeIdlers(poor, 'main', { shouldStop: () => true }).cancelled).toBe(true);
    expect(proposeIdlers({ ...poor, belts: [{ ...poor.belts[0]!, route: [] }] }, 'main').proposals).toEqual([]);
    expect(proposeIdlers(poor, 'none').proposals).toEqual([]);
  });
});
