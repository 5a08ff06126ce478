import { createHash, randomUUID } from 'node:crypto';
import { changesBetween, forced } from '@emery/core/together';
import { saved } from './test/saved';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import type { DataSource } from 'typeorm';
import { driveOf, SERPENTINE } from '../core/test/examples';
import { firstRun } from './shop/demo';
import { running, type Running } from './test/running';
import type { Drive } from '@emery/core/drive';
import { limitsOf } from '@emery/core/inspect';

let shop: Running;
let data: DataSource;
let base: string;
let ask: Running['ask'];

beforeAll(async () => {
  shop = await running('demo');
  ({ data, base, ask } = shop);
});
afterAll(() => shop.stop());

const sample = (name = 'Front drive'): Drive => ({ ...driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), name });
const makeVehicle = async (name = 'Test truck') =>
  (await ask('POST', '/vehicles', { name })).body as { id: string; revision: number };
async function makeDrive(
  document = sample(),
): Promise<{ id: string; vehicleId: string; revision: number; document: Drive }> {
  const { id } = await makeVehicle();
  return (await ask('POST', '/drives', { vehicleId: id, document })).body;
}

describe('the first run', () => {
  test('holds the demo shop: six vehicles, in the order of the files, each with a drawing', async () => {
    const { body } = await ask('GET', '/vehicles');
    expect(body.total).toBe(6);
    expect(body.vehicles[0]).toMatchObject({ name: 'Rescue truck 2', plate: 'TFW 02', odometer: 148230 });
    expect(body.vehicles.flatMap((v: { drives: object[] }) => v.drives)).toHaveLength(6);
    expect(body.vehicles[0].drives[0].sketch).toMatchObject({
      worst: 'watch',
      belts: [{ closed: true, basis: 'effective' }],
    });
    expect((await ask('GET', '/shop')).body).toEqual({
      ...{ id: 1, name: 'Tarnside Field Workshop', unit: 'in', hourRate: null, limits: null },
    });
  });

  test('a second start adds nothing, and the demo is not poured over a shop in use', async () => {
    await firstRun(data, true);
    expect((await ask('GET', '/vehicles')).body.total).toBe(6);
    expect((await ask('POST', '/shop/demo')).status).toBe(409);
  });
});

describe('vehicles', () => {
  test('make, save, refuse an old revision, delete and bring back', async () => {
    const made = (
      await ask('POST', '/vehicles', { name: 'Loader', plate: 'F-9', odometer: 12, odometerUnit: 'h', notes: 'Yard' })
    ).body;
    expect(made).toMatchObject({ name: 'Loader', revision: 1, drives: [] });
    const { name, plate, odometer, odometerUnit, notes } = made;
    const body = { name, plate, odometer, odometerUnit, notes, revision: 1, saveId: randomUUID() };
    const saved = await ask('PUT', `/vehicles/${made.id}`, { ...body, notes: 'Front yard' });
    expect(saved.body).toMatchObject({ notes: 'Front yard', revision: 2 });
    const late = await ask('PUT', `/vehicles/${made.id}`, { ...body, notes: 'Back yard', saveId: randomUUID() });
    expect(late).toMatchObject({
      status: 409,
      type: expect.stringContaining('application/problem+json') as string,
      body: { current: { notes: 'Front yard', revision: 2 } },
    });
    expect((await ask('DELETE', `/vehicles/${made.id}`)).status).toBe(204);
    expect((await ask('GET', `/vehicles/${made.id}`)).status).toBe(404);
    expect((await ask('GET', '/vehicles/deleted')).body.vehicles.map((v: { id: string }) => v.id)).toContain(made.id);
    expect((await ask('POST', `/vehicles/${made.id}/restore`)).body).toMatchObject({ name: 'Loader', revision: 2 });
  });

  test('a vehicle is copied with its drives, and its drives go and come back with it', async () => {
    const { id, vehicleId } = await makeDrive();
    const copy = (await ask('POST', `/vehicles/${vehicleId}/duplicate`)).body;
    expect(copy).toMatchObject({ name: 'Test truck copy', drives: [{ name: 'Front drive', revision: 1 }] });
    expect(copy.drives[0].id).not.toBe(id);
    await ask('DELETE', `/vehicles/${vehicleId}`);
    expect((await ask('GET', `/drives/${id}`)).status).toBe(404);
    await ask('POST', `/vehicles/${vehicleId}/restore`);
    expect((await ask('GET', `/drives/${id}`)).status).toBe(200);
  });

  test.each([
    [{}, 'name', /needs a name/],
    [{ name: 'x', odometer: -1 }, 'odometer', /0 or more/],
    [{ name: 'x', odometerUnit: 'mile' }, 'odometerUnit', /km, mi or h/],
    [{ name: 'x'.repeat(121) }, 'name', /120 characters/],
  ])('refuses %j by the name of the field', async (body, path, message) => {
    const answer = await ask('POST', '/vehicles', body);
    expect(answer.status).toBe(422);
    expect(answer.body.errors).toEqual([{ path, message: expect.stringMatching(message) as string }]);
  });

  test('search finds by name, plate, notes and drive, and takes % and _ as they are', async () => {
    await ask('POST', '/vehicles', { name: 'Sweeper 50%_done', plate: 'QQ 1' });
    const found = async (text: string) =>
      (await ask('GET', `/vehicles?search=${encodeURIComponent(text)}`)).body.vehicles.map(
        (v: { name: string }) => v.name,
      );
    expect(await found('50%_d')).toEqual(['Sweeper 50%_done']);
    expect(await found('qq 1')).toEqual(['Sweeper 50%_done']);
    expect(await found('light mast')).toEqual(['Rescue truck 2']);
    expect(await found('Blower drive')).toEqual(['Hill-climb car']);
    expect(await found('%%%')).toEqual([]);
    expect((await ask('GET', '/vehicles?limit=many')).status).toBe(422);
  });
});

