import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { buildInterface } from './lib/build.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { main } from './lib/run.mjs';

/** npm run bench: prints how fast the parts are that a mechanic waits for. Nothing is asserted.
 * Parts may be named: `npm run bench -- solve page`.
 */
await main(async () => {
  await ensureNpmPackages();
  await ensurePrograms([...DATABASE_PROGRAMS, 'chromium']);
  await buildInterface();
  const { status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', path.join(ROOT, 'benchmarks', 'main.ts'), ...process.argv.slice(2)],
    {
      stdio: 'inherit',
      cwd: ROOT,
    },
  );
  process.exitCode = status ?? 1;
});
