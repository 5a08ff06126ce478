import type { Request, Router } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { callerOf } from './caller';
import { Entry } from './entity';
import { addPerson, changePerson, listPeople, personBody, personChange, removePerson } from './people';
import { endSessions, liveDevices } from './sessions';
import { tell } from './tell';
import { pageOf } from '../http/listing';
import { bodyOf, notFound } from '../http/problem';
import type { AuditEntry } from '@emery/core/api';

/** The people of the shop. */
export function peopleRoutes(router: Router, data: DataSource): void {
  router.get('/people', async (_request, response) => {
    response.json({ people: await listPeople(data) });
  });

  router.post('/people', async (request, response) => {
    const { name, role, passphrase } = await bodyOf(personBody, request.body);
    const { id, createdAt } = await addPerson(data, { name, role, passphrase });
    await tell(data, request, 'people', `added ${name}, ${role}`);
    response.status(201).json({ id, name, role, createdAt });
  });

  router.put('/people/:id', async (request, response) => {
    const change = await bodyOf(personChange, request.body);
    const { before, after } = await changePerson(data, request.params.id, change);
    if (change.passphrase !== undefined)
      accessOf(data).underWay.cut(
        await endSessions(data, { personId: after.id }, 'passphrase', callerOf(request).device),
      );
    const facts = [
      ...(before.name === after.name ? [] : [`now ${after.name}`]),
      ...(before.role === after.role ? [] : [`${before.role} to ${after.role}`]),
      ...(change.passphrase === undefined ? [] : ['new passphrase']),
    ];
    await tell(data, request, 'people', `${before.name}: ${facts.join(', ') || 'unchanged'}`);
    response.json(after);
  });

  router.delete('/people/:id', async (request, response) => {
    const { name } = await removePerson(data, request.params.id);
    accessOf(data).underWay.cut(await endSessions(data, { personId: request.params.id }, 'removed'));
    await tell(data, request, 'people', `removed ${name}`);
    response.status(204).end();
  });
}

/** The devices that are signed in, and what was done. */
export function deviceRoutes(router: Router, data: DataSource): void {
  const seenBy = (request: Request) => {
    const { role, person, device } = callerOf(request);
    return { only: role === 'owner' ? null : person, device };
  };

  router.get('/devices', async (request, response) => {
    const { only, device } = seenBy(request);
    const rows = await liveDevices(data, only);
    response.json({ devices: rows.map((row) => ({ ...row, here: row.id === device })) });
  });

  router.delete('/devices/:id', async (request, response) => {
    const { only } = seenBy(request);
    const device = (await liveDevices(data, only)).find(({ id }) => id === request.params.id);
    if (!device) throw notFound('device');
    accessOf(data).underWay.cut(await endSessions(data, { id: device.id }, 'shut-out'));
    await tell(data, request, 'device', `shut out ${device.agent} of ${device.name}`);
    response.status(204).end();
  });

  router.get('/audit', async (request, response) => {
    const { limit, offset } = pageOf(request);
    await accessOf(data).audit.flush();
    const entries = data.getRepository(Entry);
    const rows = await entries.find({ order: { id: 'DESC' }, take: limit, skip: offset });
    const listed: AuditEntry<Date>[] = rows.map((row) => ({ ...row, id: Number(row.id) }));
    response.json({ entries: listed, total: await entries.count() });
  });
}
