import { accessSync, constants } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { buildInterface } from './lib/build.mjs';
import { databaseInUse, databaseRestored, openDatabase, setDatabaseAside } from './lib/database.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { hold, socketName } from './lib/lock.mjs';
import { ensureState, STATE } from './lib/paths.mjs';
import { main, SetupProblem } from './lib/run.mjs';
import { startServer } from './lib/serve.mjs';
import { startsAgain } from './lib/starts-again.mjs';

const DEFAULT_PORT = 4680;
/** So long a stop waits for the database, ms; one that needs longer, or does not answer, ends by itself. */
const LONGEST_STOP_MS = 7500;

/** npm start: installs what is missing, builds, starts the database and the server, and stops them again. */
await main(async () => {
  const options = readOptions();
  const { port, fresh } = options;
  checkNode();
  await holdPort(port);
  await checkPort(port);
  const share = shareOptions(options);
  ensureState();
  const given = process.env.EMERY_DATABASE_URL || undefined;
  if (fresh && given)
    throw new SetupProblem(
      '--fresh makes a new database of our own; with EMERY_DATABASE_URL set, name an empty database there instead.',
    );
  await ensureNpmPackages();
  if (!given) await ensurePrograms(DATABASE_PROGRAMS);
  const webFolder = await buildInterface();
  await databaseRestored();
  if (fresh) await startEmpty();
  const stop = new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => resolve('stop'));
  });
  const database = given ? null : await openDatabase();
  const logs = path.join(STATE, 'logs');
  const backups = process.env.EMERY_BACKUPS ? path.resolve(process.env.EMERY_BACKUPS) : path.join(STATE, 'backups');
  const run = () =>
    startServer({
      databaseUrl: given ?? database.url('emery'),
      ...{ port, webFolder, logs, share, backups, shop: fresh ? 'empty' : 'demo' },
    });
  let server = await run().catch(async (error) => {
    await database?.close();
    throw error;
  });
  process.stdout.write(`Emery is at http://127.0.0.1:${server.port}\nCtrl+C stops it.\n`);
  const again = startsAgain();
  for (;;) {
    const listening = Date.now();
    const what = await Promise.race([stop, server.ended]);
    if (what === 'stop') break;
    const how = `${what.signal ?? `exit code ${what.code}`}${what.said ? `: ${what.said.split('\n').at(-1).slice(0, 200)}` : ''}`;
    if (!again(Date.now() - listening)) {
      await database?.close();
      throw new SetupProblem(
        `the server keeps ending (${how}). What was acknowledged is saved. Its log is ${path.join(logs, 'server.log')}`,
      );
    }
    process.stderr.write(`The server ended by itself (${how}); starting it again …\n`);
    server = await run().catch(async (error) => {
      await database?.close();
      throw error;
    });
    process.stderr.write('It is running again.\n');
  }
  const stopping = Date.now();
  await server.stop();
  const left = LONGEST_STOP_MS - (Date.now() - stopping);
  const shut = database ? await database.close(left) : true;
  process.stdout.write(
    shut
      ? 'Emery has stopped; everything is saved.\n'
      : 'Emery has stopped. The database is still writing what is saved, and ends by itself.\n',
  );
});

function readOptions() {
  let values;
  try {
    ({ values } = parseArgs({
      options: {
        port: { type: 'string' },
        fresh: { type: 'boolean', default: false },
        share: { type: 'boolean', default: false },
        'share-port': { type: 'string' },
        host: { type: 'string' },
      },
    }));
  } catch (error) {
    throw new SetupProblem(`${error.message} Known are --port N, --fresh, --share, --share-port N and --host ADDRESS.`);
  }
  const port = readPort('--port', values.port ?? DEFAULT_PORT);
  const sharePort = readPort('--share-port', values['share-port'] ?? Math.min(port + 1, 65_535));
  if (sharePort === port)
    throw new SetupProblem(`--share-port must not be ${port}, at which the machine itself is answered.`);
  if (values.host !== undefined && net.isIP(values.host) === 0)
    throw new SetupProblem(`--host must be an address of this machine, such as 192.168.1.20, not ${values.host}`);
  return { port, fresh: values.fresh, share: values.share, sharePort, host: values.host };
}

function readPort(name, text) {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new SetupProblem(`${name} must be a whole number from 1 to 65535, not ${text}`);
  return port;
}

