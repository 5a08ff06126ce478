import type { DataSource } from 'typeorm';
import { type MigrationInterface, type QueryRunner } from 'typeorm';
import { connect } from './data-source';
import { firstRun } from './shop/demo';
import { freshDatabase } from './test/running';

/*
 * A start that is cut off between any two statements of any migration, on a shop with data: the next start carries on
 * and nothing is lost. The cut is made by the database itself, which ends the connection, as it would for a server that
 * was killed.
 */
test('every migration can be cut off after each of its statements and run again', async () => {
  // How many statements each has, on a shop that has all before it.
  const whole = await connect(freshDatabase());
  const names = whole.migrations.map(({ constructor }) => constructor as new () => MigrationInterface);
  await whole.destroy();
  let cuts = 0;
  for (const [index, Migration] of names.entries()) {
    for (let after = 0; ; after += 1) {
      const url = freshDatabase();
      const made = await connect(url);
      await firstRun(made, true);
      const vehicles = await made.query<object[]>('SELECT id, name FROM vehicle ORDER BY id');
      const belts = await made.query<object[]>('SELECT COUNT(*) AS n FROM stock_belt');
      // Back to where the shop was before this migration, as far as it can be without losing what it holds.
      await made.query('DELETE FROM migrations WHERE name >= ?', [new Migration().name]);
      if (index >= 4)
        for (const later of names.slice(index).reverse()) await run(made, (runner) => new later().down(runner));
      let statements = 0;
      const passed: string[] = [];
      const cut = await run(made, async (runner) => {
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
      expect([cut, passed]).toEqual([undefined, []]);
      await made.destroy();
      const again = await connect(url);
      expect(await again.query('SELECT id, name FROM vehicle ORDER BY id')).toEqual(vehicles);
      expect(await again.query('SELECT COUNT(*) AS n FROM stock_belt')).toEqual(belts);
      expect(await again.showMigrations()).toBe(false);
      await again.query(`DROP DATABASE ${new URL(url).pathname.slice(1)}`);
      await again.destroy();
      if (statements <= after) break;
      cuts += 1;
    }
  }
  expect(cuts).toBeGreaterThanOrEqual(names.length);
}, 240_000);

test('two that start at once on a new shop make it once', async () => {
  const url = freshDatabase();
  const both = await Promise.all([connect(url), connect(url)]);
  await Promise.all(both.map((data) => firstRun(data, true)));
  expect(await both[0].query('SELECT COUNT(*) AS n FROM vehicle')).toEqual([{ n: '6' }]);
  await Promise.all(both.map((data) => data.destroy()));
});

async function run(data: DataSource, work: (runner: QueryRunner) => Promise<unknown>): Promise<unknown> {
  const runner = data.createQueryRunner();
  try {
    return await work(runner);
  } finally {
    await runner.release().catch(() => undefined);
  }
}
