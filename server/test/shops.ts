import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { AddressInfo } from 'node:net';
import { connect } from '../data-source';
import { openLog } from '../http/log';
import { holdLoop, watchLoop } from './loop-probe';
import { reached } from './reached';
import { openShop, type OpenShop } from '../open-shop';

/*
 * The browser tests' server: one process that opens a fresh shop with a database of its own for each POST, on a port
 * of its own, and shuts the shop of a port for a DELETE. Each shop is the whole server. With EMERY_PROBE it tells for a
 * GET how long its loop was held since it was last asked.
 */
const held = process.env['EMERY_PROBE'] ? watchLoop() : null;
const [databases = '', webFolder = ''] = process.argv.slice(2);
const shops = new Map<number, OpenShop>();
let count = 0;

async function answer(method: string | undefined, what: string): Promise<unknown> {
  if (method === 'GET') return { heldMs: held?.() };
  if (method === 'DELETE') {
    const shop = shops.get(Number(what));
    shops.delete(Number(what));
    return { shut: await shop?.shut() };
  }
  if (what === 'hold') {
    holdLoop(150);
    return {};
  }
  count += 1;
  const shop = await openShop(await connect(`${databases}${process.pid}_${count}`), {
    port: 0,
    logger: openLog(undefined),
    webFolder,
    shop: what === 'empty' ? 'empty' : 'demo',
    share: { port: 0, folder: path.join(tmpdir(), `emery-share-${process.pid}`), announced: false, addresses: reached },
  });
  shops.set(shop.port, shop);
  return { port: shop.port };
}

const door = http.createServer((request, response) => {
  answer(request.method, request.url!.slice(1)).then(
    (said) => response.end(JSON.stringify(said)),
    (error: Error) => response.writeHead(500).end(error.stack),
  );
});
door.listen(0, '127.0.0.1', () => process.send?.({ port: (door.address() as AddressInfo).port }));
process.on('disconnect', () => process.exit());
