import { createConnection } from 'mysql2/promise';
import { readDatabaseAddress } from '../storage/database-address';

const connected = (url: string, more: object = {}) => {
  const { username: user, ...address } = readDatabaseAddress(url);
  return createConnection({ ...address, user, timezone: 'Z', ssl: undefined, ...more } as never);
};

/** Runs a file of statements, as another program wrote it, in a database. */
export async function runSql(url: string, sql: string): Promise<void> {
  const connection = await connected(url, { multipleStatements: true });
  try {
    await connection.query(sql);
  } finally {
    await connection.end();
  }
}

/**
 * Everything in a database, read past Emery's own code: of each table how it is made (without the next number that it
 * gives), that number, and its rows as the database writes them.
 */
export async function rowsOf(url: string): Promise<Record<string, { made: string; next: unknown; rows: string[] }>> {
  const connection = await connected(url, {
    typeCast: ((field: { buffer: () => Buffer | null }) => field.buffer()) as never,
  });
  try {
    const [names] = (await connection.query('SHOW TABLES')) as unknown as [Record<string, Buffer>[]];
    const found: Awaited<ReturnType<typeof rowsOf>> = {};
    for (const row of names) {
      const name = String(Object.values(row)[0]);
      const [[shown]] = (await connection.query(`SHOW CREATE TABLE \`${name}\``)) as unknown as [
        Record<string, Buffer>[],
      ];
      const made = String(shown!['Create Table']);
      const [rows] = (await connection.query(`SELECT * FROM \`${name}\``)) as unknown as [
        Record<string, Buffer | null>[],
      ];
      found[name] = {
        made: made.replace(/ AUTO_INCREMENT=\d+/, ''),
        next: / AUTO_INCREMENT=(\d+)/.exec(made)?.[1] ?? null,
        rows: rows
          .map((one) =>
            Object.entries(one)
              .map(([key, value]) => `${key}=${value?.toString('hex') ?? 'NULL'}`)
              .join(' '),
          )
          .sort(),
      };
    }
    return found;
  } finally {
    await connection.end();
  }
}
