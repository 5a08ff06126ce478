import { driveOf, SERPENTINE, type Stop } from '../test/examples';
import { changeStation, type Drive, type RouteStop } from '../drive';
import { solveBelt } from '../path';
import { carriedBy } from './carried';
import { proposeIdlers } from './idler';
import { searchRoutes } from './search';
import { routeReason } from './words';
import { draws } from '../test/draws';

const cw = (stops: Stop[]): Drive => driveOf(stops, { route: [] }, { crankRotation: 'cw' });
const key = (route: readonly RouteStop[]) => route.map(({ pulley, side }) => `${pulley}/${side}`).join(' ');

/** Every order of the pulleys, solved one by one. */
function bruteForce(drive: Drive): Map<string, number> {
  const stops = carriedBy(drive, drive.belts[0]!).carried.map(({ pulley, sides }) => ({
    pulley: pulley.id,
    side: sides[0]!,
  }));
  const closed = new Map<string, number>();
  const permute = (route: RouteStop[], rest: RouteStop[]) => {
    if (rest.length === 0) {
      const solved = solveBelt({ ...drive, belts: [{ ...drive.belts[0]!, route }] }, 'main')!;
      if (solved.closed) closed.set(key(route), solved.length.mm!);
    }
    rest.forEach((stop, k) =>
      permute(
        [...route, stop],
        rest.filter((_, at) => at !== k),
      ),
    );
  };
  permute(stops.slice(0, 1), stops.slice(1));
  return closed;
}

test('finds just the routes that trying every order finds, and their lengths', () => {
  let some = 0;
  for (let seed = 1; seed <= draws(40); seed += 1) {
    const random = (k: number) => Math.abs(Math.sin(seed * 91.7 + k * 47.3) * 9973.1) % 1;
    const stops = Array.from({ length: 6 }, (_, k): Stop => {
      const back = k > 0 && random(k + 60) < 0.35;
      const angle = (2 * Math.PI * k) / 6 + 0.4 * random(k);
      const reach = back ? 130 + 60 * random(k + 20) : 220 + 60 * random(k + 20);
      return [
        k === 0 ? 'crank' : `p${k}`,
        reach * Math.cos(angle),
        reach * Math.sin(angle),
        50 + 40 * random(k + 40),
        back ? 'back' : 'drive',
      ];
    });
    const drive = cw(stops);
    const expected = bruteForce(drive);
    const { routes } = searchRoutes(drive, 'main', { top: 1000 });
    expect(new Set(routes.map(({ route }) => key(route)))).toEqual(new Set(expected.keys()));
    for (const { route, lengthMm } of routes) expect(lengthMm).toBeCloseTo(expected.get(key(route))!, 9);
    some += routes.length;
  }
  expect(some).toBeGreaterThan(draws(20));
});

test('the drive as it was built is among the best, with its tensioner on the slack span', () => {
  const { routes } = searchRoutes(cw(SERPENTINE), 'main');
  const built = routes.find(
    ({ route }) => route.map(({ pulley }) => pulley).join() === SERPENTINE.map(([id]) => id).join(),
  )!;
  expect(routes.indexOf(built)).toBeLessThan(3);
  expect(built.reasons.map(({ code }) => code)).toContain('tensioner-slack');
});

test('a smooth pump that must turn with the crank is brought to the drive side; a grooved one that must not has no route', () => {
  const change = (requires: 'cw' | 'ccw', id: string) =>
    cw(
      SERPENTINE.map((stop): Stop =>
        stop[0] === id ? [stop[0], stop[1], stop[2], stop[3], stop[4], { ...stop[5], requires }] : stop,
      ),
    );
  for (const { route } of searchRoutes(change('cw', 'idler'), 'main').routes)
    expect(route.find(({ pulley }) => pulley === 'idler')!.side).toBe('drive');
  expect(searchRoutes(change('ccw', 'alt'), 'main').routes).toEqual([]);
});

