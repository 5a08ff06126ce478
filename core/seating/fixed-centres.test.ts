import { defaultSetting, NEW_BELT_FACTOR, stiffnessN } from '../adjuster';
import { type Belt, changeBelt, changeStation, type Drive } from '../drive';
import { solveBelt } from '../path';
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
  const answer = answerFor(drive, 'main')!;
  return answer.best === null ? null : answer.candidates[answer.best]!;
};

test('the length to buy is the one whose tension lies by the setting of a new belt, not the tightest that goes on', () => {
  const drive = fixed();
  const belt = drive.belts[0]!;
  const { window, candidates } = answerFor(drive, 'main')!;
  const best = sized(drive)!;
  const wanted = NEW_BELT_FACTOR * defaultSetting(belt);
  // Of all common lengths none comes nearer to it without passing what the pump carries.
  const cord = best.lengthMm + 4 * Math.PI;
  expect(best.tensionN).toBeCloseTo((stiffnessN(belt) * (window.slackEnd! - best.lengthMm)) / cord, 6);
  expect(best.tensionN! / belt.ribs!).toBeLessThan(160);
  const nearest = candidates
    .filter(({ tensionN }) => tensionN! > 0)
    .reduce((one, next) => (Math.abs(next.tensionN! - wanted) < Math.abs(one.tensionN! - wanted) ? next : one));
  expect(Math.abs(best.tensionN! - wanted)).toBeLessThanOrEqual(Math.abs(nearest.tensionN! - wanted) + 310);
});

test('a shaft that carries little bounds the length, and the tight ones say so', () => {
  const drive = changeStation(fixed(), 'pump', { hubLoadLimit: 900 });
  const answer = answerFor(drive, 'main')!;
  // The pull on the pump at 1 N, by the bisector: 2 · sin of half the turn of the belt there.
  const { contacts } = solveBelt(drive, 'main')!;
  const wrap = (contacts.find(({ pulley }) => pulley === 'pump')!.wrapDeg! * Math.PI) / 180;
  const most = 900 / (2 * Math.sin(wrap / 2));
  for (const { verdict, tensionN, findings } of answer.candidates) {
    if (verdict === 'fits') expect(tensionN!).toBeLessThanOrEqual(most + 1e-6);
    if (verdict === 'tight') {
      expect(tensionN!).toBeGreaterThan(most);
      expect(findings.map(({ code }) => code)).toEqual(['over-shaft']);
    }
  }
  expect(answer.candidates.some(({ verdict }) => verdict === 'tight')).toBe(true);
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
      const most = 1.5 * NEW_BELT_FACTOR * defaultSetting(drive.belts[0]!);
      for (const { verdict, tensionN } of answerFor(drive, 'main')!.candidates)
        if (verdict === 'fits') expect(tensionN!).toBeLessThanOrEqual(most + 1e-6);
    }
  }
});
