import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { isRole, MOST_PULLEYS, readBand, readPulley } from './body';
import { PulleyEntity, SpeedBandEntity, type PulleyRow } from './entity';
import { invalid, notFound } from '../http/problem';
import type { Role } from '@emery/core/drive';

/** The shop's own speed bands, by what a shaft drives. */
export function bandRoutes(data: DataSource): Router {
  const router = Router();
  const bands = data.getRepository(SpeedBandEntity);

  const roleOf = (text: unknown): Role => {
    if (!isRole(text)) throw notFound('kind of accessory');
    return text;
  };

  router.get('/', async (_request, response) => {
    const rows = await bands.find();
    response.json({
      bands: Object.fromEntries(rows.map(({ role, least, continuous, burst }) => [role, { least, continuous, burst }])),
    });
  });

  router.put('/:role', async (request, response) => {
    const band = readBand(roleOf(request.params.role), request.body);
    await bands.upsert(band, ['role']);
    response.json(band);
  });

  router.delete('/:role', async (request, response) => {
    await bands.delete({ role: roleOf(request.params.role) });
    response.status(204).end();
  });

  return router;
}

const pulleyOut = ({ id, label, role, surface, diameter, teeth, grooves, setName, pieces }: PulleyRow) => ({
  id,
  label,
  surface,
  ...(role && { role }),
  ...(diameter !== null && { diameter }),
  ...(teeth !== null && { teeth }),
  ...(grooves !== null && { grooves }),
  ...(setName && { set: setName }),
  ...(pieces > 1 && { count: pieces }),
});

/** The pulleys at hand in the shop, each a row of its own, so that two who add one do not meet. */
export function pulleyRoutes(data: DataSource): Router {
  const router = Router();
  const pulleys = data.getRepository(PulleyEntity);

  router.get('/', async (_request, response) => {
    response.json({
      pulleys: (await pulleys.find({ order: { createdAt: 'ASC', id: 'ASC' }, take: MOST_PULLEYS })).map(pulleyOut),
    });
  });

  router.post('/', async (request, response) => {
    const read = readPulley(request.body);
    if ((await pulleys.count()) >= MOST_PULLEYS)
      throw invalid([
        { path: '', message: `The list holds ${MOST_PULLEYS} pulleys, as many as it can. Remove some first.` },
      ]);
    const row: PulleyRow = { id: randomUUID(), ...read, createdAt: new Date() };
    await pulleys.insert(row);
    response.status(201).json(pulleyOut(row));
  });

  router.delete('/:id', async (request, response) => {
    const { affected } = await pulleys.delete({ id: request.params.id });
    if (affected !== 1) throw notFound('pulley');
    response.status(204).end();
  });

  return router;
}
