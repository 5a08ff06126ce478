import { beltWidthMm, bodyRadiusMm, cordRadiusMm, facingDepthMm, markedLengthMm } from './contact';
import { SECTION_NAMES, sectionFor, SECTIONS } from './sections';

const pulley = (surface: 'ribbed' | 'vee' | 'smooth' | 'toothed', more = {}) => ({
  id: 'p',
  surface,
  diameter: 100,
  ...more,
});

test.each([
  ['PK', 'ribbed', 'drive', 52],
  ['PK', 'smooth', 'back', 51.3],
  ['AV10', 'vee', 'drive', 47.93],
  ['AV13', 'vee', 'drive', 47.14],
  ['AV13', 'smooth', 'back', 52.86],
] as const)('%s on a %s pulley of 100 mm, %s: cord at %s mm', (name, surface, side, radius) => {
  expect(cordRadiusMm(pulley(surface), side, sectionFor(name)!)).toBeCloseTo(radius, 9);
});

test('ride lifts the cord by itself; teeth alone make a toothed pulley', () => {
  expect(cordRadiusMm(pulley('vee', { ride: 1.5 }), 'drive', sectionFor('AV13')!)).toBeCloseTo(48.64, 9);
  expect(cordRadiusMm({ surface: 'toothed', teeth: 24 }, 'drive', sectionFor('L')!)).toBeCloseTo(
    (24 * 9.525) / (2 * Math.PI),
    9,
  );
});

test('marked length from cord length: effective shorter, outside longer, pitch the same', () => {
  expect(markedLengthMm(1000, sectionFor('PK')!)).toBeCloseTo(1000 - 4 * Math.PI, 9);
  expect(markedLengthMm(1000, sectionFor('AV10')!)).toBeCloseTo(1000 + 4.14 * Math.PI, 9);
  expect(markedLengthMm(1000, sectionFor('H')!)).toBe(1000);
});

test('every section is whole: a cord inside the belt, names used once', () => {
  expect(new Set(SECTION_NAMES).size).toBe(SECTIONS.length);
  for (const section of SECTIONS) {
    expect(section.backOffset).toBeGreaterThan(0);
    expect(section.backOffset).toBeLessThan(section.thickness);
    expect(facingDepthMm('back', section) + facingDepthMm('drive', section)).toBeCloseTo(section.thickness, 9);
    expect(section.kind === 'toothed' ? section.pitch : section.width).toBeGreaterThan(0);
  }
});

test('overrides replace what they name and nothing else; an unknown name is null', () => {
  expect(sectionFor('PK', { backOffset: 1.5 })).toEqual({ ...sectionFor('PK')!, backOffset: 1.5 });
  expect(sectionFor('AV10', { cordDepth: 2.5 })).toMatchObject({
    driveOffset: -2.5,
    backOffset: 2.5,
    markedOffset: 2.5,
  });
  expect(sectionFor('PK', { cordDepth: 9 })).toEqual(sectionFor('PK'));
  expect(sectionFor('constructor')).toBeNull();
});

test('width: ribs × pitch, the top of a V', () => {
  expect(beltWidthMm({ ribs: 6 }, sectionFor('PK')!)).toBeCloseTo(21.36, 9);
  expect(beltWidthMm({}, sectionFor('AV13')!)).toBe(13);
});

test('on a smooth face the cord of ribs, of a V or of teeth lies as high as the belt is thick from it inward', () => {
  expect(cordRadiusMm(pulley('smooth', { diameter: 80 }), 'drive', sectionFor('AV13')!)).toBeCloseTo(47.14, 9);
  expect(cordRadiusMm(pulley('smooth'), 'drive', sectionFor('H')!)).toBeCloseTo(50 + 2.29 + 0.686, 9);
  // Ribs stand on their tips there: 4.6 thick, with the cord 1.3 below the back.
  expect(cordRadiusMm(pulley('smooth'), 'drive', sectionFor('PK')!)).toBeCloseTo(50 + 3.3, 9);
});

test('a toothed pulley without a diameter is as large as the tips of its teeth', () => {
  const teeth = (section: string, count: number) =>
    2 * bodyRadiusMm({ surface: 'toothed', teeth: count }, sectionFor(section)!);
  // Outside diameters of ISO 5294 and ISO 13050: pitch diameter less twice the pitch line differential.
  expect(teeth('L', 20)).toBeCloseTo(60.64 - 0.762, 1);
  expect(teeth('H', 24)).toBeCloseTo(97.02 - 1.372, 1);
  expect(teeth('H8M', 32)).toBeCloseTo(81.49 - 1.372, 1);
  expect(teeth('XL', 16)).toBeCloseTo(25.87 - 0.508, 1);
  expect(teeth('H', 0)).toBe(0);
});
