import { LARGE_BYTES, rawBody } from '../http/json-body';
import type { Resource } from '../resource';
import { fileRoutes } from './routes';

export const files: Resource = { path: '', routes: fileRoutes, bodies: { '/import': rawBody(LARGE_BYTES) } };
