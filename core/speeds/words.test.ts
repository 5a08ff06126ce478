import fc from 'fast-check';
import { driveOf, SERPENTINE } from '../test/examples';
import type { Drive } from '../drive';
import { explainRatio, type RatioMistake, readRatio } from './ratio-mistake';
import type { SpeedReason } from './search';
import { bandFindings, type SpeedFinding } from './speeds';
import { slipOf } from './tachometer';
import {
  bandWords,
  ratioFigure,
  ratioReadingWords,
  ratioStatement,
  rpmFigure,
  slipWords,
  speedMessage,
  speedReason,
  speedWords,
} from './words';

/** What a sentence for a mechanic must not hold. */
const SLIPS = /undefined|NaN|null|\[object|Infinity| {2}/;
const drive: Drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
const two: Drive = { ...drive, belts: [...drive.belts, { ...drive.belts[0]!, id: 'second' }] };

test('figures as they are read aloud', () => {
  expect([rpmFigure(2116.6), rpmFigure(0.4), rpmFigure(12_345.5)]).toEqual(['2,117', '0', '12,346']);
  expect([0.36, 1, 2.774, 12.34, 123.4].map(ratioFigure)).toEqual(['0.360', '1.00', '2.77', '12.3', '123']);
});

test('a ratio is said both ways round, and the two cannot be taken for one another', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 20, noNaN: true }), fc.integer({ min: 300, max: 1500 }), (ratio, idle) => {
      const { turns, reciprocal } = ratioStatement(ratio, idle);
      expect(turns).toBe(`Turns ${ratioFigure(ratio)} times for each crank turn; ${rpmFigure(ratio * idle)} at idle.`);
      expect(reciprocal).toContain(`the crank turns ${ratioFigure(1 / ratio)} times`);
    }),
  );
});

test('every slip of a ratio is told in a whole sentence that gives the true figure', () => {
  const slips: RatioMistake[] = [
    'right',
    'share',
    'upside-down',
    'upside-down-percent',
    'rims',
    'rims-upside-down',
    'other-sheave',
    'radius',
    'one-stage',
    'other-shaft',
  ];
  for (const slip of slips) {
    const text = ratioReadingWords(
      drive,
      { slip, value: 5.55, off: 0, pulley: 'alt', station: 'ac' },
      2.774,
      'Alternator',
    );
    expect(text).toMatch(/^That .*\.$/);
    expect(text).toMatch(/Alternator turns 2\.77 times for each crank turn/);
    expect(text).not.toMatch(SLIPS);
  }
});

test('any ratio at all is answered: a slip that gives it, or none, but never a wrong figure', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 400, noNaN: true }),
      fc.boolean(),
      fc.integer({ min: 0, max: 3 }),
      (value, percent, places) => {
        const text = `${value.toFixed(places)}${percent ? ' %' : ''}`;
        const claim = readRatio(text);
        if (Number(value.toFixed(places)) === 0) {
          expect(claim).toBeNull();
          return;
        }
        const { truth, readings } = explainRatio(drive, 'alt', claim!)!;
        expect(truth).toBeCloseTo(172 / 62, 12);
        for (const { off, value: given } of readings) {
          expect(Math.abs(claim!.value / given - 1)).toBeCloseTo(off, 12);
          expect(off).toBeLessThanOrEqual(0.02);
        }
      },
    ),
  );
});

