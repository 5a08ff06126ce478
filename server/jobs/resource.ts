import { MOST_DRIVE_BYTES, rawBody } from '../http/json-body';
import type { Resource } from '../resource';
import { JobCard1796700000000 } from './1796700000000-job-card';
import { Safe1796800000000 } from './1796800000000-safe';
import { jobRoutes } from './routes';

/** The card of a large drive goes with it. */
const SHEET_BYTES = 1024 * 1024;

export const jobs: Resource = {
  path: '/jobs',
  routes: jobRoutes,
  migrations: [JobCard1796700000000, Safe1796800000000],
  body: rawBody(MOST_DRIVE_BYTES + SHEET_BYTES),
};
