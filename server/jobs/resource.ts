import { jsonBody, MOST_DRIVE_BYTES } from '../http/json-body';
import type { Resource } from '../resource';
import { JobCard1796700000000 } from './1796700000000-job-card';
import { jobRoutes } from './routes';
import { DRIVE_BOUNDS } from '@emery/core/drive';

/** The card of a large drive goes with it, two levels down. */
const SHEET_BYTES = 1024 * 1024;

const SHEET_BOUNDS = { depth: DRIVE_BOUNDS.depth + 2, values: 2 * DRIVE_BOUNDS.values };

export const jobs: Resource = {
  path: '/jobs',
  routes: jobRoutes,
  migrations: [JobCard1796700000000],
  body: jsonBody(MOST_DRIVE_BYTES + SHEET_BYTES, SHEET_BOUNDS),
};
