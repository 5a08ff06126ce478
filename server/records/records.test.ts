import { randomUUID } from 'node:crypto';
import { saved } from '../test/saved';
import { isDeepStrictEqual } from 'node:util';
import { strFromU8, unzipSync } from 'fflate';
import { changeBelt, type Drive } from '../../core/drive';
import { inspectDrive, partChanged, putFinding } from '../../core/inspect';
import { learnedGrowth, sittingsOf } from '../../core/size';
import { driveOf, SERPENTINE } from '../../core/test/examples';
import { keptAndRead } from '../../core/test/kept-belt';
import { limitsKey } from '../check/limits-key';
import { connect } from '../data-source';
import { openLog } from '../http/log';
import { openShop } from '../open-shop';
import { change } from '../storage/change';
import { holdDrive } from '../storage/hold';
import { asking, followed, running, type Running } from '../test/running';
import { keepMemory } from './remember';

let shop: Running;
let ask: Running['ask'];
beforeAll(async () => {
  shop = await running('empty');
  ({ ask } = shop);
});
afterAll(() => shop.stop());

const at = (odometer: number, day: string) => ({ at: `${day}T09:00:00Z`, odometer });
const front = (name: string): Drive => ({ ...driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), name });
const fitted = (drive: Drive, odometer: number, day: string, number?: string): Drive =>
  changeBelt(drive, 'main', {
    care: { fittedAt: `${day}T09:00:00Z`, fittedOdometer: odometer, ...(number && { number }) },
  });

async function put(name: string, document: Drive, fields: object = {}): Promise<{ id: string; vehicleId: string }> {
  const vehicle = (await ask('POST', '/vehicles', { name, odometerUnit: 'km', ...fields })).body as { id: string };
  const drive = (await ask('POST', '/drives', { vehicleId: vehicle.id, document })).body as { id: string };
  return { id: drive.id, vehicleId: vehicle.id };
}
const found = async (search: string) =>
  (await ask('GET', `/records/belts?search=${encodeURIComponent(search)}`)).body as {
    belts: { vehicleName: string; ranKm: number }[];
    total: number;
    understood: string;
  };
const names = async (search: string) => (await found(search)).belts.map(({ vehicleName }) => vehicleName);

test('what is due stands in the order of its day, goes with the drive, and comes back with it', async () => {
  const bad = putFinding(
    front('Front'),
    { on: 'belt', target: 'main' },
    { check: 'chunks', outcome: 'yes' },
    at(90_000, '2026-10-01'),
  );
  const { id } = await put('Loader', bad, { plate: 'L 1' });
  const look = changeBelt(front('Rear'), 'main', { care: { nextLookAt: '2027-01-31T09:00:00Z' } });
  const later = await put('Sweeper', look);
  const due = async (search = '') => (await ask('GET', `/records/due?search=${search}`)).body;
  const { dues, total } = await due();
  expect(total).toBe(2);
  expect(dues).toMatchObject([
    {
      kind: 'change',
      vehicleName: 'Loader',
      plate: 'L 1',
      driveName: 'Front',
      expected: '2026-10-01',
      text: 'Replace: 6-rib PK belt',
    },
    { kind: 'look', vehicleName: 'Sweeper', expected: '2027-01-31' },
  ]);
  expect((await due('sweeper')).dues).toHaveLength(1);
  expect((await due('nothing')).dues).toEqual([]);
  // The shop's own list has it at the drive.
  const tile = (await ask('GET', '/vehicles?search=Loader')).body.vehicles[0].drives[0];
  expect(tile.dues).toMatchObject([{ kind: 'change', expected: '2026-10-01' }]);
  await ask('DELETE', `/drives/${id}`);
  expect((await due()).total).toBe(1);
  await ask('POST', `/drives/${id}/restore`);
  expect((await due()).total).toBe(2);
  await ask('DELETE', `/vehicles/${later.vehicleId}`);
  expect((await due()).total).toBe(1);
  // Put right, it is due no more.
  const opened = (await ask('GET', `/drives/${id}`)).body;
  const document = partChanged(opened.document as Drive, { on: 'belt', target: 'main' }, at(91_000, '2026-11-01'));
  await saved(ask, id, document);
  expect((await due()).dues.map(({ kind }: { kind: string }) => kind)).not.toContain('change');
});

