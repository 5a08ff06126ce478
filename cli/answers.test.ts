import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Drive } from '@emery/core/drive';
import { fieldLabels } from '../core/drive/field-labels';
import { answered, held, lines } from './test/held';

/*
 * What the command line answers for the demo drives, whole: every figure to five digits and every word. An answer that
 * changes is read by a person before its file is: `EMERY_WRITE_ANSWERS=1 npx jest cli/answers cli/bent` writes them
 * anew. That an answer is right is held elsewhere, by sums made another way; here it is held that nothing changes
 * unseen.
 */
const DRIVES = readdirSync('demo').filter((name) => name.endsWith('.emery.json'));

test.each(DRIVES)('%s: every command answers as it did', (name) => {
  const file = path.join('demo', name);
  const { belts } = JSON.parse(readFileSync(file, 'utf8')) as Drive;
  const full = [
    ['solve'],
    ['survey'],
    ['speeds', '--rpm', '750,2300,5800'],
    ['diagnose'],
    ['inspect', '--odometer', '112000'],
    ['job'],
  ].map(([command, ...rest]) => answered(command!, file, ...rest));
  const each = belts.flatMap(({ id }) =>
    [['route', '--top', '2'], ['size'], ['tension', '--rpm', '750,5800', '--wet'], ['align']].map(
      ([command, ...rest]) => answered(command!, file, '--belt', id, ...rest),
    ),
  );
  held(name.replace('.emery.json', ''), [...full, ...each].join('\n'));
});

test('the questions of the counter and markings are answered as they were', () => {
  const string = ['--section', 'PK', '--ribs', '6'];
  held(
    'counter',
    [
      ...[
        '6PK1735',
        '6PK1735ES',
        'AVX10x1000',
        '6DPK1805',
        '4EPK815',
        '13x1000',
        '225L075',
        '1200-8M-30',
        'B50',
        'hello',
      ].map((text) => answered('marking', text)),
      answered('string', '66 1/2"', ...string),
      answered(
        'string',
        '1700 mm',
        ...string,
        '--tool',
        'strap',
        '--back',
        'half',
        '--held',
        'short-mark',
        '--takes-up',
        '20 mm',
      ),
      answered('string', '1700 mm', ...string, '--lay', 'rim', '--held', 'tight', '--doubled'),
      answered('string', '847 mm', '--section', 'AV10', '--held', 'slack', '--smooth', 'quarter'),
      answered('two-pulleys', '5", 3"', '--section', 'AV13', '--distance', '12"', '--rpm', '800,4000'),
      answered('two-pulleys', '150 mm, 60 mm', ...string, '--length', '1200 mm', '--ratio', '2.4'),
    ].join('\n'),
  );
});

/** True for what is made of texts, numbers and lists alone: no schema, and nothing that does something. */
function isPlain(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return typeof value !== 'function';
  if (value instanceof Set || value instanceof Map || Array.isArray(value)) return [...value].every(isPlain);
  return Object.getPrototypeOf(value) === Object.prototype && Object.values(value).every(isPlain);
}

test('the tables of the core, defaults and words, are as they were', () => {
  const core = path.join('core');
  const tables = readdirSync(core, { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && existsSync(path.join(core, entry.name, 'index.ts')))
    .flatMap(({ name }) => {
      // eslint-disable-next-line @typescript-eslint/no-require-imports
      const given = require(path.resolve(core, name)) as Record<string, unknown>;
      return Object.entries(given)
        .filter(([, value]) => isPlain(value))
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .flatMap(([called, value]) => lines(value, `${name}.${called}`));
    });
  held('tables', `${[...tables, ...lines(fieldLabels(), 'labels').sort()].join('\n')}\n`);
});
