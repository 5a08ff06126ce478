import type { AuditKind, Role } from '@emery/core/api';

/**
 * Who may ask for what: every address of the API once, with the least that one must be. What is not here is refused,
 * and a test holds the list against the routes that there are.
 */

/** Anybody; who reads and ticks; who works at the bench; the owner; the owner at the machine that Emery runs on. */
export type Least = 'anybody' | 'counter' | 'bench' | 'owner' | 'machine';

export interface RouteRule {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** Below `/api`, as the routers have it. */
  path: string;
  least: Least;
  /** What a device that one job was lent to may do with it: all of it, of its own job, or a picture of its job. */
  lent?: 'all' | 'job' | 'picture';
  /** Written into the list of what was done. */
  told?: AuditKind;
  /** Takes or gives much: fewer of them a minute, and few at once. */
  heavy?: true;
}

type Row = readonly [RouteRule['method'], string, Least, Omit<RouteRule, 'method' | 'path' | 'least'>?];

const ROWS: readonly Row[] = [
  ['GET', '/health', 'anybody'],
  ['GET', '/shop', 'counter', { lent: 'all' }],
  ['PATCH', '/shop', 'bench'],
  ['POST', '/shop/demo', 'owner', { told: 'import', heavy: true }],

  ['GET', '/vehicles', 'counter'],
  ['GET', '/vehicles/deleted', 'counter'],
  ['POST', '/vehicles', 'bench'],
  ['GET', '/vehicles/:id', 'counter'],
  ['PUT', '/vehicles/:id', 'bench'],
  ['POST', '/vehicles/:id/duplicate', 'bench', { heavy: true }],
  ['DELETE', '/vehicles/:id', 'bench', { told: 'delete' }],
  ['POST', '/vehicles/:id/restore', 'bench', { told: 'restore' }],

  ['GET', '/drives', 'counter'],
  ['GET', '/drives/deleted', 'counter'],
  ['POST', '/drives', 'bench'],
  ['GET', '/drives/:id', 'counter'],
  ['PATCH', '/drives/:id', 'bench'],
  ['GET', '/drives/:id/versions', 'counter'],
  ['GET', '/drives/:id/past', 'counter'],
  ['GET', '/drives/:id/past/:revision', 'counter'],
  ['PUT', '/drives/:id/vehicle', 'bench'],
  ['POST', '/drives/:id/duplicate', 'bench'],
  ['DELETE', '/drives/:id', 'bench', { told: 'delete' }],
  ['POST', '/drives/:id/restore', 'bench', { told: 'restore' }],
  ['GET', '/drives/:id/file', 'counter', { told: 'export' }],

  ['POST', '/photos', 'counter', { lent: 'all', heavy: true }],
  ['GET', '/photos/:hash', 'counter', { lent: 'picture' }],

  ['GET', '/stock', 'counter'],
  ['GET', '/stock/lengths', 'counter'],
  ['GET', '/stock/file', 'bench', { told: 'export', heavy: true }],
  ['POST', '/stock', 'bench', { told: 'import', heavy: true }],
  ['DELETE', '/stock/:id', 'bench', { told: 'delete' }],

  ['GET', '/bands', 'counter'],
  ['PUT', '/bands/:role', 'bench'],
  ['DELETE', '/bands/:role', 'bench'],

  ['GET', '/pulleys', 'counter'],
  ['POST', '/pulleys', 'bench'],
  ['DELETE', '/pulleys/:id', 'bench', { told: 'delete' }],

  ['GET', '/parts', 'counter'],
  ['GET', '/parts/file', 'bench', { told: 'export' }],
  ['POST', '/parts', 'bench', { told: 'import' }],
  ['DELETE', '/parts/:id', 'bench', { told: 'delete' }],

  ['GET', '/records', 'counter'],
  ['GET', '/records/due', 'counter'],
  ['GET', '/records/due.ics', 'counter', { told: 'export' }],
  ['GET', '/records/belts', 'counter'],
  ['GET', '/records/lives', 'counter'],
  ['GET', '/records/growth', 'counter'],
  ['POST', '/records/history', 'bench', { told: 'import', heavy: true }],
  ['GET', '/records/belts.csv', 'bench', { told: 'export', heavy: true }],
  ['GET', '/records/belts.json', 'bench', { told: 'export', heavy: true }],
  ['GET', '/records/file.csv', 'bench', { told: 'export', heavy: true }],
  ['GET', '/records/file.json', 'bench', { told: 'export', heavy: true }],

  ['GET', '/jobs', 'counter'],
  ['POST', '/jobs', 'bench'],
  ['GET', '/jobs/pace', 'counter'],
  ['GET', '/jobs/:id', 'counter', { lent: 'job' }],
  ['GET', '/jobs/:id/events', 'counter', { lent: 'job' }],
  ['POST', '/jobs/:id/events', 'counter', { lent: 'job' }],
  ['POST', '/jobs/:id/sign-off', 'bench'],
  ['DELETE', '/jobs/:id', 'bench', { told: 'delete' }],

  ['GET', '/live', 'counter'],
  ['GET', '/live/here', 'counter'],
  ['PUT', '/live/here/:device', 'counter'],
  ['POST', '/live/here/:device/point', 'counter'],
  ['POST', '/live/takes', 'counter'],
  ['GET', '/live/takes/:id', 'counter'],
  ['PATCH', '/live/takes/:id', 'counter'],
  ['PUT', '/live/takes/:id/bytes', 'counter', { heavy: true }],
  ['GET', '/live/takes/:id/bytes', 'counter'],

  ['GET', '/export', 'bench', { told: 'export', heavy: true }],
  ['POST', '/import', 'bench', { told: 'import', heavy: true }],
  ['POST', '/import/archive', 'owner', { told: 'import', heavy: true }],

  ['GET', '/keep', 'owner'],
  ['GET', '/keep/age', 'counter'],
  ['PUT', '/keep/folder', 'machine', { told: 'backup' }],
  ['POST', '/keep/backups', 'owner', { told: 'backup' }],
  ['DELETE', '/keep/backups', 'owner'],
  ['GET', '/keep/backups/:name', 'owner', { told: 'export', heavy: true }],

  ['GET', '/access/me', 'anybody'],
  ['POST', '/access/first', 'anybody'],
  ['POST', '/access/sign-in', 'anybody'],
  ['POST', '/access/redeem', 'anybody'],
  ['POST', '/access/sign-out', 'anybody'],
  ['GET', '/access/people', 'owner'],
  ['POST', '/access/people', 'owner'],
  ['PUT', '/access/people/:id', 'owner'],
  ['DELETE', '/access/people/:id', 'owner'],
  ['PUT', '/access/passphrase', 'counter'],
  ['GET', '/access/devices', 'counter'],
  ['DELETE', '/access/devices/:id', 'counter'],
  ['POST', '/access/codes', 'counter'],
  ['GET', '/access/codes/:id', 'counter'],
  ['DELETE', '/access/codes/:id', 'counter'],
  ['GET', '/access/feeds', 'bench'],
  ['POST', '/access/feeds', 'bench'],
  ['DELETE', '/access/feeds/:id', 'bench'],
  ['GET', '/access/feed/:token', 'anybody'],
  ['GET', '/access/audit', 'owner'],
  ['GET', '/access/sharing', 'counter'],
  ['PUT', '/access/sharing', 'machine'],
];

