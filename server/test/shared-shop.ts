import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Outside } from './outside';
import { reached } from './reached';
import { running, type Answer, type Running } from './running';
import type { ShareOptions } from '../open-shop';
import type { StaffRole } from '@emery/core/api';

export const PASSPHRASE = 'four wet belts today';

/** A shop that is shared, with its owner Ines, and devices of the network. */
export interface SharedShop extends Running {
  origin: string;
  authority: string;
  /** A device that was never there. */
  device: () => Outside;
  /** One signed in as Ines, or as a new person of that role. */
  signedIn: (role?: StaffRole) => Promise<Outside>;
  /** A code from the machine or another device, as it is shown. */
  code: (asked: object, ask?: Outside['ask']) => Promise<{ id: string; token: string; digits: string }>;
}

let count = 0;

export async function sharedShop(kind: 'demo' | 'empty', more: Partial<ShareOptions> = {}): Promise<SharedShop> {
  const folder = mkdtempSync(path.join(tmpdir(), 'emery-share-'));
  const shop = await running(kind, { share: { port: 0, folder, announced: false, addresses: reached, ...more } });
  const good = ({ status, body }: Answer) => {
    if (status >= 300) throw new Error(JSON.stringify(body));
  };
  good(await shop.ask('POST', '/access/first', { name: 'Ines', passphrase: PASSPHRASE }));
  good(await shop.ask('PUT', '/access/sharing', { on: true }));
  const [origin = ''] = shop.sharing.state().addresses;
  // There is none behind a proxy.
  const authority = more.origin === undefined ? readFileSync(path.join(folder, 'authority.crt'), 'utf8') : '';
  const device = () => new Outside(origin, authority);
  return {
    ...shop,
    origin,
    authority,
    device,
    signedIn: async (role) => {
      const name = role === undefined ? 'Ines' : `${role} ${(count += 1)}`;
      if (role !== undefined) good(await shop.ask('POST', '/access/people', { name, role, passphrase: PASSPHRASE }));
      const outside = device();
      good(await outside.ask('POST', '/access/sign-in', { name, passphrase: PASSPHRASE }));
      return outside;
    },
    code: async (asked, ask = shop.ask) => {
      const answer = await ask('POST', '/access/codes', { place: '/', ...asked });
      good(answer);
      const { id, link, digits } = answer.body as { id: string; link: string; digits: string };
      return { id, token: link.split('#')[1]!, digits };
    },
    stop: async () => {
      await shop.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
