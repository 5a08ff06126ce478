import { limitOrDefault, marksOf } from '../accessory';
import { changeStation, type Drive, newBelt, newDrive } from '../drive';
import { layoutDrive, LAYOUTS } from '../start';
import { targetTension, newBeltFigures, statesThatMatter, tensionOf, windowOf } from '../loads';
import { driveOf } from '../test/examples';
import { spanTension } from './span';
import { DRIVABLE, settingFor, settingRange } from './what-it-drives';

const belt = (section: string, ribs?: number) => ({ ...newBelt(newDrive(''), section), ...(ribs && { ribs }) });

/** What Job writes on the card for a belt on fixed centres: Tension's own window at the heaviest loads. */
function byJob(drive: Drive, id: string) {
  const states = statesThatMatter(marksOf(drive.speeds), { all: 'heaviest' }, false);
  const window = windowOf(tensionOf(drive), id, states, limitOrDefault);
  return window && targetTension(window) !== null
    ? { leastN: window.leastN!, setN: newBeltFigures(window)!.setN }
    : null;
}

test('what Job sets a belt to lies within the counter’s range, on V layouts it was not made from', () => {
  let looked = 0;
  for (const [alternator, pump] of [
    [62, 110],
    [68, 130],
    [75, 120],
  ] as const)
    for (const apart of [200, 260]) {
      const drive = driveOf(
        [
          ['crank', 0, 0, 140],
          ['pump', -10, apart, pump, 'drive', { role: 'water-pump' }],
          ['alt', apart, 130, alternator, 'drive', { role: 'alternator' }],
        ],
        { section: 'AV10' },
        { crankRotation: 'cw' },
      );
      const job = byJob(
        changeStation(drive, 'alt', { adjuster: { kind: 'slide', direction: 30, travel: 30 } }),
        'main',
      );
      const range = settingRange(belt('AV10'))!;
      looked += 1;
      expect(job!.setN).toBeGreaterThan(range.min.setN);
      expect(job!.setN).toBeLessThan(range.max.setN);
    }
  expect(looked).toBe(6);
});

test('for what is said to be driven the counter is not below what keeps the belt from slipping', () => {
  for (const layout of LAYOUTS) {
    const drive = layoutDrive(layout, '', '');
    for (const { id, section, ribs, route } of drive.belts) {
      const roles = drive.stations
        .filter(({ pulleys }) => pulleys.some((pulley) => route.some((stop) => stop.pulley === pulley.id)))
        .map(({ role }) => role);
      const drives = DRIVABLE.filter((role) => roles.includes(role));
      const job = byJob(drive, id);
      if (!job || drives.length === 0) continue;
      const said = settingFor(belt(section, ribs), drives)!;
      expect(said.setN).toBeGreaterThan(0.7 * job.leastN);
      expect(said.setN).toBeLessThanOrEqual(settingRange(belt(section, ribs))!.max.setN);
    }
  }
});

test('nothing said is a range; a figure of the manual stands as it is', () => {
  const ask = { section: 'AV10', spanMm: 200, armHolds: false, readings: [] };
  const open = spanTension(ask);
  expect(open.from).toBe('range');
  expect(open.most!.setN).toBeGreaterThan(1.5 * open.settings.setN);
  expect(open.reads.most!.fresh.pluckHz).toBeGreaterThan(open.reads.fresh.pluckHz);
  const said = spanTension({ ...ask, drives: ['alternator', 'water-pump'] });
  expect(said).toMatchObject({ from: 'drives', most: null });
  expect(said.settings.setN).toBeGreaterThan(open.settings.setN);
  expect(said.settings.setN).toBeLessThan(open.most!.setN);
  expect(spanTension({ ...ask, aimN: 500 })).toMatchObject({ from: 'given', most: null, settings: { runInN: 500 } });
});
