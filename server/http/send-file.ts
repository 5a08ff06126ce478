import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';

export const attach = (response: Response, name: string, type: string): Response =>
  response.type(type).set('Content-Disposition', `attachment; filename="${name}"`);

/**
 * Sends a file as it comes, as fast as it is taken. What goes wrong before the first of it is told as any fault is;
 * afterwards the answer is cut off, so that half a file never looks like a whole one.
 */
export async function sendFile(
  response: Response,
  { name, type }: { name: string; type: string },
  pieces: AsyncGenerator<string>,
): Promise<void> {
  const first = await pieces.next();
  attach(response, name, type);
  const all = async function* () {
    if (!first.done) yield first.value;
    yield* pieces;
  };
  try {
    await pipeline(Readable.from(all()), response);
  } catch (error) {
    // Whoever asked for it has gone.
    if (!response.req.destroyed) throw error;
  } finally {
    await pieces.return(undefined);
  }
}
