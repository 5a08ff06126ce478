import { DataSource } from 'typeorm';
import { RESOURCES } from './resources';
import { alone } from './storage/alone';
import { migrationsAhead, upgrade, type UpgradeOptions, UpgradeProblem } from './storage/upgrade';
import { UPGRADE } from './storage/words';
import { type DatabaseAddress, readDatabaseAddress } from './storage/database-address';

/** Everything that TypeORM is to know of the MariaDB at `url`. */
export function optionsOf(url: string) {
  return {
    type: 'mariadb' as const,
    ...readDatabaseAddress(url),
    charset: 'utf8mb4',
    timezone: 'Z',
    poolSize: 12,
    entities: RESOURCES.flatMap(({ entities = [] }) => entities),
    migrations: RESOURCES.flatMap(({ migrations = [] }) => migrations),
    migrationsRun: false,
    synchronize: false,
    logging: false,
  };
}

/** Connects to the MariaDB at `url` and leaves its tables as they are. Makes the database where it is not there. */
export async function openUnchanged(url: string): Promise<DataSource> {
  const options = optionsOf(url);
  return new DataSource(options).initialize().catch(async (error: { code?: string }) => {
    if (error.code !== 'ER_BAD_DB_ERROR') throw error;
    await createDatabase(readDatabaseAddress(url));
    return new DataSource(options).initialize();
  });
}

/**
 * Opens a shop that is up to date, for work beside the server. One of an earlier Emery is left to `npm start`, which
 * makes a backup before it changes anything.
 */
export async function openUpToDate(url: string): Promise<DataSource> {
  const data = await openUnchanged(url);
  try {
    const ahead = (await migrationsAhead(data)).length;
    if (ahead > 0) throw new UpgradeProblem(UPGRADE.startFirst);
    return data;
  } catch (error) {
    await data.destroy();
    throw error;
  }
}

/**
 * Connects to the MariaDB at `url` and brings its tables up to date. Makes the database where it is not there and may
 * be made. A shop that cannot be brought up to date is left as it was.
 */
export async function connect(url: string, options: UpgradeOptions = {}): Promise<DataSource> {
  const data = await openUnchanged(url);
  try {
    await alone(data, 'tables', () => upgrade(data, options));
  } catch (error) {
    await data.destroy();
    throw error;
  }
  return data;
}

async function createDatabase({ database, ...server }: DatabaseAddress): Promise<void> {
  const data = await new DataSource({ type: 'mariadb', ...server }).initialize();
  try {
    await data.query(`CREATE DATABASE IF NOT EXISTS \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  } finally {
    await data.destroy();
  }
}
