import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Holds a text against the file of that name, as it was read; `EMERY_WRITE_ANSWERS=1` writes the file. */
export function held(name: string, text: string): void {
  const file = path.join(__dirname, 'answers', `${name}.txt`);
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') writeFileSync(file, text);
  expect(text).toBe(readFileSync(file, 'utf8'));
}
