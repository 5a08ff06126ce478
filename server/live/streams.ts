import type { Response } from 'express';
import type { DataSource } from 'typeorm';
import type { Wire } from './news';
import { LIVE } from './words';
import { type NumberedNews, tellNews } from './news';
import type { HereDevice, LiveMessage, Pointing, Take, Topic } from '@emery/core/api';

/** A line that says nothing, so that either end finds out that the other is gone, ms. */
const BEAT_MS = 20_000;
/** A stream is ended after so long: it begins again by itself, and who asks is looked at anew, ms. */
const LONGEST_MS = 15 * 60_000;
/** Lists are told of at most so often: who looks at none of what changes has next to nothing to read, ms. */
const LISTS_MS = 1000;
/** A device whose stream broke off may come back within this; one not seen for so long is gone, ms. */
const GRACE_MS = 5000;
const GONE_MS = 65_000;
/** One that does not read what it is sent is let go, bytes. */
const MOST_WAITING = 4 * 1024 * 1024;

const DRIVE_LISTS: readonly Topic[] = ['vehicles', 'dues', 'records'];

/** The drives that a device shows. */
const drivesOf = (here: HereDevice | undefined): string[] =>
  (here?.tabs ?? []).flatMap(({ drive }) => (drive === null ? [] : [drive]));

/** One device that listens. */
class Stream {
  private readonly topics = new Set<Topic>();
  private readonly jobs = new Set<string>();
  private readonly drives = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private lastLists = 0;
  private seq = 0;
  /** What happens before it is told what it missed. */
  waiting: NumberedNews[] | null = [];

  constructor(
    readonly device: string,
    readonly response: Response,
  ) {}

  send(message: LiveMessage): void {
    if (this.response.writableLength > MOST_WAITING) return void this.response.destroy();
    this.response.write([`id: ${message.seq}`, `data: ${JSON.stringify(message)}`, '', ''].join('\n'));
  }

  lists(seq: number, topics: readonly Topic[], { job, drive }: { job?: string; drive?: string }): void {
    for (const topic of topics) this.topics.add(topic);
    if (job !== undefined) this.jobs.add(job);
    if (drive !== undefined) this.drives.add(drive);
    this.seq = seq;
    const wait = this.lastLists + LISTS_MS - Date.now();
    if (wait <= 0) this.flush();
    else this.timer ??= setTimeout(() => this.flush(), wait).unref();
  }

  private flush(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.lastLists = Date.now();
    this.send({
      kind: 'lists',
      seq: this.seq,
      topics: [...this.topics],
      jobs: [...this.jobs],
      drives: [...this.drives],
    });
    this.topics.clear();
    this.jobs.clear();
    this.drives.clear();
  }

  end(): void {
    if (this.timer) clearTimeout(this.timer);
    this.response.end();
  }
}

/** The devices that listen at this server, and all that are there at any. */
export class Streams {
  private readonly streams = new Set<Stream>();
  private readonly here = new Map<string, HereDevice>();
  private readonly timer: NodeJS.Timeout;
  private stopListening: (() => void) | null = null;
  private loaded: Promise<void> | null = null;

  constructor(
    private readonly data: DataSource,
    private readonly wire: Wire,
  ) {
    STREAMS.set(data, this);
    this.timer = setInterval(() => void this.beat(), BEAT_MS).unref();
  }

  /** Ends all of them, as when the server ends; each goes on with whichever answers then. */
  stop(): void {
    clearInterval(this.timer);
    this.listenNoMore();
    for (const stream of this.streams) stream.end();
    this.streams.clear();
    STREAMS.delete(this.data);
  }

  /** All devices that are there. */
  async devices(): Promise<HereDevice[]> {
    await this.load();
    return [...this.here.values()];
  }

  isFollowed(device: string): boolean {
    return [...this.here.values()].some(({ follows }) => follows === device);
  }

  /** Says where a device is; told to those at the same drives. */
  async setHere(here: HereDevice): Promise<void> {
    const body = JSON.stringify(here);
    await this.data.query('REPLACE INTO presence (device, seenAt, body) VALUES (?)', [[here.device, new Date(), body]]);
    await tellNews(this.data.manager, { kind: 'here', subject: here.device, body: here });
  }

