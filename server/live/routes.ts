import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { doneBy } from '../access/caller';
import { array, number, object, string } from '../http/fields';
import { bodyOf, invalid } from '../http/problem';
import { tellNews } from './news';
import { streamsOf } from './streams';
import { LIVE } from './words';
import { takeRoutes } from './take-routes';
import { DEVICE_KINDS, type DeviceKind } from '@emery/core/api';

const DEVICE = /^[\w-]{8,36}$/;
const MOST_TABS = 20;

const hereBody = object({
  name: string().max(80).defined(),
  kind: string().oneOf(DEVICE_KINDS).required(),
  follows: string().max(36).nullable().defined(),
  tabs: array(
    object({
      tab: string().max(36).required(),
      drive: string().max(36).nullable().defined(),
      stage: string().max(20).defined(),
      part: string().max(120).defined(),
    }).required(),
  )
    .max(MOST_TABS)
    .required(),
}).required();

const pointBody = object({
  drive: string().max(36).required(),
  at: object({ x: number().required(), y: number().required() }).nullable().default(null),
  part: string().max(120).defined(),
}).required();

const deviceOf = (value: unknown): string => {
  if (typeof value === 'string' && DEVICE.test(value)) return value;
  throw invalid([{ path: 'device', message: LIVE.device }]);
};

/** The stream of all that happens, who is where, and what one device asks of another. */
export function liveRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const device = deviceOf(request.query['device']);
    const last = request.get('last-event-id') ?? request.query['after'];
    const after = last === undefined ? null : Number(last);
    if (after !== null && (!Number.isSafeInteger(after) || after < 0))
      throw invalid([{ path: 'after', message: LIVE.after }]);
    await streamsOf(data).open(response, device, after);
  });

  router.get('/here', async (_request, response) => {
    response.json({ devices: await streamsOf(data).devices() });
  });

  router.put('/here/:device', async (request, response) => {
    const device = deviceOf(request.params.device);
    const { name, kind, follows, tabs } = await bodyOf(hereBody, request.body);
    const here = { device, name: doneBy(request, name), kind: kind as DeviceKind, follows, tabs };
    await streamsOf(data).setHere(here);
    response.json({ devices: await streamsOf(data).devices() });
  });

  router.post('/here/:device/point', async (request, response) => {
    const device = deviceOf(request.params.device);
    const pointing = await bodyOf(pointBody, request.body);
    // Nobody follows: there is nobody to tell.
    if (streamsOf(data).isFollowed(device))
      await tellNews(data.manager, { kind: 'point', subject: device, body: pointing });
    response.status(204).end();
  });

  takeRoutes(router, data);
  return router;
}
