import { driveOf } from '../test/examples';
import { ALIGN_FINDING_CODES, alignWords } from '../align';
import { COUNTER_FINDING_CODES, counterWords } from '../counter';
import { INSPECT_FINDING_CODES, inspectWords } from '../inspect';
import { JOB_FINDING_CODES, jobWords } from '../job';
import { NOISE_FINDING_CODES, noiseWords } from '../noise';
import { findingWords, PATH_FINDING_CODES } from '../path';
import { SIZE_FINDING_CODES } from '../seating';
import { sizeWords } from '../size';
import { SPEED_FINDING_CODES, speedWords } from '../speeds';
import { SURVEY_FINDING_CODES, surveyWords } from '../survey';
import { PHOTO_FINDING_CODES, photoWords } from '../survey/photo';
import { TENSION_FINDING_CODES, tensionWords } from '../tension';
import type { FindingWords } from './index';

/* Every code of every list is told here, in both units, with no figure but those that stand for words. */
const drive = driveOf([
  ['crank', 0, 0, 160],
  ['alt', 300, 0, 60],
]);
const severity = 'watch' as const;
const whole = {
  severity,
  belt: 'main',
  pulley: 'crank',
  other: 'alt',
  pulleys: ['crank', 'alt'],
  diameters: ['crank'],
  span: { from: 'crank', to: 'alt' },
};
/** What the sentences of the path put in words. */
const PATH_FIGURES = {
  cure: 'none',
  surface: 'smooth',
  wanted: 'ribbed',
  side: 'back',
  requires: 'ccw',
  way: 'cw',
  turns: 'cw',
};

const told: [string, string, (unit: 'mm' | 'in', where: object) => FindingWords][] = [
  ...PATH_FINDING_CODES.map((code): (typeof told)[number] => [
    'path',
    code,
    (unit, where) => findingWords(drive, { ...where, severity, code, figures: PATH_FIGURES }, unit),
  ]),
  ...SURVEY_FINDING_CODES.map((code): (typeof told)[number] => [
    'survey',
    code,
    (unit, where) => surveyWords(drive, { ...where, severity, code }, unit),
  ]),
  ...PHOTO_FINDING_CODES.map((code): (typeof told)[number] => [
    'picture',
    code,
    (unit, where) => photoWords(drive, { ...where, severity, code, photo: 'p' }, unit),
  ]),
  ...SIZE_FINDING_CODES.map((code): (typeof told)[number] => [
    'size',
    code,
    (unit, where) => sizeWords({ ...where, severity, code }, unit),
  ]),
  ...SPEED_FINDING_CODES.map((code): (typeof told)[number] => [
    'speeds',
    code,
    (unit, where) => speedWords(drive, { ...where, severity, code, belt: 'main' }, unit),
  ]),
  ...TENSION_FINDING_CODES.map((code): (typeof told)[number] => [
    'tension',
    code,
    (_unit, where) => tensionWords(drive, { ...where, severity, code }),
  ]),
  ...ALIGN_FINDING_CODES.map((code): (typeof told)[number] => [
    'align',
    code,
    (unit, where) => alignWords(drive, { ...where, severity, code }, unit),
  ]),
  ...INSPECT_FINDING_CODES.map((code): (typeof told)[number] => [
    'inspect',
    code,
    (unit, where) => inspectWords(drive, { ...where, severity, code }, unit),
  ]),
  ...COUNTER_FINDING_CODES.map((code): (typeof told)[number] => [
    'counter',
    code,
    (unit, where) => counterWords({ ...where, severity, code }, unit),
  ]),
  ...NOISE_FINDING_CODES.map((code): (typeof told)[number] => [
    'noise',
    code,
    (_unit, where) => noiseWords(drive, { ...where, severity, code }),
  ]),
  ...JOB_FINDING_CODES.map((code): (typeof told)[number] => [
    'job',
    code,
    (_unit, where) => jobWords(drive, { ...where, severity, code }),
  ]),
];

test.each(told)('%s: %s is told in whole sentences', (_, _code, words) => {
  for (const unit of ['mm', 'in'] as const) {
    const { title, why, todo } = words(unit, whole);
    expect(title).toMatch(/^[A-Z0-9].*[.?]$/);
    for (const text of [why, todo]) expect(text === '' || /^\S.*[.!?]$/.test(text)).toBe(true);
    expect(`${title} ${why} ${todo}`).not.toMatch(/undefined|NaN|null|\[object|Infinity/);
  }
});
