import path from 'node:path';
import { openDatabase } from './lib/database.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { main, run } from './lib/run.mjs';
import { startServer } from './lib/serve.mjs';

/** npm run dev: the server on its usual port, and the interface served from source with changes shown at once. */
await main(async () => {
  await ensureNpmPackages();
  await ensurePrograms(DATABASE_PROGRAMS);
  const database = await openDatabase();
  const server = await startServer({ databaseUrl: database.url('emery'), port: 4680, logs: path.join(STATE, 'logs') });
  process.on('SIGINT', () => undefined);
  await run(process.execPath, [path.join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js'), path.join(ROOT, 'web')], {
    env: { ...process.env, EMERY_PORT: '4680' },
  });
  await server.stop();
  await database.close();
});
