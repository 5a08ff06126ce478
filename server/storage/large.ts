import type { EntityManager } from 'typeorm';
import { PIECES_WITHIN } from './words';

/** The connection writes what it sends as text, about 10 ms a megabyte, and does nothing else meanwhile. */
export const PIECE = 256 * 1024;

/**
 * Sends bytes to the database a piece at a time, so that others have their turn between, and has `use` store them: they
 * stand in a variable of the connection, which `use` is given as a term of SQL. Within a transaction, whose connection
 * is one and the same.
 */
export async function sendInPieces(
  manager: EntityManager,
  bytes: Buffer,
  use: (term: string) => Promise<unknown>,
): Promise<void> {
  if (!manager.queryRunner?.isTransactionActive) throw new Error(PIECES_WITHIN);
  await manager.query("SET @sent = X''");
  for (let k = 0; k < bytes.length; k += PIECE)
    await manager.query('SET @sent = CONCAT(@sent, ?)', [bytes.subarray(k, k + PIECE)]);
  await use('@sent');
  // The connection outlives the change.
  await manager.query('SET @sent = NULL');
}
