import type { DataSource } from 'typeorm';
import { Problem } from '../http/problem';
import { inLine, type Lines } from './in-line';

/** Longest that one waits for another to be done, s. */
const WAIT_S = 120;

const lines: Lines = new Map();

/**
 * Runs `work` while no other process and no other request runs the same on this database. The database lets go by
 * itself should this process end. Those of one process stand in line before they ask the database: each that waits
 * there holds a connection, and all of them waiting would leave none for the one that works.
 */
export async function alone<T>(data: DataSource, what: string, work: () => Promise<T>): Promise<T> {
  const name = `/${String(data.options.database)} ${what}`.slice(-64);
  return inLine(lines, name, () => locked(data, name, what, work));
}

async function locked<T>(data: DataSource, name: string, what: string, work: () => Promise<T>): Promise<T> {
  const runner = data.createQueryRunner();
  try {
    const [{ got }] = (await runner.query('SELECT GET_LOCK(?, ?) AS got', [name, WAIT_S])) as [
      { got: string | number | null },
    ];
    if (Number(got) !== 1)
      throw new Problem(503, 'Busy', `Another Emery is still at the ${what} of this shop. Try again in a moment.`);
    try {
      return await work();
    } finally {
      // A connection that was lost has let go by itself, and what the work failed with is what is to be told.
      await runner.query('SELECT RELEASE_LOCK(?)', [name]).catch(() => undefined);
    }
  } finally {
    await runner.release();
  }
}
