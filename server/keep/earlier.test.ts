import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { DataSource, type MigrationInterface } from 'typeorm';
import { connect, openUnchanged, openUpToDate, optionsOf } from '../data-source';
import { upgrade, UpgradeProblem } from '../storage/upgrade';
import { rowsOf, runSql } from '../test/rows-of';
import { freshDatabase } from '../test/running';
import { backupBeforeUpgrade } from './backups';
import { loadBackup } from './load-backup';
import { checkBackup, openBackup } from './read-backup';

/*
 * Shops as earlier commits of Emery left them, dumped by the database's own program: the demo shop, with a vehicle, a
 * drive, belts, a pulley, a speed band and a picture made by the server of that commit, and a drive deleted.
 */
const EARLIER = path.join(__dirname, 'earlier');
const COMMITS = readdirSync(EARLIER).filter((name) => name.endsWith('.sql.gz'));
const folder = mkdtempSync(path.join(tmpdir(), 'emery-earlier-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function shopOf(dump: string): Promise<string> {
  const url = freshDatabase();
  await (await openUnchanged(url)).destroy();
  await runSql(url, gunzipSync(readFileSync(path.join(EARLIER, dump))).toString());
  return url;
}

/** What a shop of that time held, column by column, without what is made out of other rows. */
const OWN = [
  'shop',
  'vehicle',
  'drive',
  'drive_document',
  'stock_belt',
  'pulley_at_hand',
  'speed_band',
  'photo',
  'job',
  'job_event',
  'part_at_hand',
];
const cells = (row: string) => new Set(row.split(' '));

test('there are four of them', () => expect(COMMITS).toHaveLength(4));

describe.each(COMMITS)('the shop of %s', (dump) => {
  test('comes up to date with all that it held, after a backup that is whole', async () => {
    const url = await shopOf(dump);
    const before = await rowsOf(url);
    // Work beside the server leaves it to whoever makes a backup first.
    await expect(openUpToDate(url)).rejects.toThrow(/earlier Emery: npm start brings it up to date, after a backup/);
    expect(await rowsOf(url)).toEqual(before);
    const kept = path.join(folder, dump);
    const data = await connect(url, { before: (data) => backupBeforeUpgrade(data, { folder: kept }) });
    expect(await data.showMigrations()).toBe(false);
    await data.destroy();
    await (await openUpToDate(url)).destroy();
    const after = await rowsOf(url);
    for (const name of OWN.filter((table) => before[table])) {
      const rows = after[name]!.rows.map(cells);
      expect(rows).toHaveLength(before[name]!.rows.length);
      for (const row of before[name]!.rows)
        expect(rows.some((there) => [...cells(row)].every((cell) => there.has(cell)))).toBe(true);
    }
    expect(before['drive']!.rows.length).toBeGreaterThan(6);
    // The backup is of the shop as it was, and comes up to date as well.
    const [file = ''] = readdirSync(kept);
    const again = freshDatabase();
    const backup = await openBackup(path.join(kept, file));
    await checkBackup(backup);
    await loadBackup(backup, again);
    backup.close();
    const restored = await rowsOf(again);
    for (const name of OWN) expect({ [name]: restored[name]?.rows }).toEqual({ [name]: after[name]?.rows });
  });

  test('stays as it was, to the row and the column, where it cannot be brought up to date', async () => {
    const url = await shopOf(dump);
    const before = await rowsOf(url);
    // The last of those to come fails in its middle; then the first one; then the backup before it.
    class Broken1999000000000 implements MigrationInterface {
      name = 'Broken1999000000000';
      async up(runner: Parameters<MigrationInterface['up']>[0]): Promise<void> {
        await runner.query('CREATE TABLE half_made (id INT PRIMARY KEY)');
        await runner.query('ALTER TABLE vehicle ADD COLUMN torn INT NULL');
        await runner.query('SELECT nothing FROM nowhere');
      }
      async down(runner: Parameters<MigrationInterface['up']>[0]): Promise<void> {
        await runner.query('DROP TABLE IF EXISTS half_made');
        await runner.query('ALTER TABLE vehicle DROP COLUMN IF EXISTS torn');
      }
    }
    const { migrations, ...options } = optionsOf(url);
    const data = await new DataSource({ ...options, migrations: [...migrations, Broken1999000000000] }).initialize();
    // TypeORM says it as well.
    const said = jest.spyOn(console, 'log').mockImplementation(() => undefined);
    const failed = upgrade(data, {});
    await expect(failed).rejects.toThrow(UpgradeProblem);
    await expect(failed).rejects.toThrow(/It is as it was; the Emery before this one opens it$/);
    said.mockRestore();
    await expect(upgrade(data, { before: () => Promise.reject(new Error('the disk is full')) })).rejects.toThrow(
      /the backup before it could not be made: the disk is full. Nothing was changed/,
    );
    await data.destroy();
    const after = await rowsOf(url);
    expect(Object.keys(after)).toEqual(Object.keys(before));
    for (const name of Object.keys(before))
      expect({ [name]: columnsOf(after[name]!.made) }).toEqual({ [name]: columnsOf(before[name]!.made) });
    for (const name of [...OWN, 'migrations'].filter((table) => before[table]))
      expect({ [name]: after[name]!.rows }).toEqual({ [name]: before[name]!.rows });
  });
});

/**
 * The columns and keys of a table, whatever their order and collation. Room for longer texts is not taken back: what
 * was written meanwhile might not fit, and it is in nobody's way.
 */
const columnsOf = (made: string) =>
  made
    .split('\n')
    .slice(1, -1)
    .map((line) =>
      line
        .trim()
        .replace(/,$/, '')
        .replace(' mediumtext', ' text')
        .replace(/ (CHARACTER SET|COLLATE) \w+/g, ''),
    )
    .sort();

test('backups of every form there has been are restored', async () => {
  const files = readdirSync(EARLIER).filter((name) => name.endsWith('.zip'));
  expect(files).toEqual(['backup-1.zip']);
  for (const file of files) {
    const url = freshDatabase();
    const backup = await openBackup(path.join(EARLIER, file));
    await checkBackup(backup);
    await loadBackup(backup, url);
    backup.close();
    const { vehicle, drive, photo, person } = await rowsOf(url);
    expect([vehicle, drive, photo, person].map((table) => table!.rows.length)).toEqual([7, 8, 1, 1]);
  }
});

test('an earlier Emery refuses a shop that a later one has changed, and changes nothing', async () => {
  const url = await shopOf(COMMITS[0]!);
  const data = await connect(url);
  await data.query("INSERT INTO migrations (timestamp, name) VALUES (1999000000000, 'Later1999000000000')");
  await data.destroy();
  const before = await rowsOf(url);
  await expect(connect(url)).rejects.toThrow(/changed by a newer Emery \(Later1999000000000\)/);
  expect(await rowsOf(url)).toEqual(before);
});
