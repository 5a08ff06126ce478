import { randomUUID } from 'node:crypto';
import { saved } from '../test/saved';
import { unzipSync, zipSync, strFromU8 } from 'fflate';
import type { Drive } from '../../core/drive';
import { bringList, cardOf, plannedMinutes } from '../../core/job';
import { driveOf, SERPENTINE } from '../../core/test/examples';
import { MOST_IN_JOB } from './body';
import { running, type Running } from '../test/running';

let shop: Running;
let ask: Running['ask'];
beforeAll(async () => {
  shop = await running('empty');
  ({ ask } = shop);
});
afterAll(() => shop.stop());

const NOW = '2026-11-26T10:00:00.000Z';
const drive: Drive = { ...driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), name: 'Front' };
const sheetOf = (drive: Drive) => {
  const { order, steps } = cardOf(drive);
  return { drive: drive, unit: 'mm', belt: null, off: order.off, on: order.on, steps, bring: bringList(drive) };
};
const event = (more: object, by = 'Ann') => ({ id: randomUUID(), at: NOW, by, ...more });
const tick = (step: string, by?: string) => event({ kind: 'tick', step, done: true }, by);

async function begun(fields: object = {}) {
  const vehicle = (await ask('POST', '/vehicles', { name: 'Truck', odometer: 1000, ...fields })).body as { id: string };
  const made = (await ask('POST', '/drives', { vehicleId: vehicle.id, document: drive })).body as { id: string };
  const body = { id: randomUUID(), driveId: made.id, by: 'Ann', at: NOW, sheet: sheetOf(drive) };
  const answer = await ask('POST', '/jobs', body);
  expect(answer.status).toBe(201);
  return { body, driveId: made.id, vehicleId: vehicle.id, job: answer.body.id as string };
}
const post = (job: string, events: object[]) => ask('POST', `/jobs/${job}/events`, { events });
const idsOf = (answer: { events: { id: string }[] }) => answer.events.map(({ id }) => id);

test('begun once, however often it is sent; listed at its drive and among those in hand', async () => {
  const { body, job, driveId } = await begun();
  const again = await ask('POST', '/jobs', body);
  expect(again.body).toMatchObject({ id: job, vehicleName: 'Truck', name: 'Front', signedAt: null, events: [] });
  expect(again.body.sheet.steps).toEqual(JSON.parse(JSON.stringify(body.sheet.steps)));
  expect((await ask('GET', `/jobs?drive=${driveId}`)).body.jobs).toHaveLength(1);
  expect((await ask('GET', '/jobs')).body.jobs.map(({ id }: { id: string }) => id)).toContain(job);
});

test('two people ticking one job at once lose nothing, and each sees what the other did since', async () => {
  const { job, body } = await begun();
  const steps = body.sheet.steps.map(({ id }) => id);
  const halves = [steps.filter((_, k) => k % 2 === 0), steps.filter((_, k) => k % 2 === 1)];
  const sent = await Promise.all(
    halves.flatMap((half, who) => half.map((step) => post(job, [tick(step, who === 0 ? 'Ann' : 'Bob')]))),
  );
  expect(sent.every(({ status }) => status === 200)).toBe(true);
  const { events, seq } = (await ask('GET', `/jobs/${job}`)).body;
  expect(new Set(events.map(({ step }: { step: string }) => step))).toEqual(new Set(steps));
  const late = event({ kind: 'note', text: 'bolt was stiff' });
  await post(job, [late]);
  const news = (await ask('GET', `/jobs/${job}/events?after=${seq}`)).body;
  expect(idsOf(news)).toEqual([late.id]);
  // What a tablet sends again after a lost answer is there once.
  await post(job, [late, late]);
  expect(idsOf((await ask('GET', `/jobs/${job}/events?after=${seq}`)).body)).toEqual([late.id]);
});

