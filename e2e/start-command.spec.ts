import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { buildInterface } from '../scripts/lib/build.mjs';
import { STATE } from '../scripts/lib/paths.mjs';
import { databaseInUse, openDatabase } from '../scripts/lib/database.mjs';
import { failuresOfJest, failuresOfPlaywright } from '../scripts/lib/failures.mjs';
import { startsAgain } from '../scripts/lib/starts-again.mjs';
import { ownState } from './own-state';

const ROOT = path.resolve(import.meta.dirname, '..');
test.describe.configure({ mode: 'serial', timeout: 180_000 });

let state: string;
test.beforeAll(async () => {
  await buildInterface();
  state = ownState();
});
test.afterAll(() => rmSync(state, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 }));

async function freePort(): Promise<number> {
  const probe = net.createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => probe.once('listening', resolve));
  const { port } = probe.address() as net.AddressInfo;
  await new Promise((resolve) => probe.close(resolve));
  return port;
}

/** npm start with a state folder of its own; resolves once it prints its address. */
async function start(
  ...args: string[]
): Promise<{ process: ChildProcess; address: string; ended: Promise<number | null>; said: () => string }> {
  const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
    cwd: ROOT,
    env: { ...process.env, EMERY_STATE: state, EMERY_DATABASE_URL: '' },
  });
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  let text = '';
  const address = await new Promise<string>((resolve, reject) => {
    const read = (data: Buffer) => {
      text += String(data);
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(text);
      if (found) resolve(found[0]);
    };
    child.stdout.on('data', read);
    child.stderr.on('data', read);
    child.once('exit', () => reject(new Error(text)));
  });
  return { process: child, address, ended, said: () => text };
}

const databases = () =>
  spawnSync('pgrep', ['-fc', `mariadbd .*--datadir=${state}/`], { encoding: 'utf8' }).stdout.trim();
const vehicles = async (address: string) =>
  ((await (await fetch(`${address}/api/vehicles`)).json()) as { total: number }).total;

test('starts with the demo shop, and Ctrl+C stops server and database', async () => {
  const emery = await start('--port', String(await freePort()));
  expect(await vehicles(emery.address)).toBe(6);
  expect(databases()).toBe('1');
  // A page that pauses finds its connection still there.
  expect((await fetch(`${emery.address}/api/vehicles`)).headers.get('keep-alive')).toBe('timeout=75');
  emery.process.kill('SIGINT');
  expect(await emery.ended).toBe(0);
  expect(databases()).toBe('0');
});

test('a database that is still writing its last is in use: nobody says it has stopped, moves it or starts another', async () => {
  const folder = path.join(state, 'slow', 'database');
  const database = await openDatabase(folder);
  const { pid } = database;
  const there = () => spawnSync('ps', ['-o', 'pid=', '-p', String(pid)], { encoding: 'utf8' }).stdout.trim() !== '';
  // As on a disk that takes its time.
  process.kill(pid, 'SIGSTOP');
  let said = 'open';
  const closed = database.close().then(() => (said = 'closed'));
  await new Promise((resolve) => setTimeout(resolve, 2000));
  const meanwhile = [said, there(), await databaseInUse(folder)];
  // Another that comes meanwhile waits for it, and gets one of its own.
  const next = openDatabase(folder);
  process.kill(pid, 'SIGCONT');
  expect(meanwhile).toEqual(['open', true, true]);
  await closed;
  const another = await next;
  expect(there()).toBe(false);
  expect(another.pid).not.toBe(pid);
  await another.close();
  expect(await databaseInUse(folder)).toBe(false);
});

test('two side by side share the shop; killed outright, they leave no database behind and lose nothing', async () => {
  const [first, second] = [
    await start('--port', String(await freePort())),
    await start('--port', String(await freePort())),
  ];
  await fetch(`${first.address}/api/vehicles`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"Seventh"}',
  });
  expect(await vehicles(second.address)).toBe(7);
  first.process.kill('SIGKILL');
  second.process.kill('SIGKILL');
  await expect.poll(databases, { timeout: 20_000 }).toBe('0');
  const again = await start('--port', String(await freePort()));
  expect(await vehicles(again.address)).toBe(7);
  again.process.kill('SIGTERM');
  await again.ended;
});

test('--fresh keeps the old shop aside and opens an empty one', async () => {
  const emery = await start('--port', String(await freePort()), '--fresh');
  expect(await vehicles(emery.address)).toBe(0);
  expect(readdirSync(state).filter((name) => name.startsWith('database-kept-'))).toHaveLength(1);
  emery.process.kill('SIGINT');
  await emery.ended;
});

