import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { Problem } from '../problem';

/** GET /: 200 once the database answers, 503 while it does not. */
export function healthRoutes(data: DataSource): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    try {
      await data.query('SELECT 1');
    } catch {
      throw new Problem(503, 'Database away', 'The database is not answering.');
    }
    response.json({ status: 'ok', database: 'ok' });
  });
  return router;
}
