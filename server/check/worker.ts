import { parentPort } from 'node:worker_threads';
import { Problem } from '../http/problem';
import { TASKS, type TaskName } from './tasks';
import type { Asked, Told } from './thread';

/*
 * A thread beside the request loop. It is given one task at a time and does it piece by piece: the next piece is begun
 * when it is asked for, so nothing heaps up on either side.
 */
let current: AsyncGenerator | Generator | null = null;

async function answer(asked: Asked): Promise<Told | null> {
  if (asked.stop) {
    const stopped = current;
    current = null;
    await stopped?.return(undefined);
    return null;
  }
  if (asked.start) current = TASKS[asked.start.task as TaskName](asked.start.value as never);
  try {
    const { done, value } = await current!.next();
    if (done) current = null;
    return done ? { end: true } : { item: value as unknown };
  } catch (error) {
    current = null;
    if (error instanceof Problem) {
      const { status, title, detail, errors, more } = error;
      return { problem: { status, title, detail, errors, more } };
    }
    return { fault: error as Error };
  }
}

parentPort!.on('message', (asked: Asked) => {
  void answer(asked).then((reply) => reply && parentPort!.postMessage(reply));
});
