import { ApiProblem } from '../api/client';
import { Listeners } from '../state/listeners';
import type { JobEvent } from '@emery/core/job';

/** What is kept of a job on this device, so that a page that is opened anew goes on where it was. */
export type Keep = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;
/** What waits to be sent, and what was refused: a key each, by job and event. */
const WAITS = 'emery-job:';
const REFUSED = 'emery-refused:';
/** A server that does not answer is asked again after this, ms; longer each time, to a limit. */
const AGAIN_MS = { first: 1000, max: 15_000 };
/** Sent in one go; the server takes no more. */
const AT_ONCE = 200;

export interface QueueState {
  /** What happened here and has not been taken in by the server, oldest first. */
  waiting: readonly JobEvent[];
  /** Why it waits; null while nothing does, or it is on its way. */
  problem: string | null;
  /**
   * What the server refused for good: the job was signed off meanwhile, say. It stays on this device until somebody who
   * read it has decided.
   */
  refused: { why: string; events: readonly JobEvent[] } | null;
  /** False where something of it is in this page alone: the browser has no room, or forbids to keep anything. */
  kept: boolean;
}

/** What the server says of those that it took in. */
export interface Answered {
  /** Ids of ticks that came after the sign-off. */
  late?: readonly string[];
}

/** Ids of jobs of which something is kept on this device. */
export function jobsKept(storage: Keep | null): Set<string> {
  const jobs = new Set<string>();
  for (let k = 0; k < (storage?.length ?? 0); k += 1) {
    const [prefix, job] = storage!.key(k)!.split(':');
    if (job && (`${prefix}:` === WAITS || `${prefix}:` === REFUSED)) jobs.add(job);
  }
  return jobs;
}

/**
 * What happens at a job on this device, on its way to the server: kept here until the server says that it has it, sent
 * again until it answers, in the order in which it happened. The same event sent twice is one there. What it refuses is
 * kept as well, until somebody has read it.
 */
export class JobQueue {
  private readonly listeners = new Listeners();
  private state: QueueState;
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private pause = AGAIN_MS.first;
  /** Those that could not be kept. */
  private readonly inPageOnly = new Set<string>();

  constructor(
    private readonly jobId: string,
    private readonly post: (events: readonly JobEvent[]) => Promise<Answered | undefined | void>,
    /** Told once the server has them, as it has them. */
    private readonly taken: (events: readonly JobEvent[]) => void,
    private readonly storage: Keep | null,
  ) {
    const refused = this.read<{ event: JobEvent; why: string }>(REFUSED, ({ event }) => event);
    this.state = {
      waiting: this.read<JobEvent>(WAITS, (event) => event),
      problem: null,
      refused: refused.length === 0 ? null : { why: refused.at(-1)!.why, events: refused.map(({ event }) => event) },
      kept: true,
    };
  }

  readonly subscribe = (listener: () => void) => this.listeners.add(listener);
  readonly get = () => this.state;

  /** Something happened. It is kept before anything is sent. */
  put(event: JobEvent): void {
    this.keep(WAITS, event.id, event);
    this.set({ waiting: [...this.state.waiting, event] });
    void this.send();
  }

  /** Takes on what other pages of this device have kept and may be gone with. */
  adopt(): void {
    const known = new Set(this.state.waiting.map(({ id }) => id));
    const more = this.read<JobEvent>(WAITS, (event) => event).filter(({ id }) => !known.has(id));
    if (more.length > 0) this.set({ waiting: [...this.state.waiting, ...more].sort(byTime) });
  }

  /** Sends what waits; called as well when the network comes back. */
  async send(): Promise<void> {
    if (this.sending || this.state.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.timer);
    const events = this.state.waiting.slice(0, AT_ONCE);
    try {
      const late = new Set((await this.post(events))?.late ?? []);
      this.pause = AGAIN_MS.first;
      this.done(events);
      this.set({ problem: null });
      this.taken(
        events.map((event) => (event.kind === 'tick' && late.has(event.id) ? { ...event, late: true } : event)),
      );
    } catch (error) {
      const passing = !(error instanceof ApiProblem) || error.passing || error.needsSignIn;
      const why = (error as Error).message;
      if (passing) {
        this.set({ problem: why });
        this.timer = setTimeout(() => void this.send(), this.pause);
        this.pause = Math.min(AGAIN_MS.max, 2 * this.pause);
      } else this.refuse(refusedOf(error, events), why);
    } finally {
      this.sending = false;
    }
    if (this.state.problem === null) void this.send();
  }

