import { driveOf } from '../test/examples';
import { pathLength } from '../adjuster';
import type { Drive } from '../drive';
import { sizeBelt } from '../seating';
import { answerFor } from './answer';
import { uncertaintyOf } from './uncertainty';

const drive = (): Drive => {
  const plain = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60],
    ],
    {},
    { crankRotation: 'cw' },
  );
  return {
    ...plain,
    stations: plain.stations.map((s) =>
      s.id === 'alt' ? { ...s, adjuster: { kind: 'slide', direction: 0, travel: 40 } } : s,
    ),
  };
};

test('the ± of the path is what its parts make it: twice a move along the line of centres, half a turn of each radius', () => {
  const sizing = sizeBelt(drive(), 'main')!;
  const { spread } = uncertaintyOf(drive(), drive().belts[0]!, sizing, { draws: 10 });
  // Two spans at about 10 degrees: dL/dx = 2 cos; dL/dD = wrap/2 for each pulley.
  const lean = Math.asin(50 / 300);
  const expected = Math.hypot(2 * Math.cos(lean) * 1.5, 0.5 * (Math.PI / 2 + lean), 0.5 * (Math.PI / 2 - lean));
  expect(spread[0]).toBeCloseTo(expected, 2);
});

test('the quick draws agree with drives drawn and solved one by one', () => {
  const belt = drive().belts[0]!;
  const edge = sizeBelt(drive(), 'main')!.window.tightEnd!;
  const lengths = [edge - 4, edge, edge + 3];
  const { chances } = uncertaintyOf(drive(), belt, sizeBelt(drive(), 'main', { lengths })!, { draws: 20_000 });
  // The plain way: every figure shaken, the tight end solved anew.
  let state = 12345;
  const uniform = () => ((state = (Math.imul(state, 1103515245) + 12345) >>> 0) + 0.5) / 2 ** 32;
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const runs = 3000;
  const counts = lengths.map(() => 0);
  for (let run = 0; run < runs; run += 1) {
    const shaken: Drive = {
      ...drive(),
      stations: drive().stations.map((s) => ({
        ...s,
        ...(s.id === 'alt' && { x: 340 + 1.5 * normal(), y: 1.5 * normal() }),
        pulleys: s.pulleys.map((p) => ({ ...p, diameter: p.diameter! + 0.5 * normal() })),
      })),
    };
    const max = pathLength(shaken, belt)!;
    lengths.forEach((length, k) => (counts[k]! += Number(length * (1 + 0.0015 * normal()) <= max)));
  }
  counts.forEach((count, k) => expect(Math.abs(count / runs - chances[k]!)).toBeLessThan(0.035));
});

test('the answer names one to bring home, and two of which one surely fits', () => {
  const answer = answerFor(drive(), 'main')!;
  const best = answer.candidates[answer.best!]!;
  expect(best.verdict).toBe('fits');
  expect(best.chance).toBeGreaterThan(0.95);
  expect(answer.pair!.chance).toBeGreaterThanOrEqual(best.chance!);
  expect(answer.curve.every(({ lengthMm, sigma }) => lengthMm > 0 && sigma > 0)).toBe(true);
  expect(answerFor(drive(), 'main')).toEqual(answer);
  expect(JSON.parse(JSON.stringify(answer))).toEqual(answer);
});