test('the day of an odometer follows the vehicle: its readings, and its own odometer when that is read', async () => {
  const drive = changeBelt(fitted(front('Front'), 10_000, '2026-01-01'), 'main', {
    care: { fittedAt: '2026-01-01T09:00:00Z', fittedOdometer: 10_000, nextLookOdometer: 60_000 },
  });
  const { vehicleId } = await put('Van', drive, { odometer: 20_000 });
  const expected = async () =>
    ((await ask('GET', '/records/due?search=van')).body.dues as { expected: string; kind: string }[]).find(
      ({ kind }) => kind === 'look',
    )!.expected;
  const before = await expected();
  const vehicle = (await ask('GET', `/vehicles/${vehicleId}`)).body;
  const { name, plate, odometerUnit, notes, revision } = vehicle;
  const save = { name, plate, odometerUnit, notes, revision, saveId: randomUUID(), odometer: 50_000 };
  expect((await ask('PUT', `/vehicles/${vehicleId}`, save)).status).toBe(200);
  expect((await expected()) < before).toBe(true);
});

test('every belt in plain words: by ribs, by distance run, by age, by what is on it; a vehicle that is gone is not', async () => {
  const old = await put('Ambulance', fitted(front('Front'), 10_000, '2020-01-01', 'TF 77'), { odometer: 100_000 });
  await put('Hearse', fitted(front('Front'), 95_000, '2026-06-01'), { odometer: 100_000 });
  await put('Crane', fitted(front('Front'), 1000, '2026-06-01'), { odometer: 3500, odometerUnit: 'h' });
  const ribs = front('x').belts[0]!.ribs!;
  expect(await names(`every ${ribs}-rib belt over 80,000 km`)).toEqual(['Crane', 'Ambulance']);
  expect((await found('belts over 80,000 km')).belts.map(({ ranKm }) => ranKm)).toEqual([100_000, 90_000]);
  expect(await names(`${ribs + 1}-rib belts over 1 km`)).toEqual([]);
  expect(await names('belts under 6000 km')).toContain('Hearse');
  expect(await names('older than 3 years')).toEqual(['Ambulance']);
  expect(await names('tf 77')).toEqual(['Ambulance']);
  expect(await names('v-belts')).toEqual([]);
  expect((await found(`${ribs}PK over 80k km`)).understood).toBe(`${ribs} ribs · PK · over 80,000 km`);
  await ask('DELETE', `/vehicles/${old.vehicleId}`);
  expect(await names('tf 77')).toEqual([]);
});

