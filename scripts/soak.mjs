import path from 'node:path';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { main, run, SetupProblem } from './lib/run.mjs';

/** npm run soak -- 1000: so many changes to a shop of its own while all of it is killed at random, and restored. */
await main(async () => {
  const [changes = '1000', ...more] = process.argv.slice(2);
  if (!/^[1-9]\d{0,5}$/.test(changes) || more.length > 0)
    throw new SetupProblem('say how many changes, from 1 to 999,999: npm run soak -- 1000');
  await ensureNpmPackages();
  await ensurePrograms(DATABASE_PROGRAMS);
  const soak = path.join(ROOT, 'server', 'test', 'soak.ts');
  const { code } = await run(process.execPath, ['--import', 'tsx', soak, changes], { cwd: ROOT });
  if (code !== 0) throw new SetupProblem('the shop did not come through it.');
});
