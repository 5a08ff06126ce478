import { stiffnessN } from '../adjuster';
import { addBelt, changeStation, type Drive } from '../drive';
import { markedLengthMm, sectionFor } from '../section';
import { driveOf } from '../test/examples';
import { staticBeltOf, tensionOf } from '../loads';
import { settingFor, sharedSettings } from './setting';

/* Two equal pulleys on a slide along their line: the path is 2·d + 2π·r, so every figure has a closed form. */

const RADIUS = 60 - 2.07;
const BASIS = markedLengthMm(0, sectionFor('AV10')!);
const path = (apart: number) => 2 * apart + 2 * Math.PI * RADIUS;
const slide = (lengthMm: number | null, staticTension?: number): Drive =>
  changeStation(
    driveOf(
      [
        ['crank', 0, 0, 120],
        ['alt', 250, 0, 120],
      ],
      { section: 'AV10', length: lengthMm, ...(staticTension !== undefined && { staticTension }) },
    ),
    'alt',
    { adjuster: { kind: 'slide', direction: 0, travel: 40 } },
  );
const far = (drive: Drive, toN: number) => settingFor(drive, staticBeltOf(drive, 'main')!, toN)!.mm!;

test.each([0.5, 3, 8, 20, 45])('a belt that hangs %p mm too long is taken up first, and then stretched', (loose) => {
  const cord = path(250) + loose;
  const drive = slide(cord + BASIS);
  const stiffness = stiffnessN(drive.belts[0]!);
  for (const toN of [150, 450, 900]) {
    expect(far(drive, toN)).toBeCloseTo((cord * (1 + toN / stiffness) - path(250)) / 2, 6);
    expect(far(drive, toN)).toBeGreaterThan(loose / 2);
  }
});

test('a belt that is taut goes by its own length: there and back again is no way at all', () => {
  for (const from of [100, 380, 700]) {
    const drive = slide(null, from);
    const stiffness = stiffnessN(drive.belts[0]!);
    expect(far(drive, from)).toBeCloseTo(0, 6);
    const own = path(250) / (1 + from / stiffness);
    expect(far(drive, from + 250)).toBeCloseTo((own * (1 + (from + 250) / stiffness) - path(250)) / 2, 6);
  }
});

test('set so far, the belt stands at what was asked for', () => {
  for (const loose of [-2, 0, 6, 18]) {
    const drive = slide(path(250) + loose + BASIS);
    const there = changeStation(drive, 'alt', { x: 250 + far(drive, 450) });
    expect(staticBeltOf(there, 'main')!.tensionN).toBeCloseTo(450, 3);
  }
});

test('another belt on the shaft that is moved: a loose one is first taken up as well', () => {
  const drive = slide(path(250) + BASIS);
  const two: Drive = addBelt(
    {
      ...drive,
      stations: drive.stations.map((station) => ({
        ...station,
        pulleys: [...station.pulleys, { ...station.pulleys[0]!, id: `${station.id}-2`, plane: 20 }],
      })),
    },
    {
      ...drive.belts[0]!,
      id: 'second',
      length: path(250) + 1 + BASIS,
      route: [
        { pulley: 'crank-2', side: 'drive' },
        { pulley: 'alt-2', side: 'drive' },
      ],
    },
  );
  const { staticBelts } = tensionOf(two);
  const setting = settingFor(two, staticBelts[0]!, 600)!;
  const [shared] = sharedSettings(two, staticBelts, 'main', setting);
  const stiffness = stiffnessN(two.belts[1]!);
  const cord = path(250) + 1;
  expect(shared!.thenN).toBeCloseTo(Math.max(0, (stiffness * (path(250 + setting.mm!) - cord)) / cord), 3);
  expect(shared!.thenN!).toBeLessThan(600 - 40);
});
