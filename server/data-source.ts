import { DataSource } from 'typeorm';
import { RESOURCES } from './resources';
import { alone } from './storage/alone';
import { type DatabaseAddress, readDatabaseAddress } from './storage/database-address';

/**
 * Connects to the MariaDB at `url` and brings its tables up to date. Makes the database where it is not there and may
 * be made.
 */
export async function connect(url: string): Promise<DataSource> {
  const address = readDatabaseAddress(url);
  const options = {
    type: 'mariadb' as const,
    ...address,
    charset: 'utf8mb4',
    timezone: 'Z',
    poolSize: 12,
    entities: RESOURCES.flatMap(({ entities = [] }) => entities),
    migrations: RESOURCES.flatMap(({ migrations = [] }) => migrations),
    migrationsRun: false,
    synchronize: false,
    logging: false,
  };
  const data = await new DataSource(options).initialize().catch(async (error: { code?: string }) => {
    if (error.code !== 'ER_BAD_DB_ERROR') throw error;
    await createDatabase(address);
    return new DataSource(options).initialize();
  });
  try {
    // Each statement can be run again, and each migration is noted by itself, so one that was cut off goes on where it
    // was.
    await alone(data, 'tables', async () => {
      await refuseNewer(data);
      await data.runMigrations({ transaction: 'each' });
    });
  } catch (error) {
    await data.destroy();
    throw error;
  }
  return data;
}

/**
 * A shop that a newer Emery has changed holds what this one does not know of, and would be spoiled by it: it is left as
 * it is.
 */
async function refuseNewer(data: DataSource): Promise<void> {
  const [there] = await data.query<object[]>("SHOW TABLES LIKE 'migrations'");
  if (!there) return;
  const known = new Set(data.migrations.map(({ name, constructor }) => name ?? constructor.name));
  const done = await data.query<{ name: string }[]>('SELECT name FROM migrations ORDER BY timestamp');
  const unknown = done.filter(({ name }) => !known.has(name)).map(({ name }) => name);
  if (unknown.length > 0)
    throw new Error(
      `this shop was changed by a newer Emery (${unknown.join(', ').slice(0, 200)}), which this one does not know. ` +
        'Nothing was changed. Start the newer one, or name another database',
    );
}

async function createDatabase({ database, ...server }: DatabaseAddress): Promise<void> {
  const data = await new DataSource({ type: 'mariadb', ...server }).initialize();
  try {
    await data.query(`CREATE DATABASE IF NOT EXISTS \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  } finally {
    await data.destroy();
  }
}