test('the shop’s pace: what its clocked jobs took, from three of them on', async () => {
  expect((await ask('GET', '/jobs/pace')).body).toMatchObject({ factor: 1, jobs: 0 });
  const clocked = async (share: number) => {
    const { job, body } = await begun();
    const minutes = plannedMinutes(body.sheet.steps) * share;
    const at = (ms: number) => new Date(Date.parse(NOW) + ms).toISOString();
    await post(job, [
      ...body.sheet.steps.map(({ id }) => tick(id)),
      { ...event({ kind: 'timer', running: true }), at: at(0) },
      { ...event({ kind: 'timer', running: false }), at: at(minutes * 60_000) },
    ]);
    expect((await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW })).status).toBe(200);
  };
  for (const share of [0.5, 0.5]) await clocked(share);
  expect((await ask('GET', '/jobs/pace')).body).toMatchObject({ factor: 1, jobs: 0 });
  await clocked(0.6);
  const { factor, jobs } = (await ask('GET', '/jobs/pace')).body as { factor: number; jobs: number };
  expect(jobs).toBe(3);
  expect(factor).toBeCloseTo(0.5, 1);
});

test('a plan that changed is taken over by events: it is signed off by the steps as they are then', async () => {
  const { job, body, driveId } = await begun();
  const [first, second] = body.sheet.steps;
  const more = { ...first!, id: 'own extra', code: 'own', text: 'Wash the windscreen.' };
  const plan = [
    event({ kind: 'plan', change: 'add', step: more, after: first!.id }),
    event({ kind: 'plan', change: 'remove', step: second }),
  ];
  expect((await post(job, plan)).status).toBe(200);
  for (const wrong of [{ change: 'turn', step: more }, { change: 'add' }, { change: 'add', step: { id: 'x' } }])
    expect((await post(job, [event({ kind: 'plan', ...wrong })])).status).toBe(422);
  await post(job, [tick('own extra'), event({ kind: 'belt', belt: 'main', fitted: 'new', marking: '5PK1600' })]);
  await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
  const { vehicleId } = (await ask('GET', `/jobs/${job}`)).body as { vehicleId: string };
  const { records } = (await ask('GET', `/records?vehicle=${vehicleId}`)).body as { records: { detail: string }[] };
  expect(records.map(({ detail }) => detail).join()).toContain(`1 of ${body.sheet.steps.length} steps done`);
  // What its marking said is what is on.
  const after = (await ask('GET', `/drives/${driveId}`)).body as { document: Drive };
  expect(after.document.belts[0]).toMatchObject({ section: 'PK', ribs: 5, length: 1600 });
});

test('an estimate goes with the sheet, and one that is none is refused with its field', async () => {
  const { body } = await begun();
  const estimate = {
    minutes: 80,
    plusMinus: 28,
    jobs: 0,
    hourRate: null,
    parts: [{ name: 'x', count: 1, price: null }],
  };
  const made = { ...body, id: randomUUID(), sheet: { ...body.sheet, estimate } };
  expect((await ask('POST', '/jobs', made)).body.sheet.estimate).toEqual(estimate);
  const wrong = { ...made, id: randomUUID(), sheet: { ...body.sheet, estimate: { ...estimate, minutes: -1 } } };
  const refused = await ask('POST', '/jobs', wrong);
  expect(refused.status).toBe(422);
  expect(JSON.stringify(refused.body)).toContain('sheet.estimate.minutes');
});

test('what an hour costs is the shop’s own, and no price is refused', async () => {
  expect((await ask('PATCH', '/shop', { hourRate: 85.5 })).body).toMatchObject({ hourRate: 85.5 });
  for (const hourRate of [-1, 'dear', 1e9]) expect((await ask('PATCH', '/shop', { hourRate })).status).toBe(422);
  expect((await ask('GET', '/shop')).body).toMatchObject({ hourRate: 85.5 });
  expect((await ask('PATCH', '/shop', { hourRate: null })).body).toMatchObject({ hourRate: null });
});

