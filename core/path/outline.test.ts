import { driveOf, SERPENTINE, type Stop } from '../test/examples';
import { beltBounds, beltOutline, spanMidpoints } from './outline';
import { sketchOf } from './sketch';
import { solveBelt } from './solve';

/** Follows an SVG path of M, L, A and Z as a browser would, in small steps, and returns its points. */
function walk(path: string): [number, number][] {
  const points: [number, number][] = [];
  const commands = [...path.matchAll(/([MLAZ])([^MLAZ]*)/g)].map(([, letter, rest]) => ({
    letter: letter!,
    numbers: rest!.trim().split(/[ ,]+/).filter(Boolean).map(Number),
  }));
  for (const { letter, numbers } of commands) {
    const last = points[points.length - 1]!;
    if (letter === 'M' || letter === 'L') points.push([numbers[0]!, numbers[1]!]);
    else if (letter === 'Z') points.push(points[0]!);
    else points.push(...arcPoints(last, numbers as [number, number, number, number, number, number, number]));
  }
  return points;
}

/** An arc from end point and flags, by the rule of the SVG recommendation (implementation notes, appendix B). */
function arcPoints(
  [x0, y0]: [number, number],
  [r, , , large, sweep, x1, y1]: [number, number, number, number, number, number, number],
): [number, number][] {
  const [hx, hy] = [(x0 - x1) / 2, (y0 - y1) / 2];
  const away = Math.sqrt(Math.max(0, r * r - hx * hx - hy * hy)) / (Math.hypot(hx, hy) || 1);
  const sign = large === sweep ? -1 : 1;
  const [cx, cy] = [(x0 + x1) / 2 + sign * away * hy, (y0 + y1) / 2 - sign * away * hx];
  const from = Math.atan2(y0 - cy, x0 - cx);
  let by = Math.atan2(y1 - cy, x1 - cx) - from;
  if (sweep === 1 && by < 0) by += 2 * Math.PI;
  if (sweep === 0 && by > 0) by -= 2 * Math.PI;
  return Array.from({ length: 200 }, (_, k): [number, number] => [
    cx + r * Math.cos(from + (by * (k + 1)) / 200),
    cy + r * Math.sin(from + (by * (k + 1)) / 200),
  ]);
}

const lengthOf = (points: [number, number][]) =>
  points.slice(1).reduce((sum, [x, y], k) => sum + Math.hypot(x - points[k]![0], y - points[k]![1]), 0);
const serpentine = () => solveBelt(driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), 'main')!;

test('the belt as drawn is as long as the belt as solved', () => {
  expect(lengthOf(walk(beltOutline(serpentine())))).toBeCloseTo(serpentine().cordLength!, 1);
});

test.each([-3, -1.3, 2, 3.3])('a line %s mm toward the drive side differs by one full turn of it', (offset) => {
  expect(lengthOf(walk(beltOutline(serpentine(), offset)))).toBeCloseTo(
    serpentine().cordLength! - 2 * Math.PI * offset,
    1,
  );
});

test('the drawn line keeps off every pulley it runs on by just the cord radius', () => {
  const belt = serpentine();
  const points = walk(beltOutline(belt));
  for (const { centre, cordRadius } of belt.contacts) {
    const nearest = Math.min(...points.map(([x, y]) => Math.hypot(x - centre.x, -y - centre.y)));
    expect(nearest).toBeCloseTo(cordRadius, 1);
  }
});

test('a wrap over half a turn is drawn the long way round', () => {
  const belt = solveBelt(
    driveOf([
      ['crank', 0, 0, 160],
      ['idler', 90, 100, 60, 'back'],
      ['alt', 0, 260, 60],
      ['pump', -160, 150, 80],
    ]),
    'main',
  )!;
  expect(lengthOf(walk(beltOutline(belt)))).toBeCloseTo(belt.cordLength!, 1);
});

test('an impossible route still draws, and has no NaN in it', () => {
  const crossed: Stop[] = [
    ['crank', 0, 0, 100],
    ['a', 300, 0, 100, 'back'],
  ];
  const near: Stop[] = [
    ['crank', 0, 0, 100],
    ['a', 60, 0, 100, 'back'],
    ['b', 300, 200, 80],
  ];
  const unsized: Stop[] = [
    ['crank', 0, 0, 0],
    ['a', 300, 0, 50],
  ];
  for (const stops of [crossed, near, unsized]) {
    const path = beltOutline(solveBelt(driveOf(stops), 'main')!);
    expect(path).toMatch(/^M.*Z$/);
    expect(path).not.toMatch(/NaN|Infinity/);
  }
  expect(beltOutline(solveBelt(driveOf([['crank', 0, 0, 100]]), 'main')!)).toBe('');
});

test('arrows stand on their spans and point along the travel', () => {
  const belt = serpentine();
  for (const [k, { x, y, directionDeg }] of spanMidpoints(belt).entries()) {
    const { start, end } = belt.spans[k]!;
    expect(Math.hypot(x - start.x, y - start.y)).toBeCloseTo(Math.hypot(end.x - x, end.y - y), 9);
    expect(Math.cos((directionDeg * Math.PI) / 180)).toBeCloseTo((end.x - start.x) / belt.spans[k]!.length!, 9);
  }
});

test('bounds hold every pulley, an empty drive has some too, and the sketch of a drive shows it', () => {
  const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
  const { minX, minY, maxX, maxY } = beltBounds(drive);
  for (const { x, y, pulleys } of drive.stations) {
    const r = pulleys[0]!.diameter! / 2;
    expect(x - r > minX && x + r < maxX && y - r > minY && y + r < maxY).toBe(true);
  }
  expect(Object.values(beltBounds(driveOf([]))).every(Number.isFinite)).toBe(true);
  const sketch = sketchOf(drive);
  expect(sketch.circles).toHaveLength(6);
  expect(sketch.belts[0]).toMatchObject({
    closed: true,
    section: 'PK',
    ribs: 6,
    basis: 'effective',
    lengthMm: serpentine().length.mm,
  });
  expect(sketch.viewBox.split(' ').map(Number).every(Number.isFinite)).toBe(true);
});
