import type { Resource } from '../resource';
import { Parts1796500000000 } from './1796500000000-parts';
import { PartEntity } from './entity';
import { partRoutes } from './routes';

export const parts: Resource = {
  path: '/parts',
  routes: partRoutes,
  entities: [PartEntity],
  migrations: [Parts1796500000000],
};