test('signed off: drive, vehicle, shelf, story and what is due all have it, and the job changes no more', async () => {
  const { job, driveId, vehicleId, body } = await begun();
  await ask('POST', '/stock', {
    replace: true,
    rows: [{ section: 'PK', ribs: '6', length: '1734', code: 'TF 1', shelf: '3' }],
  });
  const stock = (await ask('GET', '/stock')).body.belts[0];
  const all = [
    ...body.sheet.steps.map(({ id }) => tick(id)),
    event({ kind: 'odometer', odometer: 2500 }),
    event({ kind: 'belt', belt: 'main', fitted: 'new', number: 'TF 1' }),
    event({ kind: 'part', name: 'TF 1', count: 1, stock: stock.id }),
    event({ kind: 'note', text: 'Pulley cleaned' }),
  ];
  await post(job, all);
  const sign = { by: 'Ann', at: NOW };
  const signed = await ask('POST', `/jobs/${job}/sign-off`, sign);
  expect(signed.body).toMatchObject({ signedBy: 'Ann', signedAt: NOW });
  // Sent again it is the same; by somebody else it is refused.
  expect((await ask('POST', `/jobs/${job}/sign-off`, sign)).status).toBe(200);
  expect((await ask('POST', `/jobs/${job}/sign-off`, { ...sign, by: 'Bob' })).status).toBe(409);
  const opened = (await ask('GET', `/drives/${driveId}`)).body;
  expect(opened.revision).toBe(2);
  expect(opened.document.belts[0].care).toMatchObject({ number: 'TF 1', fittedOdometer: 2500, fittedAt: NOW });
  expect((await ask('GET', `/vehicles/${vehicleId}`)).body).toMatchObject({ odometer: 2500, revision: 2 });
  expect((await ask('GET', '/stock')).body.belts[0].shelf).toBe(2);
  const { records } = (await ask('GET', `/records?vehicle=${vehicleId}`)).body;
  expect(new Set(records.map(({ kind }: { kind: string }) => kind))).toEqual(new Set(['belt', 'job']));
  expect(records.find(({ kind }: { kind: string }) => kind === 'job')).toMatchObject({
    jobId: job,
    readingAt: 2500,
    detail: expect.stringMatching(/steps done; The belt new, number TF 1; 1 × TF 1; Pulley cleaned/) as string,
  });
  const kinds = (await ask('GET', '/records/due?search=truck')).body.dues.map(({ kind }: { kind: string }) => kind);
  expect(kinds).toContain('look');

  // From here on nothing changes it: no late tick, no save of the drive, not the drive's end.
  const before = (await ask('GET', `/jobs/${job}`)).body;
  const remark = event({ kind: 'note', text: 'too late' }, 'Bob');
  const late = await post(job, [remark]);
  expect(late).toMatchObject({ status: 409, body: { title: 'Signed off', signedBy: 'Ann', refused: [remark.id] } });
  expect((await post(job, [all[0]!])).status).toBe(200);
  const emptied = { ...opened.document, name: 'Other', belts: [], stations: [], align: {}, inspect: {} };
  expect((await saved(ask, driveId, emptied)).status).toBe(200);
  expect((await ask('DELETE', `/jobs/${job}`)).status).toBe(409);
  expect((await ask('GET', `/jobs/${job}`)).body).toEqual(before);
});

test('a sign-off that is cut off half-way leaves the job in hand and the drive as it was', async () => {
  const { job, driveId, body } = await begun();
  await post(job, [event({ kind: 'belt', belt: 'main', fitted: 'new' })]);
  // The database refuses what comes after the job itself is marked.
  await shop.data.query('RENAME TABLE stock_belt TO stock_away, belt_life TO life_away');
  const failed = await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
  await shop.data.query('RENAME TABLE stock_away TO stock_belt, life_away TO belt_life');
  expect(failed.status).toBe(500);
  expect((await ask('GET', `/jobs/${job}`)).body.signedAt).toBeNull();
  expect((await ask('GET', `/drives/${driveId}`)).body).toMatchObject({ revision: 1, document: body.sheet.drive });
  expect((await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW })).status).toBe(200);
});

