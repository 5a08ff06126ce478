import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { callerOf, doneBy } from '../access/caller';
import { REFUSED } from '../access/words';
import { checked } from '../check';
import { bytesOf, readJson } from '../http/json-body';
import { invalid, Problem, readBody } from '../http/problem';
import { signBody } from './body';
import type { JobEvent } from '@emery/core/job';
import { beginJob, dropJob, listJobs, newsOf, openJob, paceOf, signOff, takeEvents } from './job-store';

/** A job that was lent is ticked and photographed; what else it says is for who lent it. */
function refuseBeyondLent(events: readonly JobEvent[]): void {
  if (events.some(({ kind }) => kind !== 'tick' && kind !== 'photo'))
    throw new Problem(403, 'Not allowed', REFUSED.lentTicksOnly);
}

/** Jobs: begin, tick off from several devices, sign off. */
export function jobRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const { drive, vehicle } = request.query;
    response.json(
      await listJobs(data.manager, {
        ...(typeof drive === 'string' && { drive }),
        ...(typeof vehicle === 'string' && { vehicle }),
      }),
    );
  });

  router.post('/', async (request, response) => {
    const bytes = bytesOf(request.body);
    const job = await checked('job', bytes, bytes.length);
    response.status(201).json(await beginJob(data, { ...job, by: doneBy(request, job.by) }));
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
    const bytes = bytesOf(request.body);
    const events = await checked('events', bytes, bytes.length);
    if (callerOf(request).role === 'lent') refuseBeyondLent(events);
    const named = events.map((event) => ({ ...event, by: doneBy(request, event.by) }));
    const { late } = await takeEvents(data, request.params.id, named);
    response.json({ taken: events.length, late });
  });

  router.post('/:id/sign-off', async (request, response) => {
    const { by, at } = readBody(signBody, readJson(bytesOf(request.body)));
    response.json(await signOff(data, request.params.id, { by: doneBy(request, by), at }));
  });

  router.delete('/:id', async (request, response) => {
    await dropJob(data, request.params.id);
    response.status(204).end();
  });

  return router;
}
