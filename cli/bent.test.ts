import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { type Drive, driveDifferences } from '@emery/core/drive';
import { accepted, demos, SEED } from './test/bent-drives';
import { emery } from './test/emery';
import { held, lines } from './test/held';

/** A job card and an alignment with every field there is. */
const WHOLE: Drive = {
  ...demos[0]!,
  job: {
    bolts: [
      {
        ...{ id: 'b1', station: 'alt', use: 'lock', name: 'Slot bolt', size: 'M10', tool: '15 mm socket' },
        ...{ torqueNm: 25, torqueUnit: 'N·m', angleDeg: 90, order: 1, reuse: 'new' },
      } as never,
    ],
    own: [{ id: 'o1', phase: 'on', text: 'Hang the guard back behind the hose and the loom, clip it to the bracket' }],
    words: [{ step: 's1', text: 'As we say it here' }],
    leftOut: ['s2', 's3'],
    order: ['s4', 's5'],
  },
  align: {
    datum: { faceMm: 120, straightedgeMm: 600, plusMinus: 0.1 },
    readings: [
      { id: 'r', tool: 'laser', pulley: 'alt-1', at: 90, mm: 1.5, plusMinus: 0.2, load: true, turned: 180, past: true },
    ],
    moves: [
      { kind: 'press', pulley: 'alt-1', min: -2, max: 3 },
      { kind: 'shim', pulley: 'ac-1', sizes: [1, 2] },
      { kind: 'groove', pulley: 'steer-1', steps: -1 },
      { kind: 'square', pulley: 'pump-1' },
      { kind: 'hub', pulley: 'ten-1', options: [{ name: 'Long', mm: 4 }] },
    ],
    stacks: [
      {
        ...{ id: 's', pulley: 'ac-1' },
        pieces: [
          { name: 'Pump', mm: 30, plusMinus: 0.2, chosen: 'Long' },
          { name: 'Hub', options: [{ name: 'Long', mm: 20, plusMinus: 0.1, price: 12, fitted: true }] },
        ],
      },
    ],
    tracks: [{ pulley: 'idler-1', mm: 2, date: '2026-01-01' }],
    done: [{ id: 'd', pulley: 'alt-1', kind: 'press', mm: 2, steps: 1, date: '2026-01-02' }],
  },
};

/** What is told of each figure, word and yes or no of it, changed alone: those of lists of the first alone. */
function everyFieldChanged(): string[] {
  const texts: string[] = [];
  const change = (value: unknown, put: (other: unknown) => unknown): void => {
    if (typeof value === 'object' && value !== null)
      for (const [name, inner] of Object.entries(value))
        if (!Array.isArray(value) || Number(name) < 5)
          change(inner, (other) =>
            put(
              Array.isArray(value)
                ? value.map((entry: unknown, k) => (k === Number(name) ? other : entry))
                : { ...value, [name]: other },
            ),
          );
    if (typeof value === 'object') return;
    const other = typeof value === 'number' ? value + 1 : typeof value === 'boolean' ? !value : `${String(value)} x`;
    for (const { part, path: at, text } of driveDifferences(WHOLE, put(other) as Drive, 'mm'))
      texts.push([at, part, text].join(' | '));
  };
  const { survey, ...rest } = WHOLE;
  change(rest, (other) => ({ ...(other as object), survey }));
  return texts;
}

test('what a bent drive and its demo drive have apart is told as it was', () => {
  const apart = fc.sample(accepted, { seed: SEED + 1, numRuns: 30 }).flatMap((drive, k) => {
    const full = demos.find(({ name }) => name === drive.name)!;
    return driveDifferences(full, drive, k % 2 === 0 ? 'mm' : 'in').map(({ part, path: at, text }) =>
      [k, at, part, text].join(' | '),
    );
  });
  // Each list and each part of its own, there and not there.
  const lists = demos.flatMap((drive) =>
    Object.keys(drive).flatMap((name) => {
      const { [name as 'survey']: _, ...without } = drive;
      return driveDifferences(drive, without as Drive, 'mm').map(({ part, text }) => `${part} | ${text}`);
    }),
  );
  held('differences', [...apart, '', ...new Set(lists), '', ...everyFieldChanged(), ''].join('\n'));
});

/** Every sentence of an answer, its figures left out. */
const sentences = (value: unknown): string[] =>
  typeof value === 'string'
    ? value.includes(' ')
      ? [value.replace(/\d+(?:[.,]\d+)*/g, '#')]
      : []
    : typeof value === 'object' && value !== null
      ? Object.values(value).flatMap(sentences)
      : [];

/*
 * Of bent drives, with their hundreds of findings, a fingerprint of each answer and all that was said. To see what a
 * fingerprint stands for: `EMERY_SHOW_ANSWERS=FOLDER npx jest cli/bent` writes the answers there.
 */
test('bent drives are answered as they were', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'emery-bent-'));
  const said = new Set<string>();
  const prints = fc.sample(accepted, { seed: SEED, numRuns: 20 }).flatMap((drive, k) => {
    const file = path.join(folder, 'bent.emery.json');
    writeFileSync(file, JSON.stringify(drive));
    const belt = ['--belt', drive.belts[k % drive.belts.length]!.id];
    return [
      ['solve'],
      ['survey'],
      ['speeds', '--rpm', '750,5800'],
      ['diagnose'],
      ['inspect', '--odometer', '112000'],
      ['job'],
      ['route', '--top', '2', ...belt],
      ['size', ...belt],
      ['tension', '--rpm', '5800', ...belt],
      ['align', ...belt],
    ].map(([command, ...rest]) => {
      const { stdout, stderr } = emery(command!, file, ...rest);
      const text = (stderr ? [stderr.trim()] : lines(JSON.parse(stdout))).join('\n');
      for (const sentence of stderr ? [stderr.trim()] : sentences(JSON.parse(stdout))) said.add(sentence);
      const shown = process.env['EMERY_SHOW_ANSWERS'];
      if (shown) writeFileSync(path.join(shown, `${k}-${command}.txt`), text);
      return `${k} ${command} ${createHash('sha256').update(text).digest('hex').slice(0, 12)}`;
    });
  });
  rmSync(folder, { recursive: true });
  held('bent', [...[...said].sort(), '', ...prints, ''].join('\n'));
});
