import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { checked } from '../check';
import { bytesOf, readJson } from '../http/json-body';
import { invalid, readBody } from '../http/problem';
import { signBody } from './body';
import { beginJob, dropJob, listJobs, newsOf, openJob, paceOf, signOff, takeEvents } from './job-store';

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
    await beginJob(data, job);
    response.status(201).json(await openJob(data.manager, job.id));
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
    const { late } = await takeEvents(data, request.params.id, events);
    response.json({ taken: events.length, late });
  });

  router.post('/:id/sign-off', async (request, response) => {
    await signOff(data, request.params.id, readBody(signBody, readJson(bytesOf(request.body))));
    response.json(await openJob(data.manager, request.params.id));
  });

  router.delete('/:id', async (request, response) => {
    await dropJob(data, request.params.id);
    response.status(204).end();
  });

  return router;
}
