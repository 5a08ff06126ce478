import { connect } from './data-source';
import { openLog } from './http/log';
import { openShop } from './open-shop';

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
const { port: listening, server } = await openShop(data, {
  port: Number(port ?? 0),
  logger: openLog(logs),
  webFolder,
  shop: shop === 'empty' ? 'empty' : 'demo',
}).catch(async (error: NodeJS.ErrnoException) => {
  if (error.syscall !== 'listen') throw error;
  await new Promise<unknown>((done) => (process.send ? process.send({ error: error.code }, done) : done(null)));
  process.exit(1);
});
process.send?.({ port: listening });

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  // Answer what is under way, then close; a client that holds its connection open is not waited for, and neither is a
  // database that does not answer.
  setTimeout(() => server.closeAllConnections(), 2000).unref();
  setTimeout(() => process.exit(), 4000).unref();
  server.closeIdleConnections();
  await new Promise((resolve) => server.close(resolve));
  await data.destroy();
  process.exit();
}
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, () => void end());
process.on('disconnect', () => void end());
