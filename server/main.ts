import type { DataSource } from 'typeorm';
import { connect } from './data-source';
import { backupBeforeUpgrade } from './keep/backups';
import { UpgradeProblem } from './storage/upgrade';
import { openLog } from './http/log';
import { openShop } from './open-shop';
import { hasOwner } from './access/people';
import type { SharingState } from '@emery/core/api';

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
  EMERY_SHARE: share,
  EMERY_SHARE_PORT: sharePort,
  EMERY_SHARE_HOST: shareHost,
  EMERY_SHARE_FOLDER: shareFolder,
  EMERY_ORIGIN: origin,
  EMERY_CERTIFICATE: certificateFile,
  EMERY_CERTIFICATE_KEY: keyFile,
  EMERY_PROXY: proxies,
  EMERY_BACKUPS: backupFolder,
  EMERY_BACKUP_PASSPHRASE: passphrase,
  EMERY_SHOP_FOLDER: shopFolder,
} = process.env;
if (!url) throw new Error('EMERY_DATABASE_URL is not set; start Emery with npm start');

const backups = {
  folder: backupFolder || undefined,
  shopFolder: shopFolder || undefined,
  passphrase: passphrase || undefined,
};
const before = (shopData: DataSource) => backupBeforeUpgrade(shopData, backups);
const data = await connect(url, { before }).catch((error: Error & { code?: string }) => {
  if (error instanceof UpgradeProblem) {
    process.stderr.write(error.message);
    process.exit(1);
  }
  // Told without a trace: the person at the terminal can put this right, and the address alone may hold a password.
  process.stderr.write(`the database cannot be opened: ${error.code ?? ''} ${error.message}`.trim());
  process.exit(1);
});
const tellSharing = (state: SharingState<Date>) => process.send?.({ share: state });
const opened = await openShop(data, {
  port: Number(port ?? 0),
  logger: openLog(logs),
  webFolder,
  shop: shop === 'empty' ? 'empty' : 'demo',
  backups,
  ...(shareFolder && {
    share: {
      now: share === '1',
      port: Number(sharePort ?? 0),
      host: shareHost || undefined,
      folder: shareFolder,
      origin: origin || undefined,
      proxies: proxies || undefined,
      ...(certificateFile && keyFile && { certificate: { certificateFile, keyFile } }),
      onChange: tellSharing,
    },
  }),
}).catch(async (error: NodeJS.ErrnoException) => {
  if (error.syscall !== 'listen') throw error;
  await new Promise<unknown>((done) => (process.send ? process.send({ error: error.code }, done) : done(null)));
  process.exit(1);
});
const { server, sharing } = opened;
process.send?.({ port: opened.port });
if (sharing.state().on || sharing.state().problem)
  process.send?.({ share: sharing.state(), ownerCode: (await hasOwner(data.manager)) ? null : opened.ownerCode });

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  // Answer what is under way, then close; a client that holds its connection open is not waited for, and neither is a
  // database that does not answer.
  setTimeout(() => server.closeAllConnections(), 2000).unref();
  setTimeout(() => process.exit(), 4000).unref();
  opened.endStreams();
  server.closeIdleConnections();
  await sharing.off();
  await new Promise((resolve) => server.close(resolve));
  await data.destroy();
  process.exit();
}
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, () => void end());
process.on('disconnect', () => void end());
