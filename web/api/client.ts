import { heard, noAnswerWords, signedOut } from '../access/here';
import { heardFrom, showsKept } from '../offline/away';
import { keepAnswer, keptAnswer } from '../offline/kept-answers';
import type { EndedWhy } from '@emery/core/api';

/** A field the server did not accept. */
export interface FieldProblem {
  path: string;
  message: string;
}

/** What the server answered in problem+json, or that it did not answer at all (`status` 0). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly errors: FieldProblem[] = [],
    /** The rest of the body: the newer document of a 409, say. */
    readonly body: Record<string, unknown> = {},
  ) {
    super(detail);
  }

  /** True where the same request goes through once this device is signed in again. */
  get needsSignIn(): boolean {
    return this.status === 401;
  }

  /**
   * True where the same request may go through later: nobody there, the database away, its disk full, or a fault while
   * it was taken in.
   */
  get passing(): boolean {
    return this.status === 0 || this.status === 408 || this.status === 429 || this.status >= 500;
  }
}

/**
 * Asks the server; a file goes as it is, an archive. Resolves with the parsed body; rejects with an `ApiProblem`, or
 * with the reason of a `signal` that called it off. With nobody there, what was answered last is taken, where kept.
 */
export async function ask<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  let response: Response;
  let text: string;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body instanceof Blob
        ? { headers: { 'content-type': 'application/zip' }, body }
        : body !== undefined && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      ...(signal && { signal }),
    });
    heard(response.headers);
    text = await response.text();
    heardFrom(true);
  } catch (error) {
    const late = (error as Error).name === 'TimeoutError';
    if (signal?.aborted && !late) throw error;
    if (!late) heardFrom(false);
    const kept = method === 'GET' && !late ? await keptAnswer(path) : null;
    if (kept) {
      showsKept(kept.at);
      return JSON.parse(kept.text) as T;
    }
    throw new ApiProblem(0, 'No answer', late ? 'The Emery server takes too long to answer.' : noAnswerWords());
  }
  if (!response.ok) throw problemOf(response.status, text);
  try {
    const answer = (text === '' ? undefined : JSON.parse(text)) as T;
    if (method === 'GET' && answer !== undefined) void keepAnswer(path, text);
    return answer;
  } catch {
    throw new ApiProblem(0, 'No answer', 'The answer did not come from Emery.');
  }
}

export function problemOf(status: number, text: string): ApiProblem {
  try {
    const { title, detail, errors, ...body } = JSON.parse(text) as {
      title: string;
      detail: string;
      errors?: FieldProblem[];
    } & Record<string, unknown>;
    if (status === 401) signedOut.set({ why: (body['ended'] as EndedWhy | undefined) ?? 'none', words: detail });
    return new ApiProblem(status, title, detail, errors, body);
  } catch {
    return new ApiProblem(status, 'Fault', `The server answered ${status}.`);
  }
}
