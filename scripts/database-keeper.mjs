import { spawn } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { findProgram } from './lib/install.mjs';
import { hold, socketName } from './lib/lock.mjs';
import { setLogAside } from '../server/http/set-log-aside.js';
import { run } from './lib/run.mjs';

/*
 * Keeps one MariaDB for one folder. Started by `openDatabase`, never by hand. Every process that uses the database
 * holds a connection here; when the last is gone the database is shut down and this process ends. Should this process
 * be killed, the kernel tells mariadbd to shut down (a parent-death signal), and the next keeper waits for it. A
 * mariadbd that dies is started again.
 */

const folder = process.argv[2];
const data = path.join(folder, 'data');
const scratch = path.join(folder, 'scratch');
const pidFile = path.join(folder, 'mariadb.pid');
const clients = new Set();
let database = null;
let told = null;
let closing = false;
const starts = [];

const server = await hold(socketName('keeper', folder), (client) => {
  clients.add(client);
  client.on('error', () => undefined);
  // One that is about to go asks whether it is the last.
  client.on('data', () => client.write(`${JSON.stringify({ others: clients.size - 1 })}\n`));
  client.on('close', () => {
    clients.delete(client);
    closeWhenIdle(250);
  });
  if (told) client.write(told);
});
// Somebody else keeps this folder already: the caller will find them.
if (!server) process.exit(0);
closeWhenIdle(30_000);
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.on(signal, () => void close(0));

try {
  await endLeftover();
  await initialise();
  await start();
} catch (error) {
  tell({ state: 'failed', message: error.message });
  log(error.stack);
  await close(1);
}

/**
 * Makes the data folder, in a place of its own until it is whole, so that a cut-off first run leaves nothing half made.
 */
async function initialise() {
  if (!credentials())
    writeWhole('credentials.json', JSON.stringify({ user: 'emery', password: randomBytes(18).toString('hex') }));
  if (existsSync(data)) return;
  const fresh = `${data}-making`;
  rmSync(fresh, { recursive: true, force: true });
  mkdirSync(fresh, { recursive: true, mode: 0o700 });
  makeScratch();
  const user = os.userInfo().username;
  const { code, output } = await run(
    findProgram('mariadb-install-db'),
    [
      '--no-defaults',
      `--datadir=${fresh}`,
      `--tmpdir=${scratch}`,
      `--user=${user}`,
      '--auth-root-authentication-method=socket',
      `--auth-root-socket-user=${user}`,
      '--skip-test-db',
    ],
    { quiet: true },
  );
  if (code !== 0) {
    log(output);
    throw new Error(
      `mariadb-install-db failed: ${/^.*ERROR.*$/m.exec(output)?.[0] ?? output.trim().split('\n').at(-1)}`,
    );
  }
  renameSync(fresh, data);
}

