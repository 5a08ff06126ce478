import fc from 'fast-check';
import { driveOf, station, type Stop } from '../test/examples';
import { type Drive, type Pulley, pulleysById } from '../drive';
import { sectionFor } from '../section';
import { bodiesInPlane } from './bodies';
import { beltClearances } from './clearance';
import { encounters } from './encounters';
import type { BeltSolution } from './solution';
import { solveBelt, solveDrive } from './solve';
import { draws, expectShare } from '../test/draws';

const codes = (drive: Drive) => solveDrive(drive).belts[0]!.findings.map(({ code }) => code);
const lowest = (drive: Drive) => beltClearances(drive, solveBelt(drive, 'main')!).least!;

/**
 * A tensioner on the upper span, from above, whose belt comes down to `gap` mm of cord above the lower span at y = −77.
 */
const pressedDown = (gap: number, section = 'PK', surface: 'ribbed' | 'vee' = 'ribbed'): Drive => {
  const cord = sectionFor(section)!;
  const drive = driveOf(
    [
      ['crank', 0, 0, 150],
      ['roller', 200, 0, 70, 'back', { role: 'tensioner' }],
      ['alt', 400, 0, 150],
    ],
    { section, ...(section === 'PK' && { ribs: 6 }) },
    { crankRotation: 'cw' },
  );
  const lower = 75 + cord.driveOffset;
  const stations = drive.stations.map((s) =>
    s.id === 'roller'
      ? { ...s, y: -lower + gap + 35 + cord.backOffset }
      : { ...s, pulleys: s.pulleys.map((p) => ({ ...p, surface }) as Pulley) },
  );
  return { ...drive, stations };
};

test.each([
  ['PK', 'ribbed'],
  ['AV13', 'vee'],
] as const)(
  '%s: two strands with their drive faces together need twice the belt from its cord inward',
  (section, surface) => {
    const inner = sectionFor(section)!.thickness - sectionFor(section)!.backOffset;
    for (const clear of [2, 0.1, -0.1, -1.9]) {
      const drive = pressedDown(2 * inner + clear, section, surface);
      expect(lowest(drive)).toBeCloseTo(clear, 6);
      expect(codes(drive).includes('strands-rub')).toBe(clear < 0);
      expect(solveDrive(drive).belts[0]!.closed).toBe(true);
    }
  },
);

test('where the belt lies on a pulley its back comes out to bare metal beside it', () => {
  const beside = (clear: number) => {
    const drive = driveOf([
      ['crank', 0, 0, 100],
      ['alt', 400, 0, 100],
    ]);
    return { ...drive, stations: [...drive.stations, station(['odd', -(52 + 1.3 + clear + 60), 0, 120])] };
  };
  for (const clear of [3, 0.4, -0.4]) {
    const [contact] = beltClearances(beside(clear), solveBelt(beside(clear), 'main')!).contacts;
    expect(contact).toEqual({ pulley: 'odd', mm: expect.closeTo(clear, 9) as number });
    expect(codes(beside(clear)).includes('span-rubs')).toBe(clear < 0);
  }
});

/**
 * The belt as many points along its cord with the unit vector to its left, piece by piece: spans, then what lies on the
 * pulleys.
 */
function sampled(belt: BeltSolution): { points: { x: number; y: number; nx: number; ny: number }[] }[] {
  const spans = belt.spans.map(({ start, end, length }) => {
    const [nx, ny] = [-(end.y - start.y) / length!, (end.x - start.x) / length!];
    return {
      points: Array.from({ length: 141 }, (_, k) => ({
        x: start.x + ((end.x - start.x) * k) / 140,
        y: start.y + ((end.y - start.y) * k) / 140,
        nx,
        ny,
      })),
    };
  });
  const arcs = belt.contacts.map(({ centre, cordRadius, turn, wrapDeg, arrive }) => {
    const from = Math.atan2(arrive!.y - centre.y, arrive!.x - centre.x);
    return {
      points: Array.from({ length: 91 }, (_, k) => {
        const angle = from + (turn * wrapDeg! * Math.PI * k) / (180 * 90);
        // Turning counter-clockwise the pulley lies to the left.
        return {
          x: centre.x + cordRadius * Math.cos(angle),
          y: centre.y + cordRadius * Math.sin(angle),
          nx: -turn * Math.cos(angle),
          ny: -turn * Math.sin(angle),
        };
      }),
    };
  });
  return [...spans, ...arcs];
}

