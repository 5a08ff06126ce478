import { fork } from 'node:child_process';
import { once } from 'node:events';
import net, { type AddressInfo, type Socket } from 'node:net';
import path from 'node:path';
import { connect } from './data-source';
import { openLog } from './http/log';
import { openShop } from './open-shop';
import { freshDatabase } from './test/running';

/*
 * A database that is frozen takes what it is asked and never answers. Put in its place here: a door before the real one
 * that passes nothing on while it is shut.
 */
interface Door {
  url: (database: string) => string;
  freeze: () => void;
  thaw: () => void;
  close: () => void;
}

async function doorTo(database: string): Promise<Door> {
  const real = new URL(database);
  let open = true;
  const held: Socket[] = [];
  const server = net.createServer((from) => {
    const to = net.connect(Number(real.port), real.hostname);
    held.push(from, to);
    for (const [first, other] of [
      [from, to],
      [to, from],
    ] as const) {
      first.on('data', (bytes) => other.write(bytes));
      first.on('error', () => other.destroy());
      first.on('close', () => other.destroy());
    }
    if (!open) for (const socket of [from, to]) socket.pause();
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    url: () => Object.assign(new URL(database), { port: String((server.address() as AddressInfo).port) }).href,
    freeze: () => {
      open = false;
      for (const socket of held) socket.pause();
    },
    thaw: () => {
      open = true;
      for (const socket of held) socket.resume();
    },
    close: () => {
      for (const socket of held) socket.destroy();
      server.close();
    },
  };
}

const PATHS = ['/shop', '/vehicles', '/drives', '/records', '/records/due', '/records/belts', '/records/belts.csv'];
const MORE = ['/stock', '/stock/file', '/bands', '/pulleys', '/parts', '/jobs', '/jobs/pace', '/export'];

test('while the database is frozen everybody is told, more at once than there are connections, and afterwards all is well', async () => {
  const url = freshDatabase();
  const door = await doorTo(url);
  const shop = await openShop(await connect(door.url(url)), {
    ...{ port: 0, logger: openLog(undefined), shop: 'demo' as const },
  });
  const base = `http://127.0.0.1:${shop.port}/api`;
  const json = { 'content-type': 'application/json' };
  const vehicle = { id: '11111111-1111-4111-8111-111111111111', name: 'Loader' };
  const make = () => fetch(`${base}/vehicles`, { method: 'POST', headers: json, body: JSON.stringify(vehicle) });
  try {
    expect((await fetch(`${base}/vehicles`)).status).toBe(200);
    door.freeze();
    const asked = [...PATHS, ...MORE].map((where) => fetch(`${base}${where}`));
    const [made, ...read] = await Promise.all([make(), ...asked]);
    for (const answer of [made, ...read]) {
      expect([answer.url.replace(base, ''), answer.status]).toEqual([answer.url.replace(base, ''), 503]);
      expect(await answer.json()).toMatchObject({ title: 'Database not reachable', status: 503 });
    }
    // From now on at once, and health tells for itself.
    expect((await fetch(`${base}/vehicles`)).status).toBe(503);
    expect((await fetch(`${base}/health`)).status).toBe(503);
    door.thaw();
    // Asked again until it is back, as a page does; what was sent before may have been taken, and is taken once.
    let again = await make();
    for (let tries = 0; again.status === 503 && tries < 100; tries += 1) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      again = await make();
    }
    expect(again.status).toBe(201);
    for (const where of [...PATHS, ...MORE]) {
      const answer = await fetch(`${base}${where}`);
      await answer.arrayBuffer();
      expect([where, answer.status]).toEqual([where, 200]);
    }
    const { vehicles } = (await (await fetch(`${base}/vehicles?search=loader`)).json()) as { vehicles: object[] };
    expect(vehicles).toHaveLength(1);
  } finally {
    door.thaw();
    await shop.shut();
    door.close();
  }
}, 60_000);

test('a server ends when it is told to, though its database does not answer', async () => {
  const url = freshDatabase();
  const door = await doorTo(url);
  const server = fork(path.join(__dirname, 'main.ts'), [], {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, EMERY_DATABASE_URL: door.url(url), EMERY_PORT: '0', EMERY_SHOP: 'empty' },
    stdio: 'ignore',
  });
  try {
    const [{ port }] = (await once(server, 'message')) as [{ port: number }];
    door.freeze();
    const asked = fetch(`http://127.0.0.1:${port}/api/vehicles`).catch(() => null);
    server.kill('SIGTERM');
    await once(server, 'exit');
    expect((await asked)?.status ?? 503).toBe(503);
  } finally {
    server.kill('SIGKILL');
    door.close();
  }
}, 30_000);

test('a shop that a newer Emery has changed is left as it is', async () => {
  const url = freshDatabase();
  const data = await connect(url);
  await data.query("INSERT INTO migrations (timestamp, name) VALUES (1999999999999, 'Later1999999999999')");
  await data.query('DELETE FROM migrations WHERE name LIKE ?', ['Safe%']);
  const before = await data.query<object[]>('SHOW CREATE TABLE job');
  await data.destroy();
  await expect(connect(url)).rejects.toThrow(/changed by a newer Emery \(Later1999999999999\)/);
  // Not even what is missing of our own is done to it.
  const check = await connectPlain(url);
  expect(await check.query('SHOW CREATE TABLE job')).toEqual(before);
  expect(await check.query("SELECT name FROM migrations WHERE name LIKE 'Safe%'")).toEqual([]);
  await check.query("DELETE FROM migrations WHERE name LIKE 'Later%'");
  await check.destroy();
  await (await connect(url)).destroy();
});

async function connectPlain(url: string) {
  const { DataSource } = await import('typeorm');
  return new DataSource({ type: 'mariadb', url }).initialize();
}
