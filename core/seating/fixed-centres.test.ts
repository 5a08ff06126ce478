import { limitOrDefault, marksOf } from '../accessory';
import { NEW_BELT_FACTOR, stiffnessN } from '../adjuster';
import { type Belt, changeBelt, changeStation, type Drive } from '../drive';
import { runDrive, statesThatMatter, tensionOf, usualSetting } from '../loads';
import { answerFor } from '../size';
import { driveOf, type Stop } from '../test/examples';
import { sizeBelt } from './size-belt';

/* Fixed centres by hand: T = EA · (path − belt) / belt, and the pull on a shaft by the angle between its spans. */

const THREE: Stop[] = [
  ['crank', 0, 0, 162.4],
  ['alt', 180, 250, 61],
  ['pump', -150, 240, 132, 'drive', { role: 'power-steering' }],
];
const fixed = (belt: Partial<Belt> = {}): Drive =>
  changeStation(driveOf(THREE, belt), 'pump', { adjuster: { kind: 'fixed' } });
const sized = (drive: Drive) => {
  const answer = answerFor(drive, 'main', { draws: 400 })!;
  return answer.best === null ? null : answer.candidates[answer.best]!;
};

test('the length to buy is the one whose tension lies by the setting of a new belt, not the tightest that goes on', () => {
  const drive = fixed();
  const belt = drive.belts[0]!;
  const { window, candidates } = answerFor(drive, 'main')!;
  const best = sized(drive)!;
  const wanted = usualSetting(drive, 'main')!.setN;
  // Of all common lengths none comes nearer to it without passing what the pump carries.
  const cord = best.lengthMm + 4 * Math.PI;
  expect(best.tensionN).toBeCloseTo((stiffnessN(belt) * (window.slackEnd! - best.lengthMm)) / cord, 6);
  expect(best.tensionN! / belt.ribs!).toBeLessThan(160);
  const nearest = candidates
    .filter(({ tensionN }) => tensionN! > 0)
    .reduce((candidate, next) =>
      Math.abs(next.tensionN! - wanted) < Math.abs(candidate.tensionN! - wanted) ? next : candidate,
    );
  expect(Math.abs(best.tensionN! - wanted)).toBeLessThanOrEqual(Math.abs(nearest.tensionN! - wanted) + 310);
});

/** The least margin of a drive and the most load on each shaft over its limit, in all states that matter. */
function worstAt(drive: Drive, newtons: number) {
  const ran = statesThatMatter(marksOf(drive.speeds), { all: 'heaviest' }, false).map((state) =>
    runDrive(tensionOf(drive), state, { main: newtons }),
  );
  return {
    margin: Math.min(...ran.flatMap(({ belts }) => belts[0]!.pulleys.map(({ margin }) => margin ?? Infinity))),
    load: Math.max(
      ...ran.flatMap(({ shafts }) =>
        drive.stations.map((station) => {
          const { x, y } = shafts.get(station.id)!;
          return Math.hypot(x, y) / (limitOrDefault(station) ?? Infinity);
        }),
      ),
    ),
  };
}

test('a shaft that carries little bounds the length, and the tight ones say so', () => {
  const drive = changeStation(fixed(), 'pump', { hubLoadLimit: 1100 });
  for (const { verdict, tensionN, findings } of sizeBelt(drive, 'main', {
    lengths: Array.from({ length: 40 }, (_, k) => sizeBelt(drive, 'main')!.window.slackEnd! * (1 - 0.00035 * k)),
  })!.candidates) {
    if (verdict === 'fits') expect(worstAt(drive, tensionN!).load).toBeLessThanOrEqual(1 + 1e-9);
    if (verdict === 'tight') {
      expect(worstAt(drive, tensionN!).load).toBeGreaterThan(1);
      expect(findings.map(({ code }) => code)).toEqual(['over-shaft']);
    }
  }
});

test('the belt to buy keeps its margins and its shafts under the loads of the drive, run through at idle to redline', () => {
  const [light, heavy]: Stop[][] = [
    [
      ['crank', 0, 0, 150],
      ['pump', 210, 160, 130, 'drive', { role: 'water-pump' }],
    ],
    [
      ['crank', 0, 0, 170],
      ['alt', 190, 240, 62, 'drive', { role: 'alternator' }],
      ['ac', -190, 170, 120, 'drive', { role: 'ac-compressor' }],
    ],
  ];
  let chosen = 0;
  for (const stops of [light!, heavy!]) {
    for (const ribs of [4, 6, 8]) {
      for (let k = 0; k < 8; k += 1) {
        const moved = stops.map(([id, x, y, ...rest]): Stop => [id, 1.013 ** k * x, 1.013 ** k * y, ...rest]);
        const drive = changeStation(driveOf(moved, { ribs }), moved[1]![0], { adjuster: { kind: 'fixed' } });
        const best = sized(drive);
        if (best?.verdict !== 'fits') continue;
        chosen += 1;
        const { margin, load } = worstAt(drive, best.tensionN!);
        expect(margin).toBeGreaterThan(0.25 - 1e-9);
        expect(load).toBeLessThanOrEqual(1 + 1e-9);
      }
    }
  }
  expect(chosen).toBeGreaterThan(40);
});

