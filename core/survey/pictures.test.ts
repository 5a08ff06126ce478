import { driveOf, SERPENTINE } from '../test/examples';
import type { Drive, PicturePoint, SurveyPhoto, SurveyReading } from '../drive';
import { fitSurvey } from './fit';
import { type Camera, toPicture } from './photo';
import { draws, expectShare } from '../test/draws';

function randomOf(seed: number): () => number {
  let state = (seed * 2654435761) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
const normalOf = (random: () => number) =>
  Math.sqrt(-2 * Math.log(random() || 1e-9)) * Math.cos(2 * Math.PI * random());
const truth = (): Drive => driveOf(SERPENTINE);

/** A picture of the drive from a camera rolled by `roll`, every rim marked to 0.7 px, the crank known. */
function picture(
  drive: Drive,
  seed: number,
  { tilt = 0.2, roll = 0, only = undefined as string[] | undefined } = {},
): SurveyPhoto {
  const random = randomOf(seed);
  const camera: Camera = {
    pitch: tilt * Math.cos(seed),
    yaw: tilt * Math.sin(seed),
    focal: 1300,
    distance: 1100,
    cx: 800,
    cy: 600,
  };
  const [c, s] = [Math.cos(roll), Math.sin(roll)];
  const rims = drive.stations
    .filter(({ id }) => !only || only.includes(id))
    .map(({ id, x, y, pulleys }) => ({
      pulley: id,
      known: id === 'crank',
      points: Array.from({ length: 8 }, (_, k): PicturePoint => {
        const turn = (k + random() * 0.5) * (Math.PI / 4);
        const [px, py] = [
          x - 10 + (pulleys[0]!.diameter! / 2) * Math.cos(turn),
          y - 150 + (pulleys[0]!.diameter! / 2) * Math.sin(turn),
        ];
        const [u, v] = toPicture(camera, c * px - s * py, s * px + c * py);
        return [u + 0.7 * normalOf(random), v + 0.7 * normalOf(random)];
      }),
    }));
  return { id: 'photo-1', hash: '0'.repeat(64), width: 1600, height: 1200, rims };
}

/** The drive with every shaft but the crank thrown about: nothing of the answer is in the sketch. */
function scattered(drive: Drive, photos: SurveyPhoto[]): Drive {
  return {
    ...drive,
    stations: drive.stations.map((s, k) => (s.id === 'crank' ? s : { ...s, x: 60 * k - 150, y: 200 - 30 * k })),
    survey: { photos },
  };
}

const tape = (drive: Drive, from: string, to: string, off = 0): SurveyReading => {
  const at = (id: string) => drive.stations.find((s) => s.id === id)!;
  const rims = (at(from).pulleys[0]!.diameter! + at(to).pulleys[0]!.diameter!) / 2;
  return {
    id: `${from} ${to}`,
    kind: 'outer',
    from,
    to,
    mm: Math.hypot(at(from).x - at(to).x, at(from).y - at(to).y) + rims + off,
    plusMinus: 1,
  };
};
const miss = (drive: Drive, fit: ReturnType<typeof fitSurvey>) =>
  fit.stations.map(({ id, x, y }) => {
    const at = drive.stations.find((s) => s.id === id)!;
    return Math.hypot(x - at.x, y - at.y);
  });

test('a picture alone places every pulley in it, upright as it was taken', () => {
  const fit = fitSurvey(scattered(truth(), [picture(truth(), 3)]), []);
  expect(Math.max(...miss(truth(), fit))).toBeLessThan(8);
  expect(fit.stations.every(({ plusMinusX }) => plusMinusX !== null)).toBe(true);
  expect(fit.findings.map(({ code }) => code)).toEqual(['unchecked']);
});

test('tapes tighten what a picture gives, and an angle reading turns it upright', () => {
  const drive = truth();
  const tapes = [
    tape(drive, 'crank', 'alt'),
    tape(drive, 'pump', 'ac'),
    tape(drive, 'pump', 'alt'),
    tape(drive, 'crank', 'pump'),
  ];
  const angle: SurveyReading = {
    id: 'level',
    kind: 'angle',
    from: 'crank',
    to: 'alt',
    deg: (Math.atan2(306, 178) * 180) / Math.PI,
    plusMinus: 0.1,
  };
  let alone = 0;
  let both = 0;
  for (let seed = 1; seed <= draws(10); seed += 1) {
    const rolled = scattered(drive, [picture(drive, seed, { roll: 0.15 })]);
    const fit = fitSurvey(rolled, [angle]);
    const two = fitSurvey(rolled, [angle, ...tapes]);
    alone += Math.hypot(...miss(drive, fit));
    both += Math.hypot(...miss(drive, two));
    expect(two.stations[4]!.plusMinusX!).toBeLessThan(fit.stations[4]!.plusMinusX!);
    expect(two.pictures[0]!.turn).toBeCloseTo(0.15, 1);
  }
  expect(both).toBeLessThan(alone);
});

test('of picture and tapes together the ± holds as often as it claims', () => {
  let inOne = 0;
  let all = 0;
  for (let seed = 1; seed <= draws(60); seed += 1) {
    const random = randomOf(seed + 70);
    const drive = truth();
    const noisy = () => normalOf(random);
    const level: SurveyReading = {
      id: 'level',
      kind: 'angle',
      from: 'crank',
      to: 'alt',
      deg: (Math.atan2(306, 178) * 180) / Math.PI + 0.2 * noisy(),
      plusMinus: 0.2,
    };
    const readings = [level, ...(['alt', 'pump', 'ac'] as const).map((to) => tape(drive, 'crank', to, noisy()))];
    const photo = picture(drive, seed, { tilt: 0.3 });
    const fit = fitSurvey(scattered(drive, [photo]), readings);
    fit.stations.slice(1).forEach(({ x, y, plusMinusX, plusMinusY }, k) => {
      const at = drive.stations[k + 1]!;
      all += 2;
      inOne += Number(Math.abs(x - at.x) <= plusMinusX!) + Number(Math.abs(y - at.y) <= plusMinusY!);
    });
  }
  expectShare(inOne, all, { from: 0.6, to: 0.85 }, 2);
});

test('a tape that slipped an inch is named against the picture, and a circle round the wrong thing against tapes', () => {
  const drive = truth();
  const tapes = [
    tape(drive, 'crank', 'alt'),
    tape(drive, 'crank', 'pump', 25.4),
    tape(drive, 'pump', 'alt'),
    tape(drive, 'ac', 'alt'),
    tape(drive, 'ac', 'pump'),
  ];
  expect(
    fitSurvey(scattered(drive, [picture(drive, 4)]), tapes).findings.find(({ code }) => code === 'suspect'),
  ).toMatchObject({ reading: 'crank pump' });

  const moved = {
    ...drive,
    stations: drive.stations.map((s) => (s.id === 'ac' ? { ...s, x: s.x + 60, y: s.y - 20 } : s)),
  };
  const right = [
    ...tapes.filter(({ id }) => id !== 'crank pump'),
    tape(drive, 'crank', 'pump'),
    tape(drive, 'crank', 'ac'),
  ];
  const fit = fitSurvey(scattered(drive, [picture(moved, 4)]), right);
  expect(fit.findings.filter(({ code }) => code.includes('suspect'))).toEqual([
    expect.objectContaining({ code: 'circle-suspect', photo: 'photo-1', pulley: 'ac' }),
  ]);
  expect(Math.max(...miss(drive, fit))).toBeLessThan(8);
});

test('two pictures of parts of the drive are joined by the pulleys they share', () => {
  const drive = truth();
  const left = picture(drive, 2, { only: ['crank', 'ten', 'pump', 'idler'] });
  const right = { ...picture(drive, 5, { roll: -0.1, only: ['crank', 'idler', 'alt', 'ac'] }), id: 'photo-2' };
  const fit = fitSurvey(scattered(drive, [left, right]), []);
  expect(Math.max(...miss(drive, fit))).toBeLessThan(12);
  expect(fit.pictures[1]!.turn).toBeCloseTo(-0.1, 1);
});

test('a picture that shows only unconnected pulleys leaves them free; a drive of one shaft is no trouble', () => {
  const drive = truth();
  const apart = fitSurvey(
    scattered(drive, [
      {
        ...picture(drive, 2, { only: ['alt', 'ac'] }),
        rims: picture(drive, 2, { only: ['alt', 'ac'] }).rims!.map((rim) => ({ ...rim, known: true })),
      },
    ]),
    [],
  );
  expect(apart.stations.find(({ id }) => id === 'alt')).toMatchObject({ plusMinusX: null });
  const single = driveOf([['crank', 0, 0, 168]]);
  expect(fitSurvey({ ...single, survey: { photos: [picture(truth(), 2, { only: ['crank'] })] } }, []).stations).toEqual(
    [{ id: 'crank', x: 0, y: 0, plusMinusX: 0, plusMinusY: 0 }],
  );
});
