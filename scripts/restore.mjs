import { randomBytes } from 'node:crypto';
import { closeSync, openSync, readSync, rmSync } from 'node:fs';
import { fromHere, passphraseOf, readArguments, ready, runKeep, withShopDatabase } from './lib/keep.mjs';
import { holdDatabase, openDatabase, putInPlace, restoringFolder, shopIsThere } from './lib/database.mjs';
import { main, SetupProblem } from './lib/run.mjs';

const USAGE =
  'Use: npm run restore -- FILE [--look], or --drive, --vehicle or --job with a name or an id to fetch one; [--passphrase-file FILE]';
const KINDS = ['drive', 'vehicle', 'job'];

const COUNTED = [
  ['vehicle', 'vehicle', 'vehicles'],
  ['drive', 'drive', 'drives'],
  ['job', 'job', 'jobs'],
  ['photo', 'picture', 'pictures'],
  ['record', 'record', 'records'],
  ['stock_belt', 'belt of the list', 'belts of the list'],
  ['person', 'person', 'people'],
];
const saidOf = ({ shop, rows }) =>
  `${shop || 'A shop without a name'}: ${COUNTED.filter(([table]) => rows[table] > 0)
    .map(([table, one, many]) => `${rows[table].toLocaleString('en')} ${rows[table] === 1 ? one : many}`)
    .join(', ')}`;
const whenOf = ({ writtenAt, emery }) => `${writtenAt.slice(0, 16).replace('T', ' ')} UTC, by Emery ${emery}`;

/** npm run restore -- FILE: the shop of a backup in place of the one here, which is kept aside; a look; one thing. */
await main(async () => {
  const text = { type: 'string' };
  const { values, positionals } = readArguments(
    { look: { type: 'boolean', default: false }, drive: text, vehicle: text, job: text },
    USAGE,
  );
  if (positionals.length !== 1) throw new SetupProblem(`name one backup. ${USAGE}`);
  const asked = KINDS.filter((kind) => values[kind] !== undefined);
  if (asked.length + (values.look ? 1 : 0) > 1) throw new SetupProblem(`one thing at a time. ${USAGE}`);
  const file = fromHere(positionals[0]);
  const passphrase = isSealed(file) ? await passphraseOf(values['passphrase-file'], { ask: true }) : undefined;
  await ready();
  if (values.look) return look(file, passphrase);
  if (asked.length === 1) return fetchOne(file, passphrase, { kind: asked[0], what: values[asked[0]] });
  if (process.env.EMERY_DATABASE_URL) return restoreElsewhere(file, passphrase);
  return restoreHere(file, passphrase);
});

function isSealed(file) {
  try {
    const start = Buffer.alloc(21);
    const descriptor = openSync(file);
    readSync(descriptor, start);
    closeSync(descriptor);
    return start.toString('latin1') === 'age-encryption.org/v1';
  } catch (error) {
    throw new SetupProblem(`${file} cannot be read (${error.code}).`);
  }
}

async function look(file, passphrase) {
  const backup = await runKeep({ task: 'check', file }, { passphrase, title: 'Reading the backup' });
  process.stdout.write(`The backup is whole. It was written ${whenOf(backup)}.\n  ${saidOf(backup)}\n`);
  const here = await hereNow();
  process.stdout.write(
    here === null
      ? 'There is no shop here that it would replace. Nothing was changed.\n'
      : `It would replace, and keep aside:\n  ${saidOf(here)}\nNothing was changed.\n`,
  );
}

/** What the shop here holds, or null where there is none. */
async function hereNow() {
  if (!process.env.EMERY_DATABASE_URL && !shopIsThere()) return null;
  const now = await withShopDatabase((url) => runKeep({ task: 'count' }, { url, title: 'Looking at the shop' }));
  return Object.keys(now.rows).length === 0 ? null : now;
}

async function fetchOne(file, passphrase, { kind, what }) {
  const got = await withShopDatabase((url) =>
    runKeep({ task: 'fetch', file, kind, what }, { url, passphrase, title: 'Reading the backup' }),
  );
  const parts = [
    [got.drives, 'drive'],
    [got.vehicles, 'vehicle'],
    [got.jobs, 'job'],
    [got.pictures, 'picture'],
  ]
    .filter(([n]) => n > 0)
    .map(([n, name]) => `${n} ${name}${n === 1 ? '' : 's'}`);
  const said = [
    parts.length > 0 ? `fetched: ${parts.join(', ')}` : '',
    got.back > 0 ? `no longer deleted: ${got.back}` : '',
    got.there > 0 ? `in the shop just so already: ${got.there}` : '',
  ].filter(Boolean);
  process.stdout.write(`${got.name}: ${said.join('; ') || 'all of it is in the shop already'}.\n`);
}

/** Into a folder of its own, which takes the place of the shop's once all of it is there. */
async function restoreHere(file, passphrase) {
  const held = await holdDatabase();
  if (!held)
    throw new SetupProblem(
      'Emery is running on this shop. Stop it (Ctrl+C where it runs), then restore. Nothing was changed.',
    );
  const making = restoringFolder(randomBytes(4).toString('hex'));
  try {
    const database = await openDatabase(making);
    const load = runKeep({ task: 'load', file }, { url: database.url('emery'), passphrase, title: 'Restoring' });
    const failed = await load.then(
      () => null,
      (error) => error,
    );
    const closed = await database.close();
    if (failed) throw failed;
    if (!closed) throw new SetupProblem('the new database did not stop; nothing was changed.');
    const backup = await load;
    const aside = putInPlace(making);
    process.stdout.write(
      `The shop is as it was ${whenOf(backup)}.\n  ${saidOf(backup)}\n` +
        (aside === null ? '' : `The shop that stood here is kept in ${aside}\n`) +
        'Start it with npm start.\n',
    );
  } catch (error) {
    rmSync(making, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
    throw error;
  } finally {
    held.close();
  }
}

/** Into the empty database that EMERY_DATABASE_URL names. */
async function restoreElsewhere(file, passphrase) {
  const url = process.env.EMERY_DATABASE_URL;
  const backup = await runKeep({ task: 'load', file }, { url, passphrase, title: 'Restoring' });
  process.stdout.write(`The shop is as it was ${whenOf(backup)}.\n  ${saidOf(backup)}\nStart it with npm start.\n`);
}
