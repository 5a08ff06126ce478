import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import papaparse from 'papaparse';
import type { DataSource } from 'typeorm';
import { alone } from '../storage/alone';
import { bodyOf, invalid, notFound } from '../http/problem';
import { rowsBody } from '../http/rows-body';
import { PartEntity, type PartRow } from './entity';
import { MOST_PARTS, PART_COLUMNS, type PartAtHand, partRow, readPartRow } from '@emery/core/align';
import type { DriveProblem } from '@emery/core/drive';

const body = rowsBody(MOST_PARTS);

const partOut = ({ id, label, kind, mm, plusMinus, price, pieces }: PartRow): PartAtHand => ({
  id,
  label,
  kind,
  mm,
  plusMinus,
  price,
  count: pieces,
});

/** Reads every row; refuses with 422 and the first twenty that cannot be read. */
export function partsOf(rows: readonly unknown[]): PartRow[] {
  const parts: PartRow[] = [];
  const problems: DriveProblem[] = [];
  const now = Date.now();
  for (const [index, row] of rows.entries()) {
    const read =
      typeof row === 'object' && row !== null && !Array.isArray(row)
        ? readPartRow(row as Record<string, unknown>)
        : { ok: false as const, column: '', problem: 'must be a row: an object of texts and numbers' };
    if (read.ok) {
      const { count, ...part } = read.part;
      parts.push({ id: randomUUID(), ...part, pieces: count, createdAt: new Date(now + index) });
    } else {
      const path = `rows[${index}]${read.column && `.${read.column}`}`;
      if (problems.push({ path, message: read.problem }) >= 20) break;
    }
  }
  if (problems.length > 0) throw invalid(problems);
  return parts;
}

/** The hubs, pumps and spacers at hand in the shop, in and out as CSV. */
export function partRoutes(data: DataSource): Router {
  const router = Router();
  const parts = data.getRepository(PartEntity);
  const all = () => parts.find({ order: { createdAt: 'ASC', id: 'ASC' }, take: MOST_PARTS });

  router.get('/', async (_request, response) => {
    response.json({ parts: (await all()).map(partOut) });
  });

  router.get('/file', async (_request, response) => {
    response
      .type('text/csv')
      .set('Content-Disposition', 'attachment; filename="emery-parts.csv"')
      .send(
        papaparse.unparse(
          (await all()).map((row) => partRow(partOut(row))),
          { columns: [...PART_COLUMNS] },
        ),
      );
  });

  router.post('/', async (request, response) => {
    const { replace, rows } = await bodyOf(body, request.body);
    const made = partsOf(rows);
    // One at a time, so that two who add to a list that is nearly full do not overfill it.
    await alone(data, 'parts', () =>
      data.transaction(async (manager) => {
        if (replace) await manager.createQueryBuilder().delete().from(PartEntity).execute();
        if ((await manager.count(PartEntity)) + made.length > MOST_PARTS)
          throw invalid([
            { path: '', message: `The list holds ${MOST_PARTS} parts, as many as it can. Remove some first.` },
          ]);
        await manager.insert(PartEntity, made);
      }),
    );
    response.status(201).json({ parts: made.map(partOut) });
  });

  router.delete('/:id', async (request, response) => {
    const { affected } = await parts.delete({ id: request.params.id });
    if (affected !== 1) throw notFound('part');
    response.status(204).end();
  });

  return router;
}
