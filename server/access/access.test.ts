import { randomBytes, randomUUID } from 'node:crypto';
import { saved } from '../test/saved';
import http from 'node:http';
import sharp from 'sharp';
import { isPassphrase, hashed } from './passphrase';
import { IDLE_MS } from './sessions';
import { DEMO } from '../../core/test/demo';
import { draws } from '../../core/test/draws';
import type { Outside } from '../test/outside';
import { PASSPHRASE, sharedShop, type SharedShop } from '../test/shared-shop';
import type { AuditEntry, DeviceListed } from '@emery/core/api';
import { bringList, cardOf } from '@emery/core/job';

let shop: SharedShop;
beforeAll(async () => {
  shop = await sharedShop('empty');
});
afterAll(() => shop.stop());

const AT = '2026-11-30T10:00:00.000Z';
const sheet = (() => {
  const { order, steps } = cardOf(DEMO.rescue);
  const rest = { off: order.off, on: order.on, steps, bring: bringList(DEMO.rescue) };
  return { drive: DEMO.rescue, unit: 'mm', belt: null, ...rest };
})();
async function newDrive(): Promise<{ id: string; vehicleId: string }> {
  const { id: vehicleId } = (await shop.ask('POST', '/vehicles', { name: 'Loader' })).body as { id: string };
  return (await shop.ask('POST', '/drives', { vehicleId, document: DEMO.rescue })).body as never;
}
async function newJob(ask = shop.ask): Promise<string> {
  const id = randomUUID();
  const { id: driveId } = await newDrive();
  expect((await ask('POST', '/jobs', { id, driveId, by: 'Ann', at: AT, sheet })).status).toBe(201);
  return id;
}
const tick = (more: object = {}) => ({
  id: randomUUID(),
  at: AT,
  by: 'Somebody else',
  kind: 'tick',
  step: sheet.steps[0]!.id,
  done: true,
  ...more,
});
const devices = async () => (await shop.ask('GET', '/access/devices')).body.devices as DeviceListed[];
const audit = async () => (await shop.ask('GET', '/access/audit?limit=200')).body.entries as AuditEntry[];
const personOf = async (name: string) =>
  ((await shop.ask('GET', '/access/people')).body.people as { id: string; name: string }[]).find(
    (person) => person.name === name,
  )!.id;
let people = 0;
async function newPerson(role = 'bench'): Promise<{ id: string; name: string }> {
  const name = `Person ${(people += 1)}`;
  return (await shop.ask('POST', '/access/people', { name, role, passphrase: PASSPHRASE })).body as never;
}
const signIn = (device: Outside, name: string, passphrase = PASSPHRASE) =>
  device.ask('POST', '/access/sign-in', { name, passphrase });

describe('the session', () => {
  test('is a cookie of this address alone, that no script reads and no other site sends', async () => {
    const device = shop.device();
    await signIn(device, 'Ines');
    const [cookie = ''] = device.headers['set-cookie'] as string[];
    expect(cookie).toMatch(/^__Host-emery=/);
    for (const mark of ['Path=/', 'Secure', 'HttpOnly', 'SameSite=Strict']) expect(cookie.split('; ')).toContain(mark);
    expect(cookie).not.toMatch(/Domain/i);
    expect((await device.ask('GET', '/access/me')).body).toMatchObject({ role: 'owner', name: 'Ines', machine: false });
  });

  test('has a new name with each sign-in, so that one that was planted is good for nothing', async () => {
    const device = shop.device();
    await signIn(device, 'Ines');
    const before = device.cookie;
    await signIn(device, 'Ines');
    expect(device.cookie).not.toBe(before);
    const planted = shop.device();
    planted.cookie = before;
    expect((await planted.ask('GET', '/shop')).status).toBe(401);
    planted.cookie = `__Host-emery=s%3Aown.${randomBytes(32).toString('base64url')}`;
    expect((await planted.ask('GET', '/shop')).status).toBe(401);
    await signIn(planted, 'Ines');
    expect(planted.cookie).not.toContain('s%3Aown.');
  });

  test('is not to be had from the database', async () => {
    const device = await shop.signedIn();
    const name = decodeURIComponent(device.cookie.split('=')[1]!).slice(2).split('.')[0]!;
    const text = JSON.stringify(await shop.data.query('SELECT * FROM device'));
    expect(text).not.toContain(name);
    expect(JSON.stringify(await shop.data.query('SELECT * FROM person'))).not.toContain(PASSPHRASE);
  });

  test('ends when it was not used for three days, at the latest after thirty, and says which', async () => {
    const device = await shop.signedIn();
    const { id } = (await devices()).find(({ name }) => name === 'Ines')!;
    const set = (column: string, at: number) =>
      shop.data.query(`UPDATE device SET ${column} = ? WHERE id = ?`, [new Date(at), id]);
    const asked = async () => {
      const { status, body } = await device.ask('GET', '/shop');
      return status === 200 ? 'in' : (body.ended as string);
    };
    await set('lastSeenAt', Date.now() - IDLE_MS + 60_000);
    expect(await asked()).toBe('in');
    // Seen by that: idle begins anew.
    await new Promise((done) => setTimeout(done, 50));
    expect(
      (await devices()).find((one) => one.id === id)!.lastSeenAt > new Date(Date.now() - 60_000).toISOString(),
    ).toBe(true);
    await set('lastSeenAt', Date.now() - IDLE_MS - 1000);
    expect(await asked()).toBe('idle');
    await set('lastSeenAt', Date.now());
    expect(await asked()).toBe('in');
    await set('endsAt', Date.now() - 1000);
    expect(await asked()).toBe('final');
  });
});

