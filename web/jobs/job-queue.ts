import { ApiProblem } from '../api/client';
import { Listeners } from '../state/listeners';
import type { JobEvent } from '@emery/core/job';

/** What is kept of a job on this device, so that a page that is opened anew goes on where it was. */
type Keep = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;
const PREFIX = 'emery-job:';
/** A server that does not answer is asked again after this, ms; longer each time, to a limit. */
const AGAIN_MS = { first: 1000, most: 15_000 };
/** Sent in one go; the server takes no more. */
const AT_ONCE = 200;

export interface QueueState {
  /** What happened here and has not been taken in by the server, oldest first. */
  waiting: readonly JobEvent[];
  /** Why it waits; null while nothing does, or it is on its way. */
  problem: string | null;
  /** What the server refused for good: the job was signed off meanwhile, say. It is kept to be read. */
  refused: { why: string; events: readonly JobEvent[] } | null;
}

/**
 * What happens at a job on this device, on its way to the server: kept here until the server says that it has it, sent
 * again until it answers, in the order in which it happened. The same event sent twice is one there.
 */
export class JobQueue {
  private readonly listeners = new Listeners();
  private state: QueueState;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private pause = AGAIN_MS.first;

  constructor(
    private readonly jobId: string,
    private readonly post: (events: readonly JobEvent[]) => Promise<unknown>,
    /** Told once the server has them. */
    private readonly taken: (events: readonly JobEvent[]) => void,
    private readonly storage: Keep | null,
  ) {
    this.state = { waiting: this.read(), problem: null, refused: null };
  }

  readonly subscribe = (told: () => void) => this.listeners.add(told);
  readonly get = () => this.state;

  /** Something happened. It is kept before anything is sent. */
  put(event: JobEvent): void {
    try {
      this.storage?.setItem(this.keyOf(event), JSON.stringify(event));
    } catch {
      // Full or forbidden: it waits in the page all the same.
    }
    this.set({ waiting: [...this.state.waiting, event] });
    void this.send();
  }

  /** Sends what waits; called as well when the network comes back. */
  async send(): Promise<void> {
    if (this.sending || this.state.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.timer);
    const events = this.state.waiting.slice(0, AT_ONCE);
    try {
      await this.post(events);
      this.pause = AGAIN_MS.first;
      // What happened meanwhile stays.
      this.forget(events);
      this.set({ waiting: this.state.waiting.slice(events.length), problem: null });
      this.taken(events);
    } catch (error) {
      const passing = !(error instanceof ApiProblem) || error.passing;
      const why = (error as Error).message;
      if (passing) {
        this.set({ problem: why });
        this.timer = setTimeout(() => void this.send(), this.pause);
        this.pause = Math.min(AGAIN_MS.most, 2 * this.pause);
      } else {
        const before = this.state.refused?.events ?? [];
        this.forget(events);
        this.set({
          waiting: this.state.waiting.slice(events.length),
          problem: null,
          refused: { why, events: [...before, ...events] },
        });
      }
    } finally {
      this.sending = false;
    }
    if (this.state.problem === null) void this.send();
  }

  /** The refused ones were read. */
  forgetRefused(): void {
    this.set({ refused: null });
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  private set(change: Partial<QueueState>): void {
    this.state = { ...this.state, ...change };
    this.listeners.tell();
  }

  /** Each by itself, so that two pages of one device do not write over one another. */
  private keyOf({ id }: Pick<JobEvent, 'id'>): string {
    return `${PREFIX}${this.jobId}:${id}`;
  }

  private forget(events: readonly JobEvent[]): void {
    for (const event of events) this.storage?.removeItem(this.keyOf(event));
  }

  /** What a page before this one had kept, in the order in which it happened. */
  private read(): JobEvent[] {
    const kept: JobEvent[] = [];
    for (let k = 0; k < (this.storage?.length ?? 0); k += 1) {
      const key = this.storage!.key(k)!;
      if (!key.startsWith(`${PREFIX}${this.jobId}:`)) continue;
      try {
        const event = JSON.parse(this.storage!.getItem(key)!) as JobEvent | null;
        // Written by this very class; what has no name of its own is none of its.
        if (typeof event?.id === 'string') kept.push(event);
      } catch {
        // Not ours after all.
      }
    }
    return kept.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  }
}
