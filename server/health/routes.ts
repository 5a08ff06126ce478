import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { callerOf } from '../access/caller';
import { Problem } from '../http/problem';
import { healthOf } from '../keep/health';

/** A database that has not answered for this long is not answering, ms. */
const LONGEST = 2000;

/**
 * GET /: 200 once the database answers and every table can be read, 503 while not. A database that is frozen is one
 * that does not answer.
 */
export function healthRoutes(data: DataSource): Router {
  const router = Router();
  let running: Promise<string | null> | null = null;
  router.get('/', async (request, response) => {
    // One look at a time: those of a frozen database would use up its connections.
    running ??= look(data).finally(() => (running = null));
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<string>(
      (resolve) => (timer = setTimeout(() => resolve('The database is not answering.'), LONGEST)),
    );
    const wrong = await Promise.race([running, late]);
    clearTimeout(timer);
    if (wrong) throw new Problem(503, 'Database not reachable', wrong);
    const owner = callerOf(request).role === 'owner';
    response.json({ status: 'ok', database: 'ok', ...(owner && (await moreFor(data))) });
  });
  return router;
}

/** For whoever keeps the shop: what a monitor is to sound an alarm for. */
async function moreFor(data: DataSource) {
  const { problems, disk, backups, certificateEnds, versions } = await healthOf(data);
  const { lastAt, isOld } = backups;
  return { problems, disk, backup: { lastAt, isOld }, certificateEnds, versions };
}

/** What is wrong with the database, or null. */
async function look(data: DataSource): Promise<string | null> {
  for (const { tableName, primaryColumns } of data.entityMetadatas) {
    const key = primaryColumns[0]!.databaseName;
    try {
      // By the key, so that the rows themselves are looked at and no index beside them.
      await data.query(`SELECT \`${key}\` FROM \`${tableName}\` FORCE INDEX (PRIMARY) ORDER BY \`${key}\` LIMIT 1`);
    } catch (error) {
      const { code = '' } = error as { code?: string };
      return /^ER_/.test(code) ? `The table ${tableName} cannot be read (${code}).` : 'The database is not answering.';
    }
  }
  return null;
}
