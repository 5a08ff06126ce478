import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { codeRoutes } from './code-routes';
import { Setting } from './entity';
import { enterRoutes, ownRoutes } from './enter-routes';
import { feedRoutes } from './feed-routes';
import { hasOwner } from './people';
import { deviceRoutes, peopleRoutes } from './staff-routes';
import { tell } from './tell';
import { FIELD, REFUSED } from './words';
import { boolean, object } from '../http/fields';
import { bodyOf, Problem } from '../http/problem';

const sharingBody = object({ on: boolean().required(FIELD.missing) }).required();

/** Who is here, sign-in, people, devices, codes, the calendar's secret addresses, sharing, and what was done. */
export function accessRoutes(data: DataSource): Router {
  const router = Router();
  for (const add of [enterRoutes, ownRoutes, peopleRoutes, deviceRoutes, codeRoutes, feedRoutes, sharingRoutes])
    add(router, data);
  return router;
}

/** Whether other devices reach the shop, and the switch for it. */
function sharingRoutes(router: Router, data: DataSource): void {
  router.get('/sharing', (_request, response) => {
    response.json(accessOf(data).sharing.state());
  });

  router.put('/sharing', async (request, response) => {
    const { on } = await bodyOf(sharingBody, request.body);
    const access = accessOf(data);
    if (on && !(await hasOwner(data.manager))) throw new Problem(409, 'No owner yet', REFUSED.ownerFirst);
    const state = on ? await access.sharing.on() : await access.sharing.off();
    // What could not be done now is not done by itself later, when nobody expects it.
    if (on && state.problem !== null) await access.sharing.off();
    if (state.problem === null) await data.getRepository(Setting).update({ id: 1 }, { sharing: on });
    await tell(data, request, 'sharing', on ? 'on' : 'off');
    response.json(state);
  });
}
