import { randomUUID } from 'node:crypto';
import { saved } from './test/saved';
import { mkdtempSync, readFileSync, rmSync, symlinkSync, unlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { driveOf, SERPENTINE } from '../core/test/examples';
import { openLog } from './http/log';
import { problemHandler, withoutContents } from './http/problem';
import { largest } from './test/largest';
import { running, type Running } from './test/running';
import type { Drive } from '@emery/core/drive';
import { draws } from '../core/test/draws';

const web = mkdtempSync(path.join(tmpdir(), 'emery-web-'));
const logs = mkdtempSync(path.join(tmpdir(), 'emery-logs-'));
let shop: Running;
beforeAll(async () => {
  writeFileSync(path.join(web, 'index.html'), '<!doctype html>');
  // A disk that is full from the start.
  symlinkSync('/dev/full', path.join(logs, 'server.log'));
  shop = await running('empty', { webFolder: web, logger: openLog(logs) });
});
afterAll(async () => {
  await shop.stop();
  for (const folder of [web, logs]) rmSync(folder, { recursive: true, force: true });
});

const sample = (name = 'Front drive'): Drive => ({ ...driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), name });
const makeVehicle = async () =>
  (await shop.ask('POST', '/vehicles', { name: 'Loader' })).body as { id: string; revision: number };
const makeDrive = async () =>
  (await shop.ask('POST', '/drives', { vehicleId: (await makeVehicle()).id, document: sample() })).body as {
    id: string;
    vehicleId: string;
    document: Drive;
  };

describe('what is too much is refused before it costs anything, with twenty faults at most', () => {
  const base = {
    format: 'emery-drive',
    version: 1,
    crankRotation: 'cw',
    stations: [] as unknown[],
    belts: [] as unknown[],
  };
  const cases: [string, () => unknown][] = [
    ['300,000 empty stations', () => ({ ...base, stations: Array(300_000).fill({}) })],
    ['20,000 empty stations', () => ({ ...base, stations: Array(20_000).fill({}) })],
    ['a full house of empty sheaves', () => ({ ...base, stations: Array(64).fill({ pulleys: Array(2000).fill({}) }) })],
    [
      'pictures of nothing',
      () => ({ ...base, survey: { photos: Array(24).fill({ rims: Array(64).fill({ points: Array(200).fill(0) }) }) } }),
    ],
  ];
  test.each(cases)('%s', async (_name, document) => {
    const answer = await shop.ask('POST', '/drives', { vehicleId: randomUUID(), document: document() });
    expect(answer.status).toBe(422);
    expect(answer.body.errors?.length ?? 1).toBeLessThanOrEqual(20);
    expect(JSON.stringify(answer.body).length).toBeLessThan(10_000);
  });

  test('nesting of 5,000, a million rows of nothing, more rows than a list may have', async () => {
    expect(await shop.ask('POST', '/vehicles', `{"name":${'['.repeat(5000)}${']'.repeat(5000)}}`)).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/more than 40 deep/) as string },
    });
    expect(await shop.ask('POST', '/stock', `{"rows":[${'{},'.repeat(999_999)}{}]}`)).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/more than 600,000 values/) as string },
    });
    expect(await shop.ask('POST', '/stock', { rows: Array(50_001).fill({}) })).toMatchObject({
      status: 422,
      body: { detail: 'rows holds more than 50,000 rows' },
    });
    expect((await shop.ask('POST', '/stock', { rows: Array(50_000).fill({}) })).body.errors).toHaveLength(20);
  });

  test('a lawful drive at its limits is checked beside the requests: others are answered meanwhile', async () => {
    const { id: vehicleId } = await makeVehicle();
    let done = false;
    const made = shop.ask('POST', '/drives', { vehicleId, document: largest() }).finally(() => (done = true));
    let answered = 0;
    while (!done) {
      expect((await shop.ask('GET', '/shop')).status).toBe(200);
      if (!done) answered += 1;
    }
    expect((await made).status).toBe(201);
    expect(answered).toBeGreaterThan(10);
  });
});

