import { rmSync } from 'node:fs';
import path from 'node:path';
import { openDatabase } from '../../scripts/lib/database.mjs';
import { STATE } from '../../scripts/lib/paths.mjs';

/** One MariaDB of its own for this run of the server's tests; that of EMERY_TEST_DATABASE where one is named. */
export default async function setup() {
  if (process.env.EMERY_TEST_DATABASE) return;
  const folder = path.join(STATE, 'test', `jest-${process.pid}`);
  const database = await openDatabase(folder);
  process.env.EMERY_TEST_DATABASE = database.url('');
  globalThis.emeryTestDatabase = {
    close: async () => {
      await database.close();
      rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
    },
  };
}
