import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, expect } from '@jest/globals';

/*
 * For `npm run mutate`: which change of the source is made in this run, and which places this file of tests comes by.
 */
const made = Number(process.env['EMERY_MUTANT'] ?? -1);
const folder = process.env['EMERY_REACH'];
const reached = new Set<number>();

Object.assign(globalThis, {
  emeryMutant: (number: number): boolean => {
    reached.add(number);
    return number === made;
  },
});

afterAll(() => {
  if (folder === undefined) return;
  const file = expect.getState().testPath!;
  mkdirSync(folder, { recursive: true });
  writeFileSync(
    path.join(folder, `${file.replace(/\W+/g, '_')}.json`),
    JSON.stringify({ file, reached: [...reached] }),
  );
});
