import fc from 'fast-check';
import { driveOf, SERPENTINE, station, type Stop } from '../test/examples';
import { type Drive, readDrive, reverseRoute, type Rotation } from '../drive';
import { solveBelt, solveDrive } from './solve';
import { draws, expectShare } from '../test/draws';

const solve = (drive: Drive) => solveBelt(drive, 'main')!;
const codes = (drive: Drive) => solve(drive).findings.map(({ code }) => code);
const cw = { crankRotation: 'cw' as Rotation };

/** The textbook open belt on two circles. */
function openBelt(radiusA: number, radiusB: number, centres: number): number {
  const lean = Math.asin((radiusA - radiusB) / centres);
  return 2 * centres * Math.cos(lean) + Math.PI * (radiusA + radiusB) + 2 * lean * (radiusA - radiusB);
}

/** Perimeter of the convex hull of circles, by points on their rims: knows nothing of tangents. */
function hullPerimeter(circles: { x: number; y: number; r: number }[], points = 3000): number {
  const rim = circles
    .flatMap(({ x, y, r }) =>
      Array.from(
        { length: points },
        (_, k) => [x + r * Math.cos((2 * Math.PI * k) / points), y + r * Math.sin((2 * Math.PI * k) / points)] as const,
      ),
    )
    .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: typeof rim) =>
    list.reduce<typeof rim>((chain, p) => {
      while (chain.length > 1) {
        const [a, b] = [chain[chain.length - 2]!, chain[chain.length - 1]!];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        chain.pop();
      }
      chain.push(p);
      return chain;
    }, []);
  const loop = [...half(rim).slice(0, -1), ...half([...rim].reverse()).slice(0, -1)];
  return loop.reduce(
    (sum, p, i) => sum + Math.hypot(p[0] - loop[(i + 1) % loop.length]![0], p[1] - loop[(i + 1) % loop.length]![1]),
    0,
  );
}

describe('known answers', () => {
  test('two equal ribbed pulleys', () => {
    const belt = solve(
      driveOf([
        ['crank', 0, 0, 100],
        ['alt', 300, 0, 100],
      ]),
    );
    expect(belt.closed).toBe(true);
    expect(belt.length.basis).toBe('effective');
    expect(belt.length.mm).toBeCloseTo(600 + 100 * Math.PI, 9);
    expect(belt.cordLength).toBeCloseTo(926.725636, 6);
    expect(belt.contacts.map(({ wrapDeg }) => wrapDeg)).toEqual([180, 180]);
  });

  test('AV13 marks its outside length on the rims', () => {
    const belt = solve(
      driveOf(
        [
          ['crank', 0, 0, 200],
          ['pump', 400, 0, 80],
        ],
        { section: 'AV13' },
      ),
    );
    expect(belt.length).toEqual({ basis: 'outside', mm: expect.closeTo(openBelt(100, 40, 400), 9) as number });
  });

  test('ride lifts a V-belt, by 2π of it where both pulleys have it', () => {
    const flush = solve(
      driveOf(
        [
          ['crank', 0, 0, 100],
          ['pump', 300, 0, 100],
        ],
        { section: 'AV10' },
      ),
    ).length.mm!;
    const proud = solve(
      driveOf(
        [
          ['crank', 0, 0, 100, 'drive', { ride: 1 }],
          ['pump', 300, 0, 100, 'drive', { ride: 1 }],
        ],
        { section: 'AV10' },
      ),
    ).length.mm!;
    expect(proud - flush).toBeCloseTo(2 * Math.PI, 9);
  });

  test('a toothed drive runs on teeth × pitch, and its ratio is that of the teeth', () => {
    const belt = solve(
      driveOf(
        [
          ['crank', 0, 0, 0, 'drive', { teeth: 40, diameter: undefined }],
          ['pump', 250, 0, 0, 'drive', { teeth: 20, diameter: undefined }],
        ],
        { section: 'H' },
      ),
    );
    expect(belt.length.mm).toBeCloseTo(openBelt((40 * 12.7) / 2 / Math.PI, (20 * 12.7) / 2 / Math.PI, 250), 9);
    expect(belt.contacts[1]!.speedRatio).toBeCloseTo(2, 12);
    expect(belt.length.basis).toBe('pitch');
  });

  test('a back-side idler runs 1.3 mm inside the cord, against the crank', () => {
    const belt = solve(driveOf(SERPENTINE, {}, cw));
    expect(belt.closed).toBe(true);
    expect(belt.findings.filter(({ severity }) => severity === 'fault')).toEqual([]);
    const idler = belt.contacts.find(({ pulley }) => pulley === 'idler')!;
    expect(idler.cordRadius).toBeCloseTo(39.3, 12);
    expect(idler.rotation).toBe('ccw');
    expect(idler.speedRatio).toBeCloseTo(86 / 39.3, 12);
  });

  test('sectionOverrides replace a constant for one belt', () => {
    const stops: Stop[] = [
      ['crank', 0, 0, 100],
      ['pump', 300, 0, 100],
    ];
    expect(solve(driveOf(stops, { sectionOverrides: { driveOffset: 2.5 } })).cordLength).toBeCloseTo(
      600 + 105 * Math.PI,
      9,
    );
    expect(solve(driveOf(stops, { section: 'AV13', sectionOverrides: { cordDepth: 3 } })).cordLength).toBeCloseTo(
      600 + 94 * Math.PI,
      9,
    );
  });
});