test('a taken port and a wrong option are one clear line', async () => {
  const holder = net.createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => holder.once('listening', resolve));
  const { port } = holder.address() as net.AddressInfo;
  let more: Record<string, string> = {};
  const run = (...args: string[]) =>
    spawnSync(process.execPath, ['scripts/start.mjs', ...args], {
      cwd: ROOT,
      encoding: 'utf8',
      env: { ...process.env, EMERY_STATE: state, ...more },
    });
  expect(run('--port', String(port))).toMatchObject({
    status: 1,
    stderr: `emery: port ${port} on 127.0.0.1 is taken. Choose another: npm start -- --port ${port + 1}\n`,
  });
  expect(run('--port', 'http')).toMatchObject({
    status: 1,
    stderr: 'emery: --port must be a whole number from 1 to 65535, not http\n',
  });
  expect(run('--prot', '1').stderr).toMatch(/^emery: Unknown option '--prot'.*\n$/);
  expect(run('--port', '4999', '--share-port', '4999').stderr).toMatch(/^emery: --share-port must not be 4999/);
  expect(run('--share', '--host', 'shop').stderr).toMatch(/^emery: --host must be an address of this machine/);
  const free = String(await freePort());
  for (const [variables, says] of [
    [{ EMERY_ORIGIN: 'http://emery.example' }, /^emery: EMERY_ORIGIN must be an address such as https:/],
    [{ EMERY_ORIGIN: 'https://emery.example/shop' }, /^emery: EMERY_ORIGIN must be/],
    [{ EMERY_CERTIFICATE: '/x' }, /^emery: EMERY_CERTIFICATE and EMERY_CERTIFICATE_KEY belong together/],
    [{ EMERY_CERTIFICATE: '/x', EMERY_CERTIFICATE_KEY: '/y' }, /^emery: EMERY_CERTIFICATE is for the address in/],
    [
      { EMERY_ORIGIN: 'https://emery.example', EMERY_CERTIFICATE: '/x', EMERY_CERTIFICATE_KEY: '/y' },
      /^emery: EMERY_CERTIFICATE names \/x, which cannot be read \(ENOENT\)/,
    ],
  ] as const) {
    more = variables;
    const { status, stderr } = run('--port', free);
    expect(status).toBe(1);
    expect(stderr).toMatch(says);
  }
  holder.close();
});

test('--share tells how other devices come in; what it made is kept, and the next start shares nothing by itself', async () => {
  const own = async (...args: string[]) => {
    const emery = await start('--port', String(await freePort()), ...args);
    return { ...emery, stop: () => (emery.process.kill('SIGINT'), emery.ended) };
  };
  const sharePort = String(await freePort());
  const shared = await own('--share', '--host', '127.0.0.1', '--share-port', sharePort);
  await expect.poll(shared.said).toMatch(/whoever opens this address first becomes it/i);
  const [, fingerprint = ''] = /SHA-256\): ([0-9A-F:]{95})/.exec(shared.said())!;
  expect(shared.said()).toContain(`Other devices reach Emery at https://127.0.0.1:${sharePort}`);
  expect(shared.said()).toMatch(new RegExp(`https://127.0.0.1:${sharePort}/in#owner=[\\w-]{22}`));
  // A QR code of half blocks.
  expect(shared.said()).toMatch(/█▀▀▀▀▀█/);
  const page = await (await fetch(`http://127.0.0.1:${sharePort}/`)).text();
  expect(page.replaceAll('<wbr>', '')).toContain(fingerprint);
  expect(statSync(path.join(state, 'share', 'authority.key')).mode & 0o777).toBe(0o600);
  const count = await vehicles(shared.address);
  expect(await shared.stop()).toBe(0);
  const alone = await own();
  expect(await vehicles(alone.address)).toBe(count);
  const sharing = (await (await fetch(`${alone.address}/api/access/sharing`)).json()) as { on: boolean };
  expect(sharing.on).toBe(false);
  expect(alone.said()).not.toContain('Other devices');
  expect(await alone.stop()).toBe(0);
  const again = await own('--share', '--host', '127.0.0.1', '--share-port', sharePort);
  await expect.poll(again.said).toContain(fingerprint);
  expect(await again.stop()).toBe(0);
});

const serverOf = (child: ChildProcess) =>
  Number(
    spawnSync('pgrep', ['-P', String(child.pid), '-f', 'server/shop/main.mjs'], { encoding: 'utf8' })
      .stdout.trim()
      .split('\n')[0],
  );

test('six short runs in a row end it, however long the starts between them take; a long run begins anew', () => {
  const short = startsAgain();
  expect([1, 2, 3, 4, 5, 6].map(() => short(200))).toEqual([true, true, true, true, true, false]);
  const mixed = startsAgain();
  const runs = Array.from({ length: 30 }, (_, k) => (k % 6 === 5 ? 3_600_000 : 200));
  expect(runs.every((listened) => mixed(listened))).toBe(true);
});

