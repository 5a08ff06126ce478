import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { checkedDrive } from '../drives/check';
import { bodyOf, invalid } from '../http/problem';
import { eventsBody, newJobBody, signBody } from './body';
import { beginJob, dropJob, listJobs, newsOf, openJob, paceOf, signOff, takeEvents } from './job-store';
import type { JobSheet } from '@emery/core/api';
import type { JobEvent } from '@emery/core/job';

/** Jobs: begin, tick off from several devices, sign off. */
export function jobRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const { drive, vehicle } = request.query;
    const jobs = await listJobs(data.manager, {
      ...(typeof drive === 'string' && { drive }),
      ...(typeof vehicle === 'string' && { vehicle }),
    });
    response.json({ jobs });
  });

  router.post('/', async (request, response) => {
    const { id, driveId, by, at, sheet } = await bodyOf(newJobBody, request.body);
    const { document } = await checkedDrive(sheet.drive);
    // What the schema has read is of the sheet's own shape.
    const whole = { ...sheet, drive: document } as unknown as JobSheet;
    await data.transaction((manager) => beginJob(manager, { id, driveId, by, at, sheet: whole }));
    response.status(201).json(await openJob(data.manager, id));
  });

  // Before the address of one job, which it would be taken for.
  router.get('/pace', async (_request, response) => {
    response.json(await paceOf(data.manager));
  });

  router.get('/:id', async (request, response) => {
    response.json(await openJob(data.manager, request.params.id));
  });

  router.get('/:id/events', async (request, response) => {
    const after = Number(request.query['after'] ?? 0);
    if (!Number.isInteger(after) || after < 0)
      throw invalid([{ path: 'after', message: 'must be the number of an event, 0 or more' }]);
    response.json(await newsOf(data.manager, request.params.id, after));
  });

  router.post('/:id/events', async (request, response) => {
    const { events } = await bodyOf(eventsBody, request.body);
    await takeEvents(data, request.params.id, events as readonly JobEvent[]);
    response.json({ taken: events.length });
  });

  router.post('/:id/sign-off', async (request, response) => {
    await signOff(data, request.params.id, await bodyOf(signBody, request.body));
    response.json(await openJob(data.manager, request.params.id));
  });

  router.delete('/:id', async (request, response) => {
    await dropJob(data, request.params.id);
    response.status(204).end();
  });

  return router;
}