describe('against sums of another kind', () => {
  test('two pulleys of any size and place are the textbook open belt', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.double({ min: 310, max: 900, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (a, b, apart, angle) => {
          const belt = solve(
            driveOf([
              ['crank', 0, 0, a],
              ['pump', apart * Math.cos(angle), apart * Math.sin(angle), b],
            ]),
          );
          expect(belt.cordLength).toBeCloseTo(openBelt(a / 2 + 2, b / 2 + 2, apart), 6);
        },
      ),
    );
  });

  test('an all-drive-side belt is the hull of its circles', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 9 }), fc.integer({ min: 1, max: 99999 }), (count, seed) => {
        const random = (k: number) => Math.abs(Math.sin(seed * 12.9898 + k * 78.233) * 43758.5453) % 1;
        const stops = Array.from({ length: count }, (_, k): Stop => {
          const angle = (2 * Math.PI * k) / count;
          return [k === 0 ? 'crank' : `p${k}`, 400 * Math.cos(angle), 400 * Math.sin(angle), 40 + 60 * random(k)];
        });
        const belt = solve(driveOf(stops));
        expect(belt.closed).toBe(true);
        const hull = hullPerimeter(stops.map(([, x, y, d]) => ({ x, y, r: d / 2 + 2 })));
        expect(Math.abs(belt.cordLength! - hull)).toBeLessThan(0.01);
      }),
      { numRuns: 30 },
    );
  });

  test('turning, moving or mirroring a drive changes no length, wrap or ratio', () => {
    const plain = solve(driveOf(SERPENTINE, {}, cw));
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.boolean(),
        (angle, shift, mirror) => {
          const moved = SERPENTINE.map(([id, x, y, ...rest]): Stop => {
            const mx = mirror ? -x : x;
            return [
              id,
              mx * Math.cos(angle) - y * Math.sin(angle) + shift,
              mx * Math.sin(angle) + y * Math.cos(angle) - shift,
              ...rest,
            ];
          });
          const other = solve(driveOf(moved, {}, { crankRotation: mirror ? 'ccw' : 'cw' }));
          expect(other.length.mm).toBeCloseTo(plain.length.mm!, 6);
          other.contacts.forEach((contact, k) => {
            expect(contact.wrapDeg).toBeCloseTo(plain.contacts[k]!.wrapDeg!, 6);
            expect(contact.speedRatio).toBeCloseTo(plain.contacts[k]!.speedRatio!, 9);
          });
        },
      ),
    );
  });

  test('the belt runs either way: turning the crank the other way and the list round gives the same belt', () => {
    const forward = solve(driveOf(SERPENTINE, {}, cw));
    const backward = solve(reverseRoute(driveOf(SERPENTINE, {}, { crankRotation: 'ccw' }), 'main'));
    expect(backward.length.mm).toBeCloseTo(forward.length.mm!, 9);
  });

  test('signed wraps of a closed belt make one turn, and spans touch both circles at right angles', () => {
    const belt = solve(driveOf(SERPENTINE, {}, cw));
    const sum = belt.contacts.reduce((total, { side, wrapDeg }) => total + (side === 'drive' ? 1 : -1) * wrapDeg!, 0);
    expect(sum).toBeCloseTo(360, 9);
    belt.spans.forEach(({ start, end }, k) => {
      const from = belt.contacts[k]!;
      const radial = (start.x - from.centre.x) * (end.x - start.x) + (start.y - from.centre.y) * (end.y - start.y);
      expect(Math.abs(radial)).toBeLessThan(1e-6);
      expect(Math.hypot(start.x - from.centre.x, start.y - from.centre.y)).toBeCloseTo(from.cordRadius, 9);
    });
  });
});

