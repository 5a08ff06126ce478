import { DataSource } from 'typeorm';
import { connect } from '../data-source';
import { openLog } from '../http/log';
import { openShop } from '../open-shop';
import { asking, freshDatabase } from '../test/running';
import { readDatabaseAddress } from './database-address';

/** Letters of one, two, three and four bytes; a database of Latin letters alone has room for few of them. */
const NAME = 'Räumfräse Łódź Ελλη 除雪 🛠';

async function databaseIn(letters: string): Promise<string> {
  const url = freshDatabase();
  const { database, ...server } = readDatabaseAddress(url);
  const maker = await new DataSource({ type: 'mariadb', ...server }).initialize();
  await maker.query(`CREATE DATABASE \`${database}\` CHARACTER SET ${letters}`);
  await maker.destroy();
  return url;
}

const otherLetters = (data: DataSource): Promise<object[]> =>
  data.query(`SELECT TABLE_NAME, COLUMN_NAME, CHARACTER_SET_NAME FROM information_schema.COLUMNS
    WHERE TABLE_SCHEMA = DATABASE() AND COLLATION_NAME IS NOT NULL AND COLLATION_NAME <> 'utf8mb4_unicode_ci'
      AND COLUMN_NAME <> 'byLimits'`);

test.each(['latin1', 'utf8mb3', 'ascii', 'utf8mb4 COLLATE utf8mb4_bin'])(
  'a shop in a database made for %s keeps every letter',
  async (letters) => {
    const url = await databaseIn(letters);
    const data = await connect(url);
    const { port, shut } = await openShop(data, { port: 0, logger: openLog(undefined), shop: 'empty' });
    try {
      const ask = asking(`http://127.0.0.1:${port}/api`);
      const vehicle = { name: NAME, plate: 'Ł 1', odometer: null, odometerUnit: 'km', notes: NAME };
      const saved = await ask('POST', '/vehicles', vehicle);
      expect(saved.status).toBe(201);
      const read = await ask('GET', `/vehicles/${saved.body.id}`);
      expect(read.body).toMatchObject({ name: NAME, notes: NAME });
      const found = await ask('GET', `/vehicles?q=${encodeURIComponent('除雪')}`);
      expect(found.body.vehicles ?? found.body.items).toHaveLength(1);
      expect(await otherLetters(data)).toEqual([]);
    } finally {
      await shut();
    }
  },
);

test('a shop that stands in Latin letters is taken over with what it holds', async () => {
  const url = freshDatabase();
  const made = await connect(url);
  await openShop(made, { port: 0, logger: openLog(undefined), shop: 'demo' }).then(({ shut }) => shut());
  const old = await new DataSource({ type: 'mariadb', ...readDatabaseAddress(url), charset: 'utf8mb4' }).initialize();
  await old.query("UPDATE vehicle SET notes = 'Räumt die Straße' LIMIT 1");
  const tables = await old.query<{ name: string }[]>(
    'SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE()',
  );
  const runner = old.createQueryRunner();
  for (const tie of ['drive DROP FOREIGN KEY drive_of_vehicle', 'drive_document DROP FOREIGN KEY document_of_drive'])
    await runner.query(`ALTER TABLE ${tie}`);
  for (const { name } of tables) await runner.query(`ALTER TABLE \`${name}\` CONVERT TO CHARACTER SET latin1`);
  await runner.query(
    'ALTER TABLE drive ADD CONSTRAINT drive_of_vehicle FOREIGN KEY (vehicleId) REFERENCES vehicle (id)',
  );
  await runner.query(
    'ALTER TABLE drive_document ADD CONSTRAINT document_of_drive FOREIGN KEY (driveId) REFERENCES drive (id) ON DELETE CASCADE',
  );
  await runner.query('ALTER DATABASE CHARACTER SET latin1');
  await runner.query("DELETE FROM migrations WHERE name LIKE 'Letters%'");
  await runner.release();
  const before = await old.query<object[]>('SELECT * FROM vehicle ORDER BY id');
  const drives = await old.query<object[]>('SELECT * FROM drive ORDER BY id');
  expect((await otherLetters(old)).length).toBeGreaterThan(20);
  await old.destroy();

  const now = await connect(url);
  try {
    expect(await otherLetters(now)).toEqual([]);
    expect(await now.query('SELECT * FROM vehicle ORDER BY id')).toEqual(before);
    expect(JSON.stringify(before)).toContain('Räumt die Straße');
    expect(await now.query('SELECT * FROM drive ORDER BY id')).toEqual(drives);
    // What points from one table to another still holds.
    await expect(now.query("UPDATE drive SET vehicleId = 'nobody'")).rejects.toThrow(/foreign key/i);
  } finally {
    await now.destroy();
  }
});