test('dropped before it is signed off, it is gone with all that happened at it', async () => {
  const { job } = await begun();
  await post(job, [tick('before key')]);
  expect((await ask('DELETE', `/jobs/${job}`)).status).toBe(204);
  expect((await ask('GET', `/jobs/${job}`)).status).toBe(404);
  expect((await post(job, [tick('before key')])).status).toBe(404);
});

test.each([
  ['no events', {}, /events is missing/],
  ['a kind that is none', { events: [event({ kind: 'dance' })] }, /kind must be one of tick, note/],
  ['a tick of nothing', { events: [event({ kind: 'tick', done: true })] }, /step is missing/],
  ['an odometer that is none', { events: [event({ kind: 'odometer', odometer: -4 })] }, /odometer must be 0 or more/],
  ['a name that is no UUID', { events: [{ ...tick('x'), id: '1' }] }, /id must be a UUID/],
  ['a time that is none', { events: [{ ...tick('x'), at: 'noon' }] }, /at must be a time/],
  ['too many at once', { events: Array.from({ length: 501 }, () => tick('x')) }, /more than 500/],
])('%s: refused, and says what is accepted', async (_, body, says) => {
  const { job } = await begun();
  const answer = await ask('POST', `/jobs/${job}/events`, body);
  expect(answer.status).toBe(422);
  expect(answer.body.detail).toMatch(says);
  expect((await ask('GET', `/jobs/${job}`)).body.events).toEqual([]);
});

test('a job keeps so many entries and says so when it is full; what it has stays', async () => {
  const { job } = await begun();
  const rows = Array.from({ length: MOST_IN_JOB - 1 }, () => [randomUUID(), job, '{"kind":"note","text":"x"}']);
  await shop.data.query('INSERT INTO job_event (id, jobId, body) VALUES ?', [rows]);
  expect((await post(job, [tick('last')])).status).toBe(200);
  expect(await post(job, [tick('one more')])).toMatchObject({
    status: 413,
    body: { title: 'Too large', detail: 'A job keeps 5000 entries at most. Sign it off, and start another.' },
  });
  // The other tests' archives hold no job of made-up entries.
  expect((await ask('DELETE', `/jobs/${job}`)).status).toBe(204);
});

test('a sheet without steps, with a drive that is none, or for a drive that is not there is refused', async () => {
  const { body } = await begun();
  const fresh = { ...body, id: randomUUID() };
  expect((await ask('POST', '/jobs', { ...fresh, sheet: { ...fresh.sheet, steps: [] } })).body.detail).toMatch(
    /needs one step/,
  );
  const bad = await ask('POST', '/jobs', { ...fresh, sheet: { ...fresh.sheet, drive: { format: 'emery-drive' } } });
  expect(bad.status).toBe(422);
  expect((await ask('POST', '/jobs', { ...fresh, driveId: randomUUID() })).status).toBe(404);
});

test('jobs go out with the shop and come in again as they were, once', async () => {
  const { job, vehicleId } = await begun({ name: 'Carried' });
  await post(job, [tick('before key'), event({ kind: 'odometer', odometer: 9000 })]);
  await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
  const open = await begun({ name: 'Open' });
  await post(open.job, [tick('before cool')]);
  const zip = new Uint8Array(await (await fetch(`${shop.base}/export`)).arrayBuffer());
  const other = await running('empty');
  try {
    const bring = (bytes: Uint8Array) =>
      other.ask('POST', '/import/archive', bytes, { 'content-type': 'application/zip' });
    const came = await bring(zip);
    expect([came.status, came.body.detail]).toEqual([201, undefined]);
    expect(came.body.jobs).toBeGreaterThanOrEqual(2);
    for (const id of [job, open.job])
      expect({ ...(await other.ask('GET', `/jobs/${id}`)).body, seq: 0 }).toEqual({
        ...(await ask('GET', `/jobs/${id}`)).body,
        seq: 0,
      });
    const story = (await other.ask('GET', `/records?vehicle=${vehicleId}`)).body.records;
    expect(story.map(({ kind }: { kind: string }) => kind)).toContain('job');
    expect((await bring(zip)).body).toMatchObject({ jobs: 0 });
    // One that was tampered with is refused, and nothing of the archive comes in.
    const files = unzipSync(zip);
    const name = `jobs/${job}.json`;
    const spoiled = { ...(JSON.parse(strFromU8(files[name]!)) as object), events: [{ kind: 'tick' }] };
    files[name] = new TextEncoder().encode(JSON.stringify(spoiled));
    const refused = await bring(zipSync(files));
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toMatch(new RegExp(`^${name} events`));
  } finally {
    await other.stop();
  }
});