describe('shafts', () => {
  const twin = (): Drive => {
    const drive = driveOf(
      [
        ['crank', 0, 0, 200],
        ['jack', 400, 0, 100, 'drive', { role: 'jackshaft' }],
      ],
      { section: 'AV13' },
    );
    const jack = {
      ...drive.stations[1]!,
      pulleys: [...drive.stations[1]!.pulleys, { id: 'jack-2', surface: 'vee' as const, diameter: 160, plane: 40 }],
    };
    const fan = station(['fan', 400, 400, 80, 'drive', { plane: 40 }], 'vee');
    return {
      ...drive,
      stations: [drive.stations[0]!, jack, fan],
      belts: [
        ...drive.belts,
        {
          id: 'second',
          section: 'AV13',
          length: null,
          route: [
            { pulley: 'jack-2', side: 'drive' },
            { pulley: 'fan', side: 'drive' },
          ],
        },
      ],
    };
  };
  const radius = (diameter: number) => diameter / 2 - 2.86;

  test('the ratio multiplies through a jackshaft', () => {
    const [first, second] = solveDrive(twin()).belts;
    expect(first!.contacts[1]!.speedRatio).toBeCloseTo(radius(200) / radius(100), 12);
    expect(second!.contacts[0]!.speedRatio).toBeCloseTo(radius(200) / radius(100), 12);
    expect(second!.contacts[1]!.speedRatio).toBeCloseTo((radius(200) / radius(100)) * (radius(160) / radius(80)), 12);
    expect(second!.contacts[1]!.rotation).toBe('ccw');
  });

  test('belts may be listed in any order', () => {
    const drive = twin();
    const turned = { ...drive, belts: [...drive.belts].reverse() };
    expect(solveBelt(turned, 'second')!.contacts[1]!.speedRatio).toBeCloseTo(
      solveBelt(drive, 'second')!.contacts[1]!.speedRatio!,
      12,
    );
  });

  test('a jackshaft on the back of the belt turns its own belt the other way', () => {
    const drive = driveOf(SERPENTINE, {}, cw);
    const jack = {
      ...drive.stations[3]!,
      pulleys: [
        ...drive.stations[3]!.pulleys,
        { id: 'idler-2', surface: 'ribbed' as const, diameter: 60, grooves: 6, plane: 60 },
      ],
    };
    const stations = [
      ...drive.stations.map((s) => (s.id === 'idler' ? jack : s)),
      station(['blower', 52, 420, 60, 'drive', { plane: 60 }]),
    ];
    const belts = [
      ...drive.belts,
      {
        id: 'top',
        section: 'PK',
        ribs: 6,
        length: null,
        route: [
          { pulley: 'idler-2', side: 'drive' as const },
          { pulley: 'blower', side: 'drive' as const },
        ],
      },
    ];
    const top = solveBelt({ ...drive, stations, belts }, 'top')!;
    expect(top.closed).toBe(true);
    expect(top.contacts[1]!.rotation).toBe('ccw');
    expect(top.contacts[1]!.speedRatio).toBeCloseTo(86 / 39.3, 12);
  });

  test('a belt nothing drives is solved, its speeds left open', () => {
    const drive = driveOf([
      ['crank', 0, 0, 100],
      ['pump', 300, 0, 100],
    ]);
    const stations = [...drive.stations, station(['a', 0, 600, 80]), station(['b', 300, 600, 80])];
    const loose = solveBelt(
      {
        ...drive,
        stations,
        belts: [
          ...drive.belts,
          {
            id: 'loose',
            section: 'PK',
            ribs: 6,
            route: [
              { pulley: 'a', side: 'drive' },
              { pulley: 'b', side: 'drive' },
            ],
          },
        ],
      },
      'loose',
    )!;
    expect(loose.closed).toBe(true);
    expect(loose.contacts.map(({ speedRatio }) => speedRatio)).toEqual([null, null]);
    expect(loose.findings.map(({ code }) => code)).toContain('not-driven');
  });

  test('two belts that turn one shaft opposite ways fight', () => {
    const drive = driveOf(SERPENTINE, {}, cw);
    const crank = {
      ...drive.stations[0]!,
      pulleys: [
        ...drive.stations[0]!.pulleys,
        { id: 'crank-2', surface: 'ribbed' as const, diameter: 90, grooves: 6, plane: 60 },
      ],
    };
    const idler = {
      ...drive.stations[3]!,
      pulleys: [
        ...drive.stations[3]!.pulleys,
        { id: 'idler-2', surface: 'ribbed' as const, diameter: 60, grooves: 6, plane: 60 },
      ],
    };
    const stations = drive.stations.map((s) => (s.id === 'crank' ? crank : s.id === 'idler' ? idler : s));
    const belts = [
      ...drive.belts,
      {
        id: 'top',
        section: 'PK',
        ribs: 6,
        route: [
          { pulley: 'crank-2', side: 'drive' as const },
          { pulley: 'idler-2', side: 'drive' as const },
        ],
      },
    ];
    expect(solveBelt({ ...drive, stations, belts }, 'top')!.findings).toContainEqual(
      expect.objectContaining({ code: 'fights', pulley: 'idler-2' }),
    );
  });
});

