import type { DataSource } from 'typeorm';
import { alone } from './alone';

/** A database whose connection is lost once the work has begun. */
const losing = (answers: (sql: string) => Promise<unknown>) =>
  ({
    options: { database: 'x' },
    createQueryRunner: () => ({ query: answers, release: () => Promise.resolve() }),
  }) as unknown as DataSource;

test('what the work failed with is told, and not that a lost connection could not let go as well', async () => {
  const lost = Object.assign(new Error('Connection lost'), { code: 'PROTOCOL_CONNECTION_LOST' });
  const data = losing((sql) =>
    sql.includes('RELEASE_LOCK')
      ? Promise.reject(new Error("Can't add new command when connection is in closed state"))
      : Promise.resolve([{ got: '1' }]),
  );
  await expect(alone(data, 'import', () => Promise.reject(lost))).rejects.toBe(lost);
  // The database lets go by itself with the connection: what was done stays done.
  await expect(alone(data, 'import', () => Promise.resolve('done'))).resolves.toBe('done');
});
