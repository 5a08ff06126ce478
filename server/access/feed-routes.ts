import { randomUUID } from 'node:crypto';
import type { Router } from 'express';
import type { DataSource } from 'typeorm';
import { accessOf } from './access';
import { callerOf, nameOf } from './caller';
import { Feed } from './entity';
import { newSecret, sealed } from './secret';
import { tell } from './tell';
import { FIELD, mostFeeds } from './words';
import { object, string } from '../http/fields';
import { bodyOf, notFound, Problem } from '../http/problem';
import { sendCalendar } from '../records/send-calendar';
import type { FeedListed } from '@emery/core/api';

const feedBody = object({
  label: string().trim().max(80, FIELD.long(80)).required(FIELD.whoseCalendar),
}).required();

/** A shop with more has lost count of who has them. */
const MOST_FEEDS = 50;

/** The calendar's secret addresses. */
export function feedRoutes(router: Router, data: DataSource): void {
  const feeds = data.getRepository(Feed);
  const listed = ({ id, label, madeBy, createdAt, lastAskedAt }: FeedListed<Date>) => ({
    ...{ id, label, madeBy, createdAt, lastAskedAt },
  });
  router.get('/feeds', async (_request, response) => {
    response.json({ feeds: (await feeds.find({ order: { createdAt: 'ASC' }, take: MOST_FEEDS })).map(listed) });
  });

  // Told this once: what is kept of it does not give it back.
  router.post('/feeds', async (request, response) => {
    const { label } = await bodyOf(feedBody, request.body);
    const address = accessOf(data).sharing.addressFor(request.get('host') ?? '');
    if ((await feeds.count()) >= MOST_FEEDS) throw new Problem(409, 'Too many', mostFeeds(MOST_FEEDS));
    const secret = newSecret();
    const row = { id: randomUUID(), token: sealed(secret), label, madeBy: nameOf(callerOf(request)) };
    const made = { ...row, createdAt: new Date(), lastAskedAt: null };
    await feeds.insert(made);
    await tell(data, request, 'feed', `made ${label}`);
    const origin = address ?? `http://${request.get('host') ?? ''}`;
    response.status(201).json({ ...listed(made), link: `${origin}/api/access/feed/${secret}` });
  });

  router.delete('/feeds/:id', async (request, response) => {
    const row = await feeds.findOneBy({ id: request.params.id });
    if (!row) throw notFound('address');
    await feeds.delete({ id: row.id });
    await tell(data, request, 'feed', `withdrew ${row.label}`);
    response.status(204).end();
  });

  router.get('/feed/:token', async (request, response) => {
    const row = await feeds.findOneBy({ token: sealed(request.params.token) });
    if (!row) throw notFound('address');
    await feeds.update({ id: row.id }, { lastAskedAt: new Date() });
    await sendCalendar(data.manager, request, response);
  });
}
