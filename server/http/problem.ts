import type {} from 'pino-http';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ValidationError, type Schema } from './fields';
import type { DriveProblem } from '@emery/core/drive';

/** An error as the client gets it: problem+json, RFC 9457, with `errors` naming fields and `more` laid beside. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: DriveProblem[] = [],
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

export const notFound = (what: string) =>
  new Problem(404, 'Not found', `This ${what} is not in the shop. It may have been deleted.`);

/** Reads a request body by its schema; what does not fit is a 422 that names every field. */
export async function bodyOf<T>(schema: Schema<T>, body: unknown): Promise<T> {
  try {
    return await schema.validate(body ?? {}, { abortEarly: false, strict: true, disableStackTrace: true });
  } catch (error) {
    throw asInvalid(error);
  }
}

/** The same at once, for what is read in a thread beside the requests. */
export function readBody<T>(schema: Schema<T>, body: unknown): T {
  try {
    return schema.validateSync(body ?? {}, { abortEarly: false, strict: true, disableStackTrace: true }) as T;
  } catch (error) {
    throw asInvalid(error);
  }
}

function asInvalid(error: unknown): unknown {
  if (!(error instanceof ValidationError)) return error;
  const inner = error.inner.length > 0 ? error.inner : [error];
  return invalid(inner.map(({ path, message }) => ({ path: path ?? '', message })));
}

/** More would not be read. */
const MOST_ERRORS = 20;

export function invalid(errors: DriveProblem[]): Problem {
  const faults = errors
    .slice(0, MOST_ERRORS)
    .map(({ path, message }) => ({ path: line(path), message: line(message) }));
  const { path, message } = faults[0]!;
  return new Problem(422, 'Not accepted', `${path} ${message}`.trim(), faults);
}

/** A refusal is one line that is read at a glance, whatever was sent. */
const LONGEST_LINE = 300;
const line = (text: string): string => {
  const name = text.replace(/\s+/g, ' ').trim();
  return name.length > LONGEST_LINE ? `${name.slice(0, LONGEST_LINE)} …` : name;
};

export const notJson = (why: string) => new Problem(400, 'Not JSON', line(`The request is not JSON: ${why}`));

export const unknownAddress: RequestHandler = (request) => {
  throw new Problem(404, 'Not found', `There is nothing at ${request.path}.`);
};

/** Codes of a database whose disk is full; 28 is the system's own number of it. */
const FULL = new Set([
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_TEMP_FILE_WRITE_FAILURE',
  'ENOSPC',
]);
/** Codes of a database that is away for the moment: the same request may go through later. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'POOL_ENQUEUELIMIT',
  'ER_QUERY_INTERRUPTED',
  'ER_CONNECTION_KILLED',
]);

/** What the driver says, without a code, of a connection that was lost before it was asked. */
const CLOSED = /connection is in closed state/i;

/** Codes of a database where others hold what is wanted. */
const HELD = new Set(['ER_LOCK_WAIT_TIMEOUT', 'ER_LOCK_DEADLOCK', 'ER_CHECKREAD']);

export const busy = () =>
  new Problem(503, 'Busy', 'Somebody else is changing this right now. Nothing is lost; try again in a moment.');

export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  // Told already, as when the database did not answer: who comes late with it is not heard.
  if (response.writableEnded) return;
  if (response.headersSent) return next(error);
  const problem = asProblem(error);
  if (problem.status >= 500) request.log?.error(withoutContents(error));
  const { status, title, detail, errors, more } = problem;
  if (status === 503) response.set('Retry-After', '1');
  if (status === 429) response.set('Retry-After', String(more['retryAfterS'] ?? 1));
  response.status(status).type('application/problem+json');
  response.send(
    JSON.stringify({ type: 'about:blank', title, status, detail, ...(errors.length > 0 && { errors }), ...more }),
  );
};

/** Faults of the program's own, whose messages speak of its code and not of what it was working on. */
const OWN = new Set(['TypeError', 'RangeError', 'ReferenceError', 'AssertionError']);

/** What the log keeps of an error: what kind and where, and nothing of what was being saved. */
export function withoutContents(error: unknown): object {
  const { name, code, errno, message, stack } = error as {
    name?: string;
    code?: string;
    errno?: number;
    message?: string;
    stack?: string;
  };
  const frames = (stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 12)
    .map((line) => line.trim());
  return {
    fault: {
      name,
      code,
      errno,
      ...(name !== undefined && OWN.has(name) && { message: message?.slice(0, 200) }),
      frames,
    },
  };
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { type, status, limit, code, message } = error as {
    type?: string;
    status?: number;
    limit?: number;
    code?: string;
    message?: string;
  };
  if (type === 'entity.too.large')
    return new Problem(413, 'Too large', `This is over the limit of ${Math.round((limit ?? 0) / 1024 / 1024)} MB.`);
  if (type === 'entity.parse.failed') return notJson(message ?? '');
  // A file that is not there is told by the path it has on this machine, which is nobody's business.
  if (status === 404) return new Problem(404, 'Not found', 'There is nothing at this address.');
  if (status !== undefined && status >= 400 && status < 500)
    return new Problem(status, 'Not accepted', line(message ?? 'The request cannot be read.'));
  if (code !== undefined && (FULL.has(code) || /errno: 28|error 28\b|No space left/i.test(message ?? '')))
    return new Problem(
      507,
      'Disk full',
      'The disk that holds the shop is full. Free some space; nothing saved is lost, and this works once there is space.',
    );
  if (code !== undefined && HELD.has(code)) return busy();
  if ((code !== undefined && AWAY.has(code)) || CLOSED.test(message ?? ''))
    return new Problem(
      503,
      'Database not reachable',
      'The database is not answering. Nothing is lost; try again in a moment.',
    );
  return new Problem(500, 'Fault in Emery', 'Something went wrong in Emery. It is in the log.');
}