describe('drives', () => {
  test('a save makes the next revision and keeps unknown fields', async () => {
    const made = await makeDrive();
    const document = { ...made.document, name: 'Changed', shelf: { row: 4 } };
    expect(await saved(ask, made.id, document)).toMatchObject({ status: 200, body: { revision: 2, clashes: [] } });
    expect((await ask('GET', `/drives/${made.id}`)).body).toMatchObject({ name: 'Changed', revision: 2, document });
  });

  test('what two changed of one field is asked about, all else of both is in', async () => {
    const made = await makeDrive();
    const save = (name: string, crankRotation: string) =>
      ask('PATCH', `/drives/${made.id}`, {
        ...{ revision: 1, saveId: randomUUID() },
        changes: changesBetween(made.document, { ...made.document, name, crankRotation } as Drive),
      });
    await save('first', 'cw');
    const late = await save('second', 'ccw');
    expect(late).toMatchObject({
      status: 200,
      body: {
        revision: 3,
        since: [
          { revision: 2, changes: [{ at: ['name'], was: 'Front drive', now: 'first' }] },
          { revision: 3, changes: [{ at: ['crankRotation'] }] },
        ],
        clashes: [{ why: 'changed', changes: [{ at: ['name'], now: 'second' }] }],
      },
    });
    expect((await ask('GET', `/drives/${made.id}`)).body.document).toMatchObject({
      name: 'first',
      crankRotation: 'ccw',
    });
  });

  test('of twenty saves at once of one version each is in that changed something of its own', async () => {
    const made = await makeDrive();
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, k) =>
        ask('PATCH', `/drives/${made.id}`, {
          ...{ revision: 1, saveId: randomUUID() },
          changes: [
            { at: [`note-${k}`], now: k },
            ...(k < 2 ? [{ at: ['name'], was: 'Front drive', now: `n${k}` }] : []),
          ],
        }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array<number>(20).fill(200));
    expect(answers.flatMap(({ body }) => body.clashes as object[])).toHaveLength(1);
    const { body } = await ask('GET', `/drives/${made.id}`);
    expect(body.revision).toBe(21);
    for (let k = 0; k < 20; k += 1) expect(body.document[`note-${k}`]).toBe(k);
    // All versions, one after the other, give the drive.
    const { body: versions } = await ask('GET', `/drives/${made.id}/versions?after=1`);
    expect(
      forced(
        made.document,
        (versions.since as { changes: [] }[]).flatMap(({ changes }) => changes),
      ),
    ).toEqual(body.document);
    // One that is too far behind to be told each of them gets the drive.
    await shop.data.query('UPDATE drive_version SET changes = NULL WHERE driveId = ? AND revision = 5', [made.id]);
    expect((await ask('GET', `/drives/${made.id}/versions?after=1`)).body).toMatchObject({
      ...{ since: null, revision: 21, document: { name: body.name } },
    });
    expect((await ask('GET', `/drives/${made.id}/versions?after=9`)).body.since).toHaveLength(12);
    expect((await ask('GET', `/drives/${made.id}/versions?after=x`)).status).toBe(422);
  });

  test('the same save sent again, as after a lost answer, is taken once, whatever was saved since', async () => {
    const made = await makeDrive();
    const body = { revision: 1, saveId: randomUUID(), changes: [{ at: ['note'], now: 'mine' }] };
    const first = await ask('PATCH', `/drives/${made.id}`, body);
    expect(await ask('PATCH', `/drives/${made.id}`, body)).toEqual(first);
    await saved(ask, made.id, (drive) => ({ ...drive, note: 'theirs' }));
    expect(await ask('PATCH', `/drives/${made.id}`, body)).toMatchObject({
      status: 200,
      body: { revision: 3, clashes: [], since: [{ revision: 2 }, { revision: 3 }] },
    });
    expect((await ask('GET', `/drives/${made.id}`)).body).toMatchObject({ revision: 3, document: { note: 'theirs' } });
  });

  test.each([
    [{ changes: 'none' }, 'changes', /must be a list/],
    [{ changes: [{ now: 1 }] }, 'changes[0]', /must say where/],
    [{ changes: [{ at: ['name'], now: 1, drop: true }] }, 'changes[0]', /must do one thing/],
    [{ changes: Array(5001).fill({ at: ['x'], now: 1 }) }, 'changes', /5000 items at most/],
    [{ changes: [], revision: 0 }, 'revision', /must be 1 or more/],
    [{ saveId: 'x'.repeat(37) }, 'saveId', /36 characters/],
  ])('a patch that is none is refused by its field: %j', async (wrong, path, message) => {
    const made = await makeDrive();
    const answer = await ask('PATCH', `/drives/${made.id}`, { revision: 1, saveId: 'a', changes: [], ...wrong });
    expect(answer.status).toBe(422);
    expect(answer.body.errors[0]).toEqual({ path, message: expect.stringMatching(message) as string });
  });

  test('a bad document names the field and changes nothing', async () => {
    const made = await makeDrive();
    const document = JSON.parse(JSON.stringify(made.document)) as { stations: { pulleys: { diameter: unknown }[] }[] };
    document.stations[1]!.pulleys[0]!.diameter = 'wide';
    const answer = await saved(ask, made.id, document);
    expect(answer).toMatchObject({
      status: 422,
      body: {
        errors: [{ path: 'document.stations[1].pulleys[0].diameter', message: 'must be a number of millimetres' }],
      },
    });
    expect((await ask('GET', `/drives/${made.id}`)).body.revision).toBe(1);
  });

  test('delete, list of the deleted, bring back; a deleted drive takes no save', async () => {
    const made = await makeDrive();
    expect((await ask('DELETE', `/drives/${made.id}`)).status).toBe(204);
    expect((await ask('DELETE', `/drives/${made.id}`)).status).toBe(404);
    const late = { revision: 1, saveId: randomUUID(), changes: [] };
    expect((await ask('PATCH', `/drives/${made.id}`, late)).status).toBe(404);
    expect((await ask('GET', `/drives/${made.id}/versions?after=1`)).status).toBe(404);
    expect((await ask('GET', '/drives/deleted')).body.drives.map((d: { id: string }) => d.id)).toContain(made.id);
    expect((await ask('POST', `/drives/${made.id}/restore`)).body).toMatchObject({ id: made.id, revision: 1 });
  });

  test('a duplicate is its own drive', async () => {
    const made = await makeDrive();
    const copy = (await ask('POST', `/drives/${made.id}/duplicate`)).body;
    expect(copy).toMatchObject({ name: 'Front drive copy', vehicleId: made.vehicleId, revision: 1 });
    await saved(ask, copy.id, { ...copy.document, name: 'other' });
    expect((await ask('GET', `/drives/${made.id}`)).body.name).toBe('Front drive');
  });
});

