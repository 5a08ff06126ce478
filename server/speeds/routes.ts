import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { mixed, number, object, string } from 'yup';
import { PulleyEntity, SpeedBandEntity, type PulleyRow } from './entity';
import { bodyOf, invalid, notFound } from '../http/problem';
import { type Role, ROLES } from '@emery/core/drive';
import { type Surface, SURFACES } from '@emery/core/section';

const MOST_PULLEYS = 500;

const rpm = number()
  .typeError('must be a speed in rev/min')
  .min(0, 'must be 0 rev/min or more')
  .max(200_000, 'must be 200,000 rev/min at most')
  .nullable()
  .defined('is missing: a speed in rev/min, or null for none');
const bandBody = object({ least: rpm, continuous: rpm, burst: rpm }).required();

/** The shop's own speed bands, by what a shaft drives. */
export function bandRoutes(data: DataSource): Router {
  const router = Router();
  const bands = data.getRepository(SpeedBandEntity);

  const roleOf = (text: unknown): Role => {
    if (!ROLES.includes(text as Role)) throw notFound('kind of accessory');
    return text as Role;
  };

  router.get('/', async (_request, response) => {
    const rows = await bands.find();
    response.json({
      bands: Object.fromEntries(rows.map(({ role, least, continuous, burst }) => [role, { least, continuous, burst }])),
    });
  });

  router.put('/:role', async (request, response) => {
    const role = roleOf(request.params.role);
    const { least, continuous, burst } = await bodyOf(bandBody, request.body);
    const rising = [least, continuous, burst].filter((value): value is number => value !== null);
    if (rising.some((value, k) => k > 0 && value < rising[k - 1]!))
      throw invalid([
        { path: 'burst', message: 'must not lie below the speeds before it: least, continuous, burst rise' },
      ]);
    await bands.upsert({ role, least, continuous, burst }, ['role']);
    response.json({ role, least, continuous, burst });
  });

  router.delete('/:role', async (request, response) => {
    await bands.delete({ role: roleOf(request.params.role) });
    response.status(204).end();
  });

  return router;
}

const whole = (what: string, most: number) =>
  number()
    .typeError(`must be ${what}`)
    .integer(`must be ${what}`)
    .min(1, `must be ${what}, 1 or more`)
    .max(most, `must be ${what}, ${most} at most`)
    .nullable();
const oneOf = (values: readonly string[]) =>
  mixed<string>()
    .oneOf(values, `must be one of ${values.join(', ')}`)
    .nullable();
const pulleyBody = object({
  label: string().max(120, 'must be 120 characters at most').matches(/\S/, 'needs a name').required('is missing'),
  role: oneOf(ROLES),
  surface: oneOf(SURFACES).required('is missing'),
  diameter: number()
    .typeError('must be a number of millimetres')
    .moreThan(0, 'must be more than 0 mm')
    .max(2000, 'must be 2,000 mm at most')
    .nullable(),
  teeth: whole('a whole number of teeth', 400),
  grooves: whole('a whole number of grooves', 60),
  set: string().max(80, 'must be 80 characters at most').nullable(),
  count: whole('a whole number of pulleys', 1000),
}).required();

const told = ({ id, label, role, surface, diameter, teeth, grooves, setName, pieces }: PulleyRow) => ({
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
      pulleys: (await pulleys.find({ order: { createdAt: 'ASC', id: 'ASC' }, take: MOST_PULLEYS })).map(told),
    });
  });

  router.post('/', async (request, response) => {
    const { label, role, surface, diameter, teeth, grooves, set, count } = await bodyOf(pulleyBody, request.body);
    const toothed = surface === 'toothed';
    if (toothed ? !teeth : !diameter)
      throw invalid([
        toothed
          ? { path: 'teeth', message: 'are missing: a toothed pulley is counted' }
          : { path: 'diameter', message: 'is missing' },
      ]);
    if ((await pulleys.count()) >= MOST_PULLEYS)
      throw invalid([
        { path: '', message: `The list holds ${MOST_PULLEYS} pulleys, as many as it can. Take some out first.` },
      ]);
    const row: PulleyRow = {
      id: randomUUID(),
      label: label.trim(),
      role: (role ?? null) as Role | null,
      surface: surface as Surface,
      diameter: diameter ?? null,
      teeth: teeth ?? null,
      grooves: grooves ?? null,
      setName: set?.trim() || null,
      pieces: count ?? 1,
      createdAt: new Date(),
    };
    await pulleys.insert(row);
    response.status(201).json(told(row));
  });

  router.delete('/:id', async (request, response) => {
    const { affected } = await pulleys.delete({ id: request.params.id });
    if (affected !== 1) throw notFound('pulley');
    response.status(204).end();
  });

  return router;
}
