import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { emery } from './emery';

/** Where answers are kept as they were read. */
const FOLDER = path.join(__dirname, 'answers');

/** Each value on a line of its own behind its place; what is repeated in each item of a list is told by its number. */
export function lines(value: unknown, at = ''): string[] {
  if (value instanceof Set || value instanceof Map) return lines([...value], at);
  if (Array.isArray(value)) {
    const plain = value.every((entry) => typeof entry !== 'object' || entry === null);
    return plain ? [`${at} [${value.map(leaf).join(', ')}]`] : value.flatMap((entry, k) => lines(entry, `${at}[${k}]`));
  }
  if (typeof value === 'object' && value !== null)
    return Object.entries(value).flatMap(([name, entry]) => lines(entry, at === '' ? name : `${at}.${name}`));
  return [`${at} ${leaf(value)}`];
}

const leaf = (value: unknown): string =>
  typeof value !== 'number' ? String(value) : Math.abs(value) < 1e-9 ? '0' : String(Number(value.toPrecision(5)));

export function answered(...args: string[]): string {
  const { stdout, stderr } = emery(...args);
  return [`== ${args.join(' ')}`, ...(stderr ? [stderr.trim()] : lines(JSON.parse(stdout))), ''].join('\n');
}

export function held(name: string, text: string): void {
  const file = path.join(FOLDER, `${name}.txt`);
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') writeFileSync(file, text);
  expect(text).toBe(readFileSync(file, 'utf8'));
}
