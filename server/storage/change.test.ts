import type { DataSource } from 'typeorm';
import { Problem } from '../http/problem';
import { change, Moved } from './change';

/** A database that answers a change with these faults first. */
function meeting(...faults: Error[]) {
  const levels: unknown[] = [];
  const data = {
    transaction: async (level: string, work: (manager: object) => Promise<unknown>) => {
      levels.push(level);
      const done = await work({});
      const fault = faults.shift();
      if (fault) throw fault;
      return done;
    },
  } as unknown as DataSource;
  return { data, levels };
}
const coded = (code: string) => Object.assign(new Error(code), { code });

test('a change that met another is made again from its start, and sees what is there then', async () => {
  const { data, levels } = meeting(coded('ER_LOCK_DEADLOCK'), new Moved(), coded('ER_CHECKREAD'));
  let times = 0;
  expect(await change(data, () => Promise.resolve((times += 1)))).toBe(4);
  expect(levels).toEqual(Array(4).fill('READ COMMITTED'));
});

test('one that meets others again and again is told to come back, and any other fault is told as it is', async () => {
  const always = meeting(...Array.from({ length: 99 }, () => coded('ER_LOCK_DEADLOCK')));
  await expect(change(always.data, () => Promise.resolve())).rejects.toMatchObject({ status: 503, title: 'Busy' });
  expect(always.levels).toHaveLength(12);
  for (const fault of [coded('ER_DUP_ENTRY'), new Problem(409, 'Saved elsewhere', 'x'), new TypeError('x')]) {
    const once = meeting(fault);
    await expect(change(once.data, () => Promise.resolve())).rejects.toBe(fault);
    expect(once.levels).toHaveLength(1);
  }
});
