import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import tls from 'node:tls';
import fc from 'fast-check';
import { ROUTE_TABLE } from './route-table';
import { draws } from '../../core/test/draws';
import type { Outside } from '../test/outside';
import { sharedShop, type SharedShop } from '../test/shared-shop';

/* Whoever is on the network and not signed in: by hand, by curl, and by whatever comes. */
let shop: SharedShop;
let folder = '';
let inside: Outside;
beforeAll(async () => {
  shop = await sharedShop('demo');
  inside = await shop.signedIn();
  folder = mkdtempSync(path.join(tmpdir(), 'emery-curl-'));
  writeFileSync(path.join(folder, 'ca.crt'), shop.authority);
});
afterAll(async () => {
  await shop.stop();
  rmSync(folder, { recursive: true });
});

/** Beside this process, in which the server answers. */
async function curl(...args: string[]): Promise<{ code: number; status: string; body: string }> {
  const child = spawn('curl', ['-s', '-m', '20', '-w', '\n%{http_code}', ...args], { cwd: folder });
  let said = '';
  child.stdout.on('data', (piece: Buffer) => (said += piece.toString()));
  const code = await new Promise<number>((done) => child.on('close', (ended) => done(ended ?? -1)));
  const lines = said.split('\n');
  return { code, status: lines.pop()!, body: lines.join('\n') };
}

test('curl: refused by the certificate without the authority, by the session with it', async () => {
  expect((await curl(`${shop.origin}/api/vehicles`)).code).toBe(60);
  const asked = await curl('--cacert', 'ca.crt', `${shop.origin}/api/vehicles`);
  expect(asked).toMatchObject({ code: 0, status: '401' });
  expect(JSON.parse(asked.body)).toMatchObject({ title: 'Not signed in', ended: 'none' });
  for (const args of [
    ['-H', 'Cookie: __Host-emery=s%3Ax.y'],
    ['-H', 'Authorization: Bearer x'],
    ['-H', 'X-Forwarded-For: 127.0.0.1', '-H', 'X-Forwarded-Host: localhost'],
    ['-H', 'X-Real-IP: 127.0.0.1'],
    ['-u', 'Ines:guess'],
  ])
    expect([args[1], (await curl('--cacert', 'ca.crt', ...args, `${shop.origin}/api/vehicles`)).status]).toEqual([
      args[1],
      '401',
    ]);
  // The machine's own door does not stand on the network.
  const { hostname } = new URL(shop.origin);
  const own = await curl(`http://${hostname}:${new URL(shop.base).port}/api/vehicles`);
  expect(hostname === '127.0.0.1' || own.code === 7).toBe(true);
  // Old versions of TLS are not spoken.
  expect((await curl('--cacert', 'ca.crt', '--tls-max', '1.1', `${shop.origin}/api/vehicles`)).code).not.toBe(0);
});

const word = fc.oneof(
  fc.constantFrom(
    'api',
    'vehicles',
    'drives',
    'access',
    'people',
    'devices',
    'feed',
    'jobs',
    'photos',
    'export',
    '..',
    '.',
    '',
  ),
  fc.constantFrom('%2e%2e', '%2f', '%00', 'api%2fvehicles', ';', '\\', 'VEHICLES', 'assets', 'index.html', 'share'),
  fc.string({ maxLength: 12 }).map(encodeURIComponent),
);
const address = fc.oneof(
  fc.constantFrom(...ROUTE_TABLE.map(({ path: at }) => `/api${at.replace(/:\w+/g, '1')}`)),
  fc.array(word, { maxLength: 6 }).map((words) => `/${words.join('/')}`),
  fc.array(word, { maxLength: 5 }).map((words) => `/api/${words.join('/')}?${words.join('&')}`),
);
const hostile = fc.record({
  method: fc.constantFrom('GET', 'GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS', 'PROPFIND'),
  at: address,
  body: fc.option(fc.oneof(fc.json(), fc.string({ maxLength: 300 })), { nil: undefined }),
  cookie: fc.option(fc.stringMatching(/^[\x21-\x7e]{0,80}$/), { nil: undefined }),
  type: fc.constantFrom('application/json', 'application/zip', 'image/jpeg', 'text/plain'),
});

/** What only the shop has, and no page of the interface. */
const PRIVATE = /Rescue truck|Tarnside|TFW 02|passphrase":|"document"/;
/** What anybody may ask, and what it may answer. */
const OPEN = /^\/api\/(health|access\/(me|first|sign-in|redeem|sign-out|feed\/))/i;

test('five thousand requests of whoever comes, without a session: nothing of the shop comes out, nothing goes in', async () => {
  const before = (await shop.ask('GET', '/vehicles')).body;
  const device = shop.device();
  const statuses = new Map<number, number>();
  await fc.assert(
    fc.asyncProperty(hostile, async ({ method, at, body, cookie, type }) => {
      const sends = method !== 'GET' && method !== 'HEAD' && body !== undefined;
      const { status, body: said } = await device.fetch(method, at, sends ? body : undefined, {
        'content-type': type,
        ...(cookie !== undefined && { cookie: `__Host-emery=${cookie}` }),
      });
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      expect(status).toBeLessThan(500);
      expect(JSON.stringify(said)).not.toMatch(PRIVATE);
      // An address is below the API by how the server reads it, which is not how a browser writes it.
      if (/^\/api\/(?!access\/)[a-z]+/.test(at) && !/[%;\\]|\/\.|\/\//.test(at) && !OPEN.test(at))
        expect([401, 429]).toContain(status);
    }),
    { numRuns: draws(5000) },
  );
  expect((await shop.ask('GET', '/vehicles')).body).toEqual(before);
  expect((await shop.ask('GET', '/access/people')).body.people).toHaveLength(1);
  expect(statuses.size).toBeGreaterThan(1);
});

test('bytes that are no request, and no handshake, end the connection and nothing else', async () => {
  const { hostname, port } = new URL(shop.origin);
  const at = { host: hostname, port: Number(port) };
  const ended = (socket: net.Socket) => new Promise((done) => socket.on('close', done).on('error', () => undefined));
  await fc.assert(
    fc.asyncProperty(fc.uint8Array({ minLength: 1, maxLength: 400 }), fc.boolean(), async (bytes, handshake) => {
      const socket = net.connect(at);
      const over = ended(socket);
      socket.resume();
      socket.end(Buffer.concat([Buffer.from(handshake ? [0x16, 3, 1] : []), bytes]));
      await over;
    }),
    { numRuns: draws(400) },
  );
  const socket = tls.connect({ ...at, ca: shop.authority, servername: '' });
  await new Promise((done) => socket.once('secureConnect', done));
  const over = ended(socket);
  socket.write('GARBAGE\r\n\r\n\r\n');
  socket.resume();
  await over;
  // Whoever is signed in goes on, whatever came from the same address meanwhile.
  expect((await inside.ask('GET', '/access/me')).body.role).toBe('owner');
});
