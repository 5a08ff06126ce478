import { ALIGN_FINDING_CODES, alignWords } from '@emery/core/align';
import { COUNTER_FINDING_CODES, counterWords, settingRange } from '@emery/core/counter';
import {
  CHECK_NAMES,
  checkRules,
  type Drive,
  INSPECTED,
  NOISE_CAUSES,
  NOISE_TESTS,
  type NoiseEvidence,
} from '@emery/core/drive';
import type { Finding, FindingWords } from '@emery/core/finding';
import {
  INSPECT_FINDING_CODES,
  inspectDrive,
  inspectFindings,
  inspectMessage,
  inspectWords,
  foundWords,
  putFinding,
  reasonLines,
} from '@emery/core/inspect';
import { JOB_FINDING_CODES, jobWords } from '@emery/core/job';
import { diagnose, NOISE_FINDING_CODES, noiseFindings, noiseMessage, noiseWords, reasonWords } from '@emery/core/noise';
import { findingWords, PATH_FINDING_CODES, solveDrive } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';
import { routeReason } from '@emery/core/route';
import { SIZE_FINDING_CODES } from '@emery/core/seating';
import { sizeWords } from '@emery/core/size';
import { SPEED_FINDING_CODES, speedWords } from '@emery/core/speeds';
import { SURVEY_FINDING_CODES, surveyWords } from '@emery/core/survey';
import { PHOTO_FINDING_CODES } from '@emery/core/survey/photo';
import { TENSION_FINDING_CODES, tensionWords } from '@emery/core/tension';
import { DEMO } from '../core/test/demo';
import { held } from './test/held';

/*
 * What each finding says, whatever its figures, and what each clue and each check of an inspection comes to: as it was
 * read. A sentence that changes is read by a person before its file is: `EMERY_WRITE_ANSWERS=1 npx jest cli/words`.
 */

type Words = (drive: Drive, finding: never, unit: LengthUnit) => FindingWords;
const SAID: [string, readonly string[], Words][] = [
  ['path', PATH_FINDING_CODES, findingWords],
  ['survey', [...SURVEY_FINDING_CODES, ...PHOTO_FINDING_CODES], surveyWords],
  ['size', SIZE_FINDING_CODES, (_, finding, unit) => sizeWords(finding, unit)],
  ['speeds', SPEED_FINDING_CODES, speedWords],
  ['tension', TENSION_FINDING_CODES, tensionWords],
  ['align', ALIGN_FINDING_CODES, alignWords],
  ['noise', NOISE_FINDING_CODES, noiseWords as Words],
  ['inspect', INSPECT_FINDING_CODES, inspectWords],
  ['job', JOB_FINDING_CODES, jobWords as Words],
  ['counter', COUNTER_FINDING_CODES, (_, finding, unit) => counterWords(finding, unit)],
];

/** Figures under any name: each name has one of its own, times `by`. */
const figures = (by: number) =>
  new Proxy<Record<string, number>>(
    {},
    { get: (_, name) => by * ([...String(name)].reduce((sum, sign) => (31 * sum + sign.charCodeAt(0)) % 997, 7) / 4) },
  );

const places = (drive: Drive): Partial<Finding> => {
  const [first, second, third] = drive.stations.map(({ pulleys }) => pulleys[0]!.id) as [string, string, string];
  return {
    belt: drive.belts.at(-1)!.id,
    pulley: second,
    other: third,
    pulleys: [first, second],
    span: { from: first, to: second },
    reading: drive.survey?.readings?.[0]?.id ?? 'r',
    readings: (drive.survey?.readings ?? []).slice(0, 2).map(({ id }) => id),
    diameters: [first],
    circles: [second],
    photo: drive.survey?.photos?.[0]?.id ?? 'p',
  };
};

const attempt = (words: () => FindingWords): string => {
  try {
    const { title, why, todo } = words();
    return [title, why, todo].join(' | ');
  } catch (error) {
    return `cannot be told so: ${(error as Error).name}`;
  }
};

test.each(SAID)('%s: each finding says what it said', (name, codes, words) => {
  const told = codes.flatMap((code) => {
    const finding = (drive: Drive, by: number, more: object = {}) =>
      ({ code, severity: 'watch', figures: figures(by), ...places(drive), ...more }) as never;
    const nowhere = {
      belt: undefined,
      pulley: undefined,
      other: undefined,
      pulleys: [],
      readings: [],
      span: undefined,
    };
    const ways = [
      attempt(() => words(DEMO.rescue, finding(DEMO.rescue, 1), 'mm')),
      attempt(() => words(DEMO.pickup, finding(DEMO.pickup, -1), 'in')),
      attempt(() => words(DEMO.pickup, finding(DEMO.pickup, 0), 'mm')),
      attempt(() => words(DEMO.rescue, finding(DEMO.rescue, 0.01, nowhere), 'mm')),
    ];
    return [...new Set(ways)].map((way) => `${code}: ${way}`);
  });
  held(`words-${name}`, `${told.join('\n')}\n`);
});

test('routes: each reason says what it said', () => {
  const codes = [
    ...['wrap-low', 'wrap-good', 'tensioner-slack', 'tensioner-elsewhere', 'close', 'clear', 'drive-side-smooth'],
    ...['left-off', 'cannot-turn', 'only-without', 'shorter', 'longer'],
  ];
  const told = codes.flatMap((code) =>
    [1, -0.01, 0].map(
      (by) =>
        `${code}: ${routeReason(DEMO.rescue, { code, pulley: 'alt-1', figures: figures(by) } as never, by < 0 ? 'in' : 'mm')}`,
    ),
  );
  held('words-route', `${[...new Set(told)].join('\n')}\n`);
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
            .map((one) =>
              JSON.stringify(one, (_, value: unknown) =>
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
      for (const one of found) {
        const asked = putFinding(drive, { on, target } as never, one as never, {
          at: '2026-05-01T10:00:00.000Z',
          odometer: 60_000,
        });
        const items = inspectDrive(asked, 60_000);
        const item = items.find((part) => part.on === on && part.target === target);
        lines.push(`== ${drive.name}: ${check} ${'outcome' in one ? one.outcome : one.value}`);
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
  expect(lines.some((line) => line.includes('that a belt is held to last'))).toBe(true);
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
    const { least, most } = settingRange({ id: 'b', section, ...(ribs && { ribs }), length: null, route: [] })!;
    lines.push(`${section} ${least.setN.toPrecision(4)} ${most.setN.toPrecision(4)}`);
  }
  held('inspect-checks', `${lines.join('\n')}\n`);
});
