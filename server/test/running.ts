import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { limitsKey } from '../check/limits-key';
import { connect } from '../data-source';
import { openLog } from '../http/log';
import { openShop, type ShareOptions } from '../open-shop';
import type { Sharing } from '../share/sharing';
import { Shop } from '../shop/entity';

export interface Answer {
  status: number;
  type: string;
  // Bodies of many shapes; each test says what it expects of its own.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
}

/** A server with a database of its own. */
export interface Running {
  data: DataSource;
  /** Of its database. */
  url: string;
  base: string;
  ask: (method: string, path: string, body?: unknown, headers?: Record<string, string>) => Promise<Answer>;
  /** The door for other devices, shut until it is asked for. */
  sharing: Sharing;
  ownerCode: string;
  stop: () => Promise<void>;
}

export const freshDatabase = () => `${process.env['EMERY_TEST_DATABASE']!}emery_${randomUUID().slice(0, 8)}`;

/** Asks the server at an address, as tests do. */
export const asking =
  (base: string): Running['ask'] =>
  async (method, path, body, headers = {}) => {
    const response = await fetch(`${base}${path}`, {
      method,
      headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
      ...(body !== undefined && {
        body: typeof body === 'string' || body instanceof Uint8Array ? body : JSON.stringify(body),
      }),
    } as RequestInit);
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      body: text.startsWith('{') ? JSON.parse(text) : text,
    };
  };

/** Starts one, with the demo shop or an empty one. */
export async function running(
  shop: 'demo' | 'empty',
  {
    webFolder,
    logger = openLog(undefined),
    share,
  }: { webFolder?: string; logger?: ReturnType<typeof openLog>; share?: ShareOptions } = {},
): Promise<Running> {
  const url = freshDatabase();
  const data = await connect(url);
  const { port, shut, sharing, ownerCode } = await openShop(data, { port: 0, logger, webFolder, shop, share });
  const base = `http://127.0.0.1:${port}/api`;
  return {
    data,
    url,
    base,
    ask: asking(base),
    sharing,
    ownerCode,
    stop: shut,
  };
}

/** Waits until all that is due goes by the limits that the shop has now; fails where nothing moves on for 20 s. */
export async function followed(data: DataSource): Promise<void> {
  const { limits } = await data.getRepository(Shop).findOneByOrFail({ id: 1 });
  let fewest = Infinity;
  for (let tries = 0; tries < 400; tries += 1) {
    const [{ behind }] = await data.query<[{ behind: string }]>(
      'SELECT COUNT(*) AS behind FROM drive_memory WHERE byLimits <> ?',
      [limitsKey(limits)],
    );
    if (Number(behind) === 0) return;
    if (Number(behind) < fewest) tries = 0;
    fewest = Math.min(fewest, Number(behind));
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('what is due did not follow the limits of the shop');
}