test('what one belt asks for is not what another asks for: more is driven, more is it stretched', () => {
  const at = (role: 'water-pump' | 'ac-compressor') => {
    const drive = driveOf([
      ['crank', 0, 0, 150],
      ['driven', 230, 190, 110, 'drive', { role }],
    ]);
    return sizeBelt(changeStation(drive, 'driven', { adjuster: { kind: 'fixed' } }), 'main')!.fits!;
  };
  expect(at('ac-compressor').to).toBeLessThan(at('water-pump').to - 1);
});

test('the curve of the lengths passes through every one of them, and ends without tension', () => {
  for (const section of ['PK', 'AV13'] as const) {
    const stops = section === 'PK' ? THREE : THREE.map(([id, x, y, d]): Stop => [id, x, y, d]);
    const drive = changeStation(driveOf(stops, { section }), 'pump', { adjuster: { kind: 'fixed' } });
    const { candidates, stretch, window } = answerFor(drive, 'main')!;
    const { points } = stretch!;
    expect(points.at(-1)).toEqual({ lengthMm: expect.closeTo(window.slackEnd!, 9), tensionN: expect.closeTo(0, 9) });
    for (const { lengthMm, tensionN } of candidates) {
      if (lengthMm > window.slackEnd!) continue;
      const k = points.findIndex((point) => point.lengthMm >= lengthMm - 1e-9);
      const [a, b] = [points[Math.max(0, k - 1)]!, points[k]!];
      const share = b === a ? 0 : (lengthMm - a.lengthMm) / (b.lengthMm - a.lengthMm);
      expect(tensionN! / (a.tensionN + share * (b.tensionN - a.tensionN) || 1)).toBeCloseTo(1, 3);
    }
    expect(stretch!.leastN).toBeLessThan(stretch!.setN);
    expect(stretch!.setN).toBeLessThanOrEqual(stretch!.mostN);
  }
  expect(answerFor(driveOf(THREE), 'main')!.stretch).toBeNull();
});

test('three per cent of stretch are for a belt that is marked so', () => {
  const plain = fixed();
  const path = sizeBelt(plain, 'main')!.window.slackEnd!;
  const at = (drive: Drive, share: number) =>
    sizeBelt(drive, 'main', { lengths: [path * (1 - share)] })!.candidates[0]!;
  expect(at(plain, 0.02).verdict).toBe('will-not-go-on');
  expect(at(plain, 0.012).verdict).toBe('tight');
  const stretches = changeBelt(plain, 'main', { build: 'stretch' });
  expect(at(stretches, 0.02)).toMatchObject({ verdict: 'fits', tensionN: null });
  expect(at(stretches, 0.035).verdict).toBe('will-not-go-on');
  expect(sized(stretches)!.verdict).toBe('fits');
});

test('with no adjuster given nothing is chosen: what is missing, and the drawn length', () => {
  const drive = driveOf(THREE);
  const answer = answerFor(drive, 'main')!;
  expect(answer).toMatchObject({ best: null, pair: null, candidates: [] });
  expect(answer.window.drawn).toBeCloseTo(sizeBelt(fixed(), 'main')!.window.slackEnd!, 9);
  expect(answer.findings.map(({ code }) => code)).toEqual(['no-adjuster']);
  const asked = answerFor(drive, 'main', { lengths: [1000] })!;
  expect(asked.candidates[0]).toMatchObject({ verdict: 'not-known', chance: null, lengthMm: 1000 });
});

test('a V-belt and ribs on fixed centres: no length that fits pulls with more than half again a new belt’s setting', () => {
  for (const [section, sizes] of [
    ['AV10', [150, 70]],
    ['PK', [150, 70]],
  ] as const) {
    for (let apart = 180; apart < 400; apart += 37) {
      const drive = changeStation(
        driveOf(
          [
            ['crank', 0, 0, sizes[0]],
            ['alt', apart, 40, sizes[1]],
          ],
          { section },
        ),
        'alt',
        { adjuster: { kind: 'fixed' } },
      );
      const max = 1.5 * NEW_BELT_FACTOR * usualSetting(drive, 'main')!.runInN;
      for (const { verdict, tensionN } of answerFor(drive, 'main')!.candidates)
        if (verdict === 'fits') expect(tensionN!).toBeLessThanOrEqual(max + 1e-6);
    }
  }
});
