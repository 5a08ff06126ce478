import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { draws } from '../../core/test/draws';
import { LogFile } from '../http/log';
import { running, type Running } from '../test/running';
import { backupsOf, Backups } from './backups';
import { fullOn } from './disk';
import { openBackup } from './read-backup';
import { backupName } from './thin';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-backups-'));
let shop: Running;
beforeAll(async () => {
  shop = await running('empty');
});
afterAll(async () => {
  await shop.stop();
  rmSync(folder, { recursive: true, force: true });
});
const at = (name: string) => {
  const place = path.join(folder, name);
  mkdirSync(place, { recursive: true });
  return place;
};
const HOUR_MS = 3_600_000;

/** A schedule over a folder of its own; its clock is the test's. */
function scheduled(name: string) {
  const backups = new Backups(shop.data, { folder: at(name), shopFolder: folder });
  backups.stop();
  // Stopped are its timers alone.
  Object.assign(backups, { stopped: false });
  return backups;
}

test('one is made where there is none, and again a day later, and none in between', async () => {
  const backups = scheduled('daily');
  await backups.look();
  const [first] = readdirSync(at('daily'));
  expect(first).toMatch(/^emery-\d{4}-.*Z\.zip$/);
  const { lastAt, isOld, files, sameDisk, problem } = await backups.state();
  expect([isOld, files.length, sameDisk, problem]).toEqual([false, 1, true, null]);
  expect(Math.abs(Date.now() - lastAt!.getTime())).toBeLessThan(60_000);
  await backups.look();
  expect(readdirSync(at('daily'))).toEqual([first]);
  // Names are of a second, and nothing is written over.
  await new Promise((resolve) => setTimeout(resolve, 1100));
  await backups.look(Date.now() + 21 * HOUR_MS);
  expect(readdirSync(at('daily'))).toHaveLength(1);
  expect(readdirSync(at('daily'))[0]).not.toBe(first);
  const backup = await openBackup(path.join(at('daily'), readdirSync(at('daily'))[0]!));
  expect(backup.head.shop).toBe('My workshop');
  backup.close();
});

test('a clock that was ahead when the last was made does not keep the next from being made', async () => {
  const backups = scheduled('ahead');
  writeFileSync(path.join(at('ahead'), backupName(new Date(Date.now() + 4000 * 24 * HOUR_MS), false)), 'x');
  await backups.look();
  const both = readdirSync(at('ahead'));
  expect(both).toHaveLength(2);
  // Nor does it have one made at every look from then on, or an old one look new.
  await new Promise((resolve) => setTimeout(resolve, 1100));
  await backups.look();
  expect(readdirSync(at('ahead'))).toEqual(both);
  rmSync(path.join(at('ahead'), both[0]!));
  writeFileSync(path.join(at('ahead'), backupName(new Date(Date.now() - 100 * HOUR_MS), false)), 'x');
  expect(await backups.age()).toMatchObject({ isOld: true });
});

test('the last is called old after three days, and its age is for everybody in the shop', async () => {
  const backups = scheduled('old');
  writeFileSync(path.join(at('old'), backupName(new Date(Date.now() - 71 * HOUR_MS), false)), 'x');
  expect((await backups.age()).isOld).toBe(false);
  rmSync(path.join(at('old'), readdirSync(at('old'))[0]!));
  writeFileSync(path.join(at('old'), backupName(new Date(Date.now() - 73 * HOUR_MS), false)), 'x');
  expect((await shop.ask('GET', '/keep/age')).body).toMatchObject({ isOld: true });
  const { problems } = (await shop.ask('GET', '/keep')).body;
  expect(problems).toContain('The last backup is 3 days old.');
});

test('what kept it from being made is said, nothing that was there is lost, and the next one clears it', async () => {
  const backups = scheduled('blocked');
  await backups.make();
  const before = readdirSync(at('blocked'));
  rmSync(at('blocked'), { recursive: true });
  writeFileSync(path.join(folder, 'blocked'), 'a file where the folder was');
  await backups.make();
  expect((await backups.state()).problem).toMatch(/EEXIST|ENOTDIR|no such folder/);
  expect((await shop.ask('GET', '/health')).body.problems[0]).toMatch(/^The last backup could not be made: /);
  rmSync(path.join(folder, 'blocked'));
  await backups.make();
  expect((await backups.state()).problem).toBeNull();
  expect(readdirSync(at('blocked'))).toHaveLength(before.length);
});

test('halves of one that was cut off go after a day, and nobody else’s files', async () => {
  const backups = scheduled('halves');
  const half = (name: string, hours: number) => {
    const file = path.join(at('halves'), name);
    writeFileSync(file, 'half');
    const then = new Date(Date.now() - hours * HOUR_MS);
    utimesSync(file, then, then);
  };
  half('emery-2026-01-01T00-00-00Z.zip.0a1b2c3d.part', 30);
  half('emery-2026-01-02T00-00-00Z.zip.0a1b2c3d.part', 2);
  half('holiday.part', 300);
  await backups.make();
  expect(readdirSync(at('halves')).filter((name) => name.endsWith('.part'))).toEqual([
    'emery-2026-01-02T00-00-00Z.zip.0a1b2c3d.part',
    'holiday.part',
  ]);
});

