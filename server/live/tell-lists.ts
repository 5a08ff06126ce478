import type { RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import { tellNews } from './news';
import type { Topic } from '@emery/core/api';

const WHOLE_SHOP: readonly Topic[] = [
  ...([
    'shop',
    'vehicles',
    'deleted',
    'drive',
    'dues',
    'records',
    'jobs',
    'stock',
    'bands',
    'pulleys',
    'parts',
  ] as const),
];
const VEHICLES: readonly Topic[] = ['vehicles', 'deleted', 'shop', 'dues', 'records', 'jobs'];

/** Which lists a change of what stands at an address shows in, by the first word of the address. */
const SHOWN_IN: Readonly<Record<string, readonly Topic[]>> = {
  shop: WHOLE_SHOP,
  vehicles: VEHICLES,
  drives: VEHICLES,
  stock: ['stock'],
  bands: ['bands'],
  pulleys: ['pulleys'],
  parts: ['parts'],
  records: ['records', 'dues', 'vehicles'],
  jobs: ['jobs', 'job', 'vehicles', 'dues', 'records', 'stock'],
  import: WHOLE_SHOP,
};

/** Of a job that is under way only those who look at it or at the jobs there are. */
const TICKED: readonly Topic[] = ['jobs', 'job'];

/** Tells every device, once a change went well, which of its lists may be others now. A drive's tells itself. */
export function tellLists(data: DataSource): RequestHandler {
  return (request, response, next) => {
    const [, first = '', id, rest] = request.path.split('/');
    const topics = SHOWN_IN[first];
    const isChange = request.method !== 'GET' && request.method !== 'HEAD';
    if (isChange && topics && !(first === 'drives' && request.method === 'PATCH'))
      response.once('finish', () => {
        if (response.statusCode >= 400) return;
        const body = { topics: rest === 'events' ? TICKED : topics, ...(first === 'jobs' && id && { job: id }) };
        // The database is away, or the shop is shut: who comes back reads all lists anew.
        tellNews(data.manager, { kind: 'lists', subject: first, body }).catch(() => undefined);
      });
    next();
  };
}
