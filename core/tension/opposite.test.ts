import { addBelt, changeStation, type Drive } from '../drive';
import { driveOf } from '../test/examples';
import { runDrive, tensionOf, windowOf } from '../loads';

/* One shaft between two others: a belt pulls it left and another right. What it bears is the difference. */

const LIMIT = 600;
const between = (leftN: number): Drive => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 120],
      ['jack', 300, 0, 120, 'drive', { role: 'jackshaft' }],
    ],
    { section: 'AV10', staticTension: leftN },
    { crankRotation: 'cw' },
  );
  const front = (id: string) => ({ id, surface: 'vee' as const, diameter: 120, plane: 20 });
  const jack = changeStation(drive, 'jack', {
    hubLoadLimit: LIMIT,
    pulleys: [...drive.stations[1]!.pulleys, front('jack-2')],
  });
  const idler = { id: 'far', role: 'idler' as const, x: 600, y: 0, pulleys: [front('far')] };
  return addBelt(
    { ...jack, stations: [...jack.stations, idler] },
    {
      id: 'second',
      section: 'AV10',
      length: null,
      staticTension: 300,
      route: ['jack-2', 'far'].map((pulley) => ({ pulley, side: 'drive' as const })),
    },
  );
};

test.each([200, 500, 900])('with %p N the other way, the shaft is within its limit just inside the window', (leftN) => {
  const tension = tensionOf(between(leftN));
  const running = { rpm: 0 };
  const window = windowOf(tension, 'second', [running])!;
  const load = (newtons: number) => {
    const { x, y } = runDrive(tension, running, { second: newtons }).shafts.get('jack')!;
    return Math.hypot(x, y);
  };
  // By hand: both strands of each belt pull along one line, 2·T to one side and 2·T to the other.
  expect(window.mostN!).toBeCloseTo(leftN + LIMIT / 2, 6);
  expect(window.leastN!).toBeCloseTo(Math.max(0, leftN - LIMIT / 2), 6);
  expect(load(window.mostN!)).toBeCloseTo(LIMIT, 6);
  expect(load(window.leastN!)).toBeLessThanOrEqual(LIMIT + 1e-6);
  if (window.leastN! > 1) expect(load(window.leastN! - 1)).toBeGreaterThan(LIMIT);
  expect(load(window.mostN! + 1)).toBeGreaterThan(LIMIT);
});