describe('passphrases', () => {
  test('are kept as a key that scrypt derives, each with a salt of its own', async () => {
    const [one, two] = [await hashed(PASSPHRASE), await hashed(PASSPHRASE)];
    expect(one).not.toBe(two);
    expect(await isPassphrase(PASSPHRASE, one)).toBe(true);
    expect(await isPassphrase(`${PASSPHRASE}.`, one)).toBe(false);
    expect(await isPassphrase(PASSPHRASE, null)).toBe(false);
    // The same letters, composed and not.
    expect(await isPassphrase('Cafe\u0301 am Hang', await hashed('Caf\u00e9 am Hang'))).toBe(true);
  });

  test.each([
    [{ name: 'x', passphrase: 'short' }, 'passphrase', /10 characters or more/],
    [{ name: '', passphrase: PASSPHRASE }, 'name', /who is it/],
    [{ name: ' Ines ', passphrase: PASSPHRASE }, 'name', /space/],
    [{ name: 'INES', passphrase: PASSPHRASE }, 'name', /is taken/],
    [{ name: 'x', passphrase: PASSPHRASE, role: 'boss' }, 'role', /one of owner, bench, counter/],
  ])('what is not accepted names the field: %j', async (body, field, message) => {
    const answer = await shop.ask('POST', '/access/people', { role: 'bench', ...body });
    expect(answer.status).toBe(422);
    expect(answer.body.errors).toEqual([{ path: field, message: expect.stringMatching(message) as string }]);
  });

  test('wrong ones are slowed by name and by address, counted, told, and the right one waits as well', async () => {
    const own = await sharedShop('empty');
    const { name } = (await own.ask('POST', '/access/people', { name: 'Tam', role: 'bench', passphrase: PASSPHRASE }))
      .body as { name: string };
    const device = own.device();
    const statuses: number[] = [];
    for (let k = 0; k < 8; k += 1) statuses.push((await signIn(device, name, `wrong ${k}`)).status);
    expect(statuses).toEqual([403, 403, 403, 403, 403, 429, 429, 429]);
    expect(await signIn(device, name)).toMatchObject({
      status: 429,
      body: { detail: 'There were too many wrong tries for this name. Try again in 15 minutes.' },
    });
    // Another of the shop is not kept out by it, and nobody learns which names there are.
    expect((await signIn(own.device(), 'Ines')).status).toBe(200);
    const nobody = await signIn(own.device(), 'Nobody', 'wrong');
    expect(nobody.body.detail).toBe((await signIn(own.device(), 'Ines', 'wrong')).body.detail);
    const entries = (await own.ask('GET', '/access/audit')).body.entries as AuditEntry[];
    const counted = (kind: string, who: string) =>
      entries.filter((one) => one.kind === kind && one.who === who).reduce((sum, { times }) => sum + times, 0);
    expect([counted('wrong-passphrase', 'Tam'), counted('slowed', 'Tam')]).toEqual([5, 4]);
    await own.stop();
  });

  test('ten thousand tries of one address, over names that there are and are not: none is let in', async () => {
    const own = await sharedShop('empty');
    const device = own.device();
    const all = draws(10_000);
    const seen = new Map<number, number>();
    for (let k = 0; k < all; k += 50)
      await Promise.all(
        Array.from({ length: 50 }, async (_, j) => {
          // The right one is among them, long after the first twenty.
          const [name, passphrase] =
            k + j === all - 7 ? ['Ines', PASSPHRASE] : [j % 3 ? `x${j}` : 'Ines', `guess ${k + j}`];
          const { status } = await signIn(device, name, passphrase);
          seen.set(status, (seen.get(status) ?? 0) + 1);
        }),
      );
    expect(seen.get(200)).toBeUndefined();
    expect((seen.get(403) ?? 0) + (seen.get(429) ?? 0) + (seen.get(503) ?? 0)).toBe(Math.ceil(all / 50) * 50);
    // So many were looked at before the address had to wait.
    expect(seen.get(403) ?? 0).toBeLessThanOrEqual(20);
    await own.stop();
  });
});

