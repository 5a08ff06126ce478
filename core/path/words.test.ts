import fc from 'fast-check';
import { driveOf, reread, SERPENTINE, station, type Stop } from '../test/examples';
import type { SurveyReading } from '../drive';
import { routeReason, searchRoutes } from '../route';
import { fitSurvey, surveyMessage } from '../survey';
import type { PathFinding, PathFindingCode } from './finding';
import { solveDrive } from './solve';
import { findingMessage, findingWords } from './words';
import { draws, THOROUGH } from '../test/draws';

/** What a sentence for a mechanic must not hold. */
const SLIPS = /undefined|NaN|null|\[object|Infinity| {2}/;

test('whatever a drive is found to be, it is told in whole sentences that name the place', () => {
  const seen = new Set<PathFindingCode>();
  const number = fc.oneof(fc.integer({ min: -300, max: 300 }), fc.constantFrom(0, 0, 2e5));
  const size = fc.oneof(fc.integer({ min: 20, max: 200 }), fc.constantFrom(0, 4, 3000, 2e5));
  const stop = fc.tuple(
    number,
    number,
    size,
    fc.constantFrom('drive' as const, 'back' as const),
    fc.constantFrom(
      {},
      { plane: 9 },
      { requires: 'ccw' as const },
      { grooves: 4 },
      { grooves: undefined },
      { surface: 'smooth' as const },
    ),
  );
  fc.assert(
    fc.property(fc.array(stop, { maxLength: 5 }), fc.boolean(), (stops, crank) => {
      const drive = driveOf(
        stops.map(([x, y, d, side, extra], k): Stop => [k === 0 && crank ? 'crank' : `p${k}`, x, y, d, side, extra]),
      );
      const { belts, findings } = solveDrive(drive);
      for (const finding of [...findings, ...belts.flatMap((belt) => belt.findings)]) {
        seen.add(finding.code);
        for (const unit of ['mm', 'in'] as const) {
          const { title, why, todo } = findingWords(drive, finding, unit);
          for (const text of [title, why, todo]) expect(text).toMatch(/^[A-Z].*\.$/);
          expect(`${title} ${why} ${todo}`).not.toMatch(SLIPS);
        }
        expect(findingMessage(drive, finding)).not.toContain('\n');
      }
    }),
    { numRuns: draws(1500) },
  );
  // The search above met most kinds; the rest are made by hand in the path's own tests.
  expect(seen.size).toBeGreaterThanOrEqual(THOROUGH ? 14 : 9);
});

test('lengths in a finding are in the shop unit', () => {
  const drive = driveOf([
    ['crank', 0, 0, 200],
    ['pump', 140, 0, 100],
    ['alt', 0, 400, 60],
  ]);
  const finding = solveDrive(drive).belts[0]!.findings[0]!;
  expect(findingWords(drive, finding, 'mm').title).toBe('Crank and Pulley overlap by 10.0 mm.');
  expect(findingWords(drive, finding, 'in').title).toBe('Crank and Pulley overlap by 3/8".');
});

test('a cure for a belt that does not close names the pulley to turn over', () => {
  const drive = driveOf([
    ['crank', 0, 0, 100],
    ['alt', 300, 0, 100, 'back', { role: 'alternator' }],
  ]);
  const finding: PathFinding = {
    code: 'not-closed',
    severity: 'fault',
    pulley: 'alt',
    figures: { turns: 0, cure: 'flip' },
  };
  expect(findingMessage(drive, finding)).toBe(
    'The belt does not close. Its bends add up to no turn; a closed belt makes exactly one. Try the other side of the belt at Alternator.',
  );
});

test('what the tapes say is told whole, with the reading named', () => {
  const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
  const at = (id: string) => drive.stations.find((s) => s.id === id)!;
  const ids = drive.stations.map(({ id }) => id);
  const centre = (from: string, to: string, off = 0): SurveyReading => ({
    id: `${from}-${to}`,
    kind: 'centre',
    from,
    to,
    mm: Math.hypot(at(from).x - at(to).x, at(from).y - at(to).y) + off,
    plusMinus: 1,
  });
  const all = ids.flatMap((from, i) => ids.slice(i + 1).map((to) => centre(from, to)));
  const cases: SurveyReading[][] = [
    [],
    [centre('crank', 'alt')],
    all.map((r) => (r.id === 'crank-alt' ? reread(r, 25.4) : r)),
    [centre('crank', 'alt'), { ...centre('crank', 'alt', 40), id: 'again' }],
    all.map((r, k) => reread(r, 6 * Math.sin(k * 5))),
  ];
  const texts = cases.flatMap((readings) => {
    const there = { ...drive, survey: { readings } };
    return fitSurvey(there, readings).findings.map((finding) => surveyMessage(there, finding));
  });
  expect(texts.length).toBeGreaterThan(5);
  for (const text of texts) expect(text).not.toMatch(SLIPS);
  expect(texts.join('\n')).toContain('Take Crank to Alternator, centre to centre again.');
  expect(texts.join('\n')).toContain('Likely mistake: an inch or two out on the tape.');
});

test('every reason for a route reads as part of a sentence', () => {
  const plain = driveOf(SERPENTINE, { route: [] }, { crankRotation: 'cw' });
  const drive = {
    ...plain,
    stations: [
      ...plain.stations.map((s) => (s.id === 'idler' ? { ...s, optional: true } : s)),
      station(['far', 320, 200, 60, 'back', { requires: 'cw' }]),
    ],
  };
  const reasons = searchRoutes(drive, 'main', { top: 200 }).routes.flatMap((found) => found.reasons);
  expect(new Set(reasons.map(({ code }) => code)).size).toBeGreaterThan(4);
  for (const reason of reasons) expect(routeReason(drive, reason, 'in')).not.toMatch(SLIPS);
});