test('what speeds ask of a belt, of which belt, and against which default', () => {
  const findings: SpeedFinding[] = [
    {
      code: 'belt-too-fast',
      severity: 'watch',
      belt: 'second',
      figures: { metresPerSecond: 52.6, limit: 42, rpm: 4600 },
    },
    {
      code: 'flexes-too-often',
      severity: 'watch',
      belt: 'main',
      figures: { flexPerSecond: 144.6, limit: 100, rpm: 4600 },
    },
    {
      code: 'bend-too-tight',
      severity: 'watch',
      belt: 'main',
      pulley: 'alt',
      figures: { diameterMm: 41.2, limit: 45 },
    },
    { code: 'two-ratios', severity: 'fault', belt: 'main', pulley: 'alt', figures: { percent: -2.567 } },
    { code: 'two-ways', severity: 'fault', belt: 'main', pulley: 'alt', figures: {} },
  ];
  for (const finding of findings) {
    for (const unit of ['mm', 'in'] as const) {
      const { title, why, todo } = speedWords(two, finding, unit);
      for (const text of [title, why, todo]) expect(text).toMatch(/^[A-Z].*\.$/);
    }
    expect(speedMessage(two, finding)).not.toMatch(SLIPS);
  }
  expect(speedWords(two, findings[0]!).title).toBe('Belt 2 runs at 53 m/s at 4,600 rev/min.');
  expect(speedWords(two, findings[3]!).why).toBe('Their speeds differ by 2.57 %.');
  expect(speedWords(drive, findings[1]!).title).toMatch(/^The belt bends 145 times a second/);
});

test('every reason for or against a choice of pulleys is a piece of a sentence', () => {
  const reasons: SpeedReason[] = [
    { code: 'meets', good: true, station: 'alt', figures: { rpm: 11_426, engineRpm: 4600 } },
    { code: 'misses', good: false, station: 'alt', figures: { rpm: 900, engineRpm: 700, by: -100 } },
    { code: 'too-fast-elsewhere', good: false, station: 'ac', figures: { rpm: 9100 } },
    { code: 'too-slow-elsewhere', good: false, station: 'ac', figures: { rpm: 500 } },
    { code: 'does-not-close', good: false, belt: 'main' },
    { code: 'new-fault', good: false, belt: 'main', figures: { count: 1 } },
    { code: 'new-watch', good: false, belt: 'second', figures: { count: 2 } },
    { code: 'length', good: true, belt: 'main', figures: { changeMm: -12.4, lengthMm: 1700 } },
    { code: 'taken-belt', good: false, belt: 'main', figures: { lengthMm: 1805 } },
    { code: 'fewest-changes', good: true },
  ];
  const texts = reasons.map((reason) => speedReason(two, reason));
  for (const text of texts) expect(text).not.toMatch(SLIPS);
  expect(texts[0]).toBe('Alternator turns 11,426 at 4,600, as wanted');
  expect(texts[1]).toBe('Alternator turns 900 at 700, 100 too slow');
  expect(texts[7]).toBe('belt 1 shorter by 12.4 mm');
  expect(texts[8]).toBe('the chosen belt, 1805.0 mm, no longer fits');
});

test('a slip by tachometer is told with its ±; what geometry forbids is put to the readings', () => {
  const wordsAt = (rpm: number) => slipWords(slipOf({ crankRpm: 2000, rpm, plusMinus: 1 }, 2, [86, 43])!);
  expect(wordsAt(4000).title).toBe('No slip.');
  expect(wordsAt(3920).title).toMatch(/^Creeps by 2\.0 % ± 0\.\d\.$/);
  expect(wordsAt(3500).title).toMatch(/^Slips by 12\.5 % ± 0\.\d\.$/);
  expect(wordsAt(4200)).toMatchObject({
    title: expect.stringMatching(/^Turns 5\.0 % ± 0\.\d faster/) as string,
    why: 'No belt can do that.',
  });
});

test('a shaft outside its band names the limit and whose it is', () => {
  const findings = bandFindings(
    drive,
    { idle: 500, redline: 9000 },
    { 'ac-compressor': { least: 900, continuous: 5000, burst: 6000 } },
  );
  for (const finding of findings) {
    const { title, why, todo } = bandWords(drive, finding);
    for (const text of [title, why, todo]) expect(text).not.toMatch(SLIPS);
    expect(why).toContain(finding.source === 'shop' ? "the shop's own" : "Emery's default, not a specification");
  }
  expect(findings.filter(({ station }) => station === 'ac').map(({ place }) => place)).toEqual(['beyond', 'too-slow']);
});