describe('people', () => {
  test('the last owner stays one', async () => {
    const own = await sharedShop('empty');
    const [{ id }] = (await own.ask('GET', '/access/people')).body.people as [{ id: string }];
    for (const answer of [
      await own.ask('DELETE', `/access/people/${id}`),
      await own.ask('PUT', `/access/people/${id}`, { role: 'bench' }),
    ])
      expect(answer).toMatchObject({ status: 422, body: { errors: [{ path: 'role' }] } });
    const other = (await own.ask('POST', '/access/people', { name: 'Tam', role: 'owner', passphrase: PASSPHRASE }))
      .body;
    // Two who go at once: one of them stays.
    const both = await Promise.all([id, other.id].map((one) => own.ask('DELETE', `/access/people/${one}`)));
    expect(both.map(({ status }) => status).sort()).toEqual([204, 422]);
    await own.stop();
  });

  test('a role that changes counts from the next request on', async () => {
    const { id, name } = await newPerson('bench');
    const device = shop.device();
    await signIn(device, name);
    expect((await device.ask('POST', '/vehicles', { name: 'Hers' })).status).toBe(201);
    await shop.ask('PUT', `/access/people/${id}`, { role: 'counter' });
    expect(await device.ask('POST', '/vehicles', { name: 'Hers' })).toMatchObject({
      status: 403,
      body: { detail: 'Your role, counter, reads and ticks. Ask somebody with the role bench or owner.' },
    });
  });

  test('who is removed is out at once; a new passphrase signs every other device out', async () => {
    const { id, name } = await newPerson();
    const [one, two] = [shop.device(), shop.device()];
    await signIn(one, name);
    await signIn(two, name);
    expect(
      (await one.ask('PUT', '/access/passphrase', { now: 'wrong one', passphrase: 'another one of mine' })).body.errors,
    ).toEqual([{ path: 'now', message: 'is another' }]);
    await one.ask('PUT', '/access/passphrase', { now: PASSPHRASE, passphrase: 'another one of mine' });
    expect((await one.ask('GET', '/shop')).status).toBe(200);
    expect((await two.ask('GET', '/shop')).body.ended).toBe('passphrase');
    expect((await signIn(two, name)).status).toBe(403);
    expect((await signIn(two, name, 'another one of mine')).status).toBe(200);
    await shop.ask('DELETE', `/access/people/${id}`);
    expect((await two.ask('GET', '/shop')).body.ended).toBe('removed');
  });

  test('the first owner is made at the machine, or once with the code that its terminal prints', async () => {
    const own = await sharedShop('empty');
    await own.data.query('DELETE FROM person');
    const device = own.device();
    const owner = { name: 'Tam', passphrase: PASSPHRASE };
    expect((await device.ask('POST', '/access/first', owner)).status).toBe(403);
    expect((await device.ask('POST', '/access/first', { ...owner, code: 'guess' })).status).toBe(403);
    expect((await device.ask('GET', '/access/me')).body).toMatchObject({ role: 'nobody', owned: false });
    const made = await device.ask('POST', '/access/first', { ...owner, code: own.ownerCode });
    expect(made).toMatchObject({ status: 201, body: { role: 'owner', name: 'Tam', owned: true } });
    expect((await device.ask('GET', '/access/people')).body.people).toHaveLength(1);
    const again = { name: 'Uma', passphrase: PASSPHRASE, code: own.ownerCode };
    expect((await own.device().ask('POST', '/access/first', again)).status).toBe(409);
    expect((await own.ask('POST', '/access/first', again)).status).toBe(409);
    await own.stop();
  });
});

