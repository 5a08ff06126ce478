import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, type BrowserContext, chromium, type Page } from '@playwright/test';
import { expect, type Emery } from './emery';
import config from '../playwright.config';
import type { SharingState } from '@emery/core/api';

/* Devices of the network: Emery is shared, and they come by this machine's network address over HTTPS. */

export const PASSPHRASE = 'four wet belts today';
export const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

/** A request at the machine itself; fails in words. */
export async function atMachine<T>(emery: Emery, method: string, where: string, body: object): Promise<T> {
  const answer = await fetch(`${emery.address()}/api${where}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${method} ${where}: ${answer.status} ${await answer.text()}`);
  return answer.json() as Promise<T>;
}

/** Shares the shop with Ines as its owner. The address for other devices, and the page that tells how to trust it. */
export async function share(emery: Emery): Promise<{ origin: string; trustPage: string }> {
  await atMachine(emery, 'POST', '/access/first', { name: 'Ines', passphrase: PASSPHRASE });
  const { addresses, trustPage, problem } = await atMachine<SharingState>(emery, 'PUT', '/access/sharing', {
    on: true,
  });
  expect(problem).toBeNull();
  return { origin: addresses[0]!, trustPage: trustPage! };
}

/** A device that has gone past the warning of the certificate. */
export const device = (browser: Browser, origin: string, more: object = {}): Promise<BrowserContext> =>
  browser.newContext({ baseURL: origin, ignoreHTTPSErrors: true, ...more });

export async function signIn(page: Page, name: string, passphrase = PASSPHRASE): Promise<void> {
  const form = page.getByRole('form', { name: 'Name and passphrase' });
  await form.getByLabel('Name').fill(name);
  await form.getByLabel('Passphrase').fill(passphrase);
  await form.getByRole('button', { name: 'Sign in' }).click();
  await expect(form).toBeHidden();
}

/**
 * A browser of its own whose list of trusted authorities (NSS, as on a Linux desktop) has the one of the plain page.
 * With `camera` it has a camera and a microphone that show and play a test.
 */
export async function trusting(trustPage: string): Promise<{ browser: Browser; close: () => Promise<void> }> {
  const home = mkdtempSync(path.join(tmpdir(), 'emery-home-'));
  const store = path.join(home, '.pki', 'nssdb');
  const file = path.join(home, 'authority.crt');
  writeFileSync(file, Buffer.from(await (await fetch(`${trustPage}/emery-authority.crt`)).arrayBuffer()));
  execFileSync('mkdir', ['-p', store]);
  const certutil = (...args: string[]) => execFileSync('certutil', ['-d', `sql:${store}`, ...args], { stdio: 'pipe' });
  certutil('-N', '--empty-password');
  certutil('-A', '-t', 'C,,', '-n', 'Emery', '-i', file);
  const { launchOptions } = config.use!;
  const browser = await chromium.launch({
    ...launchOptions,
    args: [...launchOptions!.args!, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    env: { ...process.env, HOME: home },
  });
  return {
    browser,
    close: async () => {
      await browser.close();
      rmSync(home, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
    },
  };
}
