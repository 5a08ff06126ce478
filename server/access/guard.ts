import type { Request, RequestHandler, Response } from 'express';
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import type { DataSource } from 'typeorm';
import { networkOf, tooMany } from './attempts';
import type { Audit } from './audit';
import { addressOf, type Caller, callerOf, nameOf } from './caller';
import { isEnough, ruleOf, type RouteRule } from './route-table';
import { ENDED_WORDS, MAY_WORDS, REFUSED, underWay as underWayWords } from './words';
import { Problem } from '../http/problem';

/** Requests of one device a minute: a drag saves, a job asks for news; a program that runs wild is stopped. */
const ALL = { points: 1200, duration: 60 };
const HEAVY = { points: 60, duration: 60 };
/** Of somebody who is not signed in. */
const UNKNOWN = { points: 360, duration: 60 };
/** Large uploads, imports and files of one device at one time. */
const MOST_HEAVY_AT_ONCE = 3;

/** Keeps what each device has under way, so that it can be shut out in the middle of it. */
export class UnderWay {
  private readonly responses = new Map<string, Set<Response>>();

  add(device: string, response: Response): void {
    const those = this.responses.get(device) ?? new Set();
    this.responses.set(device, those.add(response));
    response.once('close', () => {
      those.delete(response);
      if (those.size === 0) this.responses.delete(device);
    });
  }

  cut(devices: readonly string[]): void {
    for (const device of devices) for (const response of this.responses.get(device) ?? []) response.destroy();
  }
}

export interface GuardOptions {
  data: DataSource;
  audit: Audit;
  underWay: UnderWay;
}

/** Lets a request through where the table of routes has it for who asks; all else is refused. */
export function accessGuard({ data, audit, underWay }: GuardOptions): RequestHandler {
  const bounded = bounds();
  return async (request, response, next) => {
    // Compression and a file that is streamed listen for the end of it as well, each several times.
    response.setMaxListeners(24);
    const caller = callerOf(request);
    const found = ruleOf(request.method, request.path);
    if (!caller.machine) await bounded(request, response, caller, found?.rule ?? null);
    if (!found) {
      // Nobody learns which addresses there are.
      if (caller.role === 'nobody') throw signInFirst(caller);
      return next();
    }
    const { rule, params } = found;
    if (!(await isAllowed(data, rule, params, caller))) {
      audit.count({
        ...{ kind: 'refused', who: nameOf(caller), address: addressOf(request) },
        // Whoever opens a page without being signed in asks for several things in vain.
        what: caller.role === 'nobody' ? 'not signed in' : `${rule.method} ${rule.path}`,
      });
      throw caller.role === 'nobody' ? signInFirst(caller) : new Problem(403, 'Not allowed', MAY_WORDS[rule.least]);
    }
    if (caller.device) underWay.add(caller.device, response);
    if (rule.told) tellAfterwards(audit, rule, params, request, response);
    next();
  };
}

const signInFirst = ({ ended }: Caller): Problem =>
  new Problem(401, 'Not signed in', ENDED_WORDS[ended ?? 'none'], [], { ended: ended ?? 'none' });

async function isAllowed(
  data: DataSource,
  rule: RouteRule,
  params: Record<string, string>,
  { role, machine, job }: Caller,
): Promise<boolean> {
  const { lent } = rule;
  if (role !== 'lent') return isEnough(rule.least, role, machine);
  if (rule.least === 'anybody' || lent === 'all') return true;
  if (lent === 'job') return params['id'] === job;
  return lent === 'picture' && job !== null && (await isOfJob(data, params['hash'] ?? '', job));
}

/** Whether a picture is of a job: in the sheet it began with, or added to it since. */
async function isOfJob(data: DataSource, hash: string, job: string): Promise<boolean> {
  if (!/^[0-9a-f]{64}$/.test(hash)) return false;
  const found = await data.query<object[]>(
    `SELECT 1 FROM job WHERE id = ? AND sheet LIKE ?
     UNION SELECT 1 FROM job_event WHERE jobId = ? AND body LIKE ? LIMIT 1`,
    [job, `%${hash}%`, job, `%${hash}%`],
  );
  return found.length > 0;
}

/** Puts a request that went well into the list of what was done. */
function tellAfterwards(
  audit: Audit,
  { told, method, path }: RouteRule,
  params: Record<string, string>,
  request: Request,
  response: Response,
): void {
  const caller = callerOf(request);
  const [who, address] = [nameOf(caller), addressOf(request)];
  const what = Object.entries(params).reduce((text, [name, value]) => text.replace(`:${name}`, value), path);
  response.once('finish', () => {
    if (response.statusCode < 400) void audit.tell({ kind: told!, who, address, what: `${method} ${what}` });
  });
}

/** Bounds what one device asks for, by its session; of those without one by their network. */
function bounds() {
  const all = new RateLimiterMemory({ ...ALL, keyPrefix: 'all' });
  const heavy = new RateLimiterMemory({ ...HEAVY, keyPrefix: 'heavy' });
  const unknown = new RateLimiterMemory({ ...UNKNOWN, keyPrefix: 'unknown' });
  const running = new Map<string, number>();
  const taken = async (limiter: RateLimiterMemory, key: string) => {
    try {
      await limiter.consume(key);
    } catch (limit) {
      throw tooMany((limit as RateLimiterRes).msBeforeNext, REFUSED.tooMuch);
    }
  };
  return async (request: Request, response: Response, { device }: Caller, rule: RouteRule | null): Promise<void> => {
    const key = device ?? networkOf(addressOf(request));
    await taken(device ? all : unknown, key);
    if (!rule?.heavy) return;
    await taken(heavy, key);
    const now = running.get(key) ?? 0;
    if (now >= MOST_HEAVY_AT_ONCE) throw tooMany(1000, underWayWords(now));
    running.set(key, now + 1);
    response.once('close', () => {
      const left = running.get(key)! - 1;
      if (left > 0) running.set(key, left);
      else running.delete(key);
    });
  };
}
