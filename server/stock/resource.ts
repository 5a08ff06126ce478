import { jsonBody, LARGE_BYTES } from '../http/json-body';
import type { Resource } from '../resource';
import { Stock1795600000000 } from './1795600000000-stock';
import { StockEntity } from './entity';
import { STOCK_BOUNDS, stockRoutes } from './routes';

export const stock: Resource = {
  path: '/stock',
  routes: stockRoutes,
  entities: [StockEntity],
  migrations: [Stock1795600000000],
  body: jsonBody(LARGE_BYTES, STOCK_BOUNDS),
};
