import type { Resource } from '../resource';
import { healthRoutes } from './routes';

export const health: Resource = { path: '/health', routes: healthRoutes };
