import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureNpmPackages } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { main } from './lib/run.mjs';

/** npm run emery: the command line, from source. npm runs it in the project; a file is named from where the user stands. */
await main(async () => {
  await ensureNpmPackages();
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', path.join(ROOT, 'cli', 'main.ts'), ...process.argv.slice(2)], {
    stdio: 'inherit',
    // Loaders are found from the project; the command itself works in the caller's folder.
    cwd: ROOT,
    env: { ...process.env, EMERY_CALLED_FROM: process.env.INIT_CWD ?? process.cwd() },
  });
  process.exitCode = status ?? 1;
});
