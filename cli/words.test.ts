import {
  CHECK_NAMES,
  checkRules,
  type Drive,
  INSPECTED,
  NOISE_CAUSES,
  NOISE_TESTS,
  type NoiseEvidence,
} from '@emery/core/drive';
import { settingRange } from '@emery/core/counter';
import { inOneLine } from '@emery/core/finding';
import {
  inspectDrive,
  inspectFindings,
  inspectMessage,
  foundWords,
  putFinding,
  reasonLines,
} from '@emery/core/inspect';
import { diagnose, noiseFindings, noiseMessage, reasonWords } from '@emery/core/noise';
import { solveDrive } from '@emery/core/path';
import { routeReason } from '@emery/core/route';
import { specimensOf } from '@emery/core/specimens';
import { DEMO } from '../core/test/demo';
import { held } from './test/held';

/*
 * What each finding says, whatever its figures, and what each clue and each check of an inspection comes to: as it was
 * read. A sentence that changes is read by a person before its file is: `EMERY_WRITE_ANSWERS=1 npx jest cli/words`.
 */

const KINDS = [...new Set(specimensOf(DEMO.rescue).map(({ kind }) => kind))];

test.each(KINDS)('%s: each finding says what it said', (name) => {
  const texts = [DEMO.rescue, DEMO.pickup].flatMap((drive) =>
    specimensOf(drive)
      .filter(({ kind }) => kind === name)
      .flatMap(({ code, words }) => (['mm', 'in'] as const).map((unit) => `${code}: ${inOneLine(words(unit))}`)),
  );
  held(`words-${name}`, `${[...new Set(texts)].join('\n')}\n`);
});

/** Figures under any name: each name has one of its own, times `by`. */
const figures = (by: number) =>
  new Proxy<Record<string, number>>(
    {},
    { get: (_, name) => by * ([...String(name)].reduce((sum, sign) => (31 * sum + sign.charCodeAt(0)) % 997, 7) / 4) },
  );

test('routes: each reason says what it said', () => {
  const codes = [
    ...['wrap-low', 'wrap-good', 'tensioner-slack', 'tensioner-elsewhere', 'close', 'clear', 'drive-side-smooth'],
    ...['left-off', 'cannot-turn', 'only-without', 'shorter', 'longer'],
  ];
  const texts = codes.flatMap((code) =>
    [1, -0.01, 0].map(
      (by) =>
        `${code}: ${routeReason(DEMO.rescue, { code, pulley: 'alt-1', figures: figures(by) } as never, by < 0 ? 'in' : 'mm')}`,
    ),
  );
  held('words-route', `${[...new Set(texts)].join('\n')}\n`);
});

test('each clue to a noise weighs what it weighed, and says why', () => {
  const lines: string[] = [];
  const seen = new Set<string>();
  for (const drive of [DEMO.rescue, DEMO.climb])
    for (const [name, { on, outcomes }] of Object.entries(NOISE_TESTS))
      for (const outcome of outcomes) {
        const belt = drive.belts[0]!;
        const arm = drive.stations.find(({ adjuster }) => adjuster?.kind === 'sprung-arm')?.pulleys[0]!.id;
        const pulley = (/^(arm|cocked)/.test(name) && arm) || belt.route[2]!.pulley;
        const where = on === 'belt' ? { belt: belt.id } : on === 'drive' ? {} : { pulley };
        const evidence: NoiseEvidence = { test: name, outcome, ...where };
        const asked: Drive = { ...drive, noise: { evidence: [evidence] } };
        const diagnosis = diagnose(asked);
        lines.push(`== ${drive.name}: ${name} ${outcome}`);
        lines.push(
          diagnosis.causes
            .map(({ cause, id, probability }) => `${cause} ${id} ${probability.toPrecision(3)}`)
            .join(', '),
        );
        for (const { cause, id, reasons } of diagnosis.groups.slice(0, 6).map(({ parts }) => parts[0]!)) {
          seen.add(cause);
          // The reasons are the same for both.
          for (const reason of drive === DEMO.rescue ? reasons : [])
            lines.push(`${cause}: ${reason.ratio.toPrecision(4)} ${reasonWords(asked, reason, { cause, id })}`);
        }
        const { next } = diagnosis;
        lines.push(
          `next ${next
            .slice(0, 2)
            .map((check) =>
              JSON.stringify(check, (_, value: unknown) =>
                typeof value === 'number' ? Number(value.toPrecision(4)) : value,
              ),
            )
            .join(' ')}`,
        );
        for (const finding of noiseFindings(asked, diagnosis)) lines.push(noiseMessage(asked, finding));
      }
  // One clue alone never brings a clutch among the first six.
  expect([...seen, 'one-way-clutch'].sort()).toEqual([...NOISE_CAUSES].sort());
  held('noise-clues', `${lines.join('\n')}\n`);
});

