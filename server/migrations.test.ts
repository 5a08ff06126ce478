import type { DataSource } from 'typeorm';
import { type MigrationInterface, type QueryRunner } from 'typeorm';
import { connect } from './data-source';
import { firstRun } from './shop/demo';
import { THOROUGH } from '../core/test/draws';
import { freshDatabase } from './test/running';

/*
 * A start that is cut off between any two statements of any migration, on a shop with data: the next start carries on
 * and nothing is lost. The cut is made by the database itself, which ends the connection, as it would for a server that
 * was killed.
 */
test('every migration can be cut off after each of its statements and run again', async () => {
  const { names, statements } = await countedStatements();
  const cuts = statements.flatMap((count, index) => Array.from({ length: count }, (_, after) => ({ index, after })));
  expect(cuts.length).toBeGreaterThanOrEqual(names.length);
  // By default every eighth cut; in CI the same each time, as property tests have it there.
  const every = THOROUGH ? 1 : 8;
  const first = process.env['CI'] ? 0 : Math.floor(Math.random() * every);
  for (const { index, after } of cuts.filter((_, k) => k % every === first)) await cutOff(names, index, after);
}, 240_000);

type Named = new () => MigrationInterface;

/** When a migration was written, as its name has it: they are run in this order. */
const timeOf = ({ name }: Named) => Number(/\d+$/.exec(name)![0]);

/** How many statements each migration has, on a shop that has all before it. */
async function countedStatements(): Promise<{ names: Named[]; statements: number[] }> {
  const data = await connect(freshDatabase());
  await firstRun(data, true);
  // In the order in which they are run, whichever part of the server they are of.
  const names = data.migrations.map(({ constructor }) => constructor as Named).sort((a, b) => timeOf(a) - timeOf(b));
  const statements: number[] = [];
  for (const [index, Migration] of [...names.entries()].reverse()) {
    if (index >= FIRST_THAT_GOES_BACK) await run(data, (runner) => new Migration().down(runner));
    statements[index] = await run(data, async (runner) => {
      const query = jest.spyOn(runner, 'query');
      await new Migration().up(runner);
      return query.mock.calls.length;
    });
    if (index >= FIRST_THAT_GOES_BACK) await run(data, (runner) => new Migration().down(runner));
  }
  await data.destroy();
  return { names, statements };
}

/** The migrations before it made the tables that the shop is known by: going back would lose what it holds. */
const FIRST_THAT_GOES_BACK = 4;

async function cutOff(names: readonly Named[], index: number, after: number): Promise<void> {
  const url = freshDatabase();
  const made = await connect(url);
  await firstRun(made, true);
  const vehicles = await made.query<object[]>('SELECT id, name FROM vehicle ORDER BY id');
  const belts = await made.query<object[]>('SELECT COUNT(*) AS n FROM stock_belt');
  // Back to where the shop was before this migration, as far as it can be without losing what it holds.
  const Migration = names[index]!;
  await made.query('DELETE FROM migrations WHERE timestamp >= ?', [timeOf(Migration)]);
  if (index >= FIRST_THAT_GOES_BACK)
    for (const Later of names.slice(index).reverse()) await run(made, (runner) => new Later().down(runner));
  let statements = 0;
  const passed: string[] = [];
  await run(made, async (runner) => {
    const query = runner.query.bind(runner);
    runner.query = (async (sql: string, parameters?: unknown[]) => {
      if (statements === after) await query('KILL CONNECTION_ID()').catch(() => undefined);
      statements += 1;
      const ran = query(sql, parameters) as Promise<unknown>;
      ran.then(
        () => statements > after && passed.push(sql),
        () => undefined,
      );
      return ran;
    }) as typeof runner.query;
    await new Migration().up(runner).catch(() => undefined);
  });
  expect(statements).toBeGreaterThan(after);
  expect(passed).toEqual([]);
  await made.destroy();
  const again = await connect(url);
  expect(await again.query('SELECT id, name FROM vehicle ORDER BY id')).toEqual(vehicles);
  expect(await again.query('SELECT COUNT(*) AS n FROM stock_belt')).toEqual(belts);
  expect(await again.showMigrations()).toBe(false);
  await again.query(`DROP DATABASE ${new URL(url).pathname.slice(1)}`);
  await again.destroy();
}

test('two that start at once on a new shop make it once', async () => {
  const url = freshDatabase();
  const both = await Promise.all([connect(url), connect(url)]);
  await Promise.all(both.map((data) => firstRun(data, true)));
  expect(await both[0].query('SELECT COUNT(*) AS n FROM vehicle')).toEqual([{ n: '6' }]);
  await Promise.all(both.map((data) => data.destroy()));
});

async function run<T>(data: DataSource, work: (runner: QueryRunner) => Promise<T>): Promise<T> {
  const runner = data.createQueryRunner();
  try {
    return await work(runner);
  } finally {
    await runner.release().catch(() => undefined);
  }
}
