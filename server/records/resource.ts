import type { Resource } from '../resource';
import { Records1796600000000 } from './1796600000000-records';
import { Sittings1797300000000 } from './1797300000000-sittings';
import { jsonBody, MOST_DRIVE_BYTES } from '../http/json-body';
import { MOST_HISTORY_ROWS } from './history';
import { recordRoutes } from './routes';

/** A row of old belts has as many values as there are columns. */
const BOUNDS = { depth: 4, values: 10 * MOST_HISTORY_ROWS };

export const records: Resource = {
  path: '/records',
  routes: recordRoutes,
  migrations: [Records1796600000000, Sittings1797300000000],
  body: jsonBody(MOST_DRIVE_BYTES, BOUNDS),
};