test('a server that dies is started again on its port; one that keeps dying ends the command with a failure', async () => {
  const emery = await start('--port', String(await freePort()));
  let said = '';
  emery.process.stderr!.on('data', (data: Buffer) => (said += String(data)));
  const total = await vehicles(emery.address);
  process.kill(serverOf(emery.process), 'SIGKILL');
  await expect.poll(() => vehicles(emery.address).catch(() => -1), { timeout: 60_000 }).toBe(total);
  expect(said).toMatch(/The server ended by itself \(SIGKILL\); starting it again/);
  for (let times = 0; times < 5; times += 1) {
    await expect.poll(() => vehicles(emery.address).catch(() => -1), { timeout: 60_000 }).toBe(total);
    process.kill(serverOf(emery.process), 'SIGKILL');
  }
  expect(await emery.ended).toBe(1);
  expect(said).toMatch(/emery: the server keeps ending \(SIGKILL\)\. What was acknowledged is saved/);
  expect(databases()).toBe('0');
});

test('of two started at once on one port the second is told at once; stopping one of two takes no time', async () => {
  const port = String(await freePort());
  const first = spawn(process.execPath, ['scripts/start.mjs', '--port', port], {
    cwd: ROOT,
    env: { ...process.env, EMERY_STATE: state, EMERY_DATABASE_URL: '' },
  });
  await new Promise((resolve) => setTimeout(resolve, 400));
  const second = spawnSync(process.execPath, ['scripts/start.mjs', '--port', port], {
    cwd: ROOT,
    encoding: 'utf8',
    timeout: 20_000,
    env: { ...process.env, EMERY_STATE: state },
  });
  expect(second).toMatchObject({
    status: 1,
    stderr: `emery: another Emery is running or just starting on port ${port}. Choose another port: npm start -- --port ${Number(port) + 1}\n`,
  });
  await new Promise<void>((resolve) =>
    first.stdout.on('data', (data: Buffer) => String(data).includes('http') && resolve()),
  );
  const other = await start('--port', String(await freePort()));
  const ended = new Promise((resolve) => first.once('exit', resolve));
  first.kill('SIGINT');
  // With the other one still running, the database goes on: nobody waits for it.
  expect(await Promise.race([ended, new Promise((resolve) => setTimeout(() => resolve('late'), 15_000))])).toBe(0);
  expect(await vehicles(other.address)).toBeGreaterThanOrEqual(0);
  other.process.kill('SIGINT');
  await other.ended;
});

test('a folder that cannot be written is one clear line; an emptied credentials file is made anew', async () => {
  const nowhere = spawnSync(process.execPath, ['scripts/start.mjs', '--port', String(await freePort())], {
    cwd: ROOT,
    encoding: 'utf8',
    env: { ...process.env, EMERY_STATE: '/dev/null/emery' },
  });
  expect(nowhere).toMatchObject({
    status: 1,
    stderr: expect.stringMatching(
      /^emery: the folder \/dev\/null\/emery cannot be written \(\w+\)\. .*EMERY_STATE\.\n$/,
    ) as unknown as string,
  });
  mkdirSync(path.join(state, 'database'), { recursive: true });
  writeFileSync(path.join(state, 'database', 'credentials.json'), '');
  const emery = await start('--port', String(await freePort()));
  expect(await vehicles(emery.address)).toBeGreaterThanOrEqual(0);
  emery.process.kill('SIGINT');
  expect(await emery.ended).toBe(0);
});

test('what failed is named from the reports of both runners, as they write them', () => {
  mkdirSync(path.join(STATE, 'test'), { recursive: true });
  const folder = mkdtempSync(path.join(STATE, 'test', 'failing-'));
  const write = (name: string, text: string) => writeFileSync(path.join(folder, name), text);
  const reportOf = (program: string, args: string[]) => {
    const report = path.join(folder, 'report.json');
    const { status } = spawnSync(process.execPath, [path.join(ROOT, 'node_modules', program), ...args], {
      cwd: folder,
      env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
    });
    expect(status).toBe(1);
    return JSON.parse(readFileSync(report, 'utf8')) as never;
  };
  const sums = "describe('sums', () => { test('right', () => {}); test('wrong', () => { expect(1).toBe(2); }); });";
  try {
    write('package.json', '{}');
    write('one.test.js', sums);
    write('two.test.js', "throw new Error('not even loaded');");
    write('ui.pw.cjs', `const { test, expect } = require('@playwright/test'); const { describe } = test; ${sums}`);
    write(
      'playwright.config.cjs',
      "module.exports = { reporter: 'json', testMatch: '*.pw.cjs', projects: [{ name: 'one' }] };",
    );
    const unit = failuresOfJest(reportOf('jest/bin/jest.js', ['--json', '--outputFile=report.json'])).sort();
    expect(unit).toHaveLength(2);
    expect(unit[0]).toMatch(/one\.test\.js › sums › wrong\n[^]*Expected: 2\n\s+Received: 1/);
    expect(unit[1]).toMatch(/two\.test\.js\n[^]*not even loaded/);
    const browser = failuresOfPlaywright(reportOf('@playwright/test/cli.js', ['test']));
    expect(browser).toHaveLength(1);
    expect(browser[0]).toMatch(/ui\.pw\.cjs › sums › wrong\n[^]*Expected: 2\n\s+Received: 1/);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
