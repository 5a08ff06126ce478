import type { Drive } from '@emery/core/drive';
import type { PulleyAtHand } from '@emery/core/speeds';
import type { Patch } from '@emery/core/together';

/** A server that answers as Emery's does, and keeps what it was asked. */
export interface FakeServer {
  /** What was sent that changes something, in order: method, address, body. */
  sent: { method: string; path: string; body: unknown }[];
  /** The next request of that kind is refused so. */
  refuse: (method: string, path: string | RegExp, status: number, detail: string, more?: object) => void;
}

export interface Opened {
  id: string;
  document: Drive;
  unit: 'mm' | 'in';
  /** What is read of other addresses, by their first part, in place of what stands below. */
  reads?: Record<string, (path: string) => unknown>;
}

export const DRIVE_ID = '00000000-0000-4000-8000-00000000d001';

const SPARE: PulleyAtHand = {
  id: 'p1',
  label: 'Small alternator',
  role: 'alternator',
  surface: 'ribbed',
  diameter: 54,
  grooves: 6,
  count: 2,
};
const AT = '2026-11-01T08:00:00.000Z';

const CODE = {
  ...{ id: 'c1', link: 'https://192.0.2.2:4681/in#token', digits: '042917', typeAt: 'https://192.0.2.2:4681/in' },
  expiresAt: '2027-01-01T00:00:00.000Z',
};

/** Of a shop that is shared and has one owner. */
const ACCESS: Record<string, object> = {
  people: { people: [{ id: 'ines', name: 'Ines', role: 'owner', createdAt: AT }] },
  devices: { devices: [] },
  feeds: { feeds: [] },
  audit: { entries: [], total: 0 },
  codes: { state: 'open' },
  me: { role: 'owner', name: null, machine: true, job: null, owned: true },
  sharing: {
    ...{ on: true, addresses: ['https://192.0.2.2:4681'], trustPage: 'http://192.0.2.2:4681', fingerprint: 'AB:CD' },
    ...{ certificateEnds: '2027-12-25T00:00:00.000Z', announced: 'emery.local', problem: null, left: [] },
  },
};

/** What is kept of the drive: as it is now, an hour before, and the day before. */
const PAST = [
  { revision: 3, at: '2026-11-01T08:00:00.000Z', by: 'Ines' },
  { revision: 2, at: '2026-11-01T07:00:00.000Z', by: '' },
  { revision: 1, at: '2026-10-31T07:00:00.000Z', by: 'Tam' },
];

const PHONE = {
  ...{ device: 'phone-of-bert', name: 'Bert', kind: 'phone', follows: null },
  tabs: [{ tab: 't', drive: null, stage: '', part: '' }],
};

/** What is read of each address, by its first part. */
const READ: Record<string, (path: string, opened: Opened) => unknown> = {
  shop: (_, { unit }) => ({ id: 1, name: 'Tarnside Field Workshop', unit, hourRate: 60, limits: null }),
  drives: (path, { id, document }) => {
    if (path.endsWith('/deleted')) return { drives: [], total: 0 };
    if (path.endsWith('/past')) return { versions: PAST, more: false };
    const [, past] = /\/past\/(\d+)$/.exec(path) ?? [];
    if (past !== undefined)
      return { ...PAST.find(({ revision }) => revision === Number(past)), document: { ...document, name: 'Before' } };
    const vehicle = { vehicleId: 'v1', vehicleName: 'Test lorry' };
    return { id, ...vehicle, name: document.name, revision: 1, updatedAt: AT, savedBy: '', document };
  },
  stock: (path) =>
    path.startsWith('/stock/lengths')
      ? { lengths: [1000, 1250, 1735, 1800, 2150, 2200].map((lengthMm, k) => ({ lengthMm, shelf: k % 3 })) }
      : { belts: [], total: 0 },
  parts: () => ({ parts: [] }),
  pulleys: () => ({ pulleys: [SPARE] }),
  bands: () => ({ bands: {} }),
  jobs: (path) => (path.startsWith('/jobs/pace') ? { factor: 1, plusMinus: 0.3, jobs: 0 } : { jobs: [], total: 0 }),
  records: () => ({ rows: [], total: 0 }),
  vehicles: () => ({ vehicles: [], total: 0 }),
  live: () => ({ devices: [PHONE] }),
  keep: () => ({ lastAt: AT, isOld: false, says: null }),
  access: (path) => ACCESS[path.split('/')[2] ?? ''] ?? {},
};

const answer = (status: number, body: unknown) =>
  Promise.resolve({
    ok: status < 400,
    status,
    headers: new Headers({ 'content-type': 'application/json' }),
    text: () => Promise.resolve(status === 204 ? '' : JSON.stringify(body)),
    blob: () => Promise.resolve(new Blob([])),
    arrayBuffer: () => Promise.resolve(new ArrayBuffer(8)),
  });

/** Stands in for `fetch` until the next one is made. */
export function fakeServer(opened: Opened): FakeServer {
  const sent: FakeServer['sent'] = [];
  const refusals: { method: string; path: string | RegExp; status: number; detail: string; more: object }[] = [];
  globalThis.fetch = jest.fn((address: string, { method = 'GET', body }: RequestInit = {}) => {
    const path = String(address).replace(/^.*\/api(?=\/)/, '');
    const refused = refusals.findIndex(
      (one) => one.method === method && (typeof one.path === 'string' ? one.path === path : one.path.test(path)),
    );
    if (method !== 'GET') sent.push({ method, path, body: typeof body === 'string' ? JSON.parse(body) : body });
    if (refused >= 0) {
      const [{ status, detail, more }] = refusals.splice(refused, 1) as [(typeof refusals)[number]];
      return answer(status, { status, title: 'Refused', detail, ...more });
    }
    if (method === 'POST' && path === '/live/takes')
      return answer(201, { ...JSON.parse(String(body)), id: 'take', state: 'asked', part: 0, result: null });
    if (method === 'POST' && path === '/access/codes') return answer(201, CODE);
    if (method === 'PATCH' && path.startsWith('/drives/')) {
      const { saveId, changes, ...over } = JSON.parse(String(body)) as Patch;
      const revision = over.revision + 1;
      return answer(200, {
        revision,
        updatedAt: AT,
        since: [{ revision, changes, saveId, by: '', at: AT }],
        clashes: [],
      });
    }
    const first = path.split(/[/?]/)[1]!;
    const read = opened.reads?.[first] ?? READ[first];
    if (method === 'GET' && read) return answer(200, read(path, opened));
    return answer(method === 'GET' ? 404 : 200, { status: 404, title: 'Not found', detail: `No ${method} ${path}` });
  }) as never;
  return {
    sent,
    refuse: (method, path, status, detail, more = {}) => refusals.push({ method, path, status, detail, more }),
  };
}
