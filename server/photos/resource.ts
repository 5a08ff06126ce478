import type { Resource } from '../resource';
import { Photos1795500000000 } from './1795500000000-photos';
import { Photo } from './entity';
import { photoRoutes } from './routes';

export const photos: Resource = {
  path: '/photos',
  routes: photoRoutes,
  entities: [Photo],
  migrations: [Photos1795500000000],
  // A picture comes as it is.
  body: null,
};
