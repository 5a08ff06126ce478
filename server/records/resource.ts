import type { Resource } from '../resource';
import { Records1796600000000 } from './1796600000000-records';
import { recordRoutes } from './routes';

export const records: Resource = { path: '/records', routes: recordRoutes, migrations: [Records1796600000000] };
