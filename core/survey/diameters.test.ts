import fc from 'fast-check';
import { driveOf } from '../test/examples';
import { type DiameterReading, type Drive, readDrive } from '../drive';
import { combinedDiameter, withReadDiameters } from './diameters';
import { putDiameter, removeDiameter } from './edit';

const drive = (...diameters: DiameterReading[]): Drive => ({
  ...driveOf([
    ['crank', 0, 0, 160],
    ['inner', 300, 0, 100],
    ['other', 0, 300, 90],
  ]),
  survey: { diameters },
});
const read = (method: DiameterReading['method'], mm: number, more: Partial<DiameterReading> = {}) =>
  ({ id: `${method} ${mm}`, pulley: 'crank', method, mm, ...more }) as DiameterReading;

test('each method gives the diameter its own way', () => {
  expect(combinedDiameter(drive(read('calliper', 160.2)), 'crank')).toMatchObject({ mm: 160.2, plusMinus: 0.2 });
  expect(combinedDiameter(drive(read('across', 160)), 'crank')).toMatchObject({ mm: 160, plusMinus: 1.6 });
  const around = combinedDiameter(drive(read('around', 502.65, { plusMinus: 3 })), 'crank')!;
  expect(around.mm).toBeCloseTo(160, 2);
  expect(around.plusMinus).toBeCloseTo(3 / Math.PI, 9);
});

test('a step counts twice, from what the readings make the outer rim', () => {
  const both = drive(read('calliper', 158), read('step', 28, { pulley: 'inner', of: 'crank' }));
  expect(combinedDiameter(both, 'inner')!.mm).toBeCloseTo(102, 9);
  expect(combinedDiameter(both, 'inner')!.plusMinus).toBeCloseTo(Math.hypot(0.2, 1), 9);
  expect(combinedDiameter(drive(read('step', 28, { pulley: 'inner', of: 'crank' })), 'inner')!.mm).toBeCloseTo(104, 9);
  expect(combinedDiameter(drive(read('step', 90, { pulley: 'inner', of: 'crank' })), 'inner')).toBeNull();
});

test('two sheaves stepped from each other say nothing, and nothing hangs', () => {
  const circular = drive(read('step', 10, { of: 'inner' }), read('step', 10, { pulley: 'inner', of: 'crank' }));
  expect(combinedDiameter(circular, 'crank')).toBeNull();
});

test('several readings weigh by their ±: between them all, and surer than each', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          mm: fc.double({ min: 150, max: 152, noNaN: true }),
          plusMinus: fc.double({ min: 0.5, max: 5, noNaN: true }),
        }),
        { minLength: 2, maxLength: 8 },
      ),
      (list) => {
        const { mm, plusMinus } = combinedDiameter(
          drive(...list.map((entry, k) => read('across', entry.mm, { ...entry, id: `r${k}` }))),
          'crank',
        )!;
        expect(mm).toBeGreaterThanOrEqual(Math.min(...list.map((entry) => entry.mm)) - 1e-9);
        expect(mm).toBeLessThanOrEqual(Math.max(...list.map((entry) => entry.mm)) + 1e-9);
        if (list.every((entry) => Math.abs(entry.mm - mm) < entry.plusMinus))
          expect(plusMinus).toBeLessThan(Math.min(...list.map((entry) => entry.plusMinus)));
      },
    ),
  );
});

test('readings that disagree are named, and the ± grows', () => {
  const { suspect, plusMinus } = combinedDiameter(
    drive(read('calliper', 160), read('calliper', 160.1), read('across', 185)),
    'crank',
  )!;
  expect(suspect).toBe('across 185');
  expect(plusMinus).toBeGreaterThan(1);
  expect(combinedDiameter(drive(read('calliper', 160), read('calliper', 160.3)), 'crank')!.suspect).toBeNull();
});

test('the drawing takes what the readings come to, and so do the sheaves stepped from it', () => {
  const put = withReadDiameters(
    drive(read('calliper', 158.004), read('step', 28, { pulley: 'inner', of: 'crank' })),
    'crank',
  );
  expect(put.stations.map(({ pulleys }) => pulleys[0]!.diameter)).toEqual([158, 102, 90]);
});

test('the file names a diameter reading that is wrong', () => {
  const problems = (...readings: object[]) => {
    const result = readDrive({ ...drive(), survey: { diameters: readings } });
    return result.ok ? [] : result.problems.map(({ path }) => path);
  };
  expect(problems(read('calliper', 160, { at: '2026-11-24T10:00:00Z' }))).toEqual([]);
  expect(problems(read('step', 20))).toEqual(['survey.diameters[0].of']);
  expect(problems({ ...read('calliper', 160), method: 'guess' }, read('around', -3))).toEqual([
    'survey.diameters[0].method',
    'survey.diameters[1].mm',
  ]);
  expect(problems(read('calliper', 160), read('calliper', 160), read('across', 1, { pulley: 'ghost' }))).toEqual([
    'survey.diameters[1].id',
    'survey.diameters[2].pulley',
  ]);
});

test('a reading put in or taken out moves the drawing with it; the last one taken out leaves it where it was', () => {
  const drawn = (drive: Drive) => drive.stations.map(({ pulleys }) => pulleys[0]!.diameter);
  const first = putDiameter(drive(), read('calliper', 158));
  const stepped = putDiameter(first, read('step', 28, { pulley: 'inner', of: 'crank' }));
  const second = putDiameter(stepped, read('calliper', 162, { id: 'again' }));
  expect([first, stepped, second].map(drawn)).toEqual([
    [158, 100, 90],
    [158, 102, 90],
    [160, 104, 90],
  ]);
  const without = removeDiameter(second, 'calliper 158');
  expect(drawn(without)).toEqual([162, 106, 90]);
  const none = removeDiameter(without, 'again');
  expect([drawn(none), none.survey!.diameters]).toEqual([
    [162, 106, 90],
    [expect.objectContaining({ method: 'step' })],
  ]);
  expect(removeDiameter(none, 'nobody')).toEqual(none);
});
