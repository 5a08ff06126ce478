import type { DataSource } from 'typeorm';
import { connect } from './data-source';
import { openLog } from './http/log';
import { openShop } from './open-shop';
import { freshDatabase } from './test/running';

let data: DataSource;
beforeEach(async () => {
  data = await connect(freshDatabase());
});
afterEach(() => data.isInitialized && data.destroy());

const options = { port: 0, logger: openLog(undefined), shop: 'demo' as const };

test('nobody is answered before the first run is done', async () => {
  let opened = false;
  // Somebody else holds the first run.
  const runner = data.createQueryRunner();
  await runner.startTransaction();
  await runner.query(`INSERT INTO shop (id, name, unit) VALUES (1, 'Of another', 'mm')`);
  const opening = openShop(data, options).then((shop) => {
    opened = true;
    return shop;
  });
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(opened).toBe(false);
  await runner.rollbackTransaction();
  await runner.release();
  const { port, shut } = await opening;
  const { total } = (await (await fetch(`http://127.0.0.1:${port}/api/vehicles`)).json()) as { total: number };
  expect(total).toBe(6);
  await shut();
});

test('a port that is taken is told with its code, and a connection is kept for a while', async () => {
  const first = await openShop(data, { ...options, shop: 'empty' });
  await expect(openShop(data, { ...options, port: first.port })).rejects.toMatchObject({
    syscall: 'listen',
    code: 'EADDRINUSE',
  });
  const answer = await fetch(`http://127.0.0.1:${first.port}/api/vehicles`);
  expect(answer.headers.get('keep-alive')).toBe('timeout=75');
  expect(((await answer.json()) as { total: number }).total).toBe(0);
  await first.shut();
  await expect(fetch(`http://127.0.0.1:${first.port}/api/vehicles`)).rejects.toThrow();
});
