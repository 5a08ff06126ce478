import type { DataSource, EntityManager } from 'typeorm';
import { Problem } from '../http/problem';
import { afterwards, change, Moved } from './change';

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

test('who is to know of a change is told once it is stored, once, and not of one that was taken back', async () => {
  const calls: string[] = [];
  const stored: string[] = [];
  const { data } = meeting(coded('ER_LOCK_DEADLOCK'));
  let times = 0;
  await change(data, async (manager) => {
    times += 1;
    const which = `try ${times}`;
    afterwards(manager, () => calls.push(`${which}, stored: ${stored.join()}`));
    expect(calls).toEqual([]);
    await Promise.resolve();
    stored.push(which);
  });
  expect(calls).toEqual(['try 2, stored: try 1,try 2']);
  const failing = meeting(coded('ER_DUP_ENTRY'));
  await expect(
    change(failing.data, (manager) => {
      afterwards(manager, () => calls.push('never'));
      return Promise.resolve();
    }),
  ).rejects.toMatchObject({ code: 'ER_DUP_ENTRY' });
  expect(calls).toHaveLength(1);
  // Outside of a change there is nothing to wait for.
  afterwards({} as EntityManager, () => calls.push('at once'));
  expect(calls.at(-1)).toBe('at once');
});
