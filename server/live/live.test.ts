import { randomUUID } from 'node:crypto';
import { connect } from '../data-source';
import { openLog } from '../http/log';
import { openShop, type OpenShop } from '../open-shop';
import { listening, type Listening } from '../test/listening';
import { asking, running, type Running } from '../test/running';
import type { HereDevice, LiveMessage, Take } from '@emery/core/api';
import type { Version } from '@emery/core/together';

let shop: Running;
let ask: Running['ask'];
/** Another server of the same database. */
let beside: OpenShop;
let besideBase: string;
const open: Listening[] = [];

beforeAll(async () => {
  shop = await running('demo');
  ({ ask } = shop);
  beside = await openShop(await connect(shop.url), { port: 0, logger: openLog(undefined), shop: 'empty' });
  besideBase = `http://127.0.0.1:${beside.port}/api`;
});
afterEach(() => open.splice(0).forEach(({ stop }) => stop()));
afterAll(async () => {
  await beside.shut();
  await shop.stop();
});

const listen = async (...args: Parameters<typeof listening>) => {
  const listener = await listening(...args);
  open.push(listener);
  return listener;
};
const someDrive = async () => (await ask('GET', '/drives')).body.drives[0].id as string;
const here = (drive: string, more: Partial<HereDevice> = {}) => ({
  ...{ name: 'Ann', kind: 'phone', follows: null },
  tabs: [{ tab: 'tab', drive, stage: 'size', part: '' }],
  ...more,
});
const atDrive = (base: string, { device }: Listening, drive: string, more: Partial<HereDevice> = {}) =>
  asking(base)('PUT', `/live/here/${device}`, here(drive, more));
