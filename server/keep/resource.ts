import { jsonBody } from '../http/json-body';
import type { Resource } from '../resource';
import { Keep1797400000000 } from './1797400000000-keep';
import { keepRoutes } from './routes';

export const keep: Resource = {
  path: '/keep',
  routes: keepRoutes,
  migrations: [Keep1797400000000],
  body: jsonBody(4096),
};
