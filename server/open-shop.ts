import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openAccess } from './access/access';
import { settingsOf } from './access/secret';
import { createApp } from './app';
import { Sharing, type SharingOptions } from './share/sharing';
import { Wire } from './live/news';
import { Streams } from './live/streams';
import { Backups, type BackupOptions } from './keep/backups';
import { firstRun } from './shop/demo';
import { followLimits } from './records/follow-limits';
import { watchDatabase } from './storage/watch';

export interface OpenShop {
  port: number;
  server: Server;
  /** The door for other devices. */
  sharing: Sharing;
  /** Makes the first owner from another device, for whoever reads the terminal. */
  ownerCode: string;
  /** Ends what other devices listen to; they go on with whichever server answers then. */
  endStreams: () => void;
  /** Closes its door and its database; whoever is being answered is cut off. */
  shut: () => Promise<void>;
}

export interface ShopOptions {
  /** 0 for one that is free. */
  port: number;
  logger: Logger;
  /** The built interface; without it only the API is served. */
  webFolder?: string | undefined;
  shop: 'demo' | 'empty';
  share?: ShareOptions | undefined;
  backups?: BackupOptions;
}

export interface ShareOptions extends SharingOptions {
  /** Opened at once; else where the owner has switched it on. */
  now?: boolean;
  /** Addresses of the shop's own proxy. */
  proxies?: string | undefined;
}

/** Not asked for by whoever starts the server, as in tests: any free port, without a name on the network. */
const UNASKED: ShareOptions = {
  ...{ port: 0, announced: false, folder: path.join(tmpdir(), `emery-share-${process.pid}`) },
};

/**
 * Opens the shop in a database that `connect` has brought up to date: nobody is answered before its first run is done.
 * Rejects with the reason why the port cannot be listened to.
 */
export async function openShop(
  data: DataSource,
  { port, logger, webFolder, shop, share = UNASKED, backups: kept = {} }: ShopOptions,
): Promise<OpenShop> {
  await firstRun(data, shop === 'demo');
  const sharing = new Sharing(share);
  const access = await openAccess(data, sharing);
  const watch = watchDatabase(data);
  const follower = followLimits(data);
  const wire = new Wire(data);
  const streams = new Streams(data, wire);
  const backups = new Backups(data, kept);
  const app = { data, logger, guard: watch.guard, ...(webFolder && { webFolder }) };
  const server = createApp({ ...app, door: 'machine' }).listen(port, '127.0.0.1');
  // Longer than a pause between two taps: a connection that is closed just as the next request goes out loses it.
  server.keepAliveTimeout = 75_000;
  await new Promise<void>((resolve, reject) => server.once('listening', resolve).once('error', reject));
  const proxies = share.origin === undefined || share.certificate ? undefined : (share.proxies ?? 'loopback');
  sharing.serve(createApp({ ...app, door: 'shared', proxies }));
  if (share.now || (await settingsOf(data)).sharing) await sharing.on();
  return {
    port: (server.address() as AddressInfo).port,
    server,
    sharing,
    ownerCode: access.ownerCode,
    endStreams: () => {
      streams.stop();
      backups.stop();
    },
    shut: async () => {
      streams.stop();
      backups.stop();
      wire.stop();
      await sharing.off();
      await access.audit.flush();
      watch.stop();
      follower.stop();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await data.destroy();
    },
  };
}
