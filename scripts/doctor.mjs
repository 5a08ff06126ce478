import { readArguments, ready, runKeep, withShopDatabase } from './lib/keep.mjs';
import { main, SetupProblem } from './lib/run.mjs';

const USAGE = 'Use: npm run doctor [-- --mend]';
const MARKS = { mended: 'mended', mendable: 'can be mended', open: 'a person is to look at it', told: 'harmless' };

/** npm run doctor: looks at every row of the shop, and with --mend makes anew what is made out of other rows. */
await main(async () => {
  const { values, positionals } = readArguments({ mend: { type: 'boolean', default: false } }, USAGE);
  if (positionals.length > 0) throw new SetupProblem(`nothing is to be named. ${USAGE}`);
  await ready();
  const { looked, found } = await withShopDatabase((url) =>
    runKeep({ task: 'doctor', mend: values.mend }, { url, title: 'Looking at the shop' }),
  );
  const counts = Object.entries(looked).map(([kind, n]) => `${n.toLocaleString('en')} ${kind}`);
  process.stdout.write(`Looked at ${counts.join(', ')}.\n`);
  for (const { says, state } of found) process.stdout.write(`  ${says} (${MARKS[state]})\n`);
  const ill = found.filter(({ state }) => state === 'open' || state === 'mendable');
  if (ill.length === 0) {
    process.stdout.write(found.length === 0 ? 'All of it is sound.\n' : 'The rest is sound.\n');
    return;
  }
  const mendable = ill.some(({ state }) => state === 'mendable');
  const open = ill.some(({ state }) => state === 'open');
  throw new SetupProblem(
    [
      `${ill.length} ${ill.length === 1 ? 'thing is' : 'things are'} not sound.`,
      mendable ? 'Make a backup, then npm run doctor -- --mend.' : '',
      open ? 'What a person is to look at can be fetched out of a backup: npm run restore -- FILE --drive ID.' : '',
    ]
      .filter(Boolean)
      .join(' '),
  );
});
