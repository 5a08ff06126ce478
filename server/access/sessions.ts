import { randomUUID } from 'node:crypto';
import session, { Store, type SessionData } from 'express-session';
import type { Request, RequestHandler } from 'express';
import { IsNull, type DataSource } from 'typeorm';
import { addressOf, setCaller, type Caller } from './caller';
import { Device, type DeviceRow } from './entity';
import { sealed } from './secret';
import type { DeviceListed, EndedWhy, StaffRole } from '@emery/core/api';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** A session ends when it was not used for so long, and at the latest after so long, ms. */
export const IDLE_MS = 3 * DAY;
export const FINAL_MS = 30 * DAY;
/** One that was lent for a job. */
export const LENT_IDLE_MS = 12 * HOUR;
export const LENT_FINAL_MS = 7 * DAY;
/** When somebody was last seen is written down at most so often, ms. */
const SEEN_EVERY_MS = 60_000;

/** Bound to this address alone by its name: never sent to another host or over http (RFC 6265bis, `__Host-`). */
export const COOKIE = '__Host-emery';

declare module 'express-session' {
  interface SessionData {
    device: string;
    caller: Partial<Caller>;
    lastSeenAt: number;
  }
}

interface Found extends Omit<DeviceRow, 'endsAt' | 'lastSeenAt' | 'endedAt'> {
  endsAt: Date;
  lastSeenAt: Date;
  endedAt: Date | null;
  personName: string | null;
  role: StaffRole | null;
  jobThere: string | null;
  signedAt: Date | null;
}

/** Devices with what decides whether their session is over. */
const FOUND = `SELECT device.*, person.name AS personName, person.role, job.id AS jobThere, job.signedAt
  FROM device LEFT JOIN person ON person.id = device.personId LEFT JOIN job ON job.id = device.jobId`;

/** Why a session is over, or null while it is good. What decides is as the database has it at this moment. */
function whyEnded(found: Found, now: number): EndedWhy | null {
  if (found.endedAt) return found.endedWhy ?? 'signed-out';
  if (found.endsAt.getTime() <= now) return 'final';
  const idle = found.jobId === null ? IDLE_MS : LENT_IDLE_MS;
  if (found.lastSeenAt.getTime() + idle <= now) return 'idle';
  if (found.jobId !== null) return found.jobThere === null || found.signedAt !== null ? 'job-signed' : null;
  return found.role === null ? 'removed' : null;
}

function callerOfRow(found: Found, now: number): Partial<Caller> {
  const ended = whyEnded(found, now);
  if (ended) return { ended };
  return found.jobId === null
    ? { role: found.role!, person: found.personId, name: found.personName, device: found.id }
    : { role: 'lent', name: found.name, device: found.id, job: found.jobId };
}

/** Sessions as `express-session` asks for them, one a device. */
class DeviceStore extends Store {
  constructor(private readonly data: DataSource) {
    super();
  }

  override get(sid: string, done: (error: unknown, found?: SessionData | null) => void): void {
    this.find(sid).then((found) => done(null, found), done);
  }

  private async find(sid: string): Promise<SessionData | null> {
    const [found] = await this.data.query<Found[]>(`${FOUND} WHERE device.session = ?`, [sealed(sid)]);
    if (!found) return null;
    const cookie = { originalMaxAge: null, expires: found.endsAt, path: '/', httpOnly: true };
    const caller = callerOfRow(found, Date.now());
    return { cookie, device: found.id, caller, lastSeenAt: found.lastSeenAt.getTime() };
  }

  /** The row is written where the device is brought in, and says all that there is to say. */
  override set(_sid: string, _session: SessionData, done?: (error?: unknown) => void): void {
    done?.();
  }

  override touch(sid: string, { lastSeenAt = 0, caller }: SessionData, done?: (error?: unknown) => void): void {
    const now = Date.now();
    if (caller.ended || now - lastSeenAt < SEEN_EVERY_MS) return done?.();
    this.data
      .query('UPDATE device SET lastSeenAt = ? WHERE session = ? AND lastSeenAt < ?', [
        new Date(now),
        sealed(sid),
        new Date(now),
      ])
      .then(
        () => done?.(),
        (error: unknown) => done?.(error),
      );
  }

  override destroy(sid: string, done?: (error?: unknown) => void): void {
    endSessions(this.data, { session: sealed(sid) }, 'signed-out').then(
      () => done?.(),
      (error: unknown) => done?.(error),
    );
  }
}

