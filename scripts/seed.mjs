import path from 'node:path';
import { openDatabase } from './lib/database.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { main, run, SetupProblem, step } from './lib/run.mjs';

/** The most vehicles that are added at once. */
const MOST = 50_000;

/** npm run seed -- 200: 200 more vehicles with four drives each in your own shop, to try how a large one feels. */
await main(async () => {
  const [asked, ...more] = process.argv.slice(2);
  const count = Number(asked);
  if (!Number.isInteger(count) || count < 1 || count > MOST || more.length > 0)
    throw new SetupProblem(`say how many vehicles, from 1 to ${MOST.toLocaleString('en')}: npm run seed -- 200`);
  await ensureNpmPackages();
  await ensurePrograms(DATABASE_PROGRAMS);
  const database = await openDatabase();
  try {
    await step(`Adding ${count === 1 ? '1 vehicle' : `${count} vehicles`}`, async () => {
      const { code, output } = await run(
        process.execPath,
        ['--import', 'tsx', path.join(ROOT, 'server', 'shop', 'seed.ts'), String(count)],
        { quiet: true, cwd: ROOT, env: { ...process.env, EMERY_DATABASE_URL: database.url('emery') } },
      );
      if (code !== 0) throw new SetupProblem(`they could not be added:\n${output.trim()}`);
    });
  } finally {
    await database.close();
  }
});