describe('files', () => {
  test('what is exported is imported to the same vehicle, the same drive', async () => {
    const made = await makeDrive(Object.assign(sample('Round trip'), { extra: [1, 2] }));
    const file = await fetch(`${base}/drives/${made.id}/file`);
    expect(file.headers.get('content-disposition')).toBe('attachment; filename="test-truck-round-trip.emery.json"');
    const text = await file.text();
    const { body, status } = await ask('POST', '/import', { files: [{ name: 'a.emery.json', text }] });
    expect(status).toBe(201);
    const { document } = (await ask('GET', `/drives/${body.drives[0].id}`)).body;
    expect(document).toEqual(made.document);
  });

  test('many go out as one archive and come back in one go', async () => {
    const ids = [await makeDrive(sample('One')), await makeDrive(sample('One'))].map(({ id }) => id);
    const response = await fetch(`${base}/export?drives=${ids.join(',')}`);
    const files = Object.entries(unzipSync(new Uint8Array(await response.arrayBuffer())));
    expect(files.map(([name]) => name)).toEqual(['test-truck-one.emery.json', 'test-truck-one-2.emery.json']);
    const { body } = await ask('POST', '/import', {
      files: files.map(([name, bytes]) => ({ name, text: strFromU8(bytes) })),
    });
    expect(body.drives).toHaveLength(2);
  });

  test('one bad file among good ones stops the whole import, and names file and field', async () => {
    const before = (await ask('GET', '/drives')).body.total;
    const bad = JSON.stringify({ ...sample(), crankRotation: 'up' });
    const answer = await ask('POST', '/import', {
      files: [
        { name: 'good.emery.json', text: JSON.stringify(sample()) },
        { name: 'bad.emery.json', text: bad },
      ],
    });
    expect(answer).toMatchObject({
      status: 422,
      body: {
        detail: 'bad.emery.json: crankRotation must be one of cw, ccw',
        errors: [{ path: 'files[1].crankRotation' }],
      },
    });
    expect((await ask('GET', '/drives')).body.total).toBe(before);
  });
});