/** Finds the session of a request and says who asks. */
export function sessions(data: DataSource, secret: string): RequestHandler[] {
  return [
    session({
      name: COOKIE,
      secret,
      store: new DeviceStore(data),
      resave: false,
      saveUninitialized: false,
      cookie: { secure: true, httpOnly: true, sameSite: 'strict', path: '/', maxAge: FINAL_MS },
    }),
    (request, _response, next) => {
      setCaller(request, request.session.caller ?? {});
      next();
    },
  ];
}

/** So many devices are listed, the last seen first. */
const MOST_LISTED = 200;

/** The devices that are signed in, of one person or of all. */
export async function liveDevices(
  data: DataSource,
  person: string | null,
): Promise<Omit<DeviceListed<Date>, 'here'>[]> {
  const rows = await data.query<Found[]>(
    `${FOUND} WHERE device.endedAt IS NULL AND device.endsAt > ? ${person === null ? '' : 'AND device.personId = ?'}
     ORDER BY device.lastSeenAt DESC LIMIT ${MOST_LISTED}`,
    [new Date(), ...(person === null ? [] : [person])],
  );
  const now = Date.now();
  return rows
    .filter((row) => whyEnded(row, now) === null)
    .map((row) => {
      const { id, jobId, agent, address, createdAt, lastSeenAt } = row;
      const { role = 'nobody', name } = callerOfRow(row, now);
      return { id, name: name ?? '', role, job: jobId, agent, address, createdAt, lastSeenAt };
    });
}

/** Ends sessions that are not over yet; their open answers are cut off by whoever calls. */
export async function endSessions(
  data: DataSource,
  which: { id?: string; session?: string; personId?: string },
  why: EndedWhy,
  except: string | null = null,
): Promise<string[]> {
  const devices = data.getRepository(Device);
  const found = (await devices.findBy({ ...which, endedAt: IsNull() })).filter(({ id }) => id !== except);
  if (found.length > 0)
    await devices
      .createQueryBuilder()
      .update()
      .set({ endedAt: new Date(), endedWhy: why })
      .whereInIds(found.map(({ id }) => id))
      .execute();
  return found.map(({ id }) => id);
}

/** What a browser says it is, in the two words that tell it from another. */
export function agentWords(header: string | undefined): string {
  const agent = header ?? '';
  const system = (
    [
      [/iPhone/, 'iPhone'],
      [/iPad/, 'iPad'],
      [/Android.*Mobile/, 'Android phone'],
      [/Android/, 'Android tablet'],
      [/Windows/, 'Windows'],
      [/Mac OS/, 'Mac'],
      [/Linux|X11/, 'Linux'],
    ] as const
  ).find(([form]) => form.test(agent))?.[1];
  const browser = (
    [
      [/Firefox|FxiOS/, 'Firefox'],
      [/Edg/, 'Edge'],
      [/Chrome|CriOS|Chromium/, 'Chrome'],
      [/Safari/, 'Safari'],
    ] as const
  ).find(([form]) => form.test(agent))?.[1];
  return [browser, system].filter(Boolean).join(' on ') || 'Unknown browser';
}

/** Whom a device is signed in as. */
export interface SignedIn extends Pick<DeviceRow, 'personId' | 'jobId' | 'name' | 'cameBy'> {
  role: StaffRole | 'lent';
}

/** Makes a session for the device that asks, under a new name: one that was known before is good for nothing. */
export async function signIn(data: DataSource, request: Request, { role, ...who }: SignedIn): Promise<void> {
  const before = request.session.device;
  await new Promise<void>((done, fail) =>
    request.session.regenerate((error: unknown) => (error ? fail(error as Error) : done())),
  );
  if (before) await endSessions(data, { id: before }, 'signed-out');
  const now = Date.now();
  const row: DeviceRow = {
    ...who,
    id: randomUUID(),
    session: sealed(request.sessionID),
    agent: agentWords(request.headers['user-agent']),
    address: addressOf(request),
    createdAt: new Date(now),
    lastSeenAt: new Date(now),
    endsAt: new Date(now + (who.jobId === null ? FINAL_MS : LENT_FINAL_MS)),
    endedAt: null,
    endedWhy: null,
  };
  await data.getRepository(Device).insert(row);
  const caller: Partial<Caller> = { role, person: who.personId, name: who.name, device: row.id, job: who.jobId };
  Object.assign(request.session, { device: row.id, caller, lastSeenAt: now });
  setCaller(request, caller);
}