export const ROUTE_TABLE: readonly RouteRule[] = ROWS.map(([method, path, needed, more]) => ({
  method,
  path,
  least: needed,
  ...more,
}));

const PARAMETER = /^:(\w+)$/;

/** Fixed addresses before those that take anything in their place. */
const SORTED = ROUTE_TABLE.map((rule) => ({ rule, parts: rule.path.split('/') })).sort(
  (a, b) =>
    a.parts.filter((part) => PARAMETER.test(part)).length - b.parts.filter((part) => PARAMETER.test(part)).length,
);

/** The rule for a request and what stands in the place of its parameters; null for an address that there is not. */
export function ruleOf(method: string, path: string): { rule: RouteRule; params: Record<string, string> } | null {
  const asked = path.replace(/\/$/, '').split('/');
  const verb = method === 'HEAD' ? 'GET' : method;
  for (const { rule, parts } of SORTED) {
    if (rule.method !== verb || parts.length !== asked.length) continue;
    const params: Record<string, string> = {};
    const fits = parts.every((part, k) => {
      const name = PARAMETER.exec(part)?.[1];
      // The routers take letters of either case for one another, and so does this.
      if (name === undefined) return part.toLowerCase() === asked[k]?.toLowerCase();
      params[name] = asked[k] ?? '';
      return params[name] !== '';
    });
    if (fits) return { rule, params };
  }
  return null;
}

const RANK: Record<Role, number> = { nobody: 0, lent: 0, counter: 1, bench: 2, owner: 3 };
const NEEDED: Record<Exclude<Least, 'machine'>, number> = { anybody: 0, counter: 1, bench: 2, owner: 3 };

/** Whether a role is enough for a rule, apart from what was lent. */
export const isEnough = (needed: Least, role: Role, machine: boolean): boolean =>
  needed === 'machine' ? machine : RANK[role] >= NEEDED[needed];
