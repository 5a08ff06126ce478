import type { DataSource, EntityManager } from 'typeorm';

/** A transaction that sees all as it was at its first look. */
export const AT_ONE_MOMENT = 'REPEATABLE READ';

/** Gives what `pages` gives, read as all of it was at one moment, whatever is saved meanwhile. */
export async function* inSnapshot<T>(
  data: DataSource,
  pages: (manager: EntityManager) => AsyncGenerator<T>,
): AsyncGenerator<T> {
  const runner = data.createQueryRunner();
  try {
    await runner.startTransaction(AT_ONE_MOMENT);
    yield* pages(runner.manager);
  } finally {
    if (runner.isTransactionActive) await runner.rollbackTransaction().catch(() => undefined);
    await runner.release();
  }
}
