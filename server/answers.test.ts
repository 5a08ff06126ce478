import { DEMO } from '../core/test/demo';
import { bringList, cardOf } from '@emery/core/job';
import { held } from './test/held';
import { running, type Running } from './test/running';

/*
 * What the server answers over the demo shop, lawful requests and others, as it was read: every status, field and word.
 * What differs from run to run, ids and times, is left out. `EMERY_WRITE_ANSWERS=1 npx jest server/answers` writes it
 * anew, to be read by a person first.
 */
let shop: Running;
const answers: string[] = [];
beforeAll(async () => {
  shop = await running('demo');
});
afterAll(() => shop.stop());

const steady = (text: string) =>
  text
    .replace(/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g, '<id>')
    .replace(/[0-9a-f]{64}/g, '<hash>')
    .replace(/"id":\d+/g, '"id":#')
    .replace(/20\d\d-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z|20\d{6}T\d{6}Z/g, '<time>');
/** What a thing says, without the number it has in this run. */
const plain = (value: object) => steady(JSON.stringify({ ...value, id: 0 }));
/**
 * Figures and words of an answer, lists of things sorted by what they say. A whole drive is left out, for others hold
 * it, and what is due, which goes by the day.
 */
const short = (body: unknown): string =>
  typeof body === 'string'
    ? body.split(/\r?\n/).sort().join('\n').slice(0, 3000)
    : JSON.stringify(body, (key, value: unknown) =>
        ['document', 'sketch', 'sheet', 'dues', 'due', 'soon'].includes(key)
          ? '…'
          : typeof value === 'number'
            ? Number(value.toPrecision(6))
            : Array.isArray(value) && typeof value[0] === 'object'
              ? [...(value as object[])].sort((a, b) => (plain(a) < plain(b) ? -1 : 1))
              : value,
      );
async function ask(method: string, path: string, body?: unknown) {
  const answer = await shop.ask(method, path, body);
  const { status, type, body: given } = answer;
  answers.push(`${steady(`${method} ${path} -> ${status} ${type.split(';')[0]} ${short(given)}`).slice(0, 2500)}`);
  return answer;
}

const NOW = '2026-11-26T10:00:00.000Z';
const ID = '11111111-1111-4111-8111-111111111111';

test('the demo shop answers as it did', async () => {
  for (const path of [
    ...[
      '/shop',
      '/vehicles',
      '/vehicles?search=truck',
      '/vehicles?limit=2&offset=1',
      '/vehicles?limit=0',
      '/vehicles/deleted',
    ],
    ...[
      '/drives',
      '/drives?search=Front',
      '/drives/deleted',
      '/stock?limit=3',
      '/stock?section=PK&ribs=6&from=1000&to=1800',
    ],
    ...[
      '/stock?search=x',
      '/stock/lengths?section=PK',
      '/stock/file',
      '/bands',
      '/pulleys',
      '/parts',
      '/parts/file',
      '/jobs',
    ],
    ...['/jobs/pace', '/records', '/records?search=belt', '/records/belts'],
    ...[
      '/records/belts?search=PK',
      '/records/belts.csv',
      '/records/lives',
      '/records/growth?section=PK',
      '/records/lives?kind=6PK',
      '/records/file.csv',
    ],
    ...['/records/file.csv?vehicle=none', `/vehicles/${ID}`, `/drives/${ID}`, `/drives/${ID}/file`, `/jobs/${ID}`],
    ...[`/jobs/${ID}/events`, `/jobs/${ID}/events?after=x`, `/photos/${'0'.repeat(64)}`, '/nowhere'],
  ])
    await ask('GET', path);
  const { vehicles } = (await shop.ask('GET', '/vehicles')).body as { vehicles: { id: string; name: string }[] };
  for (const { id } of vehicles) {
    await ask('GET', `/vehicles/${id}`);
    await ask('GET', `/records?vehicle=${id}`);
  }
  held('demo', `${answers.splice(0).join('\n')}\n`);
});

