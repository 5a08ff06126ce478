import { driveOf, SERPENTINE } from '../test/examples';
import { lengthCurve, pathLength } from '../adjuster';
import { changeBelt, type Drive, type Measurement, readDrive } from '../drive';
import { sectionFor } from '../section';
import { combinedLength, measuredLength } from './measured';
import { toolRadius } from './told';

const serpentine = (): Drive => driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
const allRibs = (): Drive =>
  driveOf(
    [
      ['crank', 0, 0, 160],
      ['pump', 20, 300, 120],
      ['alt', 260, 180, 60],
    ],
    {},
    { crankRotation: 'cw' },
  );
const laid = (tool: Measurement['tool'], mm: number, more: Partial<Measurement> = {}): Measurement => ({
  id: 'm1',
  tool,
  mm,
  stretch: 0,
  ...more,
});

test('on an all-drive-side layout a strap is off by exactly 2π times half its thickness', () => {
  const drive = allRibs();
  const { correctionMm, parts } = measuredLength(
    drive,
    drive.belts[0]!,
    null,
    laid('strap', 1000, { thickness: 1.4 }),
  )!;
  // The effective line lies on the rib tips, the strap's middle 0.7 above them.
  expect(correctionMm).toBeCloseTo(-2 * Math.PI * 0.7, 9);
  expect(parts.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(correctionMm, 9);
});

test('a tool as thin as nothing on the marked line needs no correction; back pulleys break the 2π rule', () => {
  const ribs = allRibs();
  expect(measuredLength(ribs, ribs.belts[0]!, null, laid('strap', 1000, { thickness: 0 }))!.correctionMm).toBeCloseTo(
    0,
    9,
  );
  const mixed = serpentine();
  const { correctionMm } = measuredLength(mixed, mixed.belts[0]!, null, laid('strap', 1800, { thickness: 0 }))!;
  // On the back the belt's cord is 1.3 off the face and 2 off the ribs, so the layout itself decides.
  expect(Math.abs(correctionMm)).toBeGreaterThan(5);
});

test('what a strap of its own path reads gives the belt its drawn length', () => {
  const drive = serpentine();
  const belt = drive.belts[0]!;
  const { correctionMm } = measuredLength(drive, belt, null, laid('string', 1000))!;
  const there = measuredLength(drive, belt, null, laid('string', pathLength(drive, belt)! - correctionMm))!;
  expect(there.againstDrawing).toBeCloseTo(0, 9);
  expect(there.rules.find(({ rule }) => rule === 'as-read')!.offMm).toBeCloseTo(-correctionMm, 9);
});

test('a string drops into a groove, to its floor at most; a strap and a thick rope ride on top', () => {
  const section = sectionFor('AV10')!;
  const pulley = { id: 'p', surface: 'vee' as const, diameter: 100 };
  expect(toolRadius(pulley, 'drive', section, 'string', 1)).toBeCloseTo(50 - (section.thickness + 2) + 0.5, 9);
  // Wedged: half the width over the tangent below the rim, half the thickness over the sine back up.
  const half = (18 * Math.PI) / 180;
  expect(toolRadius(pulley, 'drive', section, 'rope', 8)).toBeCloseTo(50 - 5 / Math.tan(half) + 4 / Math.sin(half), 9);
  expect(toolRadius(pulley, 'drive', section, 'strap', 1)).toBeCloseTo(50.5, 9);
  expect(
    toolRadius({ id: 'p', surface: 'ribbed', diameter: 100 }, 'drive', sectionFor('PK')!, 'rope', 8),
  ).toBeGreaterThan(50);
  expect(toolRadius({ id: 'p', surface: 'smooth', diameter: 100 }, 'back', sectionFor('PK')!, 'string', 2)).toBe(51);
});

test('a doubled loop, a stretched string and a gauge', () => {
  const drive = allRibs();
  const belt = drive.belts[0]!;
  const plain = measuredLength(drive, belt, null, laid('strap', 1000))!.markedMm;
  expect(measuredLength(drive, belt, null, laid('strap', 500, { doubled: true }))!.markedMm).toBeCloseTo(plain, 9);
  expect(measuredLength(drive, belt, null, laid('strap', 1000, { stretch: 0.01 }))!.markedMm).toBeCloseTo(
    plain + 10,
    9,
  );
  expect(measuredLength(drive, belt, null, { id: 'g', tool: 'gauge', mm: 400, circumference: 300 })!.markedMm).toBe(
    1100,
  );
  expect(
    measuredLength(drive, belt, null, { id: 'o', tool: 'old-belt', mm: 1000 + 2 * Math.PI * 1.3, worn: 0 })!.markedMm,
  ).toBeCloseTo(1000 - 4 * Math.PI, 9);
});

test('where the adjuster stood is allowed for', () => {
  const drive: Drive = {
    ...allRibs(),
    stations: allRibs().stations.map((s) =>
      s.id === 'alt' ? { ...s, adjuster: { kind: 'slide', direction: 0, travel: 30 } } : s,
    ),
  };
  const belt = drive.belts[0]!;
  const curve = lengthCurve(drive, belt)!;
  const at = (state: Measurement['state']) =>
    measuredLength(drive, belt, curve, laid('strap', 1000, { ...(state && { state }) }))!.againstDrawing!;
  expect(at('tight')).toBeLessThan(at('slack'));
  expect(at('slack')).toBeCloseTo(at('as-drawn'), 9);
});

test('measurements and drawing are weighed together; the one that stands out is to be taken again', () => {
  const drive = allRibs();
  const belt = drive.belts[0]!;
  const drawn = pathLength(drive, belt)!;
  const marked = (id: string, off: number, plusMinus: number): Measurement => ({
    id,
    tool: 'marking',
    mm: drawn + off,
    plusMinus,
  });
  const agree = combinedLength(drive, { ...belt, measurements: [marked('a', 4, 2)] }, null, 2);
  expect(agree.shiftMm).toBeCloseTo(2, 9);
  expect(agree.plusMinus).toBeCloseTo(Math.SQRT2, 9);
  expect(agree.disagree).toBe(false);
  const apart = combinedLength(
    drive,
    { ...belt, measurements: [marked('a', 1, 2), marked('b', 0, 2), marked('c', 26, 2)] },
    null,
    2,
  );
  expect(apart.disagree).toBe(true);
  expect(apart.measured.filter(({ suspect }) => suspect).map(({ id }) => id)).toEqual(['c']);
  expect(combinedLength(drive, belt, null, 2)).toEqual({
    ...{ measured: [], shiftMm: 0, plusMinus: 2 },
    ...{ disagree: false, widen: 1 },
  });
});

test('the file names a measurement that is wrong', () => {
  const problems = (measurement: object) => {
    const result = readDrive(changeBelt(allRibs(), 'main', { measurements: [measurement as Measurement] }));
    return result.ok ? [] : result.problems.map(({ path }) => path);
  };
  expect(
    problems({
      id: 'a',
      tool: 'string',
      mm: 1200,
      state: 'slack',
      doubled: true,
      thickness: 2,
      stretch: 0.01,
      plusMinus: 2,
    }),
  ).toEqual([]);
  expect(problems({ id: 'a', tool: 'guess', mm: -1 })).toEqual([
    'belts[0].measurements[0].tool',
    'belts[0].measurements[0].mm',
  ]);
});

test('on top of the ribs or rims a string lies where a strap would, many mm further out than in the grooves', () => {
  const drive = serpentine();
  const belt = drive.belts[0]!;
  const read = (lay?: 'groove' | 'rim') =>
    measuredLength(drive, belt, null, laid('string', 1800, { thickness: 2, ...(lay && { lay }) }))!;
  expect(read('rim').markedMm).toBeCloseTo(
    measuredLength(drive, belt, null, laid('strap', 1800, { thickness: 2 }))!.markedMm,
    9,
  );
  // The path on the rims is longer, so the same reading there means a shorter belt.
  expect(read('groove').markedMm - read('rim').markedMm).toBeGreaterThan(10);
  // Nobody looked: the middle, with a ± that holds both.
  const open = read();
  const [groove, rim] = [read('groove').markedMm, read('rim').markedMm];
  expect(open).toMatchObject({ lay: null, eitherWay: { groove, rim } });
  expect(open.markedMm).toBeCloseTo((groove + rim) / 2, 9);
  expect(open.plusMinus).toBeGreaterThan((groove - rim) / 2);
  expect(open.parts.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(open.correctionMm, 9);
  expect(measuredLength(drive, belt, null, laid('strap', 1800))!.lay).toBeNull();
});

test('the drawing tells how a string lay: so it is taken where nobody said, and told where somebody did', () => {
  const drive = serpentine();
  const belt = drive.belts[0]!;
  const drawn = pathLength(drive, belt)!;
  const onRims = (more: Partial<Measurement> = {}) =>
    laid('string', drawn - measuredLength(drive, belt, null, laid('string', 1000, { lay: 'rim' }))!.correctionMm, {
      plusMinus: 2,
      ...more,
    });
  const combined = (measurement: Measurement) =>
    combinedLength(drive, { ...belt, measurements: [measurement] }, null, 2);
  const unsaid = combined(onRims());
  expect(unsaid.measured[0]).toMatchObject({ lay: 'rim', layTold: true });
  expect(unsaid.shiftMm).toBeCloseTo(0, 6);
  expect(unsaid.disagree).toBe(false);
  const said = combined(onRims({ lay: 'groove' }));
  expect(said.measured[0]).toMatchObject({ lay: 'groove', layTold: true });
  expect(said.disagree).toBe(true);
  expect(combined(onRims({ lay: 'rim' })).measured[0]).toMatchObject({ lay: 'rim', layTold: false });
});

test.each([
  ['AV10', 'vee'],
  ['AV13', 'vee'],
  ['PK', 'ribbed'],
  ['PL', 'ribbed'],
] as const)('%s: the line of a round tool moves without a jump as it gets thicker', (name, surface) => {
  const at = (thickness: number) =>
    toolRadius({ id: 'p', surface, diameter: 100 }, 'drive', sectionFor(name)!, 'rope', thickness);
  for (let thickness = 0; thickness < 40; thickness += 0.02) {
    const step = at(thickness + 0.02) - at(thickness);
    expect(step).toBeGreaterThan(0);
    // Steepest where it leaves the flanks: half the thickness over the sine of half the angle.
    expect(step).toBeLessThan(0.01 / Math.sin((17 * Math.PI) / 180) + 0.01);
  }
});
