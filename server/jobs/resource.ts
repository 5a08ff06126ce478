import { jsonBody, MOST_DRIVE_BYTES } from '../http/json-body';
import type { Resource } from '../resource';
import { jobRoutes } from './routes';

/** The card of a large drive goes with it. */
const SHEET_BYTES = 1024 * 1024;

export const jobs: Resource = { path: '/jobs', routes: jobRoutes, body: jsonBody(MOST_DRIVE_BYTES + SHEET_BYTES) };