  /** The refused ones were read, and are let go: those of these ids, or all. */
  forgetRefused(ids?: readonly string[]): void {
    const { refused } = this.state;
    if (!refused) return;
    const gone = (event: JobEvent) => ids === undefined || ids.includes(event.id);
    for (const event of refused.events.filter(gone)) this.drop(REFUSED, event.id);
    const left = refused.events.filter((event) => !gone(event));
    this.set({ refused: left.length === 0 ? null : { ...refused, events: left } });
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  /** Keeps those that the server does not take, before they are no longer kept as waiting. What is left goes on. */
  private refuse(events: readonly JobEvent[], why: string): void {
    for (const event of events) this.keep(REFUSED, event.id, { event, why });
    this.done(events);
    const before = this.state.refused?.events.filter(({ id }) => !events.some((event) => event.id === id)) ?? [];
    this.set({ problem: null, refused: { why, events: [...before, ...events] } });
  }

  /** What happened meanwhile stays. */
  private done(events: readonly JobEvent[]): void {
    const ids = new Set(events.map(({ id }) => id));
    for (const id of ids) this.drop(WAITS, id);
    this.set({ waiting: this.state.waiting.filter(({ id }) => !ids.has(id)) });
  }

  private set(change: Partial<QueueState>): void {
    const next = { ...this.state, ...change };
    const here = [...next.waiting, ...(next.refused?.events ?? [])];
    this.state = { ...next, kept: !here.some(({ id }) => this.inPageOnly.has(id)) };
    this.listeners.tell();
  }

  /** Each by itself, so that two pages of one device do not write over one another. */
  private keep(prefix: string, id: string, value: unknown): void {
    try {
      if (!this.storage) throw new Error('nothing can be stored');
      this.storage.setItem(`${prefix}${this.jobId}:${id}`, JSON.stringify(value));
      this.inPageOnly.delete(id);
    } catch {
      // Full or forbidden: it waits in the page all the same, which says so.
      this.inPageOnly.add(id);
    }
  }

  private drop(prefix: string, id: string): void {
    this.storage?.removeItem(`${prefix}${this.jobId}:${id}`);
  }

  /** What a page before this one had kept, in the order in which it happened. */
  private read<T>(prefix: string, eventOf: (value: T) => JobEvent | undefined): T[] {
    const kept: T[] = [];
    for (let k = 0; k < (this.storage?.length ?? 0); k += 1) {
      const key = this.storage!.key(k)!;
      if (!key.startsWith(`${prefix}${this.jobId}:`)) continue;
      try {
        const value = JSON.parse(this.storage!.getItem(key)!) as T | null;
        // Written by this very class; what has no name of its own is none of its.
        if (value !== null && typeof eventOf(value)?.id === 'string') kept.push(value);
      } catch {
        // Not ours after all.
      }
    }
    return kept.sort((a, b) => byTime(eventOf(a)!, eventOf(b)!));
  }
}

const byTime = (a: JobEvent, b: JobEvent) => Number(a.at > b.at) - Number(a.at < b.at);

/** Which of those that were sent are refused: those that the answer names, by id or by their place; else all. */
function refusedOf(error: ApiProblem, events: readonly JobEvent[]): readonly JobEvent[] {
  const { refused } = error.body;
  const places = new Set(error.errors.flatMap(({ path }) => /^events\[(\d+)\]/.exec(path)?.[1] ?? []));
  const named = Array.isArray(refused)
    ? events.filter(({ id }) => refused.includes(id))
    : events.filter((_, k) => places.has(String(k)));
  return named.length > 0 ? named : events;
}
