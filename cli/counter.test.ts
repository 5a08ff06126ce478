import fc from 'fast-check';
import { runCommand } from './run-command';
import { emery } from './test/emery';
import { stringLength, twoPulleys } from '@emery/core/counter';
import { UsageProblem } from '@emery/core/command';
import { sectionFor } from '@emery/core/section';

const said = (...args: string[]) => JSON.parse(runCommand(args)) as Record<string, never>;

test('string prints the length that core makes of it, and what to ask for', () => {
  const { status, stdout } = emery(
    'string',
    '66 1/2"',
    '--section',
    'PK',
    '--ribs',
    '6',
    '--back',
    'half,40',
    '--lay',
    'rim',
    '--held',
    'slack',
    '--takes-up',
    '30',
  );
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as { markedMm: number; plusMinus: number; lengths: object[]; best: object };
  const core = stringLength({
    section: sectionFor('PK')!,
    measurement: { tool: 'string', mm: 66.5 * 25.4, lay: 'rim' },
    riding: [
      { on: 'back', bend: 'half' },
      { on: 'back', bend: 40 },
    ],
  });
  expect(printed).toMatchObject({ markedMm: core.markedMm, plusMinus: core.plusMinus, basis: 'effective', lay: 'rim' });
  expect(printed.lengths.length).toBeGreaterThan(3);
  expect(printed.best).toMatchObject({ markings: expect.arrayContaining([]) as unknown });
});

test('two-pulleys prints ratio both ways, length or distance, speeds, and how a hand-made ratio came about', () => {
  const printed = said(
    'two-pulleys',
    '7 3/8", 2 5/8"',
    '--section',
    'AV10',
    '--distance',
    '12 1/2"',
    '--rpm',
    '750,5000',
    '--ratio',
    '2.81',
  );
  const core = twoPulleys({
    section: 'AV10',
    crank: { diameter: 7.375 * 25.4 },
    other: { diameter: 2.625 * 25.4 },
    role: 'alternator',
    distanceMm: 317.5,
    lengthMm: null,
  })!;
  expect(printed).toMatchObject({
    ratio: core.ratio,
    reciprocal: 1 / core.ratio,
    distanceMm: 317.5,
    length: { basis: 'outside', mm: core.lengthMm },
    wrapDeg: core.wrapDeg,
    findings: [],
  });
  expect(printed['claim']).toMatchObject([{ slip: 'rims' }]);
  expect(printed['speeds']).toMatchObject([{ rpm: 750, other: 750 * core.ratio }, { rpm: 5000 }]);
  const back = said('two-pulleys', '187.325, 66.675', '--section', 'AV10', '--length', String(core.lengthMm));
  expect(back['distanceMm']).toBeCloseTo(317.5, 5);
  expect(said('two-pulleys', '36, 24', '--section', 'H', '--distance', '300')['ratio']).toBeCloseTo(1.5, 12);
  expect(said('two-pulleys', '160, 60', '--section', 'PK', '--length', '200')['findings']).toMatchObject([
    { code: 'belt-too-short', severity: 'fault' },
  ]);
});

