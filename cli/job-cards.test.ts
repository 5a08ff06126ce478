import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { JOB_DRIVES } from '../core/test/job-drives';
import { cardOf, jobMessage, PHASE_WORDS } from '@emery/core/job';

/*
 * The whole card of each kind of drive, as it is read aloud. A card that changes is read again by a person before its
 * file is: `EMERY_WRITE_CARDS=1 npx jest cli/job-cards` writes them anew.
 */
const FOLDER = path.join(__dirname, 'test/job-cards');

function printed(name: string): string {
  const { drive, belt } = JOB_DRIVES[name]!;
  const { steps, findings } = cardOf(drive, belt);
  const lines = steps.flatMap(({ phase, text, caution }, k) => [
    ...(phase === steps[k - 1]?.phase ? [] : ['', PHASE_WORDS[phase].toUpperCase()]),
    `${k + 1}. ${text}`,
    ...(caution === null ? [] : [`   ▲ ${caution}`]),
  ]);
  return `${[name, ...lines, '', ...findings.map((finding) => jobMessage(drive, finding))].join('\n').trim()}\n`;
}

test.each(Object.keys(JOB_DRIVES))('%s: the card reads as it was read and signed', (name) => {
  const file = path.join(FOLDER, `${name}.txt`);
  if (process.env['EMERY_WRITE_CARDS'] === '1') writeFileSync(file, printed(name));
  expect(printed(name)).toBe(readFileSync(file, 'utf8'));
});
