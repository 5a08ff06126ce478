import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import { newVehicle, Vehicle } from '../vehicles/entity';
import { running } from '../test/running';
import { insertOnce } from './insert-once';

test('the first stays, and what cannot be held is told and not written as something else', async () => {
  const { data, stop } = await running('empty');
  try {
    const id = randomUUID();
    await insertOnce(data.manager, Vehicle, 'id', { ...newVehicle({ name: 'First' }), id });
    await insertOnce(data.manager, Vehicle, 'id', { ...newVehicle({ name: 'Second' }), id });
    expect(await data.query('SELECT name, revision FROM vehicle')).toEqual([{ name: 'First', revision: 1 }]);
    const long = insertOnce(data.manager, Vehicle, 'id', newVehicle({ name: 'n'.repeat(200) }));
    await expect(long).rejects.toMatchObject({ code: 'ER_DATA_TOO_LONG' });
    const never = { ...newVehicle({ name: 'Never' }), updatedAt: new Date(8.64e15) };
    await expect(insertOnce(data.manager, Vehicle, 'id', never)).rejects.toThrow();
    expect(await data.query('SELECT COUNT(*) AS n FROM vehicle')).toEqual([{ n: '1' }]);
  } finally {
    await stop();
  }
});

test('nothing of the server writes past what the database says', () => {
  const folder = path.join(__dirname, '..');
  const sources = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(
    (name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.includes('node_modules'),
  );
  expect(sources.length).toBeGreaterThan(60);
  // Named in comments it is in backquotes.
  const ignoring = sources.filter((name) =>
    /(?<!`)INSERT IGNORE|orIgnore\(/.test(readFileSync(path.join(folder, name), 'utf8')),
  );
  expect(ignoring).toEqual([]);
});