test('property: the least clearance is what many points along the belt make it, each with the face it turns to the other', () => {
  let rubbing = 0;
  let compared = 0;
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  fc.assert(
    fc.property(
      mm(80, 320),
      mm(-4, 20),
      mm(90, 170),
      mm(40, 100),
      mm(-60, 60),
      mm(60, 160),
      fc.boolean(),
      (along, gap, crank, roller, lift, alt, second) => {
        // A roller presses the upper strand down to some gap over the lower one, which may itself be pressed up by
        // another.
        const drive = driveOf(
          [
            ['crank', 0, 0, crank],
            ['roller', along, -crank / 2 + gap + roller / 2 + 6, roller, 'back'],
            ['alt', 420, lift, alt],
            ...(second ? [['under', along + 70, -crank / 2 - 50, 60, 'back'] as Stop] : []),
          ],
          {},
          { crankRotation: 'cw' },
        );
        const belt = solveBelt(drive, 'main')!;
        if (!belt.closed) return;
        const section = sectionFor('PK')!;
        const depth = (left: boolean) =>
          left === (belt.sense === 1) ? section.thickness - section.backOffset : section.backOffset;
        const pieces = sampled(belt);
        const count = belt.spans.length;
        let nearest = Infinity;
        let cords = Infinity;
        for (let i = 0; i < 2 * count; i += 1) {
          for (let j = i + 1; j < 2 * count; j += 1) {
            // Span k runs from contact k to contact k + 1. Pieces that touch where they join are left out, and
            // neighbours of those.
            const at = (piece: number) => (piece < count ? 2 * piece + 1 : 2 * (piece - count));
            const steps = Math.min(
              (at(j) - at(i) + 2 * count) % (2 * count),
              (at(i) - at(j) + 2 * count) % (2 * count),
            );
            if (steps <= 2) continue;
            for (const p of pieces[i]!.points) {
              for (const q of pieces[j]!.points) {
                const [dx, dy] = [q.x - p.x, q.y - p.y];
                const far = Math.hypot(dx, dy);
                if (far - 9.2 > nearest) continue;
                // A face looks across the belt, not along it: pairs that see one another askew are those next to what
                // was left out.
                const [across, back] = [dx * p.nx + dy * p.ny, -dx * q.nx - dy * q.ny];
                if (Math.min(Math.abs(across), Math.abs(back)) < 0.7 * far) continue;
                cords = Math.min(cords, far);
                nearest = Math.min(nearest, far - depth(across > 0) - depth(back > 0));
              }
            }
          }
        }
        const clearances = beltClearances(drive, belt);
        const ofBelt = [...clearances.spans, ...clearances.contacts].flatMap((entry) =>
          entry && (entry.onBelt || entry.span) ? [entry.mm] : [],
        );
        // Far apart, which face looks at which is a matter of a hair at the ends of the pieces.
        if (ofBelt.length === 0 || nearest > 20) return;
        compared += 1;
        rubbing += Number(nearest < 0);
        expect(Math.min(...ofBelt)).toBeLessThan(nearest + 1e-3);
        // Beyond where the cords themselves meet, points along them do not tell how deep.
        if (cords < 3) return;
        expect(nearest - Math.min(...ofBelt)).toBeLessThan(1);
      },
    ),
    { numRuns: draws(160) },
  );
  expectShare(compared, draws(160), { from: 15 / 160 });
  expectShare(rubbing, draws(160), { from: 2 / 160 });
});

test('property: passing over what is too far leaves out nothing that is near', () => {
  let near = 0;
  const mm = (min: number, max: number) => fc.integer({ min, max });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(mm(-200, 200), mm(-200, 200), mm(30, 150), fc.boolean()), { minLength: 3, maxLength: 7 }),
      mm(0, 40),
      fc.constantFrom(0, 4, 25),
      (places, within, cordDepth) => {
        const stops = places.map(([x, y, diameter, back], k): Stop => [
          k === 0 ? 'crank' : `p${k}`,
          x,
          y,
          diameter,
          back ? 'back' : 'drive',
        ]);
        const drive = driveOf(stops, {
          section: cordDepth ? 'AV13' : 'PK',
          ...(cordDepth && { sectionOverrides: { cordDepth } }),
        });
        const [belt, solved] = [drive.belts[0]!, solveBelt(drive, 'main')!];
        const section = sectionFor(belt.section, belt.sectionOverrides)!;
        const bodies = bodiesInPlane(belt, section, solved.contacts, { pulleys: pulleysById(drive), drive });
        const all = encounters(section, solved.contacts, solved.spans, bodies).filter(
          (encounter) => encounter.mm < within,
        );
        near += all.length;
        expect(encounters(section, solved.contacts, solved.spans, bodies, within)).toEqual(all);
      },
    ),
  );
  expect(near).toBeGreaterThan(50);
});

test('planes: half the belt to either side at a smooth roller, none between two', () => {
  const planes = (...at: number[]) => {
    const drive = driveOf(
      [
        ['crank', 0, 0, 150],
        ['one', 150, 60, 70, 'back'],
        ['two', 300, 60, 70, 'back'],
        ['alt', 450, 0, 150],
      ],
      {},
      { crankRotation: 'cw' },
    );
    return {
      ...drive,
      stations: drive.stations.map((s, k) => ({ ...s, pulleys: s.pulleys.map((p) => ({ ...p, plane: at[k]! })) })),
    };
  };
  const apart = (drive: Drive) =>
    solveDrive(drive)
      .belts[0]!.findings.filter((finding) => finding.code === 'planes-apart')
      .map(({ span, figures }) => [span.from, span.to, Math.round(figures.offsetMm * 100) / 100]);
  expect(apart(planes(0, 10, 10, 0))).toEqual([]);
  expect(apart(planes(0, 0, 17, 0))).toEqual([
    ['one', 'two', 17],
    ['two', 'alt', 6.32],
  ]);
  expect(apart(planes(0, 17, 17, 0))).toEqual([
    ['crank', 'one', 6.32],
    ['two', 'alt', 6.32],
  ]);
});

test('a part that may be left out, and is on no belt, is told but does not stop the belt', () => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 100],
    ],
    {},
    { crankRotation: 'cw' },
  );
  const pump = { ...station(['pump', 150, 90, 60]), role: 'water-pump' as const };
  const there = solveDrive({ ...drive, stations: [...drive.stations, pump] }).belts[0]!;
  expect(there.closed).toBe(false);
  const spare = { ...drive, stations: [...drive.stations, { ...pump, optional: true }] };
  expect(solveDrive(spare).belts[0]).toMatchObject({
    closed: true,
    findings: [{ code: 'span-through-pulley', severity: 'watch', pulley: 'pump' }],
  });
  expect(
    beltClearances(spare, solveBelt(spare, 'main')!).spans.every((span) => span === null || span.pulley !== 'pump'),
  ).toBe(true);
});
