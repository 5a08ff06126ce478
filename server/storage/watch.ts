import type { Socket } from 'node:net';
import type { RequestHandler, Response } from 'express';
import { type Connection, createConnection, type Pool } from 'mysql2';
import type { DataSource } from 'typeorm';
import type { DatabaseAddress } from './database-address';
import { Problem, problemHandler } from '../http/problem';

/** Between two looks whether the database answers, ms. */
const LOOK_MS = 1000;
/** One that has left so many looks in a row without an answer is not answering: a loop that was held up looks once. */
const MOST_LOOKS = 3;
/** A connection that is not made by then is not made, ms. */
const LONGEST_MS = 10_000;

const away = () =>
  new Problem(503, 'Database not reachable', 'The database is not answering. Nothing is lost; try again in a moment.');

export interface Watch {
  /** Answers for whoever waits on a database that does not answer; put before all that asks it. */
  guard: RequestHandler;
  stop: () => void;
}

/**
 * Watches the database by a connection of its own: one that is frozen takes what it is asked and never answers, and who
 * asked would wait for ever. All who wait are told within five seconds, and whoever comes until it answers again at
 * once.
 */
export function watchDatabase(data: DataSource): Watch {
  const waiting = new Set<Response>();
  const theirs = connectionsOf(data);
  let own: Connection | null = null;
  let asked = false;
  let unanswered = 0;
  let frozen = false;

  const drop = () => {
    own?.destroy();
    own = null;
    asked = false;
  };
  const look = () => {
    if (asked) {
      unanswered += 1;
      if (unanswered === MOST_LOOKS) {
        frozen = true;
        for (const response of waiting) tell(response);
        // What waits for an answer in there is let go; whoever wrote is told, and the database takes it back.
        for (const { stream } of theirs) stream.destroy();
      }
      // Cut off without a word, it may be: another connection finds out.
      if (unanswered % 10 === 0) drop();
      else return;
    }
    asked = true;
    unanswered = frozen ? MOST_LOOKS + 1 : 0;
    const mine = (own ??= connected(data));
    mine.ping((error) => {
      if (mine !== own) return;
      asked = false;
      // One that is gone says so to everybody at once; this is for those that say nothing.
      if (error?.code !== 'ETIMEDOUT') frozen = false;
      if (error) drop();
    });
  };
  const timer = setInterval(look, LOOK_MS);
  timer.unref();

  return {
    guard: (request, response, next) => {
      // It tells for itself.
      if (request.path.startsWith('/health')) return next();
      if (frozen) throw away();
      waiting.add(response);
      response.on('close', () => waiting.delete(response));
      next();
    },
    stop: () => {
      clearInterval(timer);
      drop();
    },
  };
}

/** The connections that the pool holds, as it makes and loses them. */
function connectionsOf(data: DataSource): ReadonlySet<Connection & { stream: Socket }> {
  const open = new Set<Connection & { stream: Socket }>();
  // The pool tells of each connection that it makes; TypeORM has no type for it, and mysql2 none for its stream.
  const { pool } = data.driver as unknown as { pool: Pool };
  pool.on('connection', (made) => {
    const connection = made as unknown as Connection & { stream: Socket };
    open.add(connection);
    connection.on('end', () => open.delete(connection));
    connection.on('error', () => open.delete(connection));
  });
  return open;
}

function connected(data: DataSource): Connection {
  const { host, port, username: user, password, database, ssl } = data.options as unknown as DatabaseAddress;
  const made = createConnection({
    host,
    port,
    user,
    password,
    database,
    ...(ssl && { ssl }),
    connectTimeout: LONGEST_MS,
  });
  // Told by the ping as well.
  made.on('error', () => undefined);
  return made;
}

/** Tells that the database is away, in place of whoever was about to answer. */
function tell(response: Response): void {
  problemHandler(away(), response.req, response, () => undefined);
}
