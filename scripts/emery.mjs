import { buildCommandLine } from './lib/build.mjs';
import { ensureNpmPackages } from './lib/install.mjs';
import { main } from './lib/run.mjs';

/**
 * npm run emery: the command line, built once for this source. npm runs it in the project; a file is named from where
 * the user stands.
 */
await main(async () => {
  await ensureNpmPackages();
  process.env.EMERY_CALLED_FROM = process.env.INIT_CWD ?? process.cwd();
  await import(await buildCommandLine());
});
