import { LARGE_BYTES, rawBody } from '../http/json-body';
import type { Resource } from '../resource';
import { Stock1795600000000 } from './1795600000000-stock';
import { StockEntity } from './entity';
import { stockRoutes } from './routes';

export const stock: Resource = {
  path: '/stock',
  routes: stockRoutes,
  entities: [StockEntity],
  migrations: [Stock1795600000000],
  body: rawBody(LARGE_BYTES),
};
