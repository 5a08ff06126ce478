import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import { connect } from './data-source';
import { firstRun } from './shop/demo';
import { openLog } from './http/log';

/*
 * The server process. Started by scripts/start.mjs, which hands it everything by environment and hears by message when
 * it listens. It ends when asked to, and when the process that started it is gone.
 */
const {
  EMERY_DATABASE_URL: url,
  EMERY_PORT: port,
  EMERY_WEB: webFolder,
  EMERY_LOGS: logs,
  EMERY_SHOP: shop,
} = process.env;
if (!url) throw new Error('EMERY_DATABASE_URL is not set; start Emery with npm start');

const data = await connect(url).catch((error: Error & { code?: string }) => {
  // Told without a trace: the person at the terminal can put this right, and the address alone may hold a password.
  process.stderr.write(`the database cannot be opened: ${error.code ?? ''} ${error.message}`.trim());
  process.exit(1);
});
const logger = openLog(logs);
await firstRun(data, shop !== 'empty');

const server = createApp({ data, logger, ...(webFolder && { webFolder }) }).listen(Number(port ?? 0), '127.0.0.1');
// Longer than a pause between two taps: a connection that is closed just as the next request goes out loses it.
server.keepAliveTimeout = 75_000;
server.on('listening', () => process.send?.({ port: (server.address() as AddressInfo).port }));
server.on('error', (error) => {
  process.send?.({ error: (error as NodeJS.ErrnoException).code });
  process.exitCode = 1;
  process.disconnect?.();
});

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  // Answer what is under way, then close; a client that holds its connection open is not waited for.
  setTimeout(() => server.closeAllConnections(), 2000).unref();
  server.closeIdleConnections();
  await new Promise((resolve) => server.close(resolve));
  await data.destroy();
  process.exit();
}
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, () => void end());
process.on('disconnect', () => void end());
