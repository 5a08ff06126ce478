import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { createApp } from './app';
import { firstRun } from './shop/demo';
import { followLimits } from './records/follow-limits';
import { watchDatabase } from './storage/watch';

export interface OpenShop {
  port: number;
  server: Server;
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
}

/**
 * Opens the shop in a database that `connect` has brought up to date: nobody is answered before its first run is done.
 * Rejects with the reason why the port cannot be listened to.
 */
export async function openShop(data: DataSource, { port, logger, webFolder, shop }: ShopOptions): Promise<OpenShop> {
  await firstRun(data, shop === 'demo');
  const watch = watchDatabase(data);
  const follower = followLimits(data);
  const server = createApp({ data, logger, guard: watch.guard, ...(webFolder && { webFolder }) }).listen(
    port,
    '127.0.0.1',
  );
  // Longer than a pause between two taps: a connection that is closed just as the next request goes out loses it.
  server.keepAliveTimeout = 75_000;
  await new Promise<void>((resolve, reject) => server.once('listening', resolve).once('error', reject));
  return {
    port: (server.address() as AddressInfo).port,
    server,
    shut: async () => {
      watch.stop();
      follower.stop();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await data.destroy();
    },
  };
}
