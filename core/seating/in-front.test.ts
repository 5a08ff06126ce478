import fc from 'fast-check';
import type { Drive, Pulley, Station } from '../drive';
import { solveDrive } from '../path';
import { beltsInFront, frontsOf } from './in-front';

/** V-belts over shafts at fixed places; each lies in one plane and has a sheave of its own on each of its shafts. */
function drive(places: readonly [number, number][], belts: readonly { on: readonly number[]; plane: number }[]): Drive {
  const stations = places.map(([x, y], k): Station => ({
    id: `s${k}`,
    role: k === 0 ? 'crankshaft' : 'other',
    x,
    y,
    pulleys: belts.flatMap(({ on, plane }, b): Pulley[] =>
      on.includes(k) ? [{ id: `p${k}-${b}`, surface: 'vee', diameter: 70 + 10 * k, plane }] : [],
    ),
  }));
  return {
    format: 'emery-drive',
    version: 1,
    crankRotation: 'cw',
    stations,
    belts: belts.map(({ on }, b) => ({
      id: `b${b}`,
      section: 'AV10',
      route: on.map((k) => ({ pulley: `p${k}-${b}`, side: 'drive' })),
    })),
  };
}

test('on a shaft of both the plane decides, and says where', () => {
  const two = drive(
    [
      [0, 0],
      [300, 0],
      [-300, 0],
    ],
    [
      { on: [0, 1], plane: 0 },
      { on: [0, 2], plane: 20 },
    ],
  );
  expect(beltsInFront(two, 'b0')).toEqual([{ belt: 'b1', station: 's0' }]);
  expect(beltsInFront(two, 'b1')).toEqual([]);
  expect(beltsInFront(two, 'none')).toEqual([]);
});

test('a belt that crosses in front of another without a shaft of its own is in front; apart they are free', () => {
  const places: [number, number][] = [
    [0, 0],
    [400, 0],
    [200, -200],
    [200, 200],
    [700, 0],
    [900, 0],
  ];
  const crossed = drive(places, [
    { on: [0, 1], plane: 0 },
    { on: [2, 3], plane: 25 },
    { on: [4, 5], plane: 50 },
  ]);
  expect(beltsInFront(crossed, 'b0')).toEqual([{ belt: 'b1', station: null }]);
  expect(beltsInFront(crossed, 'b1')).toEqual([]);
  expect(beltsInFront(crossed, 'b2')).toEqual([]);
});

test('a span over the face of a pulley is in front of its belt', () => {
  const over = drive(
    [
      [0, 0],
      [0, 400],
      [30, -300],
      [30, 300],
    ],
    [
      { on: [0, 1], plane: 0 },
      { on: [2, 3], plane: 25 },
    ],
  );
  expect(beltsInFront(over, 'b0')).toEqual([{ belt: 'b1', station: null }]);
});

/* The same told another way: points along each belt, a few mm apart, and whether any lies where the other is. */
function pointsAlong(drive: Drive, b: number): { x: number; y: number }[] {
  const { spans, contacts } = solveDrive(drive).belts[b]!;
  const ofSpans = spans.flatMap(({ start, end }) =>
    Array.from({ length: 121 }, (_, k) => ({
      x: start.x + ((end.x - start.x) * k) / 120,
      y: start.y + ((end.y - start.y) * k) / 120,
    })),
  );
  const ofArcs = contacts.flatMap(({ centre, cordRadius, arrive, turn, wrapDeg }) =>
    Array.from({ length: 46 }, (_, k) => {
      const from = Math.atan2(arrive!.y - centre.y, arrive!.x - centre.x);
      const angle = from + (turn * wrapDeg! * Math.PI * k) / 180 / 45;
      return { x: centre.x + cordRadius * Math.cos(angle), y: centre.y + cordRadius * Math.sin(angle) };
    }),
  );
  return [...ofSpans, ...ofArcs];
}

test('agrees with points laid along the belts, wherever those are not in doubt', () => {
  const place = fc.tuple(fc.integer({ min: -400, max: 400 }), fc.integer({ min: -400, max: 400 }));
  let [crossing, clear] = [0, 0];
  fc.assert(
    fc.property(fc.array(place, { minLength: 4, maxLength: 4 }), (places) => {
      const apart = places.every(([x, y], k) => places.every(([u, v], j) => j === k || Math.hypot(x - u, y - v) > 140));
      fc.pre(apart);
      const made = drive(places, [
        { on: [0, 1], plane: 0 },
        { on: [2, 3], plane: 30 },
      ]);
      const [behind, front] = [pointsAlong(made, 0), pointsAlong(made, 1)];
      const nearest = front.reduce(
        (min, p) => behind.reduce((near, q) => Math.min(near, Math.hypot(p.x - q.x, p.y - q.y)), min),
        Infinity,
      );
      // From the face of a pulley behind to the belt in front; below zero over it.
      const toFace = [0, 1].reduce((min, k) => {
        const [x, y] = places[k]!;
        const off = Math.min(...front.map((p) => Math.hypot(p.x - x, p.y - y)));
        return Math.min(min, off - (70 + 10 * k) / 2);
      }, Infinity);
      fc.pre(nearest > 14 ? Math.abs(toFace) > 10 : nearest < 4);
      const isInFront = frontsOf(made).get('b0')!.length > 0;
      expect(isInFront).toBe(nearest < 4 || toFace < 0);
      expect(frontsOf(made).get('b1')).toEqual([]);
      if (isInFront) crossing += 1;
      else clear += 1;
    }),
    { numRuns: 40 },
  );
  expect(Math.min(crossing, clear)).toBeGreaterThan(5);
});

test('where planes slope, the one that is in front at the crossing counts', () => {
  // Behind at its left shaft and in front at its right one; it crosses the other nearer to one of them.
  const sloping = (crossAt: number): Drive => {
    const made = drive(
      [
        [0, 0],
        [1000, 0],
        [crossAt, -300],
        [crossAt, 300],
      ],
      [
        { on: [0, 1], plane: 0 },
        { on: [2, 3], plane: 30 },
      ],
    );
    const stations = made.stations.map((station) =>
      station.id === 's1'
        ? { ...station, pulleys: station.pulleys.map((pulley) => ({ ...pulley, plane: 60 })) }
        : station,
    );
    return { ...made, stations };
  };
  expect(beltsInFront(sloping(250), 'b0')).toEqual([{ belt: 'b1', station: null }]);
  expect(beltsInFront(sloping(750), 'b0')).toEqual([]);
  expect(beltsInFront(sloping(750), 'b1')).toEqual([{ belt: 'b0', station: null }]);
});
