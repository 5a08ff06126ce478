import type { DataSource } from 'typeorm';
import { UPGRADE } from './words';

/** What a shop of an earlier Emery is brought up to date by. */
export interface UpgradeOptions {
  /** Done before anything of a shop that is there is changed; where it fails nothing is. */
  before?: (data: DataSource) => Promise<void>;
}

/** A shop that could not be brought up to date, in a line for the person at the terminal. */
export class UpgradeProblem extends Error {}

/**
 * Runs the migrations that the shop has not passed. Each statement can be run again, and each migration is noted by
 * itself, so one that was cut off goes on where it was. One that fails is taken back with those before it in this run:
 * the shop is then as it was, and the Emery before this one opens it.
 */
export async function upgrade(data: DataSource, { before }: UpgradeOptions): Promise<void> {
  const passed = await refuseNewer(data);
  const ahead = notPassed(data, passed);
  if (ahead.length === 0) return;
  if (passed.size > 0)
    await before?.(data).catch((error: Error) => {
      throw new UpgradeProblem(UPGRADE.noBackup(error.message), { cause: error });
    });
  try {
    await data.runMigrations({ transaction: 'each' });
  } catch (error) {
    if (passed.size === 0) throw error;
    const left = await takeBack(data, passed);
    throw new UpgradeProblem(UPGRADE.failed((error as Error).message, left), { cause: error });
  }
}

const notPassed = (data: DataSource, passed: ReadonlySet<string>) =>
  data.migrations.filter(({ name, constructor }) => !passed.has(name ?? constructor.name));

/** The migrations that a shop has still to pass; refuses one that a newer Emery has changed. */
export const migrationsAhead = async (data: DataSource) => notPassed(data, await refuseNewer(data));

/** Goes back to the migrations that the shop had passed. Returns why that could not be done, or null. */
async function takeBack(data: DataSource, passed: ReadonlySet<string>): Promise<string | null> {
  const timeOf = (name: string) => Number(/\d+$/.exec(name)?.[0] ?? 0);
  const runner = data.createQueryRunner();
  try {
    const names = data.migrations
      .map((migration) => ({ migration, name: migration.name ?? migration.constructor.name }))
      .filter(({ name }) => !passed.has(name))
      .sort((a, b) => timeOf(b.name) - timeOf(a.name));
    // The one that failed may have done a part; those after it did nothing, and taking nothing back does no harm.
    for (const { migration, name } of names) {
      await migration.down(runner);
      await runner.query('DELETE FROM migrations WHERE name = ?', [name]);
    }
    return null;
  } catch (error) {
    return (error as Error).message;
  } finally {
    await runner.release().catch(() => undefined);
  }
}

/**
 * A shop that a newer Emery has changed holds what this one does not know of, and would be spoiled by it: it is left as
 * it is.
 */
async function refuseNewer(data: DataSource): Promise<ReadonlySet<string>> {
  const [there] = await data.query<object[]>("SHOW TABLES LIKE 'migrations'");
  if (!there) return new Set();
  const known = new Set(data.migrations.map(({ name, constructor }) => name ?? constructor.name));
  const done = await data.query<{ name: string }[]>('SELECT name FROM migrations ORDER BY timestamp');
  const unknown = done.filter(({ name }) => !known.has(name)).map(({ name }) => name);
  if (unknown.length > 0) throw new Error(UPGRADE.newer(unknown.join(', ').slice(0, 200)));
  return new Set(done.map(({ name }) => name));
}
