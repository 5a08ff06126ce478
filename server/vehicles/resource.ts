import type { Resource } from '../resource';
import { Search1796300000000 } from './1796300000000-search';
import { Vehicle } from './entity';
import { vehicleRoutes } from './routes';

export const vehicles: Resource = {
  path: '/vehicles',
  routes: vehicleRoutes,
  entities: [Vehicle],
  migrations: [Search1796300000000],
};