describe('requests that used to be faults', () => {
  test('a number beyond any list, an empty change, a missing file, odd types', async () => {
    for (const query of ['offset=1e20', 'limit=-1', 'offset=x'])
      expect((await shop.ask('GET', `/vehicles?${query}`)).status).toBe(422);
    expect(await shop.ask('PATCH', '/shop', {})).toMatchObject({ status: 200, body: { name: 'My workshop' } });
    const missing = await fetch(`${shop.base.replace('/api', '')}/assets/none.js`);
    expect(missing.status).toBe(404);
    expect(await missing.text()).not.toContain(web);
    for (const rows of [
      [null],
      [[]],
      [1],
      ['PK'],
      [{ section: {} }],
      [{ section: 'PK', ribs: [6], length: 900 }],
      {},
      'rows',
      null,
    ])
      expect((await shop.ask('POST', '/stock', { rows })).status).toBe(422);
    for (const body of ['null', '1', '"x"', '[]'])
      expect((await shop.ask('POST', '/vehicles', body)).status).toBeLessThan(500);
    for (const files of [
      null,
      [null],
      [1],
      [{ name: 1, text: '' }],
      [{ name: 'x' }],
      Array(501).fill({ name: 'x', text: '' }),
    ])
      expect((await shop.ask('POST', '/import', { files })).status).toBe(422);
  });

  test('unknown fields of a vehicle are not written through', async () => {
    const { id } = await makeVehicle();
    const fields = { name: 'Loader', plate: '', odometer: null, odometerUnit: 'km', notes: '' };
    const answer = await shop.ask('PUT', `/vehicles/${id}`, {
      ...fields,
      id: randomUUID(),
      deletedAt: '2026-01-01',
      createdBy: 'x',
      revision: 1,
      saveId: randomUUID(),
    });
    expect(answer).toMatchObject({ status: 200, body: { id, revision: 2 } });
    expect((await shop.ask('GET', `/vehicles/${id}`)).status).toBe(200);
  });

  test('the name of a save with other changes is refused, not taken for the same', async () => {
    const { id } = await makeDrive();
    const patch = { revision: 1, saveId: randomUUID() };
    await shop.ask('PATCH', `/drives/${id}`, { ...patch, changes: [{ at: ['note'], now: 1 }] });
    const other = await shop.ask('PATCH', `/drives/${id}`, { ...patch, changes: [{ at: ['note'], now: 2 }] });
    expect(other).toMatchObject({ status: 422, body: { errors: [{ path: 'saveId' }] } });
    expect((await shop.ask('GET', `/drives/${id}`)).body).toMatchObject({ revision: 2, name: 'Front drive' });
  });

  test('saving a drive of a deleted vehicle says that it is the vehicle', async () => {
    const { id, vehicleId } = await makeDrive();
    const patch = { revision: 1, saveId: randomUUID(), changes: [{ at: ['note'], now: 1 }] };
    await shop.ask('DELETE', `/vehicles/${vehicleId}`);
    const answer = await shop.ask('PATCH', `/drives/${id}`, patch);
    expect(answer).toMatchObject({ status: 404, body: { title: 'Vehicle deleted', deleted: 'vehicle' } });
    await shop.ask('POST', `/vehicles/${vehicleId}/restore`);
    expect((await shop.ask('PATCH', `/drives/${id}`, patch)).status).toBe(200);
  });

  test('a drive is read as it was at one moment, however it is saved meanwhile', async () => {
    const { id, document } = await makeDrive();
    let revision = 1;
    let saving = true;
    const save = (async () => {
      for (; revision < draws(80); revision += 1)
        await saved(shop.ask, id, { ...document, name: `number ${revision + 1}` });
      saving = false;
    })();
    const read = async () => {
      while (saving) {
        const { body } = await shop.ask('GET', `/drives/${id}`);
        if (body.revision > 1)
          expect(body).toMatchObject({
            name: `number ${body.revision}`,
            document: { name: `number ${body.revision}` },
          });
      }
    };
    await Promise.all([save, read(), read(), read()]);
    expect(revision).toBe(draws(80));
  });

  test('four imports of one new vehicle at once make one', async () => {
    const vehicle = { name: 'Snow plough', plate: 'S 1', odometer: null, odometerUnit: 'km', notes: '' };
    const files = [{ name: 'a.emery.json', text: JSON.stringify({ ...sample(), vehicle }) }];
    await Promise.all(Array.from({ length: 4 }, () => shop.ask('POST', '/import', { files })));
    const { body } = await shop.ask('GET', '/vehicles?search=plough');
    expect(body.vehicles).toMatchObject([{ name: 'Snow plough' }]);
    expect(body.vehicles[0].drives).toHaveLength(4);
  });

  test('more bring in lists at once than there are connections to the database: each is answered', async () => {
    const row = { section: 'PK', ribs: '6', length: '1000', code: 'at once', shelf: '1' };
    const part = { label: 'at once', kind: 'spacer', depth: '2.5' };
    const answers = await Promise.all(
      Array.from({ length: 40 }, (_, k) =>
        k % 2 === 0 ? shop.ask('POST', '/stock', { rows: [row] }) : shop.ask('POST', '/parts', { rows: [part] }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array(40).fill(201));
    expect((await shop.ask('GET', '/stock?search=at%20once')).body.total).toBe(20);
  });

  test('a file larger than a save may be is not let in', async () => {
    const large = { ...sample(), note: 'n'.repeat(1_100_000) };
    expect(
      await shop.ask('POST', '/import', { files: [{ name: 'large.emery.json', text: JSON.stringify(large) }] }),
    ).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/over 1 MB/) as string } });
    // One that just goes in can be saved as well.
    const max = { ...sample(), note: 'n'.repeat(1_040_000) };
    const { body } = await shop.ask('POST', '/import', {
      files: [{ name: 'most.emery.json', text: JSON.stringify(max) }],
    });
    expect((await saved(shop.ask, body.drives[0].id as string, { ...max, name: 'Again' })).status).toBe(200);
  });
});