describe('codes', () => {
  test('a phone that reads one is signed in as who showed it, at the page it was shown at', async () => {
    const { name } = await newPerson('bench');
    const laptop = shop.device();
    await signIn(laptop, name);
    const place = '/drives/d1/tension?on=p2';
    const { token, id } = await shop.code({ place }, laptop.ask);
    const phone = shop.device();
    expect((await phone.ask('POST', '/access/redeem', { token })).body).toEqual({
      me: { role: 'bench', name, machine: false, job: null, owned: true },
      place,
    });
    expect((await laptop.ask('GET', `/access/codes/${id}`)).body).toEqual({ state: 'used' });
    expect((await shop.device().ask('POST', '/access/redeem', { token })).status).toBe(403);
  });

  test('of twenty phones that use one at the same moment one is in', async () => {
    const own = await sharedShop('empty');
    const { digits, token } = await own.code({});
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, k) => own.device().ask('POST', '/access/redeem', k % 2 ? { digits } : { token })),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    await own.stop();
  });

  test('at the machine it is for the owner, or for whom is chosen', async () => {
    const { id, name } = await newPerson('counter');
    for (const [asked, wanted] of [
      [{}, 'Ines'],
      [{ person: id }, name],
    ] as const) {
      const { digits } = await shop.code(asked);
      const typed = `${digits.slice(0, 3)} ${digits.slice(3)}`;
      expect((await shop.device().ask('POST', '/access/redeem', { digits: typed })).body.me.name).toBe(wanted);
    }
    // Nobody else chooses for whom.
    const laptop = await shop.signedIn('bench');
    const { token } = await shop.code({ person: await personOf('Ines') }, laptop.ask);
    expect((await shop.device().ask('POST', '/access/redeem', { token })).body.me.role).toBe('bench');
  });

  test('leads to a page of Emery and nowhere else', async () => {
    for (const place of ['https://shop.example/', '//shop.example', '/\\shop.example', 'drives', ''])
      expect([place, (await shop.ask('POST', '/access/codes', { place })).status]).toEqual([place, 422]);
  });
});

