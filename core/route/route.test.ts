import { driveOf, SERPENTINE, type Stop } from '../drive/examples';
import type { Drive, RouteStop } from '../drive/types';
import { solveBelt } from '../path';
import { carriedBy } from './carried';
import { searchRoutes } from './search';

const cw = (stops: Stop[]): Drive => driveOf(stops, { route: [] }, { crankRotation: 'cw' });
const key = (route: readonly RouteStop[]) => route.map(({ pulley, side }) => `${pulley}/${side}`).join(' ');

/** Every order of the pulleys, solved one by one. */
function bruteForce(drive: Drive): Map<string, number> {
  const stops = carriedBy(drive, drive.belts[0]!).carried.map(({ pulley, sides }) => ({ pulley: pulley.id, side: sides[0]! }));
  const closed = new Map<string, number>();
  const permute = (route: RouteStop[], rest: RouteStop[]) => {
    if (rest.length === 0) {
      const solved = solveBelt({ ...drive, belts: [{ ...drive.belts[0]!, route }] }, 'main')!;
      if (solved.closed) closed.set(key(route), solved.length.mm!);
    }
    rest.forEach((stop, k) => permute([...route, stop], rest.filter((_, at) => at !== k)));
  };
  permute(stops.slice(0, 1), stops.slice(1));
  return closed;
}

test('finds just the routes that trying every order finds, and their lengths', () => {
  let some = 0;
  for (let seed = 1; seed <= 40; seed += 1) {
    const random = (k: number) => Math.abs(Math.sin(seed * 91.7 + k * 47.3) * 9973.1) % 1;
    const stops = Array.from({ length: 6 }, (_, k): Stop => {
      const back = k > 0 && random(k + 60) < 0.35;
      const angle = (2 * Math.PI * k) / 6 + 0.4 * random(k);
      const reach = back ? 130 + 60 * random(k + 20) : 220 + 60 * random(k + 20);
      return [k === 0 ? 'crank' : `p${k}`, reach * Math.cos(angle), reach * Math.sin(angle), 50 + 40 * random(k + 40), back ? 'back' : 'drive'];
    });
    const drive = cw(stops);
    const expected = bruteForce(drive);
    const { routes } = searchRoutes(drive, 'main', { top: 1000 });
    expect(new Set(routes.map(({ route }) => key(route)))).toEqual(new Set(expected.keys()));
    for (const { route, lengthMm } of routes) expect(lengthMm).toBeCloseTo(expected.get(key(route))!, 9);
    some += routes.length;
  }
  expect(some).toBeGreaterThan(20);
});

test('the drive as it was built is among the best, with its tensioner on the slack span', () => {
  const { routes } = searchRoutes(cw(SERPENTINE), 'main');
  const built = routes.find(({ route }) => route.map(({ pulley }) => pulley).join() === SERPENTINE.map(([id]) => id).join())!;
  expect(routes.indexOf(built)).toBeLessThan(3);
  expect(built.reasons.map(({ code }) => code)).toContain('tensioner-slack');
});

test('a smooth pump that must turn with the crank is brought to the drive side; a grooved one that must not has no route', () => {
  const change = (requires: 'cw' | 'ccw', id: string) => cw(SERPENTINE.map((stop): Stop => (stop[0] === id ? [stop[0], stop[1], stop[2], stop[3], stop[4], { ...stop[5], requires }] : stop)));
  for (const { route } of searchRoutes(change('cw', 'idler'), 'main').routes) expect(route.find(({ pulley }) => pulley === 'idler')!.side).toBe('drive');
  expect(searchRoutes(change('ccw', 'alt'), 'main').routes).toEqual([]);
});

test('pulleys of another plane and of another belt stay off; belt.carries decides where it is given', () => {
  const drive = cw(SERPENTINE.map((stop): Stop => (stop[0] === 'idler' ? [stop[0], stop[1], stop[2], stop[3], stop[4], { ...stop[5], plane: 60 }] : stop)));
  expect(carriedBy(drive, drive.belts[0]!).carried.map(({ pulley }) => pulley.id)).not.toContain('idler');
  const listed = { ...drive.belts[0]!, carries: ['crank', 'idler', 'alt'] };
  expect(carriedBy({ ...drive, belts: [listed] }, listed).carried.map(({ pulley }) => pulley.id)).toEqual(['crank', 'idler', 'alt']);
});

test('an optional pulley may be left off, and the reasons say so', () => {
  const plain = cw(SERPENTINE);
  const drive = { ...plain, stations: plain.stations.map((s) => (s.id === 'idler' ? { ...s, optional: true } : s)) };
  const { routes } = searchRoutes(drive, 'main', { top: 500 });
  const without = routes.filter(({ route }) => route.length === 5);
  expect(without.length).toBeGreaterThan(0);
  expect(without[0]!.reasons).toContainEqual({ code: 'left-off', pulley: 'idler' });
  expect(routes.some(({ route }) => route.length === 6)).toBe(true);
});

test('it can be stopped, and tells how far it is', () => {
  const ring = Array.from({ length: 12 }, (_, k): Stop => [k === 0 ? 'crank' : `p${k}`, 400 * Math.cos(k / 1.91), 400 * Math.sin(k / 1.91), 40, k % 3 === 1 ? 'back' : 'drive']);
  const shares: number[] = [];
  const { cancelled } = searchRoutes(cw(ring), 'main', { onProgress: (share) => shares.push(share), shouldStop: () => shares.length > 3 });
  expect(cancelled).toBe(true);
  expect(shares.every((share) => share >= 0 && share <= 1)).toBe(true);
});

test('nothing to search is an empty answer', () => {
  expect(searchRoutes(cw([]), 'main').routes).toEqual([]);
  expect(searchRoutes(cw([['crank', 0, 0, 100]]), 'main').routes).toEqual([]);
  expect(searchRoutes(cw(SERPENTINE), 'ghost').routes).toEqual([]);
});