test('a drive that goes to another vehicle takes its jobs and their story along', async () => {
  const { job, driveId, vehicleId } = await begun();
  await post(job, [event({ kind: 'note', text: 'Moved over' })]);
  await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
  const before = (await ask('GET', `/records?vehicle=${vehicleId}`)).body.records.length as number;
  expect(before).toBeGreaterThan(0);
  const to = (await ask('POST', '/vehicles', { name: 'Gritter' })).body as { id: string };
  expect((await ask('PUT', `/drives/${driveId}/vehicle`, { vehicleId: to.id })).status).toBe(200);
  expect((await ask('GET', `/records?vehicle=${vehicleId}`)).body.records).toEqual([]);
  expect((await ask('GET', `/records?vehicle=${to.id}`)).body.records).toHaveLength(before);
  expect((await ask('GET', `/jobs/${job}`)).body).toMatchObject({ vehicleName: 'Gritter' });
});

test('ticks after the sign-off go to the story as late and change nothing; anything else is refused by its id', async () => {
  const { job, vehicleId, body } = await begun({ name: 'Late truck' });
  const [first, second] = body.sheet.steps as unknown as [Record<'id' | 'text', string>, Record<'id' | 'text', string>];
  await post(job, [tick(first.id)]);
  await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
  const [signed] = (await ask('GET', `/records?vehicle=${vehicleId}`)).body.records as { detail: string }[];
  const [note, late] = [event({ kind: 'note', text: 'cracked' }, 'Bob'), tick(second.id, 'Bob')];
  // Together none is taken in, and it is said which is in the way; without it the tick is.
  expect(await post(job, [late, note])).toMatchObject({ status: 409, body: { refused: [note.id] } });
  expect((await ask('GET', `/jobs/${job}`)).body.events).toHaveLength(1);
  // Sent again, as after a lost answer, it is answered like the first time.
  for (let k = 0; k < 2; k += 1)
    expect(await post(job, [late])).toMatchObject({ status: 200, body: { late: [late.id] } });
  const { events } = (await ask('GET', `/jobs/${job}`)).body as { events: object[] };
  expect(events).toMatchObject([{ step: first.id }, { step: second.id, late: true }]);
  const { records } = (await ask('GET', `/records?vehicle=${vehicleId}`)).body as { records: object[] };
  expect(records).toHaveLength(2);
  expect(records).toContainEqual(expect.objectContaining({ detail: signed!.detail }));
  expect(records).toContainEqual(
    expect.objectContaining({
      title: 'Received after sign-off',
      jobId: job,
      detail: `Ticked late: ${second.text} (Bob, 2026-11-26)`,
    }),
  );
  // Nobody says so of himself.
  const own = { ...tick(first.id), late: true };
  expect((await post((await begun()).job, [own])).status).toBe(422);
});

test('however much was remarked, the job is signed off', async () => {
  const { job, vehicleId } = await begun();
  const long = 'ü'.repeat(2000);
  for (let k = 0; k < 4; k += 1)
    expect(
      (
        await post(
          job,
          Array.from({ length: 15 }, () => event({ kind: 'note', text: long })),
        )
      ).status,
    ).toBe(200);
  expect((await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW })).status).toBe(200);
  expect((await ask('GET', `/jobs/${job}`)).body.events).toHaveLength(60);
  expect((await ask('GET', `/records?vehicle=${vehicleId}`)).body.records).toHaveLength(1);
});

