import { existsSync } from 'node:fs';
import { fromHere, passphraseOf, readArguments, ready, runKeep, withShopDatabase } from './lib/keep.mjs';
import { main, SetupProblem } from './lib/run.mjs';

const USAGE = 'Use: npm run backup -- FILE [--seal] [--passphrase-file FILE] [--replace]';

/** npm run backup -- FILE: all that the shop holds, as it is now, in one file; while people work or not. */
await main(async () => {
  const { values, positionals } = readArguments(
    { seal: { type: 'boolean', default: false }, replace: { type: 'boolean', default: false } },
    USAGE,
  );
  if (positionals.length !== 1) throw new SetupProblem(`name one file to write. ${USAGE}`);
  const file = fromHere(positionals[0]);
  if (existsSync(file) && !values.replace)
    throw new SetupProblem(`${file} is there already. Name another, or add --replace.`);
  const wanted = values.seal || values['passphrase-file'] !== undefined;
  const passphrase = wanted ? await passphraseOf(values['passphrase-file'], { ask: true, twice: true }) : undefined;
  if (wanted && passphrase === undefined)
    throw new SetupProblem('there is no passphrase: set EMERY_BACKUP_PASSPHRASE, or name --passphrase-file FILE.');
  await ready();
  const started = Date.now();
  const { size } = await withShopDatabase((url) =>
    runKeep({ task: 'backup', file }, { url, passphrase, title: 'Writing the backup' }),
  );
  const seconds = ((Date.now() - started) / 1000).toFixed(1);
  process.stdout.write(
    `The whole shop is in ${file}, ${size}${passphrase === undefined ? '' : ', sealed'}; written, read back and verified in ${seconds} s.\n` +
      (passphrase === undefined
        ? 'It holds everything, people and prices too: keep it where only you reach it, or seal it (--seal).\n'
        : 'Without the passphrase nobody opens it, and neither do you: keep that somewhere else.\n'),
  );
});
