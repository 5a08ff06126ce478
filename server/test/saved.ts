import { randomUUID } from 'node:crypto';
import type { Answer, Running } from './running';
import type { Drive } from '@emery/core/drive';
import { changesBetween } from '@emery/core/together';

/** Saves a drive as a page does that has it as it is now: what is another in `document`, as changes. */
export async function saved(
  ask: Running['ask'],
  id: string,
  document: object | ((drive: Drive) => object),
  saveId: string = randomUUID(),
): Promise<Answer> {
  const { body } = await ask('GET', `/drives/${id}`);
  const before = body.document as Drive;
  const after = (typeof document === 'function' ? document(before) : document) as Drive;
  return ask('PATCH', `/drives/${id}`, {
    revision: body.revision as number,
    saveId,
    changes: changesBetween(before, after),
  });
}
