import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { allTexts, type Text } from './test/texts';

/*
 * Every text that a person reads, held against the words that this trade does not use for it. A mechanic or an
 * engineer whose first language is English never stops.
 */

/** What is not said, and what is said instead. */
const BETTER: readonly (readonly [was: RegExp, better: string])[] = [
  [/every school/i, 'All tension checks for this span'],
  [/\bschools?\b/i, 'methods'],
  [/tells? nothing/i, 'not usable on this span'],
  [/contradict one another/i, 'disagree'],
  [/in hand\b/i, 'Slip margin; selected; in progress; open'],
  [/shaft bears/i, 'Hub load, N'],
  [/of the aim\b|\bthe aim\b/i, 'target tension'],
  [/bearings bear\b/i, 'Bearing load limit'],
  [/\bit stands at\b|\bbelt stands at\b|\bis to stand\b/i, 'Present tension'],
  [/\bit goes in\b|takes it in\b/i, 'Deflection'],
  [/pull along the belt/i, 'Span tension along the belt'],
  [/what would open it/i, 'How to get a usable range'],
  [/bring home/i, 'Recommended'],
  [/comes? to stand|check comes to/i, 'will sit; Result'],
  [/\bbears?\b|\bbore\b/i, 'carries; contact length; limit'],
  [/who ticks/i, 'Technician'],
  [/finds? no place/i, 'outside the tensioner’s range'],
  [/\bgoes before\b|\bgo before\b|\bcomes first\b|\bgo first\b/i, 'takes precedence'],
  [/nothing tells/i, 'Not enough readings to say which is wrong'],
  [/held to (have|last|grow)/i, 'Expected life reached'],
  [/\bbits?\b/i, 'narrows it down a little / well / most'],
  [/no clue counts|no finding\b/i, 'Nothing recorded yet'],
  [/what makes it/i, 'Likely cause'],
  [/nobody (said|wrote|looked|dated)/i, 'not known; not recorded'],
  [/\btells?\b|\btold\b/i, 'shows; says; is'],
  [/comes? round|come back each/i, 'repeats'],
  [/\bbites?\b/i, 'snaps back'],
  [/\bpriors?\b|\bposteriors?\b/i, 'likely'],
  [/\ba second time\b|\bnot now\b/i, 'again; Cancel'],
  [/\btak(e|en) (it )?back\b/i, 'Remove; Undo; Return'],
  [/\bput right\b/i, 'correct; repaired'],
  [/\blook(ed)? at it\b|\blook into it\b/i, 'check'],
  [/\bthrow (it|the draft) away\b|\bdrop (it|the job)\b/i, 'Discard; Delete'],
  [/\bcall(ed)? (it )?off\b/i, 'cancel'],
  [/\bbring in\b|\bbrought in\b/i, 'import'],
  [/\bby the least\b|\bno less than\b|\bno more than\b/i, 'at least; at most'],
  [/\bsomebody worked out\b/i, 'to check'],
];

/** Where one of them is the trade's own word, or what somebody types. */
const MEANT: readonly RegExp[] = [
  /8 to 32 bits are read/,
  /no more than (its|what)/,
  // What a search by plain words takes.
  /^\(\?:/,
  /\\b|\\d/,
];

const spoken = (texts: readonly Text[]) =>
  texts.flatMap(({ file, line, text }) =>
    MEANT.some((meant) => meant.test(text))
      ? []
      : BETTER.filter(([was]) => was.test(text)).map(([, better]) => `${file}:${line} "${text}" → ${better}`),
  );

test('no text of the program says what the trade says in other words', () => {
  const texts = allTexts();
  // That the texts are found at all.
  expect(texts.length).toBeGreaterThan(4000);
  expect(texts.map(({ text }) => text)).toEqual(
    expect.arrayContaining(['Static tension of the belt', 'Torque to the service manual.', 'Signed off']),
  );
  expect(spoken(texts)).toEqual([]);
});

test('neither do the demo shop and what is written for people', () => {
  const documents = [
    'README.md',
    ...readdirSync('docs')
      .filter((name) => name.endsWith('.md'))
      .map((name) => path.join('docs', name)),
  ];
  const lines = documents.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .map((text, k): Text => ({
        file,
        line: k + 1,
        text: text.replace(/`[^`]*`/g, ''),
        inElement: false,
        namesField: false,
      })),
  );
  const demo = readdirSync('demo')
    .filter((name) => name.endsWith('.json'))
    .flatMap((name) => wordsIn(JSON.parse(readFileSync(path.join('demo', name), 'utf8')), name));
  expect(spoken([...lines.filter(({ file }) => file === 'README.md'), ...demo])).toEqual([]);
});

const wordsIn = (value: unknown, file: string): Text[] => {
  if (typeof value === 'string')
    return value.includes(' ') ? [{ file, line: 0, text: value, inElement: false, namesField: false }] : [];
  return typeof value === 'object' && value !== null
    ? Object.values(value).flatMap((entry) => wordsIn(entry, file))
    : [];
};
