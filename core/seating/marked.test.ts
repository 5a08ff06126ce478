import { changeBelt, changeStation, type Drive } from '../drive';
import { bringList, cardOf } from '../job';
import { markedMisfitOf } from '../size';
import { tensionOf } from '../loads';
import { restFindings } from '../tension';
import { driveOf } from '../test/examples';
import { markedMisfit } from './marked';
import { sizeBelt } from './size-belt';

const drive = (length: number | null): Drive =>
  changeBelt(
    changeStation(
      driveOf(
        [
          ['crank', 0, 0, 140],
          ['alt', 240, 60, 70, 'drive', { role: 'alternator' }],
        ],
        { section: 'AV10' },
      ),
      'alt',
      { adjuster: { kind: 'slide', direction: 14, travel: 40 } },
    ),
    'main',
    { length },
  );
const codes = (drive: Drive) =>
  restFindings(tensionOf(drive), 'main', markedMisfitOf(drive, 'main')).map(({ code }) => code);

test('a marked length that cannot go on: card, Tension and bring list all say so, and Size’s is brought', () => {
  const { slackEnd, tightEnd } = sizeBelt(drive(null), 'main', { lengths: [] })!.window;
  for (const [length, verdict] of [
    [slackEnd! - 120, 'will-not-go-on'],
    [tightEnd! + 90, 'out-of-travel'],
  ] as const) {
    const bad = drive(length);
    expect(markedMisfit(bad, 'main')).toEqual({ lengthMm: length, verdict });
    expect(cardOf(bad).findings).toContainEqual(expect.objectContaining({ code: 'marked-misfit', severity: 'fault' }));
    expect(codes(bad)).toContain('marked-misfit');
    const [belt] = bringList(bad).belts;
    expect(belt).toMatchObject({ from: 'size', misfit: { lengthMm: length } });
    expect(belt!.lengthMm).toBeGreaterThan(slackEnd!);
    expect(belt!.lengthMm).toBeLessThan(tightEnd!);
  }
});

test('one that goes on is brought as it is marked, and nothing is said of it', () => {
  const best = bringList(drive(null)).belts[0]!.lengthMm;
  const good = drive(best);
  expect(markedMisfit(good, 'main')).toBeNull();
  expect(codes(good)).not.toContain('marked-misfit');
  expect(cardOf(good).findings.map(({ code }) => code)).not.toContain('marked-misfit');
  expect(bringList(good).belts[0]).toMatchObject({ from: 'marked', lengthMm: best });
  expect(bringList(good).belts[0]).not.toHaveProperty('misfit');
});

test('what was measured of the length decides with the drawing', () => {
  const length = sizeBelt(drive(null), 'main', { lengths: [] })!.window.tightEnd! + 12;
  // The old belt, taped: the drawing is 20 mm short.
  const measured = changeBelt(drive(length), 'main', {
    measurements: [{ id: 'm', tool: 'marking', mm: length + 5, plusMinus: 0.5, state: 'tight' }],
  });
  expect(markedMisfitOf(drive(length), 'main')).not.toBeNull();
  expect(markedMisfitOf(measured, 'main')).toBeNull();
  // Card, Tension and bring list go by that one answer, not by the drawing alone.
  expect(codes(drive(length))).toContain('marked-misfit');
  expect(codes(measured)).not.toContain('marked-misfit');
  expect(cardOf(measured).findings.map(({ code }) => code)).not.toContain('marked-misfit');
  expect(bringList(measured).belts[0]).toMatchObject({ from: 'marked', lengthMm: length });
});
