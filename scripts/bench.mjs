import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { buildInterface } from './lib/build.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { main } from './lib/run.mjs';

/** npm run bench: prints how fast the parts are that a mechanic waits for. Nothing is asserted. */
await main(async () => {
  await ensureNpmPackages();
  await ensurePrograms([...DATABASE_PROGRAMS, 'chromium']);
  await buildInterface();
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', path.join(ROOT, 'bench', 'main.ts')], {
    stdio: 'inherit',
    cwd: ROOT,
  });
  process.exitCode = status ?? 1;
});