describe('a job that is lent', () => {
  async function lent(job: string): Promise<Outside> {
    const { token } = await shop.code({ job, name: 'Tam from next door', place: `/jobs/${job}` });
    const device = shop.device();
    expect((await device.ask('POST', '/access/redeem', { token })).body.me).toMatchObject({ role: 'lent', job });
    return device;
  }
  const picture = (shade: number) =>
    sharp({ create: { width: 8, height: 8, channels: 3, background: { r: shade, g: 0, b: 0 } } })
      .jpeg()
      .toBuffer();

  test('is ticked and photographed under the name it was lent to, until it is signed off', async () => {
    const job = await newJob();
    const device = await lent(job);
    const post = (events: object[]) => device.ask('POST', `/jobs/${job}/events`, { events });
    expect((await post([tick()])).status).toBe(200);
    const jpeg = { 'content-type': 'image/jpeg' };
    const photo = (await device.ask('POST', '/photos', await picture(7), jpeg)).body;
    expect((await device.ask('GET', `/photos/${photo.hash}`)).status).toBe(403);
    expect((await post([{ id: randomUUID(), at: AT, by: '', kind: 'photo', photo }])).status).toBe(200);
    expect((await device.ask('GET', `/photos/${photo.hash}`)).status).toBe(200);
    const others = (await shop.ask('POST', '/photos', await picture(9), jpeg)).body;
    for (const hash of [others.hash, '%', '_'.repeat(64), photo.hash.slice(0, 8)])
      expect((await device.ask('GET', `/photos/${hash}`)).status).toBe(403);
    for (const more of [
      { kind: 'note', text: 'x' },
      { kind: 'timer', running: true },
      { kind: 'odometer', odometer: 1 },
    ])
      expect((await post([tick(), { id: randomUUID(), at: AT, by: '', ...more }])).status).toBe(403);
    const { events } = (await shop.ask('GET', `/jobs/${job}`)).body as { events: { by: string }[] };
    expect(events.map(({ by }) => by)).toEqual(['Tam from next door', 'Tam from next door']);
    expect((await devices()).find((one) => one.job === job)).toMatchObject({
      role: 'lent',
      name: 'Tam from next door',
    });
    await shop.ask('POST', `/jobs/${job}/sign-off`, { by: 'Ann', at: AT });
    expect((await device.ask('GET', `/jobs/${job}`)).body).toMatchObject({ status: 401, ended: 'job-signed' });
    expect((await post([tick()])).status).toBe(401);
    expect((await devices()).some((one) => one.job === job)).toBe(false);
  });

  test('is gone with the job, needs a name, and is for bench and owner to lend', async () => {
    const job = await newJob();
    const device = await lent(job);
    await shop.ask('DELETE', `/jobs/${job}`);
    expect((await device.ask('GET', `/jobs/${job}`)).status).toBe(401);
    expect((await shop.ask('POST', '/access/codes', { place: '/', job, name: 'Tam' })).status).toBe(404);
    const another = await newJob();
    expect((await shop.ask('POST', '/access/codes', { place: '/', job: another })).body.errors).toEqual([
      { path: 'name', message: 'needs a name, which every tick then has' },
    ]);
    const counter = await shop.signedIn('counter');
    expect((await counter.ask('POST', '/access/codes', { place: '/', job: another, name: 'x' })).status).toBe(403);
  });
});

test('who did what is written down by who is signed in, whatever was sent', async () => {
  const { name } = await newPerson('bench');
  const device = shop.device();
  await signIn(device, name);
  const job = await newJob(device.ask);
  await device.ask('POST', `/jobs/${job}/events`, { events: [tick()] });
  await device.ask('POST', `/jobs/${job}/sign-off`, { by: 'Somebody else', at: AT });
  const opened = (await shop.ask('GET', `/jobs/${job}`)).body;
  expect([opened.startedBy, opened.events[0].by, opened.signedBy]).toEqual([name, name, name]);
  const told = (await shop.ask('GET', `/records?vehicle=${opened.vehicleId}`)).body.records as { title: string }[];
  expect(told.map(({ title }) => title)).toContain(`Job signed off by ${name}`);
  const { revision } = (await shop.ask('GET', `/drives/${opened.driveId}`)).body;
  const save = (ask: Outside['ask'], note: string) =>
    ask('PATCH', `/drives/${opened.driveId}`, {
      ...{ revision, saveId: randomUUID() },
      changes: [{ at: ['note'], now: note }],
    });
  await save(device.ask, 'theirs');
  const late = await save(shop.ask, 'mine');
  expect(late.body).toMatchObject({ since: [{ by: name }], clashes: [{ why: 'changed' }] });
  // At the machine itself nobody is known, and what is written there stands.
  await saved(shop.ask, opened.driveId, (drive) => ({ ...drive, note: 'mine' }));
  expect((await shop.ask('GET', `/drives/${opened.driveId}`)).body.savedBy).toBe('');
});

test('a device is shut out at once, in the middle of what it reads as well', async () => {
  const device = await shop.signedIn('bench');
  const { id } = (await devices()).find(({ role, name }) => role === 'bench' && name.startsWith('bench'))!;
  // An answer that never comes to its end by itself: the request's body is still on its way.
  const open = device.fetch('POST', '/api/import', undefined, {
    'content-type': 'application/json',
    'content-length': '1000',
  });
  const cut = expect(open).rejects.toThrow(/socket hang up|ECONNRESET|aborted/);
  await new Promise((done) => setTimeout(done, 300));
  // Nobody shuts out a device of somebody else but the owner.
  const other = await shop.signedIn('counter');
  expect((await other.ask('DELETE', `/access/devices/${id}`)).status).toBe(404);
  expect((await shop.ask('DELETE', `/access/devices/${id}`)).status).toBe(204);
  await cut;
  expect((await device.ask('GET', '/shop')).body).toMatchObject({ ended: 'shut-out' });
});