test.each([
  [['string', '1700'], /^usage: emery string/],
  [['string', '1700', '--section', 'QQ'], /^--section: "QQ"/],
  [['string', '17 kg', '--section', 'PK'], /^READING: "kg" is not a unit/],
  [['string', '0', '--section', 'PK'], /^READING: more than 0/],
  [['string', '1700', '--section', 'PK', '--ribs', '0'], /^--ribs/],
  [['string', '1700', '--section', 'AV10', '--ribs', '6'], /^--ribs/],
  [['string', '1700', '--section', 'PK', '--tool', 'eye'], /^--tool: "eye" is not one of string/],
  [['string', '1700', '--section', 'PK', '--back', 'half,lots'], /^--back: "lots"/],
  [['string', '1700', '--section', 'PK', '--back', Array(30).fill('half').join()], /^--back: 20 pulleys/],
  [['string', '1700', '--section', 'PK', '--held', 'up'], /^--held/],
  [['string', '1700', '--section', 'PK', '--lay', 'flat'], /^--lay/],
  [['two-pulleys', '160', '--section', 'PK'], /two sizes are wanted/],
  [['two-pulleys', '160, 60, 40', '--section', 'PK'], /two sizes are wanted/],
  [['two-pulleys', '160, wide', '--section', 'PK'], /^OTHER: "wide" is not a length/],
  [['two-pulleys', '160, 3.5', '--section', 'H'], /^CRANK: "160".*|^OTHER: "3.5" is no number of teeth/],
  [['two-pulleys', '160, 60', '--section', 'PK', '--distance', '1', '--length', '2'], /^usage/],
  [['two-pulleys', '160, 60', '--section', 'PK', '--rpm', '0'], /^--rpm: "0"/],
  [['two-pulleys', '160, 60', '--section', 'PK', '--ratio', 'lots'], /^--ratio/],
  [['two-pulleys', '160, 60', '--section', 'PK', '--role', 'horn'], /^--role/],
])('%j is refused in one line', (args, message) => {
  expect(() => runCommand(args)).toThrow(UsageProblem);
  try {
    runCommand(args);
  } catch (error) {
    expect((error as Error).message).toMatch(message);
    expect((error as Error).message).not.toContain('\n');
  }
});

test('whatever is written, there is an answer without a figure that is none, or one plain refusal', () => {
  const written = fc.oneof(fc.string({ maxLength: 20 }), fc.stringMatching(/^[0-9 /.,"'a-z-]{0,14}$/));
  fc.assert(
    fc.property(
      written,
      written,
      fc.constantFrom('PK', 'AV13', 'A', 'H', 'H8M', 'PL'),
      fc.constantFrom('string', 'two-pulleys'),
      (first, second, section, command) => {
        const text = command === 'string' ? first : `${first}, ${second}`;
        try {
          const printed = runCommand([command, '--section', section, '--', text]);
          expect(printed).not.toMatch(/NaN|Infinity/);
          JSON.parse(printed, (_key, value: unknown) => {
            if (typeof value === 'number') expect(Number.isFinite(value)).toBe(true);
            return value;
          });
        } catch (error) {
          if (!(error instanceof UsageProblem)) throw error;
        }
      },
    ),
    { numRuns: 1500 },
  );
});

test('any case will do, a gauge asks for the way round its wheels, and nothing is read doubled that never is', () => {
  const lower = said('string', '1700 mm', '--section', 'pk', '--tool', 'STRAP', '--held', 'Slack');
  expect(lower).toEqual(said('STRING', '1700 mm', '--Section', 'PK', '--tool', 'strap', '--held', 'slack'));
  const refuses = (...args: string[]) => expect(() => said(...args)).toThrow(UsageProblem);
  refuses('string', '845 mm', '--section', 'PK', '--tool', 'gauge');
  expect(() => said('string', '845 mm', '--section', 'PK', '--tool', 'gauge')).toThrow(/--around/);
  refuses('string', '845 mm', '--section', 'PK', '--tool', 'gauge', '--around', '314 mm', '--doubled');
  refuses('string', '845 mm', '--section', 'PK', '--tool', 'marking', '--doubled');
  refuses('string', '845 mm', '--section', 'PK', '--around', '314 mm');
  const gauge = said('string', '845 mm', '--section', 'PK', '--tool', 'gauge', '--around', '314 mm');
  expect(gauge).toMatchObject({ markedMm: 2 * 845 + 314 });
  expect(() => said('two-pulleys', '7.375, 2 5/8', '--section', 'AV10')).toThrow(/7\.375" or 7\.375 mm/);
  expect(() => said('string', '1.690 mm', '--section', 'PK')).toThrow(/could be 1690 or 1\.690/);
  expect(said('two-pulleys', '7 3/8, 2 5/8', '--section', 'AV10', '--ratio', '2.8 to 1')).toHaveProperty('claim');
});