interface Belt {
  id: number;
  code: string;
  shelf: number;
}

describe('off the shelf', () => {
  const row = (code: string, shelf: string, more: object = {}) => ({
    section: 'PK',
    ribs: '6',
    length: '1500',
    code,
    shelf,
    ...more,
  });
  const list = async () => (await ask('GET', '/stock')).body.belts as Belt[];
  const part = (stock: number, count = 1) => event({ kind: 'part', name: 'TF 5', count, stock });
  const detailOf = async (vehicle: string) =>
    ((await ask('GET', `/records?vehicle=${vehicle}`)).body.records as { detail: string }[])[0]!.detail;

  test('of two rows of one name the one that was chosen', async () => {
    await ask('POST', '/stock', { replace: true, rows: [row('TF 5', '7'), row('TF 5', '9', { length: '1600' })] });
    const [first, second] = (await list()) as [Belt, Belt];
    const { job } = await begun();
    await post(job, [part(first.id, 2), part(second.id), part(second.id, 3), part(second.id, -1)]);
    await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
    expect((await list()).map(({ shelf }) => shelf)).toEqual([5, 6]);
  });

  test('a list that is brought in anew while the job is open has the same belt by the same number', async () => {
    await ask('POST', '/stock', { replace: true, rows: [row('TF 5', '7'), row('TF 6', '7')] });
    const [{ id }] = (await list()) as [Belt];
    const { job } = await begun();
    await post(job, [part(id)]);
    await ask('POST', '/stock', { replace: true, rows: [row('new', '1'), row('TF 5', '4', { price: '12' })] });
    expect((await list()).map(({ code, id: now }) => [code, now === id])).toEqual([
      ['TF 5', true],
      ['new', false],
    ]);
    await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: NOW });
    expect((await list()).find(({ code }) => code === 'TF 5')!.shelf).toBe(3);
  });

  test('one that the list no longer has, or not so many of, is told', async () => {
    await ask('POST', '/stock', { replace: true, rows: [row('TF 5', '1'), row('TF 6', '7')] });
    const [{ id }] = (await list()) as [Belt];
    const few = await begun();
    await post(few.job, [part(id, 3)]);
    await ask('POST', `/jobs/${few.job}/sign-off`, { by: 'Ann', at: NOW });
    expect(await detailOf(few.vehicleId)).toMatch(/the list had 1 of 3 × TF 5 on the shelf/);
    const gone = await begun();
    await post(gone.job, [part(id)]);
    await ask('DELETE', `/stock/${id}`);
    await ask('POST', `/jobs/${gone.job}/sign-off`, { by: 'Ann', at: NOW });
    expect(await detailOf(gone.vehicleId)).toMatch(
      /TF 5 is no longer on the shop's list: nothing was taken from the shelf/,
    );
    expect((await list()).map(({ shelf }) => shelf)).toEqual([7]);
  });
});

test.each([
  ['the year 275760', '+275760-09-13T00:00:00.000Z'],
  ['the year 1', '0001-01-01T00:00:00Z'],
  ['a day that is none', '2026-02-31x'],
  ['no zone', '2026-11-26T10:00:00'],
  ['a number', 5],
])('a moment of %s is taken by no route', async (_what, at) => {
  const { job, body } = await begun();
  for (const answer of [
    await ask('POST', '/jobs', { ...body, id: randomUUID(), at }),
    await post(job, [{ ...tick('before key'), at }]),
    await ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at }),
  ]) {
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toMatch(
      /\bat (must be a time such as 2026-11-26T10:00:00Z, from 1900 to 2199|must be text)$/,
    );
  }
  expect((await fetch(`${shop.base}/export`)).status).toBe(200);
});

test('a kind that every object has is no kind of event', async () => {
  const { job } = await begun();
  for (const kind of ['constructor', '__proto__', 'toString', 'hasOwnProperty'])
    expect(await post(job, [event({ kind })])).toMatchObject({
      status: 422,
      body: { detail: expect.stringMatching(/^events\[0\]\.kind must be one of tick/) as string },
    });
});
