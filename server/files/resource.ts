import { jsonBody, LARGE_BYTES } from '../http/json-body';
import type { Resource } from '../resource';
import { fileRoutes } from './routes';

export const files: Resource = { path: '', routes: fileRoutes, bodies: { '/import': jsonBody(LARGE_BYTES) } };
