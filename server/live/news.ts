import type { DataSource, EntityManager } from 'typeorm';
import { afterwards } from '../storage/change';

/**
 * What happens in the shop, as every device is told of it. A piece of news is put down with the change that it tells
 * of, and has a number once that is stored: a number that is seen has none before it that is still to come, whatever
 * the order in which changes are stored, and any server of this database can go on where another left off.
 */
export interface News {
  kind: 'drive' | 'lists' | 'here' | 'point' | 'take';
  /** The drive, the device or the request that it is about. */
  subject: string;
  revision?: number;
  body: unknown;
}

export interface NumberedNews extends News {
  seq: number;
}

interface Row {
  seq: string;
  kind: News['kind'];
  subject: string;
  revision: number | null;
  body: string;
  changes: string | null;
  saveId: string | null;
  savedBy: string | null;
  at: Date;
}

/** News is kept for an hour, and what a version of a drive changed, ms; the version itself is history (`drives`). */
const HOUR_MS = 3_600_000;
/** News of other servers is looked for so often while somebody listens, and what is old is put away so often, ms. */
const LOOK_MS = 300;
const SWEEP_MS = 5 * 60_000;
/** Numbered, read and put away in pieces of so many. */
const PIECE = 500;

const WIRES = new WeakMap<DataSource, Wire>();

/** Puts down a piece of news with the change that it tells of; it is told once that is stored. */
export async function tellNews(manager: EntityManager, { kind, subject, revision, body }: News): Promise<void> {
  await manager.query('INSERT INTO news (at, kind, subject, revision, body) VALUES (?)', [
    [new Date(), kind, subject, revision ?? null, JSON.stringify(body)],
  ]);
  afterwards(manager, () => WIRES.get(manager.connection)?.number());
}

/** Numbers what is put down, and hands it on to whoever listens at this server. */
export class Wire {
  private readonly listeners = new Set<(news: readonly NumberedNews[]) => void>();
  private readonly timers: NodeJS.Timeout[];
  private last: number | null = null;
  private numbering: Promise<void> | null = null;
  private again = false;
  private reading: Promise<void> | null = null;
  private stopped = false;

  constructor(private readonly data: DataSource) {
    WIRES.set(data, this);
    this.timers = [
      setInterval(() => void (this.listeners.size > 0 && this.look()), LOOK_MS).unref(),
      setInterval(() => void this.sweep(), SWEEP_MS).unref(),
    ];
    // What a server that was killed had put down and not numbered.
    this.number();
    void this.sweep();
  }

  stop(): void {
    this.stopped = true;
    for (const timer of this.timers) clearInterval(timer);
    WIRES.delete(this.data);
    this.listeners.clear();
  }

  /** Calls back with all that happens from here on, in the order of its numbers. Returns what ends that. */
  listen(listener: (news: readonly NumberedNews[]) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** The number of the last piece of news. */
  async lastSeq(): Promise<number> {
    const [row] = await this.data.query<{ seq: string }[]>('SELECT seq FROM news_last WHERE id = 1');
    return Number(row?.seq ?? 0);
  }

  /** All news after a number; null where some of it is no longer kept. */
  async after(seq: number): Promise<NumberedNews[] | null> {
    const last = await this.lastSeq();
    if (seq > last) return null;
    const found: NumberedNews[] = [];
    for (let from = seq; from < last; from = found.at(-1)?.seq ?? last) {
      const piece = await this.read(from);
      if (piece[0]?.seq !== from + 1) return null;
      found.push(...piece);
    }
    return found;
  }

  /** Gives what is put down its numbers, and tells. One run at a time: what comes meanwhile has the next. */
  number(): void {
    this.again = true;
    this.numbering ??= this.numberAll().finally(() => (this.numbering = null));
  }

  private async numberAll(): Promise<void> {
    while (this.again && !this.stopped) {
      this.again = false;
      try {
        await this.data.transaction('READ COMMITTED', async (manager) => {
          const [row] = await manager.query<{ seq: string }[]>('SELECT seq FROM news_last WHERE id = 1 FOR UPDATE');
          const found = await manager.query<{ id: string }[]>(
            `SELECT id FROM news WHERE seq IS NULL ORDER BY id LIMIT ${PIECE}`,
          );
          if (found.length === 0) return;
          const first = Number(row?.seq ?? 0) + 1;
          const cases = found.map(() => 'WHEN ? THEN ?').join(' ');
          await manager.query(`UPDATE news SET seq = CASE id ${cases} END WHERE id IN (?)`, [
            ...found.flatMap(({ id }, k) => [id, first + k]),
            found.map(({ id }) => id),
          ]);
          await manager.query('UPDATE news_last SET seq = ? WHERE id = 1', [first + found.length - 1]);
          if (found.length === PIECE) this.again = true;
        });
      } catch {
        // The database is away: what is put down waits for the next to be numbered.
        return;
      }
      await this.look();
    }
  }

  private async look(): Promise<void> {
    if (this.reading) return this.reading;
    this.reading = this.readOn().finally(() => (this.reading = null));
    return this.reading;
  }

  private async readOn(): Promise<void> {
    try {
      this.last ??= await this.lastSeq();
      for (;;) {
        const news = await this.read(this.last);
        const end = news.at(-1);
        if (!end || this.stopped) return;
        this.last = end.seq;
        for (const listener of this.listeners) listener(news);
        if (news.length < PIECE) return;
      }
    } catch {
      // Looked for again in a moment.
    }
  }

  /** Begins to follow, where nobody did: what was before is not news. */
  async follow(): Promise<void> {
    if (this.listeners.size === 0) this.last = null;
    this.last ??= await this.lastSeq();
  }

  private async read(seq: number): Promise<NumberedNews[]> {
    const rows = await this.data.query<Row[]>(
      `SELECT news.seq, news.kind, news.subject, news.revision, news.body, news.at,
         drive_version.changes, drive_version.saveId, drive_version.savedBy
       FROM news LEFT JOIN drive_version
         ON news.kind = 'drive' AND drive_version.driveId = news.subject AND drive_version.revision = news.revision
       WHERE news.seq > ? ORDER BY news.seq LIMIT ${PIECE}`,
      [seq],
    );
    return rows.map(numbered);
  }

  private async sweep(): Promise<void> {
    const hour = new Date(Date.now() - HOUR_MS);
    const piece = `LIMIT ${PIECE * 4}`;
    try {
      await this.data.query(`DELETE FROM news WHERE at < ? ORDER BY at ${piece}`, [hour]);
      await this.data.query(`UPDATE drive_version SET changes = NULL WHERE at < ? AND changes IS NOT NULL ${piece}`, [
        hour,
      ]);
      await this.data.query(`DELETE FROM take WHERE at < ? ORDER BY at ${piece}`, [hour]);
    } catch {
      // Made up for by the next.
    }
  }
}

/** A version's changes are told as they are kept, once. */
function numbered({ seq, kind, subject, revision, body, at, changes, saveId, savedBy }: Row): NumberedNews {
  const about = JSON.parse(body) as object;
  const version = kind === 'drive' &&
    changes !== null && {
      version: { revision, saveId, by: savedBy, at: at.toISOString(), changes: JSON.parse(changes) as unknown },
    };
  return { seq: Number(seq), kind, subject, ...(revision !== null && { revision }), body: { ...about, ...version } };
}
