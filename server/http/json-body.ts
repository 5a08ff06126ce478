import { json, raw, type RequestHandler } from 'express';
import { notJson, Problem } from './problem';
import { beyondBounds, DRIVE_BOUNDS, type JsonBounds, MOST_DRIVE_BYTES } from '@emery/core/drive';

/** Lists and files brought in, bytes. */
export const LARGE_BYTES = 20 * 1024 * 1024;
export { MOST_DRIVE_BYTES };

/**
 * Reads a JSON body of `limit` bytes at most. One that nests deeper or holds more values than `bounds` is refused
 * before it is parsed.
 */
export function jsonBody(limit: number, bounds: JsonBounds = DRIVE_BOUNDS): RequestHandler {
  return json({
    limit,
    verify: (_request, _response, body) => {
      within(body.toString('utf8'), bounds);
    },
  });
}

function within(text: string, bounds: JsonBounds): void {
  const beyond = beyondBounds(text, bounds);
  if (beyond) throw new Problem(422, 'Not accepted', `The request ${beyond}.`);
}

/** Takes a JSON body of `limit` bytes at most as it is, to be read by `readJson` beside the requests. */
export const rawBody = (limit: number): RequestHandler => raw({ type: 'application/json', limit });

/** The bytes that `rawBody` took; none where the request had no such body. */
export const bytesOf = (body: unknown): Uint8Array => (body instanceof Uint8Array ? body : new Uint8Array());

/** Reads JSON; refuses what `bounds` do not allow before it is parsed. */
export function readJson(bytes: Uint8Array, bounds: JsonBounds = DRIVE_BOUNDS): unknown {
  const text = new TextDecoder().decode(bytes);
  within(text, bounds);
  if (text === '') return {};
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw notJson((error as Error).message);
  }
}