test('what is asked wrongly is told as it was', async () => {
  const { vehicles } = (await shop.ask('GET', '/vehicles')).body as { vehicles: { id: string }[] };
  const { drives } = (await shop.ask('GET', '/drives')).body as { drives: { id: string }[] };
  const [vehicle, drive] = [vehicles[0]!.id, drives[0]!.id];
  const { order, steps } = cardOf(DEMO.rescue);
  const sheet = {
    ...{
      drive: DEMO.rescue,
      unit: 'mm',
      belt: null,
      off: order.off,
      on: order.on,
      steps,
      bring: bringList(DEMO.rescue),
    },
  };
  const job = { id: ID, driveId: drive, by: 'Ann', at: NOW, sheet };
  const bad: [string, string, unknown[]][] = [
    ['PATCH', '/shop', [{ name: ' ' }, { unit: 'ft' }, { hourRate: -1 }, { name: 'x'.repeat(121) }, { hourRate: 'x' }]],
    [
      'POST',
      '/vehicles',
      [{}, [], { name: '' }, { name: 'x'.repeat(121) }, { name: 'x', odometer: -1, odometerUnit: 'y' }],
    ],
    [
      'PUT',
      `/vehicles/${vehicle}`,
      [{}, { name: 'x', revision: 99, saveId: ID }, { name: 'x', revision: 'a', saveId: 'b' }],
    ],
    ['PUT', `/vehicles/${ID}`, [{ name: 'x', revision: 1, saveId: ID }]],
    [
      'POST',
      '/drives',
      [{}, { vehicleId: ID, document: DEMO.rescue }, { vehicleId: vehicle, document: { ...DEMO.rescue, belts: 5 } }],
    ],
    [
      'PATCH',
      `/drives/${drive}`,
      [
        {},
        { revision: 99, saveId: ID, changes: [{ at: ['name'], was: 'Other', now: 'New' }] },
        { revision: 1, saveId: 'x', changes: {} },
        { revision: 1, saveId: 'y', changes: [{ at: ['crankRotation'], was: 'cw', now: 'round' }] },
      ],
    ],
    ['PUT', `/drives/${drive}/vehicle`, [{}, { vehicleId: 'x' }, { vehicleId: ID }]],
    ['POST', `/drives/${ID}/duplicate`, [undefined]],
    ['POST', `/drives/${ID}/restore`, [undefined]],
    ['DELETE', `/drives/${ID}`, [undefined]],
    ['DELETE', `/vehicles/${ID}`, [undefined]],
    ['POST', `/vehicles/${ID}/restore`, [undefined]],
    ['POST', `/vehicles/${ID}/duplicate`, [undefined]],
    [
      'POST',
      '/stock',
      [
        {},
        { rows: 'x' },
        { rows: [5, {}, { section: 'PK' }] },
        { rows: [{ marking: 'hello' }] },
        { replace: 'x', rows: [] },
      ],
    ],
    ['DELETE', '/stock/999999', [undefined]],
    [
      'PUT',
      '/bands/alternator',
      [{}, { least: -1, continuous: 'x', burst: 5 }, { least: 10, continuous: 5, burst: null }],
    ],
    ['PUT', '/bands/toaster', [{ least: 1, continuous: 2, burst: 3 }]],
    ['DELETE', '/bands/toaster', [undefined]],
    [
      'POST',
      '/pulleys',
      [
        {},
        { label: ' ', surface: 'x' },
        { label: 'a', surface: 'vee', diameter: 9999 },
        { label: 'a', surface: 'vee' },
        { label: 'a', surface: 'toothed', diameter: 5 },
        { label: 'a', role: 'x', surface: 'vee', diameter: 5, teeth: 1.5, grooves: 99, count: 0 },
      ],
    ],
    ['DELETE', `/pulleys/${ID}`, [undefined]],
    [
      'POST',
      '/parts',
      [
        {},
        { rows: [5, {}, { label: 'x', kind: 'y', depth: 'z' }] },
        { rows: [{ label: 'x', kind: 'spacer', depth: '2 m' }] },
      ],
    ],
    ['DELETE', `/parts/${ID}`, [undefined]],
    ['POST', '/photos', [{}]],
    [
      'POST',
      '/records/history',
      [{}, { rows: 'x' }, { rows: [{}, { vehicle: 'x' }, { vehicle: 'x', fitted: 'y' }], look: true }],
    ],
    [
      'POST',
      '/import',
      [{}, { files: [] }, { files: [{}] }, { files: [{ name: 'a', text: 5 }] }, { files: [{ name: 'a', text: '{' }] }],
    ],
    [
      'POST',
      '/jobs',
      [
        {},
        { ...job, id: 'x', by: 'y'.repeat(81), at: 'z' },
        { ...job, driveId: ID },
        { ...job, sheet: {} },
        { ...job, sheet: { ...sheet, steps: [{}] } },
        { ...job, sheet: { ...sheet, steps: [{ ...steps[0], belts: Array(17).fill('b') }] } },
      ],
    ],
    [
      'POST',
      `/jobs/${ID}/events`,
      [
        {},
        { events: 'x' },
        { events: [{}] },
        { events: [{ id: ID, at: NOW, by: '', kind: 'tick' }] },
        { events: [{ id: ID, at: 'x', by: 'A', kind: 'dance' }] },
        { events: [{ id: ID, at: NOW, by: 'A', kind: 'part', name: 'x', count: 1.5 }] },
        { events: [{ id: ID, at: NOW, by: 'A', kind: 'odometer', odometer: -1 }] },
        { events: [{ id: ID, at: NOW, by: 'A', kind: 'belt', belt: 'm', fitted: 'x', why: 'y' }] },
      ],
    ],
    ['POST', `/jobs/${ID}/sign-off`, [{}, { by: '', at: 'x' }, { by: 'A', at: NOW }]],
    ['DELETE', `/jobs/${ID}`, [undefined]],
  ];
  for (const [method, path, bodies] of bad) for (const body of bodies) await ask(method, path, body);
  held('wrong', `${answers.splice(0).join('\n')}\n`);
});

