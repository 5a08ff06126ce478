import type { DataSource } from 'typeorm';
import { Entry } from './entity';
import type { AuditKind } from '@emery/core/api';

/** So long several of the same stand as one, ms: a flood of refusals writes one line. */
const TOGETHER_MS = 60_000;
/** More different ones within that time are told as others. */
const MOST_TOGETHER = 200;
/** So many entries are kept. */
const MOST_KEPT = 5000;
const PRUNE_EVERY = 200;

export interface Told {
  kind: AuditKind;
  who: string;
  address: string;
  what: string;
}

/**
 * The list of what was done: sign-ins, refusals, deletes, exports, restores, changes of roles. What comes by the
 * thousand is counted together and written once a minute.
 */
export class Audit {
  private readonly together = new Map<string, Told & { times: number }>();
  private timer: NodeJS.Timeout | null = null;
  private written = 0;

  constructor(private readonly data: DataSource) {}

  /** Writes one entry. One that cannot be written is no reason to refuse what it tells of. */
  async tell(entry: Told, times = 1): Promise<void> {
    const { kind, who, address, what } = entry;
    const row = { kind, who: who.slice(0, 80), address, what: what.slice(0, 200), times, at: new Date() };
    await this.data
      .getRepository(Entry)
      .insert(row)
      .catch(() => undefined);
    this.written += 1;
    if (this.written % PRUNE_EVERY === 0) await this.prune();
  }

  /** Counts one of those that may come in a flood. */
  count(entry: Told): void {
    const full = this.together.size >= MOST_TOGETHER;
    const counted = full ? { ...entry, who: 'others', address: '', what: 'from many addresses' } : entry;
    const key = JSON.stringify([counted.kind, counted.who, counted.address, counted.what]);
    const there = this.together.get(key);
    if (there) there.times += 1;
    else this.together.set(key, { ...counted, times: 1 });
    this.timer ??= setTimeout(() => void this.flush(), TOGETHER_MS).unref();
  }

  /** Writes what was counted. */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const counted = [...this.together.values()];
    this.together.clear();
    for (const { times, ...entry } of counted) await this.tell(entry, times);
  }

  private async prune(): Promise<void> {
    await this.data
      .query('DELETE FROM access_entry WHERE id <= (SELECT MAX(id) FROM access_entry) - ?', [MOST_KEPT])
      .catch(() => undefined);
  }
}