  /** Answers with a stream of all that is for the device, from where it left off. */
  async open(response: Response, device: string, after: number | null): Promise<void> {
    await this.wire.follow();
    await this.load();
    response.set({ 'Content-Type': 'text/event-stream', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    const stream = new Stream(device, response);
    this.stopListening ??= this.wire.listen((news) => this.take(news));
    const last = setTimeout(() => stream.end(), LONGEST_MS).unref();
    this.streams.add(stream);
    response.on('close', () => {
      clearTimeout(last);
      this.streams.delete(stream);
      if (this.streams.size === 0) this.listenNoMore();
      setTimeout(() => void this.leave(device), GRACE_MS).unref();
    });
    try {
      const missed = after === null ? null : await this.wire.after(after);
      const seq = missed?.at(-1)?.seq ?? (await this.wire.lastSeq());
      stream.send({ kind: 'hello', seq: missed ? (after ?? seq) : seq, gap: missed === null });
      const { waiting } = stream;
      stream.waiting = null;
      for (const news of [...(missed ?? []), ...(waiting ?? []).filter((news) => news.seq > seq)])
        this.tellOne(stream, news);
    } catch {
      // The database is away: the device asks again.
      response.destroy();
    }
  }

  private listenNoMore(): void {
    this.stopListening?.();
    this.stopListening = null;
  }

  /** Whoever left a drive is told of at it, so who was where is known until all are told. */
  private take(news: readonly NumberedNews[]): void {
    for (const piece of news) {
      for (const stream of this.streams)
        if (stream.waiting) stream.waiting.push(piece);
        else this.tellOne(stream, piece);
      if (piece.kind === 'here') this.put(piece.body as HereDevice);
    }
  }

  private put(here: HereDevice): void {
    if (here.tabs.length === 0) this.here.delete(here.device);
    else this.here.set(here.device, here);
  }

  private load(): Promise<void> {
    if (this.streams.size > 0 && this.loaded) return this.loaded;
    this.loaded = this.data
      .query<{ body: string }[]>('SELECT body FROM presence WHERE seenAt > ?', [new Date(Date.now() - GONE_MS)])
      .then((rows) => {
        this.here.clear();
        for (const { body } of rows) this.put(JSON.parse(body) as HereDevice);
      });
    return this.loaded;
  }

  private tellOne(stream: Stream, { kind, seq, subject, body }: NumberedNews): void {
    const own = this.here.get(stream.device);
    switch (kind) {
      case 'drive': {
        const { version } = body as { version?: unknown };
        if (drivesOf(own).includes(subject)) stream.send({ kind, seq, drive: subject, version: version ?? null });
        return stream.lists(seq, DRIVE_LISTS, { drive: subject });
      }
      case 'lists': {
        const { topics, job } = body as { topics: Topic[]; job?: string };
        return stream.lists(seq, topics, { ...(job !== undefined && { job }) });
      }
      case 'here': {
        const here = body as HereDevice;
        const shared = [...drivesOf(here), ...drivesOf(this.here.get(subject))];
        const isNear = here.tabs.length === 0 || drivesOf(own).some((drive) => shared.includes(drive));
        return void (subject !== stream.device && isNear && stream.send({ kind, seq, here }));
      }
      case 'point':
        return void (
          own?.follows === subject && stream.send({ kind, seq, device: subject, pointing: body as Pointing })
        );
      case 'take': {
        const take = body as Take;
        return void ([take.from, take.to].includes(stream.device) && stream.send({ kind, seq, take }));
      }
    }
  }

  /** A device whose stream is closed and has not come back. */
  private async leave(device: string): Promise<void> {
    const is = () => [...this.streams].some((stream) => stream.device === device);
    if (is() || !STREAMS.has(this.data)) return;
    try {
      await this.data.query('DELETE FROM presence WHERE device = ? AND seenAt < ?', [
        device,
        new Date(Date.now() - GRACE_MS + 500),
      ]);
      const [left] = await this.data.query<object[]>('SELECT 1 FROM presence WHERE device = ?', [device]);
      if (left) return;
      const gone: HereDevice = { device, name: '', kind: 'computer', tabs: [], follows: null };
      await tellNews(this.data.manager, { kind: 'here', subject: device, body: gone });
    } catch {
      // It is gone once it was not seen for a minute.
    }
  }

  private async beat(): Promise<void> {
    if (this.streams.size === 0) return;
    for (const { response } of this.streams) response.write(':\n\n');
    try {
      await this.data.query('UPDATE presence SET seenAt = ? WHERE device IN (?)', [
        new Date(),
        [...new Set([...this.streams].map(({ device }) => device))],
      ]);
      await this.data.query('DELETE FROM presence WHERE seenAt < ?', [new Date(Date.now() - GONE_MS)]);
    } catch {
      // At the next beat.
    }
  }
}

const STREAMS = new WeakMap<DataSource, Streams>();

/** Those of a shop that is open. */
export function streamsOf(data: DataSource): Streams {
  const streams = STREAMS.get(data);
  if (!streams) throw new Error(LIVE.notOpen);
  return streams;
}
