import { jsonBody } from '../http/json-body';
import type { Resource } from '../resource';
import { Live1797200000000 } from './1797200000000-live';
import { liveRoutes } from './routes';

/** Where somebody is and what is asked of them: nothing here is long. */
const BODY_BYTES = 32 * 1024;

export const live: Resource = {
  path: '/live',
  routes: liveRoutes,
  migrations: [Live1797200000000],
  body: jsonBody(BODY_BYTES),
};