describe('hostile requests', () => {
  test('what is not JSON, too large, or nowhere is a problem, not a crash', async () => {
    expect(await ask('POST', '/vehicles', '{"name":')).toMatchObject({
      status: 400,
      type: expect.stringContaining('problem+json') as string,
    });
    expect(await ask('POST', '/vehicles', { name: 'x', notes: 'n'.repeat(1_100_000) })).toMatchObject({ status: 413 });
    expect(await ask('GET', '/nowhere')).toMatchObject({ status: 404, body: { title: 'Not found' } });
    expect(await ask('GET', "/drives/' OR 1=1 --")).toMatchObject({ status: 404 });
    expect(await ask('POST', '/vehicles', '[]')).toMatchObject({ status: 422 });
  });

  test('a page of another site is refused', async () => {
    expect(await ask('POST', '/vehicles', { name: 'x' }, { origin: 'http://elsewhere.example' })).toMatchObject({
      status: 403,
    });
  });

  test('answers carry the headers that keep a page to itself', async () => {
    const { headers } = await fetch(`${base}/health`);
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('x-powered-by')).toBeNull();
  });
});

describe('pictures', () => {
  const send = (body: Uint8Array, type = 'image/jpeg') =>
    fetch(`${base}/photos`, {
      method: 'POST',
      headers: { 'content-type': type },
      body: body as Uint8Array<ArrayBuffer>,
    });
  const dot = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#a33' } });

  test('a picture is kept upright and without what the camera wrote, by the hash of what is kept', async () => {
    const taken = await dot()
      .withExif({ IFD3: { GPSLatitude: '54/1 0/1 0/1', GPSLatitudeRef: 'N' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const kept = (await (await send(taken)).json()) as { hash: string; width: number; height: number };
    // On its side in the file: 60 × 40 stands 40 × 60.
    expect(kept).toMatchObject({ width: 40, height: 60 });
    const back = await fetch(`${base}/photos/${kept.hash}`);
    const bytes = Buffer.from(await back.arrayBuffer());
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(kept.hash);
    expect(back.headers.get('cache-control')).toContain('immutable');
    const read = await sharp(bytes).metadata();
    expect([read.format, read.exif, read.orientation ?? 1]).toEqual(['jpeg', undefined, 1]);
    expect(await (await send(taken)).json()).toEqual(kept);
  });

  test('PNG and WebP come in; a large one is made smaller', async () => {
    for (const [type, bytes] of [
      ['image/png', await dot().png().toBuffer()],
      ['image/webp', await dot().webp().toBuffer()],
    ] as const) {
      expect(await (await send(bytes, type)).json()).toMatchObject({ width: 60, height: 40 });
    }
    const large = await sharp({ create: { width: 6000, height: 3000, channels: 3, background: '#333' } })
      .jpeg()
      .toBuffer();
    expect(await (await send(large)).json()).toMatchObject({ width: 4096, height: 2048 });
  });

  test('what is no picture is refused with what is accepted: other types, text, a cut-off file, a vector drawing, one too large', async () => {
    const jpeg = await dot().jpeg().toBuffer();
    const drawing = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"/>');
    const cases: [Uint8Array, string, number][] = [
      [jpeg, 'application/pdf', 415],
      [Buffer.from('not a picture'), 'image/jpeg', 422],
      [jpeg.subarray(0, jpeg.length / 2), 'image/jpeg', 422],
      [drawing, 'image/png', 422],
      [new Uint8Array(0), 'image/png', 422],
      [new Uint8Array(21 * 1024 * 1024), 'image/jpeg', 413],
    ];
    for (const [body, type, status] of cases) {
      const answer = await send(body, type);
      expect([type, answer.status]).toEqual([type, status]);
      expect(answer.headers.get('content-type')).toContain('problem+json');
    }
    expect((await ask('GET', `/photos/${'0'.repeat(64)}`)).status).toBe(404);
  });

  test('the demo shop has the picture that its truck names', async () => {
    const { body } = await ask('GET', '/drives?search=Rescue');
    const { document } = (await ask('GET', `/drives/${(body.drives as { id: string; vehicleId: string }[])[0]!.id}`))
      .body as { document: Drive };
    const [photo] = document.survey!.photos!;
    const picture = await fetch(`${base}/photos/${photo!.hash}`);
    expect(await sharp(Buffer.from(await picture.arrayBuffer())).metadata()).toMatchObject({
      width: photo!.width,
      height: photo!.height,
    });
  });
});

describe('the stock of belts', () => {
  const belt = (more: object = {}) => ({
    section: 'PK',
    ribs: '7',
    length: '1234',
    code: 'A 1',
    price: '9.50',
    shelf: '1',
    ...more,
  });

  test('rows go in, are filtered, and come out as CSV that goes in again', async () => {
    expect(
      (
        await ask('POST', '/stock', {
          replace: true,
          rows: [belt(), belt({ length: '1250', code: '=1+1' }), { marking: '13x1000', shelf: '3' }],
        })
      ).body,
    ).toEqual({ total: 3 });
    const found = (await ask('GET', '/stock?section=PK&ribs=7&from=1240&to=1300')).body;
    expect(found).toMatchObject({
      total: 1,
      belts: [{ section: 'PK', ribs: 7, lengthMm: 1250, code: '=1+1', price: 9.5, shelf: 1 }],
    });
    expect((await ask('GET', '/stock?search=A%201')).body.total).toBe(1);
    const file = (await ask('GET', '/stock/file')).body as string;
    expect(file.split('\r\n')[0]).toBe('section,ribs,length,code,price,shelf');
    // What a spreadsheet would run is made plain text.
    expect(file).toContain("'=1+1");
    await ask('DELETE', `/stock/${found.belts[0].id}`);
    expect((await ask('GET', '/stock')).body.total).toBe(2);
  });

  test('every length of a kind is told, however many rows there are, with what lies on the shelf', async () => {
    const rows = Array.from({ length: 3000 }, (_, k) =>
      belt({ ribs: '9', length: String(1000 + (k % 1500)), shelf: '2' }),
    );
    await ask('POST', '/stock', { rows });
    const { lengths } = (await ask('GET', '/stock/lengths?section=PK&ribs=9')).body as {
      lengths: { lengthMm: number; shelf: number }[];
    };
    expect(lengths).toHaveLength(1500);
    // A page of the list itself has five hundred at most, whatever is asked.
    expect((await ask('GET', '/stock?ribs=9&limit=2000')).body.belts).toHaveLength(500);
    expect((await ask('GET', '/stock?ribs=9')).body).toMatchObject({ total: 3000 });
    expect(lengths.at(-1)).toEqual({ lengthMm: 2499, shelf: 4 });
  });

  test('one bad row stops the whole import and is named; the old list stays', async () => {
    const before = (await ask('GET', '/stock')).body.total;
    const answer = await ask('POST', '/stock', { replace: true, rows: [belt(), belt({ length: 'long' })] });
    expect(answer.status).toBe(422);
    expect(answer.body.errors).toEqual([{ path: 'rows[1]', message: expect.stringMatching(/^length:/) as string }]);
    expect((await ask('GET', '/stock')).body.total).toBe(before);
    expect((await ask('POST', '/stock', { rows: 'all' })).status).toBe(422);
    expect((await ask('DELETE', '/stock/999999')).status).toBe(404);
  });
});

describe('what the shop keeps for Speeds', () => {
  test('a band is kept for a kind of accessory, replaced, and taken back', async () => {
    expect((await ask('GET', '/bands')).body).toEqual({ bands: {} });
    const band = { least: 1600, continuous: 12_000, burst: null };
    await ask('PUT', '/bands/alternator', band);
    expect((await ask('PUT', '/bands/alternator', { ...band, least: 1500 })).status).toBe(200);
    expect((await ask('GET', '/bands')).body).toEqual({ bands: { alternator: { ...band, least: 1500 } } });
    expect(
      (await ask('PUT', '/bands/alternator', { least: 5000, continuous: 4000, burst: null })).body.errors[0].message,
    ).toMatch(/rise/);
    expect(
      (await ask('PUT', '/bands/alternator', { least: -1, continuous: null })).body.errors.map(
        ({ path }: { path: string }) => path,
      ),
    ).toEqual(['least', 'burst']);
    expect((await ask('PUT', '/bands/toaster', band)).status).toBe(404);
    await ask('DELETE', '/bands/alternator');
    expect((await ask('GET', '/bands')).body).toEqual({ bands: {} });
  });

  test('pulleys at hand: the demo shop has some, one is added and taken out, what is no pulley is refused by field', async () => {
    const { pulleys } = (await ask('GET', '/pulleys')).body as { pulleys: { id: string; label: string }[] };
    expect(pulleys[0]).toMatchObject({
      label: 'Crank 150 six-rib',
      role: 'crankshaft',
      surface: 'ribbed',
      diameter: 150,
      grooves: 6,
      set: 'Underdrive',
    });
    const made = await ask('POST', '/pulleys', { label: ' Fan 130 ', role: 'fan', surface: 'vee', diameter: 130 });
    expect(made).toMatchObject({ status: 201, body: { label: 'Fan 130', role: 'fan', surface: 'vee', diameter: 130 } });
    const two = await ask('POST', '/pulleys', { label: 'Fan 120', surface: 'vee', diameter: 120, count: 2 });
    expect(two.body).toMatchObject({ count: 2 });
    expect((await ask('GET', '/pulleys')).body.pulleys).toContainEqual(two.body);
    await ask('DELETE', `/pulleys/${two.body.id}`);
    expect(
      (await ask('POST', '/pulleys', { label: 'x', surface: 'vee', diameter: 90, count: 0 })).body.errors[0].path,
    ).toBe('count');
    expect((await ask('GET', '/pulleys')).body.pulleys).toHaveLength(pulleys.length + 1);
    expect((await ask('DELETE', `/pulleys/${made.body.id}`)).status).toBe(204);
    expect((await ask('DELETE', `/pulleys/${made.body.id}`)).status).toBe(404);
    const refused = async (body: object) =>
      ((await ask('POST', '/pulleys', body)).body.errors as { path: string }[])[0]!.path;
    expect(await refused({ label: 'x', surface: 'vee' })).toBe('diameter');
    expect(await refused({ label: 'x', surface: 'toothed', diameter: 50 })).toBe('teeth');
    expect(await refused({ label: 'x', surface: 'bumpy', diameter: 50 })).toBe('surface');
    expect(await refused({ label: ' ', surface: 'vee', diameter: 50 })).toBe('label');
  });

  test('parts at hand: the demo shop has some, a list goes in whole or not at all and comes out as it went in', async () => {
    const list = async () => (await ask('GET', '/parts')).body.parts as { id: string; label: string }[];
    const before = await list();
    expect(before[0]).toMatchObject({ label: 'Crank hub short', kind: 'hub', mm: 38.2, plusMinus: 0.2, price: null });
    const rows = [
      { label: ' =Hub 40 ', kind: 'Hub', depth: '1 9/16', price: '12,5' },
      { label: 'Washer', depth: 2.5, count: '3' },
    ];
    const made = await ask('POST', '/parts', { rows });
    expect(made).toMatchObject({
      status: 201,
      body: {
        parts: [
          { label: '=Hub 40', kind: 'hub', mm: 39.688, price: 12.5 },
          { kind: 'other', count: 3 },
        ],
      },
    });
    const bad = await ask('POST', '/parts', { rows: [...rows, { label: 'x', depth: 'wide' }, 7] });
    expect(bad.status).toBe(422);
    expect((bad.body.errors as { path: string }[]).map(({ path }) => path)).toEqual(['rows[2].depth', 'rows[3]']);
    expect((await ask('POST', '/parts', { rows: 'many' })).body.errors[0].path).toBe('rows');
    expect(await list()).toHaveLength(before.length + 2);
    for (const { id } of made.body.parts as { id: string }[])
      expect((await ask('DELETE', `/parts/${id}`)).status).toBe(204);
    expect((await ask('DELETE', '/parts/none')).status).toBe(404);
    expect(await list()).toEqual(before);
  });
});

test('a drive that was begun with the server away is made once, whoever asks for it again', async () => {
  const vehicle = await makeVehicle('Away');
  const begun = { id: randomUUID(), vehicleId: vehicle.id, document: sample('Begun away') };
  const made = await Promise.all([1, 2, 3].map(() => ask('POST', '/drives', begun)));
  expect(made.map(({ status, body }) => [status, body.id])).toEqual([1, 2, 3].map(() => [201, begun.id]));
  const { vehicleId: _, ...unowned } = { ...begun, id: randomUUID() };
  const alike = await Promise.all([1, 2, 3].map(() => ask('POST', '/drives', unowned)));
  expect(new Set(alike.map(({ status, body }) => [status, body.id, body.vehicleId].join()))).toHaveProperty('size', 1);
  await ask('DELETE', `/vehicles/${alike[0]!.body.vehicleId}`);
  const { body: answer } = await saved(ask, begun.id, sample('Renamed since'));
  // A late one changes nothing of what was saved since.
  const late = await ask('POST', '/drives', begun);
  expect(late.body).toMatchObject({ id: begun.id, name: 'Renamed since', revision: answer.revision });
  expect((await ask('GET', `/vehicles/${vehicle.id}`)).body.drives).toHaveLength(1);
  for (const id of ['7', begun.id.toUpperCase(), `${begun.id}0`, 7]) {
    const { status, body } = await ask('POST', '/drives', { ...begun, id });
    expect([id, status, body.errors?.[0]?.path]).toEqual([id, 422, 'id']);
  }
});

describe('a drive that belongs to no vehicle yet', () => {
  test('is made with one to be named, is found, and goes to the right one', async () => {
    const drive = (await ask('POST', '/drives', { document: sample('From the counter') })).body;
    expect(drive).toMatchObject({ vehicleName: 'Vehicle not named yet', name: 'From the counter' });
    const to = await makeVehicle('Gritter');
    expect((await ask('PUT', `/drives/${drive.id}/vehicle`, { vehicleId: 'nowhere' })).status).toBe(404);
    expect((await ask('PUT', `/drives/${drive.id}/vehicle`, {})).status).toBe(422);
    const moved = await ask('PUT', `/drives/${drive.id}/vehicle`, { vehicleId: to.id });
    expect(moved.body).toMatchObject({ vehicleId: to.id, vehicleName: 'Gritter', revision: drive.revision });
    expect((await ask('GET', `/vehicles/${drive.vehicleId}`)).status).toBe(404);
    expect((await ask('GET', '/vehicles?search=gritter')).body.vehicles[0].drives).toMatchObject([{ id: drive.id }]);
    expect((await ask('GET', '/vehicles?search=not named')).body.total).toBe(0);
    // A vehicle that has a name stays, though its last drive leaves it.
    const back = await makeVehicle('Tipper');
    await ask('PUT', `/drives/${drive.id}/vehicle`, { vehicleId: back.id });
    expect((await ask('GET', `/vehicles/${to.id}`)).body).toMatchObject({ name: 'Gritter', drives: [] });
  });
});

describe('what the shop holds for every drive', () => {
  const limits = [
    { check: 'rib-depth', section: 'PK', replace: 2.3 },
    { check: 'rock', kind: 'one-way', replace: 0.2, watch: 0.1 },
  ];
  afterAll(() => ask('PATCH', '/shop', { limits: null }));

  test('stands in its settings, and in every drive that is opened, in place of what the drive brought', async () => {
    const brought = { ...sample(), inspect: { shop: [{ check: 'cracks', replace: 9 }] } } as Drive;
    const { id } = await makeDrive(brought);
    expect((await ask('GET', `/drives/${id}`)).body.document.inspect).toEqual({});
    expect((await ask('PATCH', '/shop', { limits })).body).toMatchObject({ limits });
    const { document } = (await ask('GET', `/drives/${id}`)).body as { document: Drive };
    expect(document.inspect).toEqual({ shop: limits });
    // Sums go by it, and say whose it is; a drive saved with it is opened with what holds then.
    expect(limitsOf(document, 'rib-depth', { belt: document.belts[0] })).toMatchObject({
      replace: 2.3,
      from: 'shop-wide',
    });
    const patch = { revision: 1, saveId: randomUUID(), changes: [{ at: ['note'], now: 1 }] };
    expect((await ask('PATCH', `/drives/${id}`, patch)).status).toBe(200);
    await ask('PATCH', '/shop', { limits: limits.slice(1) });
    expect((await ask('GET', `/drives/${id}`)).body.document.inspect).toEqual({ shop: limits.slice(1) });
    // The same save sent twice is the same save, whatever the settings say by now.
    expect((await ask('PATCH', `/drives/${id}`, patch)).status).toBe(200);
    await ask('PATCH', '/shop', { limits: [] });
    expect((await ask('GET', '/shop')).body.limits).toBeNull();
  });

  test('of two who change them at once the second is told, and nothing of the first is lost', async () => {
    await ask('PATCH', '/shop', { limits: null });
    const [first, other] = limits.map((limit) => [limit]);
    const both = await Promise.all(
      [first, other].map((next) => ask('PATCH', '/shop', { limits: next, limitsWere: null })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const kept = (await ask('GET', '/shop')).body.limits as object[];
    expect(kept).toEqual(both[0]!.status === 200 ? first : other);
    expect(both.find(({ status }) => status === 409)!.body.detail).toMatch(/changed somewhere else meanwhile/);
    // Who looked at them as they are may change them; other settings ask for nothing.
    expect((await ask('PATCH', '/shop', { limits, limitsWere: kept })).status).toBe(200);
    expect((await ask('PATCH', '/shop', { unit: 'in' })).body).toMatchObject({ limits, unit: 'in' });
    expect((await ask('PATCH', '/shop', { limits: null, limitsWere: limits })).body.limits).toBeNull();
  });

  test.each([
    [[{ check: 'smell', replace: 1 }], /^limits\[0\]\.check/],
    [[{ check: 'rock' }], /^limits\[0\]\.replace/],
    [[{ check: 'rock', replace: 'far' }], /^limits\[0\]\.replace/],
    [[{ check: 'rock', kind: 'odd', replace: 1 }], /^limits\[0\]\.kind/],
    [Array.from({ length: 61 }, () => ({ check: 'rock', replace: 1 })), /^limits/],
    ['many', /^limits/],
  ])('what is no limit is refused, each by its field: %j', async (bad, where) => {
    const { status, body } = await ask('PATCH', '/shop', { limits: bad });
    expect(status).toBe(422);
    expect((body as { errors: { path: string }[] }).errors[0]!.path).toMatch(where);
  });
});
