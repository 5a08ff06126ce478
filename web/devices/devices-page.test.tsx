import { Route } from 'react-router';
import { onPage, settle } from '../test/bench-page';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import Dress from '../theme/Dress';
import DevicesPage from './DevicesPage';

const AT = '2026-11-19T08:00:00.000Z';
const SHARED = {
  ...{
    on: true,
    addresses: ['https://192.0.2.2:4681', 'https://emery.local:4681'],
    trustPage: 'http://192.0.2.2:4681',
  },
  ...{ fingerprint: 'AB:CD:EF', certificateEnds: '2027-12-25T00:00:00.000Z', announced: 'emery.local' },
  ...{ problem: null, left: ['198.51.100.4'] },
};
const UNSHARED = {
  ...SHARED,
  on: false,
  addresses: [],
  trustPage: null,
  fingerprint: null,
  certificateEnds: null,
  left: [],
};

const READ: Record<string, object> = {
  people: {
    people: [
      { id: 'p1', name: 'Ines', role: 'owner', createdAt: AT },
      { id: 'p2', name: 'Tam', role: 'counter', createdAt: AT },
    ],
  },
  devices: {
    devices: [
      {
        id: 'd1',
        name: 'Tam',
        role: 'counter',
        job: null,
        agent: 'Chrome on Android phone',
        address: '192.0.2.9',
        createdAt: AT,
        lastSeenAt: AT,
        here: false,
      },
      {
        id: 'd2',
        name: 'Uma',
        role: 'lent',
        job: 'j1',
        agent: 'Safari on iPhone',
        address: '192.0.2.8',
        createdAt: AT,
        lastSeenAt: AT,
        here: false,
      },
    ],
  },
  feeds: { feeds: [{ id: 'f1', label: 'Phone of Ines', madeBy: 'Ines', createdAt: AT, lastAskedAt: null }] },
  audit: {
    entries: [
      { id: 2, at: AT, kind: 'wrong-passphrase', who: 'Tam', address: '192.0.2.7', what: 'sign-in', times: 14 },
      {
        id: 1,
        at: AT,
        kind: 'people',
        who: 'at the machine',
        address: '127.0.0.1',
        what: 'first owner Ines',
        times: 1,
      },
    ],
    total: 2,
  },
};

const show = (more: Record<string, object>) =>
  onPage(
    '/devices',
    <Route element={<Dress />}>
      <Route path="/devices" element={<DevicesPage />} />
    </Route>,
    { reads: { access: (path) => ({ ...READ, ...more })[path.split(/[/?]/)[2]!] ?? {} } },
  );

test('devices of a shop that is shared, and what everything in it does, is as it was read', async () => {
  const at = await show({ sharing: SHARED, me: { owned: true } });
  const lines = ['=== devices', ...seen(at.page)];
  lines.push(
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: () => [at.page], most: 40, back: () => settle(4) })),
  );
  heldSeen('devices', lines);
});

test('before the first share the owner is asked for, with the caution beside it', async () => {
  const at = await show({ sharing: UNSHARED, me: { owned: false }, people: { people: [] }, devices: { devices: [] } });
  heldSeen('devices-first', seen(at.page));
  await at.write('Name', 'Ines');
  await at.write('Passphrase', 'four wet belts today');
  await at.press('Make the owner');
  expect(at.server.sent).toEqual([
    { method: 'POST', path: '/access/first', body: { name: 'Ines', passphrase: 'four wet belts today' } },
  ]);
});

test('what is refused stands at its field, and what was typed stays', async () => {
  const at = await show({ sharing: SHARED, me: { owned: true } });
  await at.press('Add person');
  await at.write('Name', 'Ines');
  await at.write('Passphrase', 'four wet belts today');
  const errors = [{ path: 'name', message: 'is taken: there is somebody called Ines already' }];
  at.server.refuse('POST', '/access/people', 422, 'x', { errors });
  const dialog = () => document.querySelector('.ant-modal')!;
  (dialog().querySelector('button[type="submit"]') as HTMLButtonElement).click();
  await settle(6);
  expect(dialog().textContent).toContain('is taken: there is somebody called Ines already');
  expect([...dialog().querySelectorAll('input')].map(({ value }) => value)).toEqual(
    expect.arrayContaining(['Ines', 'four wet belts today']),
  );
});
