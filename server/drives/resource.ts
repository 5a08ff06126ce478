import type { Resource } from '../resource';
import { DriveDocument, DriveEntity } from './entity';
import { driveRoutes } from './routes';

export const drives: Resource = { path: '/drives', routes: driveRoutes, entities: [DriveEntity, DriveDocument] };