test('pulleys of another plane and of another belt stay off; belt.carries decides where it is given', () => {
  const drive = cw(
    SERPENTINE.map((stop): Stop =>
      stop[0] === 'idler' ? [stop[0], stop[1], stop[2], stop[3], stop[4], { ...stop[5], plane: 60 }] : stop,
    ),
  );
  expect(carriedBy(drive, drive.belts[0]!).carried.map(({ pulley }) => pulley.id)).not.toContain('idler');
  const listed = { ...drive.belts[0]!, carries: ['crank', 'idler', 'alt'] };
  expect(carriedBy({ ...drive, belts: [listed] }, listed).carried.map(({ pulley }) => pulley.id)).toEqual([
    'crank',
    'idler',
    'alt',
  ]);
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
  const ring = Array.from({ length: 12 }, (_, k): Stop => [
    k === 0 ? 'crank' : `p${k}`,
    400 * Math.cos(k / 1.91),
    400 * Math.sin(k / 1.91),
    40,
    k % 3 === 1 ? 'back' : 'drive',
  ]);
  const shares: number[] = [];
  const { cancelled } = searchRoutes(cw(ring), 'main', {
    onProgress: (share) => shares.push(share),
    shouldStop: () => shares.length > 3,
  });
  expect(cancelled).toBe(true);
  expect(shares.every((share) => share >= 0 && share <= 1)).toBe(true);
});

test('nothing to search is an empty answer', () => {
  expect(searchRoutes(cw([]), 'main').routes).toEqual([]);
  expect(searchRoutes(cw([['crank', 0, 0, 100]]), 'main').routes).toEqual([]);
  expect(searchRoutes(cw(SERPENTINE), 'ghost').routes).toEqual([]);
});

/** A jackshaft that the crank's belt turns by its back, and a second belt from it to a pump and a fan. */
const jackByBack = (crankRotation: 'cw' | 'ccw'): Drive => {
  const main = driveOf(
    [
      ['crank', 0, 0, 160],
      ['jack', 200, 60, 90, 'back'],
      ['alt', 400, 0, 120],
    ],
    {},
    { crankRotation },
  );
  const second = driveOf([
    ['pump', 60, 300, 110],
    ['fan', 340, 320, 110],
  ]).stations.map((s) => ({ ...s, pulleys: s.pulleys.map((p) => ({ ...p, plane: 60 })) }));
  const route = crankRotation === 'cw' ? main.belts[0]!.route : [...main.belts[0]!.route].reverse();
  return {
    ...main,
    stations: [
      ...main.stations.map((s) =>
        s.id === 'jack'
          ? {
              ...s,
              role: 'jackshaft' as const,
              pulleys: [
                ...s.pulleys,
                { id: 'jack-2', surface: 'ribbed' as const, grooves: 6, diameter: 100, plane: 60 },
              ],
            }
          : s,
      ),
      ...second,
    ],
    belts: [
      { ...main.belts[0]!, route },
      { id: 'second', section: 'PK', ribs: 6, length: null, route: [] },
    ],
  };
};

test.each(['cw', 'ccw'] as const)(
  "a belt from a shaft that another belt's back turns runs that shaft's way, crank %s",
  (rotation) => {
    for (const carries of [undefined, ['jack-2', 'pump', 'fan']]) {
      const plain = jackByBack(rotation);
      const drive = {
        ...plain,
        belts: plain.belts.map((belt) => (belt.id === 'second' && carries ? { ...belt, carries } : belt)),
      };
      const { routes } = searchRoutes(drive, 'second');
      expect(routes.length).toBeGreaterThan(0);
      expect(routes[0]!.route[0]!.pulley).toBe('jack-2');
      const solved = solveBelt(
        {
          ...drive,
          belts: drive.belts.map((belt) => (belt.id === 'second' ? { ...belt, route: routes[0]!.route } : belt)),
        },
        'second',
      )!;
      expect(solved.closed).toBe(true);
      expect(solved.findings.filter(({ severity }) => severity === 'fault')).toEqual([]);
      // The back of the first belt turns the jackshaft against the crank, and it turns the second belt's pulleys its
      // own way.
      expect(solved.contacts.map((contact) => contact.rotation)).toEqual(
        solved.contacts.map(() => (rotation === 'cw' ? 'ccw' : 'cw')),
      );
    }
  },
);

test('an optional accessory that would turn the wrong way is left off, with the reason, and never given half a stop', () => {
  const plain = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 100],
      ['pump', 150, 90, 60],
    ],
    { route: [] },
    { crankRotation: 'cw' },
  );
  const drive: Drive = {
    ...plain,
    stations: plain.stations.map((s) => (s.id === 'pump' ? { ...s, optional: true, requires: 'ccw' as const } : s)),
  };
  const { routes } = searchRoutes(drive, 'main');
  expect(routes.length).toBe(1);
  expect(routes[0]!.route).toEqual([
    { pulley: 'crank', side: 'drive' },
    { pulley: 'alt', side: 'drive' },
  ]);
  expect(routes[0]!.reasons).toContainEqual({ code: 'cannot-turn', pulley: 'pump' });
});

