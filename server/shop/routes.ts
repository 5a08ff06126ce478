import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { isDeepStrictEqual } from 'node:util';
import { callerOf } from '../access/caller';
import { REFUSED } from '../access/words';
import { readLimits } from '../drives/shop-limits';
import { alone } from '../storage/alone';
import { shopChange } from './body';
import { loadDemoShop } from './demo';
import { Shop } from './entity';
import { change } from '../storage/change';
import { limitsChanged } from '../records/limits-changed';
import { Vehicle } from '../vehicles/entity';
import { bodyOf, Problem } from '../http/problem';
import type { LengthUnit } from '@emery/core/quantity';

/** The shop's name and unit, and the demo vehicles for a shop that is still empty. */
export function shopRoutes(data: DataSource): Router {
  const router = Router();
  const shops = data.getRepository(Shop);

  router.get('/', async (_request, response) => {
    response.json(await shops.findOneByOrFail({ id: 1 }));
  });

  router.patch('/', async (request, response) => {
    const { name, unit, hourRate, limits, limitsWere } = await bodyOf(shopChange, request.body);
    const others = [name, hourRate, limits].some((value) => value !== undefined);
    if (others && callerOf(request).role !== 'owner') throw new Problem(403, 'Not allowed', REFUSED.ownersSettings);
    const next = {
      ...(name && { name }),
      ...(unit && { unit: unit as LengthUnit }),
      ...(hourRate !== undefined && { hourRate }),
      ...(limits !== undefined && { limits: limits?.length ? limits : null }),
    };
    await change(data, async (manager) => {
      if (limits !== undefined && limitsWere !== undefined) {
        const [held] = await manager.query<{ limits: string | null }[]>(
          'SELECT limits FROM shop WHERE id = 1 FOR UPDATE',
        );
        if (!isDeepStrictEqual(readLimits(held!.limits) ?? [], limitsWere ?? []))
          throw new Problem(
            409,
            'Changed meanwhile',
            'The limits of the shop were changed somewhere else meanwhile. Check them as they are now, and try again.',
          );
      }
      if (Object.keys(next).length > 0) await manager.update(Shop, { id: 1 }, next);
    });
    if (limits !== undefined) limitsChanged(data);
    response.json(await shops.findOneByOrFail({ id: 1 }));
  });

  router.post('/demo', async (_request, response) => {
    await alone(data, 'first run', () =>
      change(data, async (manager) => {
        if ((await manager.count(Vehicle)) > 0)
          throw new Problem(409, 'Not empty', 'The demo vehicles are for an empty shop; this one has vehicles.');
        await loadDemoShop(manager);
      }),
    );
    response.status(201).json(await shops.findOneByOrFail({ id: 1 }));
  });

  return router;
}