async function start() {
  starts.push(Date.now());
  makeScratch();
  const port = await freePort();
  const { user, password } = credentials();
  const accounts = ['127.0.0.1', 'localhost'].flatMap((host) => [
    `CREATE USER IF NOT EXISTS '${user}'@'${host}' IDENTIFIED BY '${password}';`,
    `ALTER USER '${user}'@'${host}' IDENTIFIED BY '${password}';`,
    `GRANT ALL ON *.* TO '${user}'@'${host}';`,
  ]);
  setLogAside(path.join(folder, 'mariadb.log'));
  writeWhole('accounts.sql', `${accounts.join('\n')}\n`);
  database = spawn(
    findProgram('setpriv'),
    [
      '--pdeathsig',
      'TERM',
      findProgram('mariadbd'),
      '--no-defaults',
      ...(process.getuid() === 0 ? ['--user=root'] : []),
      `--datadir=${data}`,
      `--tmpdir=${scratch}`,
      `--socket=${socketFile()}`,
      `--pid-file=${pidFile}`,
      `--log-error=${path.join(folder, 'mariadb.log')}`,
      `--init-file=${path.join(folder, 'accounts.sql')}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--skip-name-resolve',
      '--innodb-flush-log-at-trx-commit=1',
      '--innodb-buffer-pool-size=256M',
      '--max-connections=100',
      '--max-allowed-packet=64M',
    ],
    { stdio: 'ignore' },
  );
  const running = database;
  running.on('exit', () => void restart(running));
  for (let tries = 0; tries < 300; tries += 1) {
    if (running.exitCode !== null || running.signalCode !== null)
      throw new Error(`mariadbd ended at once; see ${path.join(folder, 'mariadb.log')}`);
    if (await answers(port)) {
      tell({ state: 'ready', port, pid: running.pid });
      return;
    }
    await pause(100);
  }
  throw new Error('mariadbd did not answer within 30 s');
}

/**
 * A database that died while in use comes back, on the port its clients know. One that dies again and again is given
 * up.
 */
async function restart(ended) {
  if (closing || ended !== database || !told) return;
  log('mariadbd ended by itself; starting it again');
  told = null;
  if (starts.filter((at) => at > Date.now() - 60_000).length > 5) return close(1);
  try {
    await start();
  } catch (error) {
    log(error.stack);
    await close(1);
  }
}

/**
 * The account that the server logs in with; null where there is none or the file is spoiled, and a new one is made,
 * which the database takes on at its start.
 */
function credentials() {
  try {
    const { user, password } = JSON.parse(readFileSync(path.join(folder, 'credentials.json'), 'utf8'));
    return /^\w+$/.test(user) && /^[0-9a-f]{12,}$/.test(password) ? { user, password } : null;
  } catch {
    return null;
  }
}

async function freePort() {
  const known = lastPort();
  for (const wanted of known ? [known, 0] : [0]) {
    const port = await new Promise((resolve) => {
      const probe = net.createServer();
      probe.on('error', () => resolve(null));
      probe.listen(wanted, '127.0.0.1', () => {
        const { port: given } = probe.address();
        probe.close(() => resolve(given));
      });
    });
    if (port) {
      writeWhole('port', String(port));
      return port;
    }
  }
  throw new Error('no free port on 127.0.0.1');
}

function lastPort() {
  const file = path.join(folder, 'port');
  return existsSync(file) ? Number(readFileSync(file, 'utf8')) : null;
}

/**
 * A mariadbd that starts sweeps its temporary folder of tables, another one's too, so each needs a folder of its own.
 */
function makeScratch() {
  mkdirSync(scratch, { recursive: true, mode: 0o700 });
}

/** A Unix socket's path may have 107 characters, so it lives in the temporary folder under a short name of our own. */
function socketFile() {
  const digest = createHash('sha256').update(folder).digest('hex').slice(0, 16);
  const place = path.join(os.tmpdir(), `emery-${process.getuid()}-${digest}`);
  mkdirSync(place, { recursive: true, mode: 0o700 });
  return path.join(place, 'mariadb.sock');
}

/** A mariadbd left by a killed keeper is on its way down already; wait for it, and after half a minute insist. */
async function endLeftover() {
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  const ours = () => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--datadir=${data}`);
    } catch {
      return false;
    }
  };
  for (let tries = 0; ours(); tries += 1) {
    try {
      process.kill(pid, tries < 300 ? 'SIGTERM' : 'SIGKILL');
    } catch {
      return;
    }
    await pause(100);
  }
}

/**
 * The name stays taken until the database has written its last: so long it is in use, and whoever comes waits for the
 * end of this process, which lets go of both.
 */
async function close(code) {
  if (closing) return;
  closing = true;
  told = null;
  for (const client of clients) client.end();
  if (database && database.exitCode === null && database.signalCode === null) {
    const gone = new Promise((resolve) => database.once('exit', resolve));
    database.kill('SIGTERM');
    await gone;
  }
  process.exit(code);
}

/** Shuts down unless somebody has the database open when the time is up. */
function closeWhenIdle(ms) {
  setTimeout(() => clients.size > 0 || void close(0), ms);
}

function tell(message) {
  told = `${JSON.stringify(message)}\n`;
  for (const client of clients) client.write(told);
}

function answers(port) {
  return new Promise((resolve) => {
    const probe = net.connect(port, '127.0.0.1');
    // The server speaks first: its greeting shows that it takes connections, not only that the port is open.
    probe.once('data', () => resolve(true) || probe.destroy());
    probe.once('error', () => resolve(false));
    probe.setTimeout(1000, () => resolve(false) || probe.destroy());
  });
}

function writeWhole(name, text) {
  const file = path.join(folder, name);
  writeFileSync(`${file}.new`, text, { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

function log(text) {
  process.stderr.write(`${new Date().toISOString()} ${text}\n`);
}

function pause(ms) {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