describe('findings say where', () => {
  const broken = (drive: Drive) => {
    const belt = solve(drive);
    expect(belt.closed).toBe(false);
    expect(belt.length.mm).toBeNull();
    expect(belt.cordLength).toBeNull();
    return belt.findings[0]!;
  };

  test('a crossed belt on two pulleys does not close', () => {
    expect(
      broken(
        driveOf([
          ['crank', 0, 0, 100],
          ['pump', 300, 0, 100, 'back'],
        ]),
      ),
    ).toMatchObject({ code: 'not-closed', severity: 'fault' });
  });

  test('a list against the crank says so', () => {
    expect(broken(driveOf(SERPENTINE, {}, { crankRotation: 'ccw' }))).toMatchObject({
      code: 'not-closed',
      figures: { cure: 'reverse' },
    });
  });

  test('an idler that stands clear of the belt is the one named', () => {
    const clear = SERPENTINE.map((stop): Stop => (stop[0] === 'idler' ? ['idler', 52, 420, 76, 'back'] : stop));
    expect(broken(driveOf(clear, {}, cw))).toMatchObject({
      code: 'not-closed',
      pulley: 'idler',
      figures: { cure: 'remove' },
    });
  });

  test('a wrong side is the one named', () => {
    const wrong = driveOf(SERPENTINE, {}, cw);
    const route = wrong.belts[0]!.route.map((stop) =>
      stop.pulley === 'alt' ? { ...stop, side: 'back' as const } : stop,
    );
    expect(broken({ ...wrong, belts: [{ ...wrong.belts[0]!, route }] })).toMatchObject({
      code: 'not-closed',
      pulley: 'alt',
      figures: { cure: 'flip' },
    });
  });

  test('overlapping pulleys', () => {
    expect(
      broken(
        driveOf([
          ['crank', 0, 0, 200],
          ['pump', 140, 0, 100],
          ['alt', 0, 400, 60],
        ]),
      ),
    ).toMatchObject({
      code: 'circles-overlap',
      pulley: 'crank',
      other: 'pump',
      figures: { overlapMm: expect.closeTo(10, 9) as number },
    });
  });

  test('a belt that crosses itself though its bends make one turn', () => {
    // A figure of three loops: two of the drive side, one of the back, in an order whose spans cut each other.
    const stops: Stop[] = [
      ['crank', 0, 0, 100],
      ['a', 400, 0, 100],
      ['b', 200, -250, 80, 'back'],
      ['c', 200, 300, 100],
    ];
    const belt = solve(driveOf(stops));
    expect(belt.closed).toBe(false);
    expect(belt.findings.map(({ code }) => code)).toContain('crosses-itself');
  });

  test('a span through a pulley in its plane, and none once it is in another', () => {
    const stops: Stop[] = [
      ['crank', 0, 0, 100],
      ['pump', 400, 0, 100],
    ];
    const drive = driveOf(stops);
    const inTheWay = (plane: number): Drive => ({
      ...drive,
      stations: [...drive.stations, station(['guide', 200, 45, 60, 'back', { plane }])],
    });
    expect(broken(inTheWay(0))).toMatchObject({
      code: 'span-through-pulley',
      pulley: 'guide',
      span: { from: 'pump', to: 'crank' },
    });
    expect(solve(inTheWay(40)).closed).toBe(true);
  });

  test('a belt that brushes a pulley is watched, not refused', () => {
    const drive = driveOf([
      ['crank', 0, 0, 100],
      ['pump', 400, 0, 100],
    ]);
    const belt = solve({ ...drive, stations: [...drive.stations, station(['guide', 200, 82.5, 60, 'back'])] });
    expect(belt.closed).toBe(true);
    expect(belt.findings).toContainEqual(
      expect.objectContaining({ code: 'span-rubs', severity: 'watch', pulley: 'guide' }),
    );
  });

  test('low wrap names the pulley', () => {
    const stops: Stop[] = [
      ['crank', 0, 0, 160],
      ['pump', 400, 20, 100],
      ['alt', 200, 130, 60],
    ];
    expect(solve(driveOf(stops)).findings).toContainEqual(
      expect.objectContaining({ code: 'low-wrap', severity: 'watch', pulley: 'alt' }),
    );
  });

  test('wrong faces: back on ribs is a fault, ribs on a smooth idler is watched', () => {
    const back = driveOf(
      SERPENTINE.map((stop): Stop =>
        stop[0] === 'idler' ? ['idler', 52, 222, 76, 'back', { role: 'idler', surface: 'ribbed', grooves: 6 }] : stop,
      ),
      {},
      cw,
    );
    expect(solve(back).findings).toContainEqual(
      expect.objectContaining({ code: 'wrong-surface', severity: 'fault', pulley: 'idler' }),
    );
    const ribs = driveOf([
      ['crank', 0, 0, 100],
      ['pump', 400, 0, 100],
      ['roll', 200, 200, 80, 'drive', { role: 'idler', surface: 'smooth' }],
    ]);
    expect(solve(ribs).findings).toContainEqual(
      expect.objectContaining({ code: 'wrong-surface', severity: 'watch', pulley: 'roll' }),
    );
  });

  test('a pump that requires the other direction', () => {
    const drive = driveOf([
      ['crank', 0, 0, 100],
      ['pump', 400, 0, 100, 'drive', { requires: 'cw' }],
    ]);
    expect(solve(drive).findings).toContainEqual(
      expect.objectContaining({ code: 'wrong-way-round', pulley: 'pump', figures: { turns: 'ccw', requires: 'cw' } }),
    );
    expect(
      codes(
        driveOf([
          ['crank', 0, 0, 100],
          ['pump', 400, 0, 100, 'drive', { requires: 'ccw' }],
        ]),
      ),
    ).toEqual([]);
  });

  test('more ribs than grooves is a fault, fewer is none', () => {
    const five = driveOf([
      ['crank', 0, 0, 100],
      ['pump', 400, 0, 100, 'drive', { grooves: 5 }],
    ]);
    expect(solve(five).findings).toContainEqual(
      expect.objectContaining({ code: 'rib-count', pulley: 'pump', figures: { ribs: 6, grooves: 5 } }),
    );
    expect(
      codes(
        driveOf([
          ['crank', 0, 0, 100],
          ['pump', 400, 0, 100, 'drive', { grooves: 8 }],
        ]),
      ),
    ).toEqual([]);
  });

  test('planes apart by the angle of the span; spare grooves take up whole steps', () => {
    const at = (plane: number, grooves = 6) =>
      solve(
        driveOf([
          ['crank', 0, 0, 100],
          ['pump', 400, 0, 100, 'drive', { plane, grooves }],
        ]),
      ).findings[0];
    expect(at(3)).toBeUndefined();
    expect(at(5)).toMatchObject({ code: 'planes-apart', severity: 'watch' });
    expect(at(12)).toMatchObject({ code: 'planes-apart', severity: 'fault', span: { from: 'crank', to: 'pump' } });
    expect(at(7.12, 8)).toBeUndefined();
  });
});