describe('the calendar has an address of its own', () => {
  test('it reads what is due and nothing else, until it is withdrawn', async () => {
    const { id, link } = (await shop.ask('POST', '/access/feeds', { label: 'Phone of Ines' })).body;
    const secret = (link as string).split('/').at(-1)!;
    expect(link).toBe(`${shop.origin}/api/access/feed/${secret}`);
    const calendar = shop.device();
    const read = await calendar.ask('GET', `/access/feed/${secret}`);
    expect(read).toMatchObject({ status: 200, type: expect.stringMatching(/text\/calendar/) as string });
    expect(calendar.headers['cache-control']).toBe('no-store');
    expect(JSON.stringify((await shop.ask('GET', '/access/feeds')).body)).not.toContain(secret);
    expect((await calendar.ask('GET', '/records/due.ics')).status).toBe(401);
    expect((await calendar.ask('GET', `/access/feed/${secret.slice(1)}`)).status).toBe(404);
    await shop.ask('DELETE', `/access/feeds/${id}`);
    expect((await calendar.ask('GET', `/access/feed/${secret}`)).status).toBe(404);
  });
});

describe('closed to other sites', () => {
  const guarded = {
    'x-frame-options': 'DENY',
    'x-content-type-options': 'nosniff',
    'cross-origin-resource-policy': 'same-origin',
  };

  test('of another name, from another page, in a frame, through a guess of the type: at both doors', async () => {
    const device = await shop.signedIn();
    for (const headers of [
      { host: 'shop.example' },
      { origin: 'https://shop.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ] as Record<string, string>[])
      expect([headers, (await device.ask('GET', '/shop', undefined, headers)).status]).toEqual([headers, 403]);
    expect((await device.ask('GET', '/shop', undefined, { origin: shop.origin })).status).toBe(200);
    expect(device.headers).toMatchObject(guarded);
    expect(String(device.headers['content-security-policy'])).toContain("frame-ancestors 'none'");
    expect(device.headers['cache-control']).toBe('no-store');
    const machine = await fetch(`${shop.base}/shop`);
    for (const [name, value] of Object.entries(guarded)) expect(machine.headers.get(name)).toBe(value);
    expect(machine.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    expect((await shop.ask('GET', '/shop', undefined, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  });

  test('a proxy that asks the machine’s own door is not its owner', async () => {
    const ask = (headers: Record<string, string>) =>
      new Promise<number>((resolve, reject) =>
        http
          .get(`${shop.base}/shop`, { headers }, (answer) => resolve(answer.resume().statusCode!))
          .on('error', reject),
      );
    expect(await ask({})).toBe(200);
    for (const name of ['X-Forwarded-For', 'Forwarded', 'Via', 'X-Real-IP', 'X-Forwarded-Host'])
      expect([name, await ask({ [name]: '192.0.2.7' })]).toEqual([name, 403]);
  });
});

test('what one device asks for is bounded, and another goes on', async () => {
  const [eager, other] = [await shop.signedIn('bench'), await shop.signedIn('bench')];
  const slow = Array.from({ length: 3 }, () =>
    eager
      .fetch('POST', '/api/import', undefined, { 'content-type': 'application/json', 'content-length': '1000' })
      .catch(() => null),
  );
  await new Promise((done) => setTimeout(done, 300));
  expect(await eager.ask('GET', '/export')).toMatchObject({
    status: 429,
    body: { detail: expect.stringMatching(/large requests under way/) as string },
  });
  expect((await eager.ask('GET', '/shop')).status).toBe(200);
  expect((await other.ask('GET', '/export')).status).toBe(200);
  for (const one of await devices()) await shop.ask('DELETE', `/access/devices/${one.id}`);
  await Promise.all(slow);
  const many = await shop.signedIn('bench');
  const statuses: number[] = [];
  for (let k = 0; k < 70; k += 1) statuses.push((await many.ask('GET', '/parts/file')).status);
  expect(statuses.every((status) => status === 200)).toBe(true);
  for (let k = 0; k < 70; k += 1) statuses.push((await many.ask('POST', '/import', {})).status);
  expect(statuses.filter((status) => status === 429)).toHaveLength(10);
});

test('the list of what was done has sign-ins, refusals, deletes, exports, restores and changes of roles', async () => {
  const device = await shop.signedIn('bench');
  const { id } = (await device.ask('POST', '/vehicles', { name: 'Told' })).body;
  await device.ask('DELETE', `/vehicles/${id}`);
  await device.ask('POST', `/vehicles/${id}/restore`);
  await device.ask('GET', '/export');
  await device.ask('GET', '/access/audit');
  await device.ask('DELETE', `/vehicles/${randomUUID()}`);
  const { id: person } = await newPerson('counter');
  await shop.ask('PUT', `/access/people/${person}`, { role: 'bench' });
  const name = (await device.ask('GET', '/access/me')).body.name as string;
  await new Promise((done) => setTimeout(done, 100));
  const entries = await audit();
  const linesOf = (who: string) =>
    entries.filter((entry) => entry.who === who).map(({ kind, what }) => `${kind} ${what}`);
  expect(linesOf(name).sort()).toEqual([
    `delete DELETE /vehicles/${id}`,
    'export GET /export',
    'refused GET /access/audit',
    `restore POST /vehicles/${id}/restore`,
    'sign-in by passphrase',
  ]);
  expect(linesOf('at the machine').some((line) => /: counter to bench$/.test(line))).toBe(true);
});

describe('behind a proxy of the shop’s own', () => {
  const origin = 'https://emery.example';
  /** As the proxy asks, over plain http. */
  function through(port: number, headers: Record<string, string>) {
    return (method: string, path: string, body?: object) =>
      new Promise<{ status: number; body: string; cookie: string | undefined }>((resolve, reject) => {
        const text = body && JSON.stringify(body);
        const request = http.request(
          {
            ...{ port, host: '127.0.0.1', method, path: `/api${path}` },
            headers: { host: 'emery.example', ...(text && { 'content-type': 'application/json' }), ...headers },
          },
          (response) => {
            let said = '';
            response.on('data', (piece: Buffer) => (said += piece.toString()));
            response.on('end', () =>
              resolve({ status: response.statusCode!, body: said, cookie: response.headers['set-cookie']?.[0] }),
            );
          },
        );
        request.on('error', reject).end(text);
      });
  }

  test('a session needs its word that it came over HTTPS; addresses are those it tells, if it is named', async () => {
    // Below those that the system gives out by itself.
    const port = 20_000 + (process.pid % 12_000);
    const own = await sharedShop('empty', { port, origin });
    expect(own.sharing.state()).toMatchObject({ on: true, addresses: [origin], trustPage: null });
    const owner = { name: 'Ines', passphrase: PASSPHRASE };
    const plain = await through(port, {})('POST', '/access/sign-in', owner);
    expect([plain.status, plain.cookie]).toEqual([409, undefined]);
    expect(plain.body).toContain('X-Forwarded-Proto');
    const proxy = through(port, { 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.50' });
    const signed = await proxy('POST', '/access/sign-in', owner);
    expect([signed.status, signed.cookie]).toEqual([200, expect.stringContaining('__Host-emery=') as string]);
    const listed = (await own.ask('GET', '/access/devices')).body.devices as DeviceListed[];
    expect(listed[0]).toMatchObject({ name: 'Ines', address: '203.0.113.50' });
    expect((await through(port, { host: 'shop.example' })('GET', '/access/me')).status).toBe(403);
    const { link } = (await own.ask('POST', '/access/codes', { place: '/' })).body as { link: string };
    expect(link).toMatch(/^https:\/\/emery\.example\/in#/);
    await own.stop();
    // One that is not named is asked itself, whatever it tells of others.
    const distrustful = await sharedShop('empty', { port, origin, proxies: '198.51.100.1' });
    expect((await proxy('POST', '/access/sign-in', owner)).status).toBe(409);
    await distrustful.stop();
  });
});
