import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { alone } from '../storage/alone';
import { shopBody } from './body';
import { loadDemoShop } from './demo';
import { Shop } from './entity';
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
    const { name, unit, hourRate, limits } = await bodyOf(shopBody, request.body);
    const change = {
      ...(name && { name }),
      ...(unit && { unit: unit as LengthUnit }),
      ...(hourRate !== undefined && { hourRate }),
      ...(limits !== undefined && { limits: limits?.length ? limits : null }),
    };
    if (Object.keys(change).length > 0) await shops.update({ id: 1 }, change);
    if (limits !== undefined) limitsChanged(data);
    response.json(await shops.findOneByOrFail({ id: 1 }));
  });

  router.post('/demo', async (_request, response) => {
    await alone(data, 'first run', () =>
      data.transaction(async (manager) => {
        if ((await manager.count(Vehicle)) > 0)
          throw new Problem(409, 'Not empty', 'The demo vehicles are for an empty shop; this one has vehicles.');
        await loadDemoShop(manager);
      }),
    );
    response.status(201).json(await shops.findOneByOrFail({ id: 1 }));
  });

  return router;
}
