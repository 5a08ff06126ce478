import { signedOut } from '../access/here';
import { ask } from '../api/client';
import { browserStorage } from '../state/draft-store';
import { onceBack } from '../offline/away';
import { Listeners } from '../state/listeners';
import { type Answered, JobQueue, jobsKept, type QueueState } from './job-queue';
import { outboxWanted } from './kept';
import type { JobEvent } from '@emery/core/job';

/** How often it is looked for what other pages have left, ms. */
const LOOK_MS = 20_000;

/** What waits of one job on this device, or was refused. */
export interface Unsent extends QueueState {
  jobId: string;
}

type Taken = (events: readonly JobEvent[]) => void;

/**
 * All that waits on this device, of any job: every page sends it, whichever it was put down at. One queue a job for as
 * long as the page lives.
 */
class Outbox {
  private readonly queues = new Map<string, JobQueue>();
  private readonly told = new Map<string, Set<Taken>>();
  private readonly listeners = new Listeners();
  private unsent: readonly Unsent[] = [];
  private started = false;

  /** The queue of a job, whether anything waits or not. */
  of(jobId: string): JobQueue {
    const there = this.queues.get(jobId);
    if (there) return there;
    const queue = new JobQueue(
      jobId,
      (events) => ask<Answered>('POST', `/jobs/${jobId}/events`, { events }),
      (events) => this.told.get(jobId)?.forEach((taken) => taken(events)),
      browserStorage(),
    );
    this.queues.set(jobId, queue);
    outboxWanted.set(true);
    queue.subscribe(() => this.look());
    this.look();
    return queue;
  }

  /** Tells `taken` what the server took in of a job, until what it returns is called. */
  follow(jobId: string, taken: Taken): () => void {
    const all = this.told.get(jobId) ?? new Set();
    this.told.set(jobId, all.add(taken));
    return () => void all.delete(taken);
  }

  readonly subscribe = this.listeners.add;
  readonly get = () => this.unsent;

  /** Sends from here on whatever is kept on this device, and asks before a page closes that would lose something. */
  readonly start = (): void => {
    if (this.started) return;
    this.started = true;
    const again = () => {
      for (const job of jobsKept(browserStorage())) this.of(job).adopt();
      for (const queue of this.queues.values()) void queue.send();
    };
    again();
    window.addEventListener('online', again);
    onceBack(again);
    signedOut.subscribe(() => signedOut.get() === null && again());
    document.addEventListener('visibilitychange', again);
    setInterval(again, LOOK_MS);
    window.addEventListener('beforeunload', (event) => {
      if (this.unsent.some(({ kept }) => !kept)) event.preventDefault();
    });
  };

  private look(): void {
    const unsent = [...this.queues].flatMap(([jobId, queue]) => {
      const state = queue.get();
      return state.waiting.length > 0 || state.refused ? [{ jobId, ...state }] : [];
    });
    if (unsent.length === 0 && this.unsent.length === 0) return;
    this.unsent = unsent;
    this.listeners.tell();
  }
}

export const outbox = new Outbox();