describe('a search that is too much for anybody ends by itself and says so', () => {
  /** So many pulleys on a ring that all but four may be left off. */
  const ring = (count: number): Drive => {
    const drive = cw(
      Array.from({ length: count + 4 }, (_, k): Stop => [
        k === 0 ? 'crank' : `p${k}`,
        2000 * Math.cos((2 * Math.PI * k) / (count + 4)),
        2000 * Math.sin((2 * Math.PI * k) / (count + 4)),
        60,
        'drive',
      ]),
    );
    return {
      ...drive,
      stations: drive.stations.map((station, k) => ({ ...station, ...(k > 3 && { optional: true }) })),
    };
  };

  test('with few that may be left off it looks at every way; with many at those that leave off fewest', () => {
    expect(searchRoutes(ring(4), 'main')).toMatchObject({ complete: true, sets: { looked: 16, of: 16 } });
    const much = searchRoutes(ring(24), 'main', { most: { steps: 100_000, routes: 200 } });
    expect(much).toMatchObject({ complete: false, cancelled: false, sets: { of: 2 ** 24 } });
    const some = searchRoutes(ring(11), 'main', { top: 5, most: { steps: 1_000_000, routes: 50 } });
    expect(some.complete).toBe(false);
    expect(some.sets.looked).toBeLessThan(some.sets.of);
  });

  test('whoever asks may look at less: routes or steps, whichever comes first', () => {
    for (const max of [
      { steps: 1_000_000, routes: 20 },
      { steps: 50_000, routes: 2000 },
    ]) {
      const { complete, cancelled, sets, searched } = searchRoutes(ring(16), 'main', { most: max });
      expect([complete, cancelled]).toEqual([false, false]);
      expect(sets.looked).toBeLessThan(100);
      expect(searched).toBeLessThan(1.1 * max.steps);
    }
  });

  test('places for an idler are tried wider apart where a shaft stands far off', () => {
    const near = proposeIdlers(cw(SERPENTINE), 'main');
    expect(near.stepMm).toBe(16);
    const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
    const far = proposeIdlers(
      {
        ...drive,
        stations: drive.stations.map((station) =>
          station.id === 'alt' ? { ...station, x: 60_000, y: 90_000 } : station,
        ),
      },
      'main',
    );
    expect(far.tried).toBeLessThan(20_000);
    expect(far.stepMm).toBeGreaterThan(100);
  });
});

test('a pulley that is left off the belt still stands on the engine: a route through it says so, and by how much', () => {
  const drive: Drive = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 400, 0, 80],
      ['ac', 200, 20, 110],
    ],
    { route: [] },
  );
  const optional = changeStation(drive, 'ac', { optional: true });
  const { routes } = searchRoutes(optional, 'main');
  const without = routes.find(({ route }) => route.length === 2)!;
  const said = without.reasons.find(({ code }) => code === 'only-without')!;
  // By hand: both spans touch circles of 82 and 42 mm that stand 400 apart; the belt's inner face lies 3.3 mm inside.
  const lean = Math.asin((82 - 42) / 400);
  const inside = [1, -1].map((side) => 82 - (200 * Math.sin(lean) + side * 20 * Math.cos(lean)));
  const nearest = Math.min(...inside) - 55 - 3.3;
  expect(said).toMatchObject({ pulley: 'ac' });
  expect(said.figures!['roomMm']!).toBeLessThan(0);
  expect(said.figures!['roomMm']!).toBeCloseTo(nearest, 0);
  expect(without.reasons.map((reason) => routeReason(optional, reason)).join()).toMatch(
    /only with .* taken off the engine: the belt runs \d+ mm through it/,
  );
  // Out of the way, nothing is to be taken off.
  const aside = changeStation(optional, 'ac', { y: 400 });
  const clear = searchRoutes(aside, 'main').routes.find(({ route }) => route.length === 2)!;
  expect(clear.reasons.map(({ code }) => code)).not.toContain('only-without');
});
