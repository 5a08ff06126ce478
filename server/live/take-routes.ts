import { randomUUID } from 'node:crypto';
import { raw, type Router } from 'express';
import type { DataSource, EntityManager } from 'typeorm';
import { doneBy } from '../access/caller';
import { lazy, mixed, number, object, string } from '../http/fields';
import { bodyOf, notFound, Problem } from '../http/problem';
import { change } from '../storage/change';
import { sendInPieces } from '../storage/large';
import { tellNews } from './news';
import { LIVE } from './words';
import { type Take, TAKE_KINDS, TAKE_STATES, type TakeKind, type TakeState } from '@emery/core/api';

const askBody = object({
  from: string().max(36).required(),
  to: string().max(36).nullable().defined(),
  by: string().max(80).defined(),
  kind: string().oneOf(TAKE_KINDS).required(),
  label: string().max(200).defined(),
  unit: string().max(20).defined(),
}).required();

const picture = object({
  hash: string()
    .matches(/^[0-9a-f]{64}$/)
    .required(),
  width: number().integer().min(1).max(20_000).required(),
  height: number().integer().min(1).max(20_000).required(),
});
const written = object({ text: string().max(200).defined() });
const moveBody = object({
  state: string().oneOf(TAKE_STATES).required(),
  part: number().integer().min(0).max(100),
  result: lazy((value: unknown) => {
    if (value === undefined || value === null) return mixed();
    return typeof value === 'object' && 'text' in value ? written.required() : picture.required();
  }),
}).required();

/** Half a minute of sound, uncompressed. */
const MOST_BYTES = 4 * 1024 * 1024;

interface Row {
  id: string;
  body: string;
  state: TakeState;
  part: number;
  result: string | null;
}

const takeOf = ({ id, body, state, part, result }: Row): Take => ({
  ...(JSON.parse(body) as Omit<Take, 'id' | 'state' | 'part' | 'result'>),
  ...{ id, state, part, result: result === null ? null : (JSON.parse(result) as Take['result']) },
});

async function find(manager: EntityManager, id: string): Promise<Take> {
  const [row] = await manager.query<Row[]>('SELECT id, body, state, part, result FROM take WHERE id = ?', [id]);
  if (!row) throw notFound('request');
  return takeOf(row);
}

/** Holds a request that somebody waits for; what comes for one that was called off would be lost without a word. */
async function holdOpen(manager: EntityManager, id: string): Promise<void> {
  const [row] = await manager.query<Pick<Row, 'state'>[]>('SELECT state FROM take WHERE id = ? FOR UPDATE', [id]);
  if (row?.state === 'none') throw new Problem(409, LIVE.over, LIVE.wasCancelled);
}

const tell = (manager: EntityManager, take: Take) => tellNews(manager, { kind: 'take', subject: take.id, body: take });

/** What one device asks another to take: a picture, a sound, a reading. */
export function takeRoutes(router: Router, data: DataSource): void {
  router.post('/takes', async (request, response) => {
    const asked = await bodyOf(askBody, request.body);
    const body = { ...asked, kind: asked.kind as TakeKind, by: doneBy(request, asked.by) };
    const take: Take = { id: randomUUID(), ...body, state: 'asked', part: 0, result: null };
    await change(data, async (manager) => {
      await manager.query('INSERT INTO take (id, at, body, state, part) VALUES (?)', [
        [take.id, new Date(), JSON.stringify(body), take.state, 0],
      ]);
      await tell(manager, take);
    });
    response.status(201).json(take);
  });

  router.get('/takes/:id', async (request, response) => {
    response.json(await find(data.manager, request.params.id));
  });

  router.patch('/takes/:id', async (request, response) => {
    const { state, part = 0, result } = await bodyOf(moveBody, request.body);
    const moved = await change(data, async (manager) => {
      if (state !== 'none') await holdOpen(manager, request.params.id);
      await manager.query('UPDATE take SET state = ?, part = ?, result = ? WHERE id = ?', [
        ...[state, part, result ? JSON.stringify(result) : null, request.params.id],
      ]);
      const take = await find(manager, request.params.id);
      await tell(manager, take);
      return take;
    });
    response.json(moved);
  });

  router.put('/takes/:id/bytes', raw({ type: 'audio/wav', limit: MOST_BYTES }), async (request, response) => {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body) || body.length === 0) throw new Problem(415, LIVE.notASound, LIVE.sound);
    const taken = await change(data, async (manager) => {
      await holdOpen(manager, request.params.id);
      await sendInPieces(manager, body, (term) =>
        manager.query(`UPDATE take SET state = 'done', part = 100, type = 'audio/wav', bytes = ${term} WHERE id = ?`, [
          request.params.id,
        ]),
      );
      const take = await find(manager, request.params.id);
      await tell(manager, take);
      return take;
    });
    response.json(taken);
  });

  router.get('/takes/:id/bytes', async (request, response) => {
    const [row] = await data.query<{ type: string; bytes: Buffer | null }[]>(
      'SELECT type, bytes FROM take WHERE id = ?',
      [request.params.id],
    );
    if (!row?.bytes) throw notFound('sound');
    response.type(row.type).send(row.bytes);
  });
}
