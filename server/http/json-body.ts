import { json, type RequestHandler } from 'express';
import { Problem } from './problem';
import { beyondBounds, DRIVE_BOUNDS, type JsonBounds } from '@emery/core/drive';

/** No drive is larger, as it is saved or brought in, bytes of JSON without spaces. */
/** Lists and files brought in, bytes. */
export const LARGE_BYTES = 20 * 1024 * 1024;
export const MOST_DRIVE_BYTES = 1024 * 1024;

/**
 * Reads a JSON body of `limit` bytes at most. One that nests deeper or holds more values than `bounds` is refused
 * before it is parsed.
 */
export function jsonBody(limit: number, bounds: JsonBounds = DRIVE_BOUNDS): RequestHandler {
  return json({
    limit,
    verify: (_request, _response, body) => {
      const beyond = beyondBounds(body.toString('utf8'), bounds);
      if (beyond) throw new Problem(422, 'Not accepted', `The request ${beyond}.`);
    },
  });
}
