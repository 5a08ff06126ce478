import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileFields } from '@emery/core/drive';
import { LISTS, type ListRules } from '../core/drive/lists';
import { fieldsPage } from './test/fields-page';

/** Every field that a document holds, by the way to what holds it; points of a picture are pairs and have none. */
function fieldsIn(value: unknown, way = ''): [holder: string, field: string][] {
  if (Array.isArray(value)) return value.flatMap((item) => fieldsIn(item, way));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => [
    [way, key] as [string, string],
    ...fieldsIn(inner, way === '' ? key : `${way}.${key}`),
  ]);
}

test('every field of the demo drives has a name, and so have the items of every list that an edit knows', () => {
  const demos = readdirSync('demo').filter((name) => name.endsWith('.emery.json'));
  const held = demos.flatMap((name) => fieldsIn(JSON.parse(readFileSync(path.join('demo', name), 'utf8'))));
  expect(held.length).toBeGreaterThan(1000);
  const tables = fileFields();
  // The vehicle stands beside the drive, and is the shop's.
  const nameless = held.filter(([holder, field]) => tables[holder]?.[field] === undefined && holder !== 'vehicle');
  expect([...new Set(nameless.map((entry) => entry.join('.')))]).toEqual(['.vehicle']);
  const ways = Object.entries<ListRules>(LISTS).flatMap(([way, { lists = {} }]) => [
    way,
    ...Object.keys(lists).map((inner) => `${way}.${inner}`),
  ]);
  for (const way of ways) expect([way, Object.keys(tables[way] ?? {}).length > 1]).toEqual([way, true]);
});

test('the page of all fields is written from their schemas', () => {
  const file = path.join('docs', 'drive-file-fields.md');
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') writeFileSync(file, fieldsPage());
  expect(fieldsPage()).toBe(readFileSync(file, 'utf8'));
});
