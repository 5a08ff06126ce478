import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { Problem } from '../http/problem';
import type { DriveProblem } from '@emery/core/drive';

/** What a thread is asked: to begin, to go on, to stop. */
export interface Asked {
  start?: { task: string; value: unknown };
  stop?: true;
}

/** What it answers to the first two. */
export type Told =
  | { item: unknown }
  | { end: true }
  | {
      problem: { status: number; title: string; detail: string; errors: DriveProblem[]; more: Record<string, unknown> };
    }
  | { fault: Error };

/** No piece of a lawful task takes this long, ms. */
const LONGEST = 30_000;

/** A thread that does one task after the other, each in its turn. It is started with the first. */
export class Thread {
  private worker: Worker | null = null;
  private before: Promise<unknown> = Promise.resolve();

  /** Does a task, a piece each time one is asked for. Left before its end, it is stopped. */
  async *run(task: string, value: unknown): AsyncGenerator {
    const done = await this.turn();
    const worker = this.started();
    worker.ref();
    let ended = false;
    try {
      for (let asked: Asked = { start: { task, value } }; ; asked = {}) {
        const answer = await this.ask(worker, asked);
        ended = !('item' in answer);
        if ('problem' in answer) {
          const { status, title, detail, errors, more } = answer.problem;
          throw new Problem(status, title, detail, errors, more);
        }
        if ('fault' in answer) throw answer.fault;
        if ('end' in answer) return;
        yield answer.item;
      }
    } finally {
      if (!ended) worker.postMessage({ stop: true } satisfies Asked);
      worker.unref();
      done();
    }
  }

  /** Waits until those before it are done. What it resolves with lets the next one begin. */
  private async turn(): Promise<() => void> {
    const { before } = this;
    let done = () => undefined as void;
    this.before = new Promise<void>((resolve) => (done = resolve));
    await before;
    return done;
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const started = new Worker(new URL('./start-worker.mjs', import.meta.url), { execArgv: [] });
    const gone = () => {
      if (this.worker === started) this.worker = null;
    };
    started.on('error', gone).on('exit', gone);
    return (this.worker = started);
  }

  private async ask(worker: Worker, asked: Asked): Promise<Told> {
    const late = setTimeout(() => void worker.terminate(), LONGEST).unref();
    const over = new AbortController();
    const { signal } = over;
    worker.postMessage(asked);
    try {
      const cutOff = Promise.race([once(worker, 'error', { signal }), once(worker, 'exit', { signal })]);
      const message = await Promise.race([once(worker, 'message', { signal }), cutOff.then(() => null)]);
      if (message) return message[0] as Told;
      throw interrupted();
    } catch {
      // A thread that failed tells so in place of what was waited for.
      throw interrupted();
    } finally {
      clearTimeout(late);
      over.abort();
    }
  }
}

const interrupted = () =>
  new Problem(503, 'Check interrupted', 'The check was interrupted. Nothing is lost; try again.');