describe('at its addresses', () => {
  test('a folder is taken that is there and can be written, and any other is refused by name', async () => {
    scheduled('first');
    const put = (wanted: unknown) => shop.ask('PUT', '/keep/folder', { folder: wanted });
    const refused = async (wanted: unknown, says: RegExp) => {
      const { status, body } = await put(wanted);
      expect([status, body.errors[0].path]).toEqual([422, 'folder']);
      expect(body.errors[0].message).toMatch(says);
    };
    await refused('stick', /whole path/);
    await refused(undefined, /missing/);
    await refused(path.join(folder, 'not-there'), /is not there/);
    writeFileSync(path.join(folder, 'a-file'), '');
    await refused(path.join(folder, 'a-file'), /is not there/);
    chmodSync(at('locked'), 0o500);
    if (process.getuid!() !== 0) await refused(at('locked'), /cannot be written/);
    const answer = await put(at('stick'));
    expect(answer.body.backups.folder).toBe(at('stick'));
    expect(readdirSync(at('stick'))).toEqual([]);
  });

  test('one is begun, followed, listed and fetched; and nothing but backups is handed out', async () => {
    const backups = scheduled('asked');
    await shop.data.query('DELETE FROM keep_setting');
    expect((await shop.ask('POST', '/keep/backups')).status).toBe(202);
    for (let tries = 0; tries < 200 && (await backups.state()).passed !== null; tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 50));
    const { files } = (await shop.ask('GET', '/keep')).body.backups;
    expect(files).toHaveLength(1);
    const file = await fetch(`${shop.base}/keep/backups/${files[0].name}`);
    expect(file.headers.get('content-type')).toBe('application/zip');
    const bytes = Buffer.from(await file.arrayBuffer());
    expect(bytes.equals(readFileSync(path.join(at('asked'), files[0].name)))).toBe(true);
    writeFileSync(path.join(at('asked'), 'secret.txt'), 'x');
    for (const name of ['secret.txt', '..%2Fa-file', '%2Fetc%2Fpasswd', 'emery-2026-01-01T00-00-00Z.zip'])
      expect((await shop.ask('GET', `/keep/backups/${name}`)).status).toBe(404);
  });

  test('one that is under way is cancelled, and leaves nothing', async () => {
    const backups = scheduled('cancelled');
    const making = backups.make();
    expect((await shop.ask('DELETE', '/keep/backups')).status).toBe(204);
    await making;
    const { problem, passed } = await backups.state();
    // It may have been over by then.
    if (problem !== null) {
      expect(problem).toMatch(/cancelled/);
      expect(readdirSync(at('cancelled'))).toEqual([]);
    }
    expect(passed).toBeNull();
    expect(backupsOf(shop.data)).toBe(backups);
  });

  test('a monitor asks at /health, and the owner hears what a stranger does not', async () => {
    const { origin } = new URL(shop.base);
    const said = (await (await fetch(`${origin}/health`)).json()) as Record<string, unknown>;
    expect(said).toMatchObject({ status: 'ok', database: 'ok', versions: { node: process.versions.node } });
    const health = (await shop.ask('GET', '/keep')).body;
    expect(health.disk.freeBytes).toBeGreaterThan(0);
    expect(health.queue).toMatchObject({ most: 12, waiting: 0 });
    expect(health.slowest.map(({ what }: { what: string }) => what)).toContain('GET /keep/age');
    expect(health.versions.shop).toMatch(/^\w+1797400000000$/);
  });
});

test('a disk that fills as a line does is full on the day that the line says, and no other', () => {
  const DAY = 86_400_000;
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 5000 }),
      fc.integer({ min: 6, max: 60 }),
      fc.integer({ min: 1, max: 1000 }),
      (perDay, days, left) => {
        const today = 20_000;
        const samples = Array.from({ length: days }, (_, k) => ({
          at: today - days + 1 + k,
          free: (left + (days - 1 - k)) * perDay,
        }));
        const day = fullOn(samples, left * perDay, today * DAY);
        expect(day).toBe(new Date((today + left) * DAY).toISOString().slice(0, 10));
      },
    ),
    { numRuns: draws(400) },
  );
  const flat = Array.from({ length: 20 }, (_, k) => ({ at: k, free: 5 }));
  expect(fullOn(flat, 5, 0)).toBeNull();
  expect(
    fullOn(
      flat.map(({ at: day }) => ({ at: day, free: day })),
      5,
      0,
    ),
  ).toBeNull();
  expect(
    fullOn(
      [
        { at: 0, free: 9 },
        { at: 1, free: 1 },
      ],
      1,
      0,
    ),
  ).toBeNull();
  expect(fullOn([], 1, 0)).toBeNull();
});

test('a log is set aside once it has grown, five of those stay, and no line is lost between two', async () => {
  const file = path.join(at('logs'), 'server.log');
  const log = new LogFile(file);
  const written: number[] = [];
  const line = (k: number) => `${JSON.stringify({ k, text: 'x'.repeat(9980) })}\n`;
  for (let k = 0; k < 2200; k += 1) {
    written.push(k);
    log.write(line(k));
    if (k % 40 === 0) await new Promise((resolve) => setTimeout(resolve, 5));
  }
  await new Promise((resolve) => setTimeout(resolve, 200));
  const names = readdirSync(at('logs')).sort();
  expect(names).toEqual(['server.log', 'server.log.1', 'server.log.2', 'server.log.3', 'server.log.4']);
  const read = [...names].reverse().flatMap((name) =>
    readFileSync(path.join(at('logs'), name), 'utf8')
      .trim()
      .split('\n')
      .filter(Boolean)
      .map((text) => (JSON.parse(text) as { k: number }).k),
  );
  expect([...read].sort((a, b) => a - b)).toEqual(written);
  for (let k = 0; k < 1200; k += 1) {
    log.write(line(k));
    if (k % 40 === 0) await new Promise((resolve) => setTimeout(resolve, 5));
  }
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(readdirSync(at('logs')).length).toBeLessThanOrEqual(6);
  expect(existsSync(`${file}.6`)).toBe(false);
});