/**
 * How other devices reach this one. With EMERY_ORIGIN there is a proxy of the shop's own before it, or its own
 * certificate in EMERY_CERTIFICATE and EMERY_CERTIFICATE_KEY, and it is shared from the start.
 */
function shareOptions({ share, sharePort, host }) {
  const {
    EMERY_ORIGIN: origin,
    EMERY_CERTIFICATE: certificate,
    EMERY_CERTIFICATE_KEY: key,
    EMERY_PROXY: proxies,
  } = process.env;
  if (origin && !isOrigin(origin))
    throw new SetupProblem(
      `EMERY_ORIGIN must be an address such as https://emery.example, without a path, not ${origin}`,
    );
  if (Boolean(certificate) !== Boolean(key))
    throw new SetupProblem('EMERY_CERTIFICATE and EMERY_CERTIFICATE_KEY belong together: set both, or neither.');
  if (certificate && !origin)
    throw new SetupProblem('EMERY_CERTIFICATE is for the address in EMERY_ORIGIN: set that as well.');
  for (const [name, file] of [
    ['EMERY_CERTIFICATE', certificate],
    ['EMERY_CERTIFICATE_KEY', key],
  ])
    if (file) checkReadable(name, file);
  return {
    ...{ now: share || Boolean(origin), port: sharePort, host, origin, certificate, key, proxies },
    folder: path.join(STATE, 'share'),
    onShare: (told) => void tellShare(told),
  };
}

function isOrigin(text) {
  try {
    return new URL(text).origin === text && text.startsWith('https://');
  } catch {
    return false;
  }
}

function checkReadable(name, file) {
  try {
    accessSync(file, constants.R_OK);
  } catch (error) {
    throw new SetupProblem(`${name} names ${file}, which cannot be read (${error.code}).`);
  }
}

/** Says how other devices reach Emery, and again where that has changed. */
async function tellShare({ share, ownerCode }) {
  if (share.problem) {
    process.stderr.write(`Other devices cannot reach Emery: ${share.problem}\n`);
    return;
  }
  if (!share.on) return;
  const { default: qrcode } = await import('qrcode');
  const [first, ...others] = share.addresses;
  const link = ownerCode ? `${first}/in#owner=${ownerCode}` : first;
  const lines = [
    `Other devices reach Emery at ${first}${others.length > 0 ? ` (also ${others.join(', ')})` : ''}`,
    ...(share.trustPage
      ? [`A new device first opens ${share.trustPage}, which tells how to trust the certificate.`]
      : []),
    ...(share.fingerprint ? [`Fingerprint of the certificate (SHA-256): ${share.fingerprint}`] : []),
    ...(share.left.length > 0 ? [`Not in the certificate: ${share.left.join(', ')}`] : []),
    ...(ownerCode ? [`There is no owner yet. Whoever opens this address first becomes it: ${link}`] : []),
  ];
  process.stdout.write(
    `${lines.join('\n')}\n${await qrcode.toString(link, { type: 'utf8', errorCorrectionLevel: 'L' })}\n`,
  );
}

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new SetupProblem(`Node ${process.versions.node} is too old; Emery needs 20.19 or later.`);
  if (process.platform !== 'linux')
    throw new SetupProblem(
      'Emery starts its own MariaDB from Debian packages, so it needs Debian or a system like it.',
    );
}

/** Of two that are started at once on one port the second hears it now, not once the first listens. */
async function holdPort(port) {
  const held = await hold(socketName('port', String(port)));
  // Held for as long as this process lives, and no reason for it to live on.
  held?.unref();
  if (!held)
    throw new SetupProblem(
      `another Emery is running or just starting on port ${port}. Choose another port: npm start -- --port ${port + 1}`,
    );
}

/** Says that a port is taken before the long steps, not after them. */
async function checkPort(port) {
  const code = await new Promise((resolve) => {
    const probe = net.createServer();
    probe.once('error', (error) => resolve(error.code));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(null)));
  });
  if (code === 'EADDRINUSE')
    throw new SetupProblem(`port ${port} on 127.0.0.1 is taken. Choose another: npm start -- --port ${port + 1}`);
  if (code) throw new SetupProblem(`port ${port} cannot be used: ${code}`);
}

async function startEmpty() {
  if (await databaseInUse())
    throw new SetupProblem('--fresh would move the database of an Emery that is running here. Stop that one first.');
  const aside = setDatabaseAside();
  if (aside) process.stderr.write(`The shop so far is kept in ${path.relative(process.cwd(), aside)}\n`);
}
