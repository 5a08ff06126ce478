import { Access1797100000000 } from './1797100000000-access';
import { Device, Entry, Feed, Person, Setting } from './entity';
import { accessRoutes } from './routes';
import { jsonBody } from '../http/json-body';
import type { Resource } from '../resource';

/** Names, passphrases, codes: nothing here is long. */
const BODY_BYTES = 8 * 1024;

export const access: Resource = {
  path: '/access',
  routes: accessRoutes,
  entities: [Person, Device, Feed, Entry, Setting],
  migrations: [Access1797100000000],
  body: jsonBody(BODY_BYTES),
};