describe('what cannot be solved is a finding', () => {
  test('no pulley, one pulley, one twice, two on one spot, no size', () => {
    expect(codes(driveOf([], {}))).toEqual(['no-route']);
    expect(codes(driveOf([['crank', 0, 0, 100]]))).toContain('one-pulley');
    expect(
      codes(
        driveOf([
          ['crank', 0, 0, 100],
          ['a', 0, 0, 50],
        ]),
      ),
    ).toContain('same-centre');
    expect(
      codes(
        driveOf([
          ['crank', 0, 0, 0],
          ['a', 300, 0, 50],
        ]),
      ),
    ).toContain('no-size');
    expect(
      solve(
        driveOf([
          ['crank', 0, 0, 90],
          ['a', 300, 0, 0],
        ]),
      ).contacts[1]!.speedRatio,
    ).toBeNull();
    expect(
      codes(
        driveOf(
          [
            ['crank', 0, 0, 4],
            ['a', 300, 0, 50],
          ],
          { section: 'AV13' },
        ),
      ),
    ).toContain('no-size');
    const twice = driveOf([
      ['crank', 0, 0, 100],
      ['a', 300, 0, 50],
    ]);
    expect(
      codes({
        ...twice,
        belts: [{ ...twice.belts[0]!, route: [twice.belts[0]!.route[0]!, twice.belts[0]!.route[0]!] }],
      }),
    ).toContain('pulley-twice');
  });

  test('any numbers at all: no throw, no NaN, and a fault wherever the lengths are null', () => {
    const number = fc.oneof(
      fc.double({ noNaN: true, noDefaultInfinity: true }),
      fc.double({ min: -1e5, max: 1e5, noNaN: true }),
      fc.constantFrom(0, 1, 100, 1e308, -1e308, 5e-324),
    );
    const size = fc.oneof(fc.double({ min: 0, noNaN: true, noDefaultInfinity: true }), fc.constantFrom(0, 60, 100));
    const stop = fc.tuple(number, number, size, fc.constantFrom('drive' as const, 'back' as const));
    fc.assert(
      fc.property(fc.array(stop, { maxLength: 7 }), fc.constantFrom('PK', 'AV13', 'H'), (stops, section) => {
        const drive = driveOf(
          stops.map(([x, y, d, side], k): Stop => [
            k === 0 ? 'crank' : `p${k}`,
            x,
            y,
            d,
            side,
            section === 'H' ? { teeth: 20 } : {},
          ]),
          { section },
        );
        // A file has an end to every number; the sum takes any.
        expect(readDrive(drive).ok).toBe(stops.every(([x, y, d]) => Math.max(Math.abs(x), Math.abs(y), d) <= 1e5));
        const belt = solve(drive);
        expect(JSON.stringify(belt, (_, value: unknown) => (Number.isNaN(value) ? 'NaN' : value))).not.toContain('NaN');
        expect(belt.closed).toBe(belt.length.mm !== null);
        if (!belt.closed) expect(belt.findings[0]!.severity).toBe('fault');
      }),
      { numRuns: draws(2000) },
    );
  });

  test('ordinary circles anywhere: a closed belt has no span through a pulley, by an independent look along it', () => {
    const stop = fc.tuple(
      fc.integer({ min: -300, max: 300 }),
      fc.integer({ min: -300, max: 300 }),
      fc.integer({ min: 40, max: 180 }),
      fc.constantFrom('drive' as const, 'back' as const),
    );
    let closed = 0;
    fc.assert(
      fc.property(fc.array(stop, { minLength: 2, maxLength: 5 }), (stops) => {
        const belt = solve(
          driveOf(stops.map(([x, y, d, side], k): Stop => [k === 0 ? 'crank' : `p${k}`, x, y, d, side])),
        );
        if (!belt.closed) return;
        closed += 1;
        let min = Infinity;
        for (const { start, end } of belt.spans) {
          for (let t = 0; t <= 1; t += 0.01) {
            const [px, py] = [start.x + t * (end.x - start.x), start.y + t * (end.y - start.y)];
            min = Math.min(min, ...stops.map(([x, y, d]) => Math.hypot(px - x, py - y) - d / 2));
          }
        }
        expect(min).toBeGreaterThan(-1e-6);
      }),
      { numRuns: draws(1500) },
    );
    expectShare(closed, draws(1500), { from: 50 / 1500 });
  });
});