test('a job from beginning to sign-off is told as it was', async () => {
  const made = (await shop.ask('POST', '/vehicles', { name: 'Job truck', odometer: 60_000 })).body as { id: string };
  const { id: driveId, document } = (await shop.ask('POST', '/drives', { vehicleId: made.id, document: DEMO.rescue }))
    .body;
  const { order, steps } = cardOf(document);
  const sheet = {
    drive: document,
    unit: 'mm',
    belt: null,
    off: order.off,
    on: order.on,
    steps,
    bring: bringList(document),
  };
  await ask('POST', '/jobs', { id: ID, driveId, by: 'Ann', at: NOW, sheet });
  await ask('GET', `/jobs?drive=${driveId}`);
  const event = (k: number, more: object) => ({ id: ID.replace(/1/g, String(k)), at: NOW, by: 'Bob', ...more });
  const belt = document.belts[0].id as string;
  await ask('POST', `/jobs/${ID}/events`, {
    events: [
      event(2, { kind: 'tick', step: steps[0]!.id, done: true }),
      event(3, { kind: 'note', text: 'stiff bolt', step: steps[0]!.id }),
      event(4, { kind: 'odometer', odometer: 61_000 }),
      event(5, { kind: 'belt', belt, fitted: 'new', why: 'worn', number: 'N 1', marking: '6PK1735' }),
      event(6, { kind: 'part', name: 'Roller', count: 1 }),
    ],
  });
  await ask('GET', `/jobs/${ID}`);
  await ask('GET', `/jobs/${ID}/events?after=2`);
  await ask('POST', `/jobs/${ID}/sign-off`, { by: 'Ann', at: NOW });
  await ask('POST', `/jobs/${ID}/sign-off`, { by: 'Ann', at: NOW });
  await ask('POST', `/jobs/${ID}/events`, { events: [event(7, { kind: 'note', text: 'late' })] });
  await ask('GET', `/records?vehicle=${made.id}`);
  await ask('GET', `/vehicles/${made.id}`);
  await ask('GET', '/records/belts?search=N%201');
  await ask('GET', '/records/lives');
  await ask('GET', '/jobs/pace');
  await ask('GET', `/drives?search=Job`);
  await ask('DELETE', `/jobs/${ID}`);
  held('job', `${answers.splice(0).join('\n')}\n`);
});

test('a drive in a list tells what is due on it, and nothing of another', async () => {
  interface Due {
    key: string;
    driveId: string;
  }
  const { dues } = (await shop.ask('GET', '/records/due?limit=100')).body as { dues: Due[] };
  const { drives } = (await shop.ask('GET', '/drives?limit=100')).body as { drives: { id: string; dues: Due[] }[] };
  const listed = new Set(drives.flatMap(({ dues: own }) => own.map(({ key }) => key)));
  for (const { id, dues: own } of drives)
    for (const { key } of own)
      expect(dues.filter((due) => due.key === key).map(({ driveId }) => driveId)).toContain(id);
  expect(listed.size).toBeGreaterThan(0);
  const counted = drives.reduce((sum, { dues: own }) => sum + own.length, 0);
  expect(counted).toBeLessThanOrEqual(dues.length);
});