describe('health', () => {
  test('answers while the database does not, and sees a table that cannot be read', async () => {
    expect((await shop.ask('GET', '/health')).status).toBe(200);
    const frozen = jest.spyOn(shop.data, 'query').mockImplementation(() => new Promise(() => undefined));
    expect(await shop.ask('GET', '/health')).toMatchObject({
      status: 503,
      body: { detail: 'The database is not answering.' },
    });
    frozen.mockRestore();
    const other = await running('empty');
    await other.data.query('RENAME TABLE photo TO photo_away');
    expect(await other.ask('GET', '/health')).toMatchObject({
      status: 503,
      body: { detail: 'The table photo cannot be read (ER_NO_SUCH_TABLE).' },
    });
    await other.stop();
  });
});

describe('a full disk', () => {
  test('a log that cannot be written holds nobody up, and goes on once there is room', async () => {
    // All of this file has been logged to a full disk so far.
    for (let k = 0; k < 50; k += 1) expect((await shop.ask('GET', '/shop')).status).toBe(200);
    unlinkSync(path.join(logs, 'server.log'));
    const written = () => {
      try {
        return readFileSync(path.join(logs, 'server.log'), 'utf8');
      } catch {
        return '';
      }
    };
    for (let tries = 0; tries < 100 && !written().includes('/api/shop'); tries += 1) {
      await shop.ask('GET', '/shop?search=secret');
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    expect(written()).toMatch(/lines were dropped/);
    expect(written()).not.toMatch(/secret/);
  });

  test.each([
    { code: 'ER_RECORD_FILE_FULL' },
    { code: 'ER_DISK_FULL' },
    { code: 'ER_GET_ERRNO', message: 'Got error 28 "No space left on device"' },
  ])('a save that the database has no room for says so: %j', (fault) => {
    const sent: { status?: number; body?: { title: string } } = {};
    const response = {
      headersSent: false,
      set: () => response,
      status: (status: number) => ((sent.status = status), response),
      type: () => response,
      send: (text: string) => (sent.body = JSON.parse(text) as { title: string }),
    };
    problemHandler(Object.assign(new Error(fault.message), fault), {} as never, response as never, () => undefined);
    expect(sent).toMatchObject({ status: 507, body: { title: 'Disk full' } });
  });

  test('the log keeps of a fault what kind and where, and nothing of what was being saved', () => {
    const fault = Object.assign(new Error("Duplicate entry 'Parish minibus'"), {
      name: 'QueryFailedError',
      code: 'ER_DUP_ENTRY',
      query: 'INSERT',
      parameters: ['Parish minibus'],
    });
    const kept = JSON.stringify(withoutContents(fault));
    expect(kept).toMatch(/QueryFailedError.*ER_DUP_ENTRY/);
    expect(kept).not.toMatch(/minibus/);
    expect(JSON.stringify(withoutContents(new TypeError('x is not a function')))).toMatch(/x is not a function/);
  });
});
