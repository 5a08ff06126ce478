import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import tls from 'node:tls';
import multicastDns from 'multicast-dns';
import { networkAddresses, readHost } from './addresses';
import { announce } from './announce';
import { Sharing, type SharingOptions } from './sharing';

let folder = '';
const open: Sharing[] = [];
beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), 'emery-sharing-'))));
afterEach(async () => {
  for (const sharing of open.splice(0)) await sharing.off();
});
afterAll(() => rmSync(folder, { recursive: true }));

function sharing(more: Partial<SharingOptions> = {}): Sharing {
  const made = new Sharing({ port: 0, folder, announced: false, addresses: () => ['127.0.0.1'], ...more });
  made.serve((_request, response) => response.end('Emery'));
  open.push(made);
  return made;
}
const portOf = (shared: Sharing) => Number(new URL(shared.state().addresses[0]!).port);

function plain(port: number, where = '/', headers: Record<string, string> = {}, method = 'GET') {
  return new Promise<{ status: number; type: string; body: Buffer }>((resolve, reject) => {
    const request = http.request({ port, host: '127.0.0.1', path: where, headers, method }, (response) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece: Buffer) => pieces.push(piece));
      response.on('end', () =>
        resolve({
          ...{ status: response.statusCode!, type: response.headers['content-type'] ?? '' },
          body: Buffer.concat(pieces),
        }),
      );
    });
    request.on('error', reject).end();
  });
}

/** The certificate that is shown at a port, without asking who vouches for it. */
const shown = (port: number) =>
  new Promise<tls.PeerCertificate>((resolve, reject) => {
    const socket = tls.connect({ port, host: '127.0.0.1', rejectUnauthorized: false }, () => {
      resolve(socket.getPeerCertificate());
      socket.destroy();
    });
    socket.on('error', reject);
  });

test('shut until it is asked for, and shut again', async () => {
  const shared = sharing();
  expect(shared.state()).toMatchObject({ on: false, addresses: [], trustPage: null, fingerprint: null });
  expect(shared.addressFor('127.0.0.1:1')).toBeNull();
  await shared.on();
  const port = portOf(shared);
  await shown(port);
  await shared.off();
  expect(shared.state().on).toBe(false);
  await expect(shown(port)).rejects.toThrow(/ECONNREFUSED/);
});

test('without encryption there is the page that tells how to trust it, its certificate, and nothing else', async () => {
  const shared = sharing();
  await shared.on();
  const port = portOf(shared);
  const { fingerprint } = shared.state();
  for (const where of ['/', '/api/vehicles', '/index.html', '/emery-authority.key', '/../share/authority.key']) {
    const page = await plain(port, where);
    expect(page).toMatchObject({ status: 200, type: expect.stringMatching(/^text\/html/) as string });
    expect(page.body.toString().replaceAll('<wbr>', '')).toContain(fingerprint);
    expect(page.body.toString()).toContain(`https://127.0.0.1:${port}`);
    expect(page.body.toString()).not.toMatch(/PRIVATE|Tarnside/);
  }
  const certificate = await plain(port, '/emery-authority.crt');
  expect(certificate.type).toBe('application/x-x509-ca-cert');
  const pem = execFileSync('openssl', ['x509', '-inform', 'DER'], { input: certificate.body, encoding: 'utf8' });
  expect(pem.trim()).toBe(readFileSync(path.join(folder, 'authority.crt'), 'utf8').trim());
  expect((await plain(port, '/', {}, 'POST')).status).toBe(405);
  // Of another name, as a page of the world would have it that turned its own name to this address.
  expect((await plain(port, '/', { host: 'shop.example' })).status).toBe(403);
  expect((await plain(port, '/', { host: '"><script>' })).status).toBe(403);
});

test('it follows this machine: other addresses, another certificate, without a new start', async () => {
  let addresses = ['127.0.0.1'];
  const told: string[][] = [];
  const shared = sharing({ addresses: () => addresses, onChange: (state) => told.push(state.addresses) });
  await shared.on();
  const port = portOf(shared);
  expect((await shown(port)).subjectaltname).not.toContain('10.8.0.3');
  await shared.look();
  expect(told).toEqual([]);
  addresses = ['127.0.0.1', '10.8.0.3'];
  await shared.look();
  expect(told).toEqual([[`https://127.0.0.1:${port}`, `https://10.8.0.3:${port}`]]);
  expect((await shown(port)).subjectaltname).toContain('IP Address:10.8.0.3');
  expect(shared.isOwnPage(`10.8.0.3:${port}`, undefined)).toBe(true);
});

test('a port that is taken, or no network, is told in words, and nothing is half open', async () => {
  const taken = net.createServer();
  await new Promise<void>((done) => taken.listen(0, done));
  const { port } = taken.address() as net.AddressInfo;
  const shared = sharing({ port });
  expect(await shared.on()).toMatchObject({
    on: false,
    problem: `Port ${port} is taken by another program. Start Emery with another one: npm start -- --share-port ${port + 1}`,
  });
  await new Promise((done) => taken.close(done));
  expect(await shared.on()).toMatchObject({ on: true, problem: null });
  // A machine that starts before its network: shared once there is one.
  const told: boolean[] = [];
  let there: string[] = [];
  const lonely = sharing({ addresses: () => there, onChange: ({ on }) => told.push(on) });
  expect(await lonely.on()).toMatchObject({
    on: false,
    problem: 'This machine has no network address. Connect it to the network of the shop.',
  });
  await lonely.look();
  there = ['127.0.0.1'];
  await lonely.look();
  expect([lonely.state().on, lonely.state().problem, told]).toEqual([true, null, [true]]);
});

