import { setTimeout as pause } from 'node:timers/promises';
import type { DataSource, EntityManager } from 'typeorm';
import { busy } from '../http/problem';

/** Told by the database where two changes wait for one another: one of them is taken back, and can be made again. */
const MET = new Set(['ER_LOCK_DEADLOCK', 'ER_CHECKREAD']);
/** So often a change that met another is made anew, after a pause of up to so many ms more each time. */
const MOST_TRIES = 12;
const PAUSE_MS = 15;

/** What was read to know what to hold was another by the time it was held: the change begins anew. */
export class Moved extends Error {}

const codeOf = (error: unknown) => (error as { code?: string }).code ?? '';

/** What is told once a change is stored, by the manager that makes it. */
const AFTERWARDS = new WeakMap<EntityManager, (() => void)[]>();

/**
 * Tells somebody of a change once it is stored: who looks before does not see it, and may not look again. Nothing is
 * told of one that is taken back. Outside of a `change` it is told at once.
 */
export function afterwards(manager: EntityManager, tell: () => void): void {
  const after = AFTERWARDS.get(manager);
  if (after) after.push(tell);
  else tell();
}

/**
 * Makes a change: all of it or none, and after what was done before it. Within, each read sees what is there at that
 * moment, so what is held (`hold.ts`) before it is read is read as the last change left it. A change that meets another
 * is made again from its start; `work` therefore keeps nothing from one time to the next.
 */
export async function change<T>(data: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    const after: (() => void)[] = [];
    try {
      const made = await data.transaction('READ COMMITTED', (manager) => {
        AFTERWARDS.set(manager, after);
        return work(manager);
      });
      for (const tell of after) tell();
      return made;
    } catch (error) {
      const again = error instanceof Moved || MET.has(codeOf(error));
      if (!again) throw error;
      if (tries === MOST_TRIES) throw busy();
      await pause(Math.random() * PAUSE_MS * tries);
    }
  }
}
