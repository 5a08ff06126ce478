import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { buildServer } from './build.mjs';
import { ROOT, STATE } from './paths.mjs';
import { SetupProblem } from './run.mjs';

/**
 * How Node runs the server. New things that outlive a collection of garbage are copied in one go: lists by the ten
 * thousand would hold the loop for as long as copying 16 MB takes, so less is collected at a time.
 */
const FLAGS = JSON.parse(readFileSync(path.join(ROOT, 'server', 'node-flags.json'), 'utf8'));

/**
 * Starts the server on a port, 0 for one that is free; the rest is as `startProgram` has it. `share` is how other
 * devices reach it: `{ now, port, host, folder, origin, certificate, key, proxies, onShare }`.
 */
export async function startServer({
  databaseUrl,
  port = 0,
  webFolder,
  logs,
  shop = 'demo',
  share = null,
  backups = '',
}) {
  return startProgram(await buildServer(), {
    port,
    env: {
      EMERY_DATABASE_URL: databaseUrl,
      EMERY_PORT: String(port),
      EMERY_SHOP: shop,
      ...(backups && { EMERY_BACKUPS: backups, EMERY_SHOP_FOLDER: STATE }),
      ...(webFolder && { EMERY_WEB: webFolder }),
      ...(logs && { EMERY_LOGS: logs }),
      ...(share && shareVariables(share)),
    },
    onShare: share?.onShare,
  });
}

function shareVariables({ now, port, host, folder, origin, certificate, key, proxies }) {
  return {
    EMERY_SHARE: now ? '1' : '',
    EMERY_SHARE_PORT: String(port),
    EMERY_SHARE_HOST: host ?? '',
    EMERY_SHARE_FOLDER: folder,
    EMERY_ORIGIN: origin ?? '',
    EMERY_CERTIFICATE: certificate ?? '',
    EMERY_CERTIFICATE_KEY: key ?? '',
    EMERY_PROXY: proxies ?? '',
  };
}

/**
 * Starts a program of the server and resolves once it listens, with its port and a way to end it. The message channel
 * ties the two together: should this process be killed, the program hears the channel close and ends too.
 *
 * @param {string} file
 * @param {{ port?: number, args?: string[], env?: Record<string, string>, onShare?: (told: object) => void }} options
 */
export function startProgram(file, { port = 0, args = [], env = {}, onShare = () => undefined } = {}) {
  const child = spawn(process.execPath, [...FLAGS, file, ...args], {
    cwd: ROOT,
    // A group of its own, so that Ctrl+C reaches this process alone, which then ends things in order.
    detached: true,
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    env: { ...process.env, ...env },
  });
  let complaint = '';
  child.stderr.on('data', (data) => (complaint = (complaint + data).slice(-4000)));
  /** How it ended: exit code or signal, and the last it said. */
  const ended = new Promise((resolve) =>
    child.once('exit', (code, signal) => resolve({ code, signal, said: complaint.trim() })),
  );
  return new Promise((resolve, reject) => {
    child.on('message', ({ port: listening, error, share, ownerCode }) => {
      if (share) return onShare({ share, ownerCode });
      if (error === 'EADDRINUSE')
        reject(new SetupProblem(`port ${port} on 127.0.0.1 is taken. Choose another: npm start -- --port ${port + 1}`));
      else if (error) reject(new SetupProblem(`the server could not listen on port ${port}: ${error}`));
      else {
        resolve({
          port: listening,
          pid: child.pid,
          ended,
          kill: (signal) => child.kill(signal),
          stop: async () => {
            child.kill('SIGTERM');
            await ended;
          },
        });
      }
    });
    ended.then(({ said }) => reject(new SetupProblem(said || 'the server ended at once')));
  });
}
