import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ValidationError, type Schema } from 'yup';
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

export const notFound = (what: string) => new Problem(404, 'Not found', `This ${what} is not in the shop. It may have been deleted.`);

/** Reads a request body by its schema; what does not fit is a 422 that names every field. */
export async function bodyOf<T>(schema: Schema<T>, body: unknown): Promise<T> {
  try {
    return await schema.validate(body, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    throw invalid(inner.map(({ path, message }) => ({ path: path ?? '', message })));
  }
}

export function invalid(errors: DriveProblem[]): Problem {
  const { path, message } = errors[0]!;
  return new Problem(422, 'Not accepted', `${path} ${message}`.trim(), errors);
}

export const unknownAddress: RequestHandler = (request) => {
  throw new Problem(404, 'Not found', `There is nothing at ${request.path}.`);
};

/** Codes of a database that is away for the moment: the same request may go through later. */
const AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN', 'ER_CON_COUNT_ERROR']);

export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) return next(error);
  const problem = asProblem(error);
  if (problem.status >= 500) request.log?.error(error);
  const { status, title, detail, errors, more } = problem;
  if (status === 503) response.set('Retry-After', '1');
  response.status(status).type('application/problem+json');
  response.send(JSON.stringify({ type: 'about:blank', title, status, detail, ...(errors.length > 0 && { errors }), ...more }));
};

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { type, status, limit, code, message } = error as { type?: string; status?: number; limit?: number; code?: string; message?: string };
  if (type === 'entity.too.large') return new Problem(413, 'Too large', `This is over the limit of ${Math.round((limit ?? 0) / 1024 / 1024)} MB.`);
  if (type === 'entity.parse.failed') return new Problem(400, 'Not JSON', `The request is not JSON: ${message ?? ''}`);
  if (status !== undefined && status >= 400 && status < 500) return new Problem(status, 'Not accepted', message ?? 'The request cannot be read.');
  if (code !== undefined && AWAY.has(code)) return new Problem(503, 'Database away', 'The database is not answering just now. Nothing is lost; try again in a moment.');
  return new Problem(500, 'Fault in Emery', 'Something went wrong in Emery. It is in the log.');
}
