import type { Resource } from '../resource';
import { FirstShop1795000000000 } from './1795000000000-first-shop';
import { ShopLimits1796900000000 } from './1796900000000-limits';
import { Letters1797000000000 } from './1797000000000-letters';
import { Shop } from './entity';
import { shopRoutes } from './routes';

export const shop: Resource = {
  path: '/shop',
  routes: shopRoutes,
  entities: [Shop],
  migrations: [FirstShop1795000000000, ShopLimits1796900000000, Letters1797000000000],
};
