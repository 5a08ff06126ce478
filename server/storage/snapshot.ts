import type { DataSource, EntityManager } from 'typeorm';

/** Gives what `pages` gives, read as all of it was at one moment, whatever is saved meanwhile. */
export async function* inSnapshot<T>(
  data: DataSource,
  pages: (manager: EntityManager) => AsyncGenerator<T>,
): AsyncGenerator<T> {
  const runner = data.createQueryRunner();
  try {
    await runner.startTransaction('REPEATABLE READ');
    yield* pages(runner.manager);
  } finally {
    if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => undefined);
    await runner.release();
  }
}