test('what happened is found by its words, of all vehicles or of one, and goes out as CSV and JSON', async () => {
  const drive = fitted(front('Blower'), 500, '2026-02-03', '=cmd()');
  const { vehicleId } = await put('Gritter', drive, { plate: 'G 5' });
  const { records } = (await ask('GET', `/records?vehicle=${vehicleId}`)).body;
  expect(records).toMatchObject([
    {
      kind: 'belt',
      title: '6-rib PK belt: fitted',
      readingAt: 500,
      driveName: 'Blower',
      vehicleName: 'Gritter',
      at: '2026-02-03T09:00:00.000Z',
    },
  ]);
  expect((await ask('GET', '/records?search=gritter%20fitted')).body.total).toBe(1);
  expect((await ask('GET', '/records?search=gritter%20nowhere')).body.total).toBe(0);
  const csv = (await ask('GET', `/records/file.csv?vehicle=${vehicleId}`)).body as string;
  expect(csv.split('\r\n')[0]).toBe('vehicle,plate,date,odometer,unit,drive,kind,what,detail');
  expect(csv.split('\r\n')[1]).toMatch(/^Gritter,G 5,2026-02-03,500,km,Blower,belt,6-rib PK belt: fitted,/);
  const file = (await ask('GET', `/records/file.json?vehicle=${vehicleId}`)).body;
  expect(file.records).toEqual(records);
  const belts = (await ask('GET', '/records/belts.csv?search=gritter')).body as string;
  // A number that a table would take for a formula is told as text.
  expect(belts).toMatch(/,'=cmd\(\),2026-02-03,500,/);
  expect((await ask('GET', '/records/belts.json?search=gritter')).body.belts).toHaveLength(1);
  expect((await ask('GET', `/records/file.csv?vehicle=${randomUUID()}`)).status).toBe(404);
});

test('how long belts last, with those that still run', async () => {
  const worn = partChanged(
    fitted(front('Front'), 0, '2020-01-01'),
    { on: 'belt', target: 'main' },
    at(70_000, '2023-01-01'),
    'worn',
  );
  await put('Digger', partChanged(worn, { on: 'belt', target: 'main' }, at(90_000, '2024-01-01'), 'in-passing'), {
    odometer: 99_000,
  });
  const all = (await ask('GET', '/records/lives')).body;
  const kind = all.kinds[0].kind as string;
  const { survival } = (await ask('GET', `/records/lives?kind=${encodeURIComponent(kind)}`)).body;
  expect(survival.ended).toBe(1);
  expect(survival.belts).toBeGreaterThanOrEqual(3);
  expect(survival.steps).toMatchObject([{ km: 70_000, ended: 1 }]);
  expect((await ask('GET', '/records/lives?kind=none')).body.survival).toMatchObject({ belts: 0, steps: [] });
});

test('what was read of kept belts is learned from: by section, without the drive that asks, and not once it is gone', async () => {
  const growth = async (search: string) => (await ask('GET', `/records/growth?${search}`)).body.growth;
  expect(await growth('section=PK')).toBeNull();
  const drive = keptAndRead('2026-01-10', [
    [1500, 3],
    [21_500, 6],
  ]);
  const { id } = await put('Fire engine', drive, { odometer: 80_000 });
  const learned = await growth('section=PK');
  expect(learned).toEqual(learnedGrowth('ribbed', sittingsOf(drive)));
  expect(learned.sittings).toBe(1);
  expect(await growth(`section=PK&not=${id}`)).toBeNull();
  expect([await growth('section=SPA'), await growth('section=none'), await growth('')]).toEqual([null, null, null]);
  await put('Its sister', { ...drive, name: 'Front' }, { odometer: 80_000 });
  expect((await growth('section=PK')).sittings).toBe(2);
  expect((await growth(`section=PK&not=${id}`)).sittings).toBe(1);
  await ask('DELETE', `/drives/${id}`);
  expect((await growth('section=PK')).sittings).toBe(1);
});

test('the calendar: a whole day each, the same name each time, nothing without a day', async () => {
  await put(
    'Tractor; "A", B',
    changeBelt(front('Front\nEND:VEVENT'), 'main', {
      care: { nextLookAt: '2027-02-01T09:00:00Z', nextLookOdometer: 5 },
    }),
    {},
  );
  const read = async () => {
    const { body, type } = await ask('GET', '/records/due.ics');
    expect(type).toMatch(/^text\/calendar/);
    // Folded lines put together again (RFC 5545, 3.1).
    return (body as string).replace(/\r\n[ \t]/g, '').split('\r\n');
  };
  const lines = await read();
  const { dues } = (await ask('GET', '/records/due?limit=200')).body;
  const dated = (dues as { expected: string | null }[]).filter(({ expected }) => expected !== null);
  expect(lines.filter((line) => line === 'BEGIN:VEVENT')).toHaveLength(dated.length);
  expect(lines.filter((line) => line === 'END:VEVENT')).toHaveLength(dated.length);
  expect(lines).toContain('DTSTART;VALUE=DATE:20270201');
  expect(lines).toContain('DTEND;VALUE=DATE:20270202');
  expect(lines.some((line) => line.startsWith('SUMMARY:Tractor\\; "A"\\, B: '))).toBe(true);
  const uids = (all: string[]) => all.filter((line) => line.startsWith('UID:'));
  expect(new Set(uids(lines)).size).toBe(dated.length);
  expect(uids(await read())).toEqual(uids(lines));
});

test('an entry of the calendar: its drive, a reminder, and a last change that moves with it alone', async () => {
  const cure = (id: string) => ({ id, cause: 'loose', part: 'main', at: '2026-11-01T08:00:00Z' }) as never;
  const drive: Drive = { ...front('Cured twice'), noise: { cures: [cure('a'), cure('b')] } };
  const { id, vehicleId } = await put('Grader', drive);
  type Entry = Record<string, string>;
  const entries = async (): Promise<Entry[]> => {
    const { body } = await ask('GET', '/records/due.ics');
    const events = (body as string)
      .replace(/\r\n[ \t]/g, '')
      .split('BEGIN:VEVENT')
      .slice(1);
    const read = (event: string) =>
      Object.fromEntries(
        event.split('\r\n').map((line) => [line.split(/[:;]/)[0]!, line.slice(line.indexOf(':') + 1)]),
      );
    return events.map(read).filter(({ SUMMARY }) => SUMMARY!.startsWith('Grader'));
  };
  const first = await entries();
  expect(first).toHaveLength(2);
  expect(new Set(first.map(({ UID }) => UID)).size).toBe(2);
  for (const { URL: url, TRIGGER, ACTION, DESCRIPTION } of first) {
    expect(url).toMatch(new RegExp(`^http://127\\.0\\.0\\.1:\\d+/drives/${id}$`));
    expect([TRIGGER, ACTION]).toEqual(['-PT16H', 'DISPLAY']);
    expect(DESCRIPTION).not.toBe('');
  }
  // Another thing of the drive is changed, and the vehicle's odometer read: the entries have not changed.
  const save = (document: Drive) => saved(ask, id, document);
  await save({ ...drive, name: 'Cured twice', crankRotation: 'ccw' });
  expect(await entries()).toEqual(first);
  // One cure is listened to: its entry says something else, the other one stays as it was.
  const heard = { when: 'now', outcome: 'quiet', at: '2026-11-02T08:00:00Z' };
  await save({
    ...drive,
    noise: {
      cures: [{ ...(cure('a') as object), listened: [heard], odometer: 5, odometerUnit: 'km' } as never, cure('b')],
    },
  });
  await ask('PATCH', `/vehicles/${vehicleId}`, { revision: 1, odometer: 100, odometerUnit: 'km' });
  const second = await entries();
  const changed = async () =>
    (
      (await ask('GET', '/records/due?search=grader')).body as { dues: { key: string; changedAt: string }[] }
    ).dues.reduce<Record<string, string>>((all, { key, changedAt }) => ({ ...all, [key]: changedAt }), {});
  expect((await changed())['listen a']! > (await changed())['listen b']!).toBe(true);
  const entryOf = (all: Entry[], cureId: string) => all.find(({ UID }) => UID!.startsWith(`listen%20${cureId}.`));
  expect(entryOf(second, 'b')).toEqual(entryOf(first, 'b'));
});

test('nothing is listed that is years away', async () => {
  const far = changeBelt(front('Far'), 'main', { care: { nextLookAt: '2037-02-01T09:00:00Z' } });
  await put('Snow plough', far);
  expect((await ask('GET', '/records/due?search=plough')).body).toMatchObject({ dues: [], total: 0 });
  expect(((await ask('GET', '/records/due.ics')).body as string).includes('2037')).toBe(false);
  expect((await ask('GET', '/vehicles?search=plough')).body.vehicles[0].drives[0].dues).toEqual([]);
});

test('the file of belts says what its odometer counts', async () => {
  await put('Harvester', fitted(front('Front'), 1200, '2026-01-01', 'H 1'), { odometerUnit: 'h' });
  const { body } = await ask('GET', '/records/belts.csv?search=harvester');
  const [head, row] = (body as string).split('\r\n');
  expect(head).toMatch(/fitted,at odometer,odometer unit,ran km$/);
  expect(row).toMatch(/2026-01-01,1200,h,/);
});

test('a list asked for wrongly says so', async () => {
  expect((await ask('GET', '/records/due?limit=-1')).status).toBe(422);
  expect((await ask('GET', `/records/belts?search=${'%25_'.repeat(80)}`)).status).toBe(200);
});

describe('belts from before Emery', () => {
  type Told = { ok: boolean; problem?: string; belt?: string; text?: string; there?: boolean };
  const bring = async (rows: object[], look: boolean) =>
    (await ask('POST', '/records/history', { rows, look })).body as { rows: Told[]; taken: number };
  const rows = [
    {
      vehicle: 'ÖLD truck',
      belt: '',
      number: 'A1',
      fitted: '2019-01-01',
      odometer: '1000',
      'taken off': '2022-01-01',
      'odometer off': '61000',
    },
    { vehicle: 'old 1', belt: '6PK1700', number: 'B2', fitted: '2022-01-01', odometer: '61000' },
    { vehicle: 'nobody', fitted: '2022-01-01' },
    { vehicle: 'old 1', fitted: '03/04/2021' },
  ];

  test('a look first, and nothing changed by it; then taken in, once however often it is sent', async () => {
    const { id } = await put('Öld truck', front('Front'), { plate: 'OLD 1', odometer: 90_000 });
    const looked = await bring(rows, true);
    expect(looked.taken).toBe(0);
    expect(looked.rows).toMatchObject([
      { ok: true, belt: 'The belt', there: false },
      { ok: true, text: 'number B2, fitted 2022-01-01 at 61,000, still on' },
      { ok: false, problem: 'vehicle: no vehicle with a drive is called "nobody", by name or plate' },
      { ok: false, problem: expect.stringMatching(/^fitted: /) as string },
    ]);
    expect((await ask('GET', `/drives/${id}`)).body.revision).toBe(1);
    expect((await bring(rows, false)).taken).toBe(2);
    const again = await bring(rows, false);
    expect(again.taken).toBe(0);
    expect(again.rows.map(({ there }) => there)).toEqual([true, true, undefined, undefined]);
    const { document, revision } = (await ask('GET', `/drives/${id}`)).body as { document: Drive; revision: number };
    expect(revision).toBe(2);
    expect(document.inspect!.changed).toHaveLength(1);
    expect((await found('B2')).belts).toMatchObject([{ ranKm: 29_000 }]);
    expect((await ask('GET', '/records/lives')).body.survival.belts).toBeGreaterThan(0);
  });

  test('of two vehicles of one name the plate is asked for, and by their plates each has its own', async () => {
    await put('Twin', front('Front'), { plate: 'T 1' });
    await put('Twin', front('Front'), { plate: 'T 2' });
    const answer = await bring(
      ['twin', 'T 1', 't 2'].map((vehicle) => ({ vehicle, fitted: '2020-01-01', 'taken off': '2021-01-01' })),
      true,
    );
    expect(answer.rows).toMatchObject([
      { ok: false, problem: 'vehicle: 2 are called "twin"; give the plate' },
      { ok: true, belt: 'The belt' },
      { ok: true, belt: 'The belt' },
    ]);
  });

  test('beside a save of the same drive, neither is lost', async () => {
    const { id } = await put('Busy truck', front('Front'), { plate: 'BUSY' });
    const entry = { vehicle: 'BUSY', number: 'N', fitted: '2020-01-01', 'taken off': '2021-01-01' };
    const [renamed] = await Promise.all([
      saved(ask, id, (drive) => ({ ...drive, name: 'Renamed' })),
      bring([entry], false),
    ]);
    expect(renamed.status).toBe(200);
    const after = (await ask('GET', `/drives/${id}`)).body as { document: Drive };
    expect(after.document.inspect!.changed).toHaveLength(1);
    expect(after.document.name).toBe('Renamed');
  });

  test('a list that is none, or too long, says so', async () => {
    expect((await ask('POST', '/records/history', { rows: 'no' })).status).toBe(422);
    expect((await ask('POST', '/records/history', { rows: Array.from({ length: 2001 }, () => ({})) })).status).toBe(
      422,
    );
    expect((await bring([null as never, 5 as never, {}], true)).rows.every(({ ok }) => !ok)).toBe(true);
  });
});

describe('what is due follows the limits that the shop holds for every drive', () => {
  /** Asks until it is so: what follows does so beside the requests. */
  async function become<T>(read: () => Promise<T>, wanted: T): Promise<void> {
    for (let tries = 0; tries < 200 && !isDeepStrictEqual(await read(), wanted); tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await read()).toEqual(wanted);
  }
  const holds = (replace: number | null) =>
    ask('PATCH', '/shop', { limits: replace === null ? null : [{ check: 'rib-depth', section: 'PK', replace }] });
  const worn = (name: string, depth: number) =>
    putFinding(
      front(name),
      { on: 'belt', target: 'main' },
      { check: 'rib-depth', value: depth },
      at(60_000, '2026-09-01'),
    );
  const due = (search: string) => async () =>
    ((await ask('GET', `/records/due?search=${search}`)).body.dues as { driveName: string; text: string }[]).map(
      ({ driveName, text }) => `${driveName}: ${text}`,
    );
  afterAll(() => holds(null));

  test('in drives that nobody opens, deleted ones that come back, and files; one that was saved by older ones catches up', async () => {
    const [deep, deeper] = [await put('Ploughman', worn('Deep', 2.4)), await put('Ploughman', worn('Deeper', 2.7))];
    const shown = due('ploughman');
    expect(await shown()).toEqual([]);
    await ask('DELETE', `/drives/${deeper.id}`);
    await holds(2.8);
    await become(shown, ['Deep: Replace: 6-rib PK belt']);
    await ask('POST', `/drives/${deeper.id}/restore`);
    await become(
      async () => (await shown()).sort(),
      ['Deep: Replace: 6-rib PK belt', 'Deeper: Replace: 6-rib PK belt'],
    );
    // What is exported says what the page does.
    const file = (await ask('GET', `/drives/${deep.id}/file`)).body as Drive;
    expect(inspectDrive(file).map(({ verdict }) => verdict)).toContain('replace');
    const archive = await fetch(`${shop.base}/export?drives=${deep.id}`);
    const [packed] = Object.values(unzipSync(new Uint8Array(await archive.arrayBuffer())));
    expect((JSON.parse(strFromU8(packed!)) as Drive).inspect?.shop).toEqual(file.inspect?.shop);

    // A page that was open since before saves by what it had, and what is due is put right.
    const patch = { revision: 1, saveId: 'old', changes: [{ at: ['note'], now: 1 }] };
    expect((await ask('PATCH', `/drives/${deep.id}`, patch)).status).toBe(200);
    await followed(shop.data);
    await become(
      async () => (await shown()).sort(),
      ['Deep: Replace: 6-rib PK belt', 'Deeper: Replace: 6-rib PK belt'],
    );
    // One that is saved as it was opened goes by them at once.
    await saved(ask, deep.id, (drive) => ({ ...drive, note: 2 }));
    expect(await shown()).toHaveLength(2);
    const by = async () => shop.data.query('SELECT DISTINCT byLimits FROM drive_memory');
    expect(await by()).toHaveLength(1);

    await holds(2.5);
    await become(shown, ['Deep: Replace: 6-rib PK belt']);
    await holds(null);
    await become(shown, []);
    await become(by, [{ byLimits: limitsKey(null) }]);
  });

  test('a save that takes its time is followed once it is done, not looked at before and forgotten', async () => {
    const { id } = await put('Roller', worn('Slow', 2.4));
    await holds(2.8);
    await become(due('roller'), ['Slow: Replace: 6-rib PK belt']);
    const memoryOf = async () =>
      (await shop.data.query<{ memory: string }[]>('SELECT memory FROM drive_memory WHERE driveId = ?', [id]))[0]!
        .memory;
    await followed(shop.data);
    await change(shop.data, async (manager) => {
      await holdDrive(manager, id);
      // By older limits, as a page saves that was open since before; then the disk is slow.
      await keepMemory(manager, id, await memoryOf(), 'older');
      await new Promise((resolve) => setTimeout(resolve, 900));
    });
    await followed(shop.data);
    await holds(null);
  });

  test('what was cut short is made up for when the shop is opened again, and goes with an archive', async () => {
    await put('Harrow', worn('Tines', 2.4));
    await holds(2.6);
    await become(due('harrow'), ['Tines: Replace: 6-rib PK belt']);
    const archive = new Uint8Array(await (await fetch(`${shop.base}/export`)).arrayBuffer());
    const other = await running('empty');
    await other.ask('POST', '/import/archive', archive, { 'content-type': 'application/zip' });
    const there = async (at: Running) => (await at.ask('GET', '/records/due?search=harrow')).body.total as number;
    await become(() => there(other), 1);
    // As it is when the power goes right after the settings were written.
    await other.data.query('UPDATE shop SET limits = NULL');
    await other.stop();
    const data = await connect(other.url);
    const again = await openShop(data, { port: 0, logger: openLog(undefined), shop: 'empty' });
    await become(() => there({ ...other, ask: asking(`http://127.0.0.1:${again.port}/api`) }), 0);
    await again.shut();
  });

  test('what an older Emery remembered in other words is made anew once the shop is opened', async () => {
    const old = await running('empty');
    const vehicle = (await old.ask('POST', '/vehicles', { name: 'Plough', odometerUnit: 'km' })).body as { id: string };
    const drive = fitted(front('Blade'), 500, '2026-02-03');
    const { id } = (await old.ask('POST', '/drives', { vehicleId: vehicle.id, document: drive })).body as {
      id: string;
    };
    const [{ memory }] = await old.data.query<[{ memory: string }]>('SELECT memory FROM drive_memory');
    const older = memory.replace(/[^"]* belt: fitted/, 'The belt fitted');
    await old.data.query("UPDATE drive_memory SET byLimits = '', memory = ? WHERE driveId = ?", [older, id]);
    await old.stop();
    const data = await connect(old.url);
    const again = await openShop(data, { port: 0, logger: openLog(undefined), shop: 'empty' });
    try {
      expect(older).not.toBe(memory);
      await followed(data);
      expect(await data.query('SELECT memory FROM drive_memory')).toEqual([{ memory }]);
    } finally {
      await again.shut();
    }
  });
});