test('a certificate that cannot be read or written is told in words, and is no reason not to open the shop', async () => {
  const files = { certificateFile: path.join(folder, 'none.crt'), keyFile: path.join(folder, 'none.key') };
  const missing = sharing({ origin: 'https://emery.example', certificate: files });
  const problem = 'The certificate cannot be read or written (ENOENT).';
  expect(await missing.on()).toMatchObject({ on: false, problem });
  await missing.look();
  expect(missing.state()).toMatchObject({ on: false, problem });
  const file = path.join(folder, 'a file');
  writeFileSync(file, '');
  expect(await sharing({ folder: path.join(file, 'share') }).on()).toMatchObject({
    ...{ on: false, problem: 'The certificate cannot be read or written (ENOTDIR).' },
  });
  writeFileSync(files.certificateFile, 'no certificate');
  writeFileSync(files.keyFile, 'no key');
  expect((await missing.on()).problem).toMatch(/^The certificate cannot be read or written/);
});

test('whoever says nothing, or never ends what was begun, is let go; stopping waits for nobody', async () => {
  const shared = sharing();
  await shared.on();
  const port = portOf(shared);
  const idle = net.connect(port, '127.0.0.1');
  const begun = net.connect(port, '127.0.0.1');
  begun.write('GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-');
  const secure = tls.connect({ port, host: '127.0.0.1', rejectUnauthorized: false });
  await new Promise((done) => secure.once('secureConnect', done));
  const closed = Promise.all(
    [idle, begun, secure].map((one) => new Promise((done) => one.on('close', done).on('error', () => undefined))),
  );
  await shared.off();
  await closed;
});

test('the shop’s own address: its own certificate, or plain http for a proxy on this machine', async () => {
  const first = sharing();
  await first.on();
  const files = { certificateFile: path.join(folder, 'machine.crt'), keyFile: path.join(folder, 'machine.key') };
  const origin = 'https://emery.example';
  const own = sharing({ origin, certificate: files });
  expect(await own.on()).toMatchObject({ on: true, addresses: [origin], trustPage: null, fingerprint: null });
  expect(own.state().certificateEnds).toEqual(first.state().certificateEnds);
  expect(own.isOwnPage('emery.example', origin)).toBe(true);
  expect(own.isOwnPage('emery.example', 'https://other.example')).toBe(false);
  expect(own.isOwnPage('127.0.0.1', undefined)).toBe(false);
  const proxied = sharing({ origin });
  expect(await proxied.on()).toMatchObject({ on: true, addresses: [origin], certificateEnds: null });
});

test('only its own names and addresses are its own', () => {
  const shared = sharing({ addresses: () => ['192.168.1.20', 'fd00::7'] });
  for (const host of ['192.168.1.20:4681', '[fd00::7]:4681', 'emery.local:4681', 'EMERY.local'])
    expect([host, shared.isOwnPage(host, undefined)]).toEqual([host, true]);
  for (const host of [
    '192.168.1.21:4681',
    'shop.example',
    '',
    '192.168.1.20.shop.example',
    '[::1',
    'a b',
    '192.168.1.20:x',
  ])
    expect([host, shared.isOwnPage(host, undefined)]).toEqual([host, false]);
  expect(shared.isOwnPage('192.168.1.20:4681', 'https://192.168.1.20:4681')).toBe(true);
  for (const origin of ['http://192.168.1.20:4681', 'https://192.168.1.20', 'null', 'https://emery.local:4681'])
    expect([origin, shared.isOwnPage('192.168.1.20:4681', origin)]).toEqual([origin, false]);
  expect(readHost('[fd00::7]:80')).toEqual({ host: 'fd00::7', port: 80 });
});

describe('the name on the network', () => {
  // A port of its own, so that others on this machine who answer for names are no part of it.
  const PORT = 20_000 + (process.pid % 20_000);
  const [address] = networkAddresses();
  const heard = multicastDns({ port: PORT, bind: '0.0.0.0', loopback: true, ...(address && { interface: address }) });
  afterAll(() => new Promise<void>((done) => heard.destroy(done)));
  const ask = (name: string) =>
    new Promise<string[]>((resolve) => {
      const found: string[] = [];
      const hear = ({ answers }: { answers: { name: string; type: string; data?: unknown }[] }) =>
        found.push(...answers.filter((one) => one.name === name && one.type === 'A').map(({ data }) => String(data)));
      heard.on('response', hear);
      heard.query({ questions: [{ name, type: 'A' }] });
      setTimeout(() => {
        heard.removeListener('response', hear);
        resolve([...new Set(found)]);
      }, 300);
    });

  test('is answered for with the addresses; a second machine takes the next', async () => {
    const first = await announce('emery.local', () => ['10.1.1.1', 'fd00::1'], { port: PORT, through: address });
    // A machine without a network has nobody to tell, and shares without the name.
    if (address === undefined) return void first?.stop();
    expect(first?.name).toBe('emery.local');
    expect(await ask('emery.local')).toEqual(['10.1.1.1']);
    expect(await ask('other.local')).toEqual([]);
    const second = await announce('emery.local', () => ['10.1.1.2'], { port: PORT, through: address });
    expect(second?.name).toBe('emery-2.local');
    expect(await ask('emery-2.local')).toEqual(['10.1.1.2']);
    first?.stop();
    second?.stop();
    await new Promise((done) => setTimeout(done, 200));
    expect(await ask('emery.local')).toEqual([]);
  });
});