test('each check of an inspection comes to the verdict it came to, in the words it had', () => {
  const lines: string[] = [];
  for (const drive of [DEMO.rescue, DEMO.climb, DEMO.pickup])
    for (const check of CHECK_NAMES) {
      const { on, outcomes = [], figure } = checkRules(check);
      expect(INSPECTED).toContain(on);
      const target =
        on === 'belt'
          ? drive.belts[0]!.id
          : on === 'pulley'
            ? drive.belts[0]!.route[1]!.pulley
            : (drive.stations.find(({ adjuster }) => adjuster?.kind === 'sprung-arm')?.id ?? drive.stations[1]!.id);
      const found = [
        ...outcomes.map((outcome) => ({ check, outcome })),
        ...(figure ? [0, 0.15, 0.6, 1.4, 2.6, 7, 25].map((value) => ({ check, value })) : []),
      ];
      for (const entry of found) {
        const asked = putFinding(drive, { on, target } as never, entry as never, {
          at: '2026-05-01T10:00:00.000Z',
          odometer: 60_000,
        });
        const items = inspectDrive(asked, 60_000);
        const item = items.find((part) => part.on === on && part.target === target);
        lines.push(`== ${drive.name}: ${check} ${'outcome' in entry ? entry.outcome : entry.value}`);
        if (item) lines.push(`${item.verdict}: ${reasonLines(item, 'mm').join(' ')}`);
        for (const finding of inspectFindings(asked, items, solveDrive(asked)))
          lines.push(inspectMessage(asked, finding));
      }
    }
  // A belt that has run far beyond what any is held to, and one that is new.
  for (const odometer of [20_500, 90_000, 900_000]) {
    const [belt, ...others] = DEMO.rescue.belts;
    const care = { fittedAt: '2020-01-01T10:00:00.000Z', fittedOdometer: 20_000 };
    const fitted = { ...DEMO.rescue, belts: [{ ...belt!, care }, ...others], inspect: {} };
    const look = { at: '2026-05-01T10:00:00.000Z', odometer };
    const ran = putFinding(fitted, { on: 'belt', target: belt!.id }, { check: 'rib-depth', value: 2.6 }, look);
    lines.push(`== at ${odometer}`);
    for (const item of inspectDrive(ran, odometer))
      lines.push(`${item.on} ${item.target}, ${item.verdict}: ${reasonLines(item, 'mm').join(' ')}`);
  }
  expect(lines.some((line) => line.includes('Expected life reached'))).toBe(true);
  for (const verdict of ['good', 'weak', 'strong', 'binding', 'stuck', 'wrong-length', 'cannot-say'])
    for (const left of [null, { at: 0.62, plusMinus: 0.1 }])
      lines.push(foundWords({ code: 'spring', arm: { verdict, left } } as never));
  // What a belt that drives what is common is set to: the lightest and the heaviest.
  for (const [section, ribs] of [
    ['PK', 6],
    ['PK', 4],
    ['AV10', undefined],
    ['AV13', undefined],
  ] as const) {
    const { min, max } = settingRange({ id: 'b', section, ...(ribs && { ribs }), length: null, route: [] })!;
    lines.push(`${section} ${min.setN.toPrecision(4)} ${max.setN.toPrecision(4)}`);
  }
  held('inspect-checks', `${lines.join('\n')}\n`);
});
