import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { Readable, Writable } from 'node:stream';
import { Decrypter, Encrypter } from 'age-encryption';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { bringList, cardOf } from '../../core/job';
import { DEMO } from '../../core/test/demo';
import { draws } from '../../core/test/draws';
import { openUnchanged } from '../data-source';
import { rowsOf } from '../test/rows-of';
import { freshDatabase, running, type Running } from '../test/running';
import { makeBackupFile } from './backup-file';
import { loadBackup } from './load-backup';
import { BackupProblem, checkBackup, isSealed, openBackup, unsealInto } from './read-backup';
import { sealed, unsealed } from './seal';
import { writeBackup } from './write-backup';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-keep-'));
const at = (name: string) => path.join(folder, name);
let shop: Running;
beforeAll(async () => {
  shop = await running('demo');
  await filled(shop);
  await makeBackupFile(shop.data, at('good.zip'));
});
afterAll(async () => {
  await shop.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Something of every kind that a shop keeps. */
async function filled({ ask, data }: Running): Promise<void> {
  const good = async (method: string, address: string, body?: unknown) => {
    const answer = await ask(method, address, body);
    if (answer.status >= 300) throw new Error(`${method} ${address}: ${JSON.stringify(answer.body)}`);
    // eslint-disable-next-line @typescript-eslint/no-explicit-any
    return answer.body as any;
  };
  const vehicle = await good('POST', '/vehicles', {
    name: 'Reach truck 水 🚜',
    plate: "B'1\\",
    odometer: 77,
    notes: '"\n\t',
  });
  const drive = await good('POST', '/drives', { vehicleId: vehicle.id, document: { ...DEMO.groomer, name: 'Ünder' } });
  await good('PATCH', `/drives/${drive.id}`, {
    ...{ revision: 1, saveId: randomUUID(), by: 'Ann' },
    changes: [{ at: ['name'], was: 'Ünder', now: 'Under the deck' }],
  });
  const sheetOf = { drive: DEMO.groomer, unit: 'mm', belt: null, ...pickOf() };
  const now = new Date().toISOString();
  const job = await good('POST', '/jobs', { id: randomUUID(), driveId: drive.id, by: 'Ann', at: now, sheet: sheetOf });
  await good('POST', `/jobs/${job.id}/events`, {
    events: [{ id: randomUUID(), at: now, by: 'Ann', kind: 'note', text: 'x' }],
  });
  await good('POST', '/stock', { rows: [{ section: 'PK', ribs: '6', length: '1735', code: '6PK1735', shelf: '3' }] });
  await good('PUT', '/bands/alternator', { least: 1200.1, continuous: 15000, burst: 1e5 / 3 });
  await good('POST', '/access/first', { name: 'Ines', passphrase: 'four wet belts today' });
  await good('DELETE', `/vehicles/${(await good('GET', '/vehicles')).vehicles.at(-1).id}`);
  // Numbers that were given and are gone: they are not given again after a restore either.
  const rows = await data.query<{ id: number }[]>('SELECT id FROM stock_belt ORDER BY id DESC LIMIT 1');
  await good('DELETE', `/stock/${rows[0]!.id}`);
  await data.query(
    "INSERT INTO take (id, at, body, state, part, bytes) VALUES ('t', NOW(3), '{}', 'open', 0, X'00FF5C27')",
  );
}

function pickOf() {
  const { order, steps } = cardOf(DEMO.groomer);
  return { off: order.off, on: order.on, steps, bring: bringList(DEMO.groomer) };
}

async function restoredInto(file: string, url: string): Promise<void> {
  const backup = await openBackup(file);
  try {
    await checkBackup(backup);
    await loadBackup(backup, url);
  } finally {
    backup.close();
  }
}

async function restored(file: string): Promise<string> {
  const url = freshDatabase();
  await restoredInto(file, url);
  return url;
}

test('a shop that is restored is the shop that was backed up, row by row, and goes on counting where it was', async () => {
  // Nothing is to change between the two looks: the server's own sweeping is over.
  const before = await rowsOf(shop.url);
  await makeBackupFile(shop.data, at('exact.zip'));
  expect(await rowsOf(shop.url)).toEqual(before);
  const after = await rowsOf(await restored(at('exact.zip')));
  for (const name of Object.keys(before)) {
    // The time at which each migration ran is no part of a shop.
    if (name === 'migrations') expect(after[name]!.rows).toHaveLength(before[name]!.rows.length);
    else expect({ [name]: after[name] }).toEqual({ [name]: before[name] });
  }
  expect(Object.keys(after)).toEqual(Object.keys(before));
  expect(before['job_event']!.rows).toHaveLength(1);
});

test('it is a plain ZIP: each part stands by its name with its SHA-256, and pictures are pictures', () => {
  const parts = unzipSync(readFileSync(at('good.zip')));
  const sums = strFromU8(parts['SHA256SUMS']!).trim().split('\n');
  expect(sums).toHaveLength(Object.keys(parts).length - 1);
  for (const line of sums) {
    const [sum, name] = line.split('  ');
    expect(createHash('sha256').update(parts[name!]!).digest('hex')).toBe(sum);
  }
  const head = JSON.parse(strFromU8(parts['backup.json']!));
  expect(head).toMatchObject({ format: 'emery-backup', version: 1, shop: 'Tarnside Field Workshop' });
  for (const { name, rows } of head.tables) {
    const text = strFromU8(parts[`tables/${name}.jsonl`]!);
    expect(text.split('\n').filter(Boolean)).toHaveLength(rows);
  }
  const pictures = Object.keys(parts).filter((name) => name.startsWith('pictures/'));
  expect(pictures).toHaveLength(2);
  expect(parts[pictures[0]!]!.slice(0, 2)).toEqual(new Uint8Array([0xff, 0xd8]));
  // Whoever else uses the machine does not read it.
  expect(statSync(at('good.zip')).mode & 0o077).toBe(0);
});

test('it is of one moment: what changes together is there together, however much is changed meanwhile', async () => {
  await shop.data.query('CREATE TABLE two_a (id INT PRIMARY KEY, n INT)');
  await shop.data.query('CREATE TABLE zz_two_b (id INT PRIMARY KEY, n INT)');
  await shop.data.query('INSERT INTO two_a VALUES (1, 0)');
  await shop.data.query('INSERT INTO zz_two_b VALUES (1, 0)');
  let over = false;
  let changes = 0;
  const changing = (async () => {
    while (!over) {
      await shop.data.transaction(async (manager) => {
        await manager.query('UPDATE two_a SET n = n + 1');
        await manager.query('UPDATE zz_two_b SET n = n + 1');
      });
      changes += 1;
    }
  })();
  try {
    for (const k of [1, 2, 3]) await makeBackupFile(shop.data, at(`busy-${k}.zip`));
  } finally {
    over = true;
    await changing;
    await shop.data.query('DROP TABLE two_a, zz_two_b');
  }
  const seen = [1, 2, 3].map((k) => {
    const parts = unzipSync(readFileSync(at(`busy-${k}.zip`)));
    return ['two_a', 'zz_two_b'].map((name) => strFromU8(parts[`tables/${name}.jsonl`]!));
  });
  for (const [a, b] of seen) expect(a).toBe(b);
  expect(changes).toBeGreaterThan(seen.length);
  // A table that nobody knows is named, not left out in silence.
  await expect(restored(at('busy-1.zip'))).rejects.toThrow(/two_a is not one that Emery knows/);
});

/** The good backup with some of its parts changed, and the sums of what is there then. */
function changed(change: (parts: Record<string, Uint8Array>) => void, withSums = true): string {
  const parts = unzipSync(readFileSync(at('good.zip')));
  change(parts);
  delete parts['SHA256SUMS'];
  const sums = Object.entries(parts).map(
    ([name, bytes]) => `${createHash('sha256').update(bytes).digest('hex')}  ${name}\n`,
  );
  const file = at(`${randomUUID()}.zip`);
  writeFileSync(file, zipSync({ ...parts, ...(withSums && { SHA256SUMS: strToU8(sums.join('')) }) }));
  return file;
}
const headChanged = (change: (head: { migrations: string[]; tables: { name: string }[] }) => void) =>
  changed((parts) => {
    const head = JSON.parse(strFromU8(parts['backup.json']!));
    change(head);
    parts['backup.json'] = strToU8(JSON.stringify(head));
  });
const lineChanged = (table: string, line: string) =>
  changed((parts) => {
    const name = `tables/${table}.jsonl`;
    const [, ...rest] = strFromU8(parts[name]!).split('\n');
    parts[name] = strToU8([line, ...rest].join('\n'));
  });

test.each<[string, () => string, RegExp]>([
  [
    'an archive of a shop',
    () =>
      changed((parts) => {
        delete parts['backup.json'];
        parts['shop.json'] = strToU8('{}');
      }),
    /bring that in at Import/,
  ],
  [
    'no backup at all',
    () => {
      writeFileSync(at('none.zip'), 'hello');
      return at('none.zip');
    },
    /not a backup of Emery/,
  ],
  ['one without its list of sums', () => changed(() => undefined, false), /SHA256SUMS is missing/],
  [
    'a later form',
    () => headChanged((head) => Object.assign(head, { version: 2, emery: '9.9.9' })),
    /newer Emery \(9\.9\.9\)/,
  ],
  [
    'migrations of a later Emery',
    () => headChanged((head) => head.migrations.push('Later1999000000000')),
    /newer Emery/,
  ],
  [
    'a table that is left out',
    () => changed((parts) => delete parts['tables/vehicle.jsonl']),
    /tables\/vehicle\.jsonl is missing/,
  ],
  ['fewer rows than it says', () => lineChanged('vehicle', '').toString(), /vehicle\.jsonl/],
  ['a name that is none', () => headChanged((head) => (head.tables[0]!.name = 'a`; DROP')), /tables\[0\]\.name/],
  [
    'a line that is no list',
    () => lineChanged('speed_band', '{"role":"alternator"}'),
    /speed_band\.jsonl, line 1: is not a list/,
  ],
  ['a line of another width', () => lineChanged('speed_band', '["alternator",1]'), /line 1: has 2 values, not 4/],
  [
    'a date that is none',
    () => lineChanged('person', '["a","b","owner","x","soon"]'),
    /person\.jsonl, line 1: has something else/,
  ],
  [
    'a text that is longer than its column',
    () => lineChanged('shop', `[1,"${'x'.repeat(300)}","mm",null,null]`),
    /Data too long/,
  ],
  [
    'a picture that is another',
    () =>
      changed((parts) => {
        const name = Object.keys(parts).find((part) => part.startsWith('pictures/'))!;
        parts[name] = strToU8('no picture');
      }),
    /not the picture its name says/,
  ],
])('%s is refused by name, and nothing of it stays', async (_what, file, says) => {
  const url = freshDatabase();
  const attempt = restoredInto(file(), url);
  await expect(attempt).rejects.toThrow(says);
  const data = await openUnchanged(url);
  expect(await data.query('SHOW TABLES')).toEqual([]);
  await data.destroy();
});

test('any byte that turned over on the disk, and any length cut off, is found before anything is touched', async () => {
  const good = readFileSync(at('good.zip'));
  const parts = unzipSync(good);
  for (let k = 0; k < draws(160); k += 1) {
    const bytes = Buffer.from(good);
    const where = Math.floor(Math.random() * bytes.length);
    bytes[where] = bytes[where]! ^ (1 << Math.floor(Math.random() * 8));
    writeFileSync(at('hurt.zip'), bytes);
    const found = await openBackup(at('hurt.zip'))
      .then(async (backup) => checkBackup(backup).finally(backup.close))
      .then(
        () => null,
        (error: unknown) => error,
      );
    // A bit that nothing goes by, as in the time of an entry: then all of it reads as it was.
    if (found === null) expect(Object.entries(unzipSync(bytes))).toEqual(Object.entries(parts));
    else expect(found).toBeInstanceOf(BackupProblem);
  }
  for (let k = 0; k < draws(40); k += 1) {
    writeFileSync(at('cut.zip'), good.subarray(0, Math.floor(Math.random() * good.length)));
    await expect(openBackup(at('cut.zip'))).rejects.toThrow(BackupProblem);
  }
});

/** Has garbage collected now, and tells what is held beside the heap, bytes. */
function heldNow(): number {
  setFlagsFromString('--expose-gc');
  (runInNewContext('gc') as () => void)();
  return process.memoryUsage().arrayBuffers;
}

test('what has gone out is let go: a slow disk and many pictures do not fill the memory', async () => {
  const { data } = shop;
  for (let k = 0; k < 30; k += 1) {
    const bytes = randomBytes(1_000_000);
    const hash = createHash('sha256').update(bytes).digest('hex');
    const asked = 'INSERT INTO photo (hash, width, height, bytes, createdAt) VALUES (?, 8, 8, ?, NOW())';
    await data.query(asked, [hash, bytes]);
  }
  const [before, seen] = [heldNow(), { taken: 0, written: 0, ahead: 0, held: 0 }];
  const slow = new Writable({
    write: (piece: Buffer, _encoding, done) => {
      seen.written += piece.length;
      seen.ahead = Math.max(seen.ahead, seen.taken - seen.written);
      setTimeout(done, 1);
    },
  });
  const onPart = (bytes: number) => {
    seen.taken += bytes;
    if (bytes === 1_000_000) seen.held = Math.max(seen.held, heldNow() - before);
  };
  try {
    await writeBackup(data, slow, { onPart });
  } finally {
    await data.query('DELETE FROM photo WHERE width = 8');
  }
  expect(seen.written).toBeGreaterThan(30_000_000);
  // A few pieces on the way, and the picture that was just read.
  expect(seen.ahead).toBeLessThan(5_000_000);
  expect(seen.held).toBeLessThan(10_000_000);
});

test('it is restored into an empty database alone', async () => {
  const before = await rowsOf(shop.url);
  await expect(restoredInto(at('good.zip'), shop.url)).rejects.toThrow(/holds something already/);
  expect(await rowsOf(shop.url)).toEqual(before);
});

test('a backup that cannot be written leaves what stood there, and no half of its own', async () => {
  copyFileSync(at('good.zip'), at('keep.zip'));
  const over = new AbortController();
  let parts = 0;
  const onPart = () => {
    parts += 1;
    if (parts === 5) over.abort(new Error('the plug was pulled'));
  };
  await expect(makeBackupFile(shop.data, at('keep.zip'), { signal: over.signal, onPart })).rejects.toThrow('plug');
  expect(readFileSync(at('keep.zip')).equals(readFileSync(at('good.zip')))).toBe(true);
  await expect(makeBackupFile(shop.data, path.join(folder, 'nowhere', 'a.zip'))).rejects.toThrow(
    /nowhere\/a\.zip could not be written: there is no such folder \(ENOENT\)/,
  );
  expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
});

const streamed = async (stream: Readable) => {
  const pieces: Buffer[] = [];
  for await (const piece of stream) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
};

describe('a sealed backup', () => {
  const passphrase = 'seven dry rags';
  beforeAll(() => makeBackupFile(shop.data, at('good.age'), { passphrase }));

  test('is opened by its passphrase alone, and by any program that knows the format', async () => {
    expect(await isSealed(at('good.age'))).toBe(true);
    expect(await isSealed(at('good.zip'))).toBe(false);
    await unsealInto(at('good.age'), passphrase, at('opened.zip'));
    expect(Object.keys(unzipSync(readFileSync(at('opened.zip')))).length).toBeGreaterThan(20);
    const other = new Decrypter();
    other.addPassphrase(passphrase);
    const plain = await other.decrypt(new Uint8Array(readFileSync(at('good.age'))));
    expect(Buffer.from(plain).equals(readFileSync(at('opened.zip')))).toBe(true);
    await expect(unsealInto(at('good.age'), 'seven dry rag', at('wrong.zip'))).rejects.toThrow(
      /passphrase is not the one/,
    );
    expect(readFileSync(at('good.age')).includes('Tarnside')).toBe(false);
  });

  test('that another program sealed is opened', async () => {
    const other = new Encrypter();
    other.setPassphrase('a b');
    other.setScryptWorkFactor(10);
    const file = Buffer.from(await other.encrypt('x'.repeat(200_000)));
    expect((await streamed(await unsealed(Readable.from([file]), 'a b'))).toString()).toBe('x'.repeat(200_000));
    const keyed = new Encrypter();
    keyed.addRecipient('age1ql3z7hjy54pw3hyww5ayyfg7zqgvc7w3j2elw8zmrj2kg5sfn9aqmcac8p');
    const elsewhere = Buffer.from(await keyed.encrypt('x'));
    await expect(unsealed(Readable.from([elsewhere]), 'a b')).rejects.toThrow(/not sealed by Emery with a passphrase/);
  });

  test('of any length comes out as it went in, and is refused where a bit turned over or its end is missing', async () => {
    for (const length of [0, 1, 65_535, 65_536, 65_537, 200_000]) {
      const plain = Buffer.alloc(length, 'belt');
      const file = await streamed(await sealed(Readable.from(length === 0 ? [] : [plain]), 'p', 8));
      expect((await streamed(await unsealed(Readable.from([file]), 'p'))).equals(plain)).toBe(true);
      const hurt = Buffer.from(file);
      const where = Math.floor(Math.random() * hurt.length);
      hurt[where] = hurt[where]! ^ 1;
      const open = async (bytes: Buffer) => streamed(await unsealed(Readable.from([bytes]), 'p'));
      await expect(open(hurt)).rejects.toThrow();
      await expect(open(file.subarray(0, -1))).rejects.toThrow();
    }
  });
});
