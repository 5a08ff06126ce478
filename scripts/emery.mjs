import { ensureNpmPackages } from './lib/install.mjs';
import { main } from './lib/run.mjs';

/**
 * npm run emery: the command line, from source. npm runs it in the project; a file is named from where the user stands.
 */
await main(async () => {
  await ensureNpmPackages();
  const { register } = await import('tsx/esm/api');
  register();
  process.env.EMERY_CALLED_FROM = process.env.INIT_CWD ?? process.cwd();
  await import('../cli/main.ts');
});