/** Waits until each server knows of these devices. */
async function allThere(...listeners: Listening[]): Promise<void> {
  for (const base of [shop.base, besideBase])
    for (let tries = 0; tries < 100; tries += 1) {
      const { devices } = (await asking(base)('GET', '/live/here')).body as { devices: HereDevice[] };
      if (listeners.every(({ device }) => devices.some((there) => there.device === device))) break;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
}
const note = (drive: string, field: string, now: unknown, askOf = ask) =>
  askOf('PATCH', `/drives/${drive}`, { revision: 1, saveId: randomUUID(), changes: [{ at: [field], now }] });
const versionOf = (message: LiveMessage | undefined) =>
  (message?.kind === 'drive' ? message.version : null) as Version | null;

test('a change of a field reaches who has the drive open, at any server of the shop, in under 1 kB', async () => {
  const drive = await someDrive();
  const [near, far, elsewhere] = [await listen(shop.base), await listen(besideBase), await listen(shop.base)];
  await atDrive(shop.base, near, drive);
  await atDrive(besideBase, far, drive);
  await allThere(near, far);
  const before = near.bytes();
  const { body } = await note(drive, 'note-live', 'first');
  for (const listener of [near, far]) {
    const message = await listener.until('drive', ({ version }) => (version as Version).revision === body.revision);
    expect(versionOf(message)?.changes).toEqual([{ at: ['note-live'], now: 'first' }]);
  }
  expect(near.bytes() - before).toBeLessThan(1000);
  // Who has another page open learns that lists may be others, and nothing of what was changed.
  const lists = await elsewhere.until('lists');
  expect(lists.topics).toEqual(expect.arrayContaining(['vehicles', 'dues']));
  expect(lists.drives).toEqual([drive]);
  expect(JSON.stringify(elsewhere.heard)).not.toContain('note-live');
});

test('numbers have no gap and no end, whatever is changed at one time at two servers', async () => {
  const drive = await someDrive();
  const [near, far] = [await listen(shop.base), await listen(besideBase)];
  for (const listener of [near, far]) await atDrive(shop.base, listener, drive);
  await allThere(near, far);
  const start = (await ask('GET', `/drives/${drive}`)).body.revision as number;
  const other = asking(besideBase);
  await Promise.all(Array.from({ length: 40 }, (_, k) => note(drive, `note-many-${k}`, k, k % 2 === 0 ? ask : other)));
  for (const listener of [near, far]) {
    await listener.until('drive', ({ version }) => (version as Version).revision === start + 40);
    const drives = listener.heard.filter(({ kind }) => kind === 'drive');
    expect(drives.map((message) => versionOf(message)?.revision)).toEqual(
      Array.from({ length: 40 }, (_, k) => start + 1 + k),
    );
    const seqs = listener.heard.map(({ seq }) => seq);
    expect([...seqs].sort((a, b) => a - b)).toEqual(seqs);
  }
  const rows = await shop.data.query<{ seq: string | null }[]>('SELECT seq FROM news ORDER BY seq');
  const numbers = rows.map(({ seq }) => Number(seq));
  expect(numbers).toEqual(numbers.map((_, k) => numbers[0]! + k));
});

test('who was away catches up from the last number seen, at another server too; too long away is told', async () => {
  const drive = await someDrive();
  const first = await listen(shop.base);
  await atDrive(shop.base, first, drive);
  const { body } = await note(drive, 'note-seen', 1);
  const { seq } = await first.until('drive', ({ version }) => (version as Version).revision === body.revision);
  first.stop();
  await note(drive, 'note-missed', 1);
  await note(drive, 'note-missed-too', 1);
  const again = await listen(besideBase, { device: first.device, after: seq });
  const second = await again.until('drive', ({ version }) => (version as Version).revision === body.revision + 2);
  expect(versionOf(second)?.changes[0]?.at).toEqual(['note-missed-too']);
  expect(again.heard[0]).toMatchObject({ kind: 'hello', gap: false });
  await shop.data.query('DELETE FROM news WHERE seq <= ?', [seq + 1]);
  for (const after of [seq - 1, seq + 1_000_000]) {
    const late = await listen(shop.base, { after });
    expect(late.heard[0]).toMatchObject({ kind: 'hello', gap: true });
  }
  expect((await ask('GET', `/live?device=${first.device}&after=x`)).status).toBe(422);
  expect((await ask('GET', '/live?device=no')).body.errors).toMatchObject([{ path: 'device' }]);
});

test('what is put down and not numbered, as when a server is killed, is told by the next', async () => {
  const listener = await listen(shop.base);
  await shop.data.query('INSERT INTO news (at, kind, subject, body) VALUES (?)', [
    [new Date(), 'lists', 'stock', JSON.stringify({ topics: ['parts'] })],
  ]);
  await ask('PUT', '/bands/fan', { least: 900, continuous: 9000, burst: null });
  await listener.until('lists', ({ topics }) => topics.includes('bands'));
  expect(listener.heard.flatMap((message) => (message.kind === 'lists' ? message.topics : []))).toContain('parts');
});

test('who is at a drive is told to those at it, also when they move on or are gone', async () => {
  const drive = await someDrive();
  const [ann, bob] = [await listen(shop.base), await listen(besideBase)];
  await atDrive(shop.base, ann, drive);
  const { body } = await atDrive(besideBase, bob, drive, { name: 'Bob', kind: 'computer', follows: ann.device });
  expect((body.devices as HereDevice[]).map(({ name }) => name)).toContain('Ann');
  await ann.until('here', ({ here: { name, tabs } }) => name === 'Bob' && tabs[0]?.drive === drive);
  // What one points at goes to those who follow, and to nobody else.
  const pointing = { drive, at: { x: 12, y: -4 }, part: 'pulley alt-1' };
  for (let tries = 0; tries < 50 && !bob.heard.some(({ kind }) => kind === 'point'); tries += 1) {
    expect((await ask('POST', `/live/here/${ann.device}/point`, pointing)).status).toBe(204);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(await bob.until('point')).toMatchObject({ device: ann.device, pointing });
  expect(ann.heard.some(({ kind }) => kind === 'point')).toBe(false);
  await atDrive(shop.base, ann, drive, { tabs: [{ tab: 'tab', drive: null, stage: '', part: '' }] });
  await bob.until('here', ({ here: { device, tabs } }) => device === ann.device && tabs[0]?.drive === null);
  bob.stop();
  await atDrive(shop.base, ann, drive);
  await ann.until('here', ({ here: { device, tabs } }) => device === bob.device && tabs.length === 0);
});

test('the same save at two servers at one moment is taken once, and both answer alike', async () => {
  const other = asking(besideBase);
  const drive = await someDrive();
  for (let k = 0; k < 8; k += 1) {
    const { revision: before, document } = (await ask('GET', `/drives/${drive}`)).body;
    const change = { at: ['note'], ...(document.note !== undefined && { was: document.note }), now: `once ${k}` };
    const patch = { revision: before, saveId: randomUUID(), changes: [change] };
    const answers = await Promise.all([ask, other, ask, other].map((send) => send('PATCH', `/drives/${drive}`, patch)));
    for (const { status, body } of answers) {
      expect(status).toBe(200);
      expect(body).toMatchObject({ revision: before + 1, clashes: [] });
      expect(body.since.map(({ saveId }: { saveId: string }) => saveId)).toEqual([patch.saveId]);
    }
    expect((await ask('GET', `/drives/${drive}`)).body).toMatchObject({ revision: before + 1 });
  }
});

test('a phone is asked, says how far it is, and what it took is there', async () => {
  const [bench, phone, other] = [await listen(shop.base), await listen(besideBase), await listen(shop.base)];
  const asked = { from: bench.device, to: phone.device, by: 'Ann', kind: 'sound', label: 'Pluck', unit: '' };
  const { body: take } = await ask('POST', '/live/takes', asked);
  expect((await phone.until('take')).take).toEqual(take);
  await ask('PATCH', `/live/takes/${take.id}`, { state: 'sending', part: 40 });
  await bench.until('take', ({ take: { state, part } }) => state === 'sending' && part === 40);
  const sound = new Uint8Array([82, 73, 70, 70, 1, 2, 3]);
  const sent = await ask('PUT', `/live/takes/${take.id}/bytes`, sound, { 'content-type': 'audio/wav' });
  expect(sent.body).toMatchObject({ state: 'done', part: 100 });
  await bench.until('take', ({ take: { state } }) => state === 'done');
  const bytes = await fetch(`${besideBase}/live/takes/${take.id}/bytes`);
  expect([bytes.headers.get('content-type'), new Uint8Array(await bytes.arrayBuffer())]).toEqual(['audio/wav', sound]);
  const reading = (await ask('POST', '/live/takes', { ...asked, kind: 'reading', unit: 'mm' })).body as Take;
  await ask('PATCH', `/live/takes/${reading.id}`, { state: 'done', part: 100, result: { text: '501.5' } });
  const { take: read } = await bench.until(
    'take',
    (message) => message.take.id === reading.id && message.take.result !== null,
  );
  expect(read.result).toEqual({ text: '501.5' });
  expect(other.heard.some(({ kind }) => kind === 'take')).toBe(false);
  // Called off at the bench: what still comes would be lost, and whoever sends it is told.
  const gone = (await ask('POST', '/live/takes', asked)).body as Take;
  await ask('PATCH', `/live/takes/${gone.id}`, { state: 'none' });
  const late = [
    await ask('PUT', `/live/takes/${gone.id}/bytes`, sound, { 'content-type': 'audio/wav' }),
    await ask('PATCH', `/live/takes/${gone.id}`, { state: 'done', part: 100, result: { text: '1' } }),
  ];
  for (const { status, body } of late) expect([status, body.detail]).toEqual([409, expect.stringMatching(/cancelled/)]);
  expect((await ask('PATCH', `/live/takes/${gone.id}`, { state: 'none' })).status).toBe(200);
  expect((await ask('GET', `/live/takes/${gone.id}`)).body).toMatchObject({ state: 'none', result: null });
  expect((await fetch(`${besideBase}/live/takes/${gone.id}/bytes`)).status).toBe(404);
  expect((await ask('GET', `/live/takes/${randomUUID()}`)).status).toBe(404);
  expect((await ask('PATCH', `/live/takes/${reading.id}`, { state: 'lost' })).body.errors).toMatchObject([
    { path: 'state' },
  ]);
});
