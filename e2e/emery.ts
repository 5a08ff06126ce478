import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { test as base, expect, type Page } from '@playwright/test';
import { buildInterface, buildTestShops } from '../scripts/lib/build.mjs';
import { openDatabase } from '../scripts/lib/database.mjs';
import { startProgram, startServer } from '../scripts/lib/serve.mjs';
import type { Drive } from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';
import { changesBetween } from '@emery/core/together';

interface Database {
  pid: number;
  url: (name: string) => string;
  close: () => Promise<boolean>;
}

interface Opened {
  id: string;
  revision: number;
  vehicleName: string;
  document: Drive;
}

/** A running Emery of the test's own: its own database, the demo shop in it. */
export interface Emery {
  address: () => string;
  get: <T>(path: string) => Promise<T>;
  /** The drive of that name as the server has it. */
  drive: (name: string) => Promise<Opened>;
  /** Changes the drive of that name as another device does. */
  save: (name: string, change: (drive: Drive) => Drive) => Promise<{ revision: number }>;
  /** The process of the MariaDB it stores in; shared by the tests of one worker. */
  databasePid: () => number;
  /** Starts the server again; for tests with `ownServer` alone. */
  start: () => Promise<void>;
  /** Ends the server as a power cut would; for tests with `ownServer` alone. */
  kill: () => Promise<void>;
}

interface Fixtures {
  emery: Emery;
  shop: 'demo' | 'empty';
  /** Its server is a process of its own, which the test may end; else a shop in the one server of the worker. */
  ownServer: boolean;
}

interface OfWorker {
  database: Database;
  webFolder: string;
  /** Opens a fresh shop in the worker's one server; resolves with its port and a way to shut it. */
  openShop: (shop: 'demo' | 'empty') => Promise<{ port: number; shut: () => Promise<unknown> }>;
}

/** A drive that is looked for by its name is waited for no longer than this, ms. */
const LONGEST_MS = 10_000;

function asked(port: () => number): Pick<Emery, 'address' | 'get' | 'drive' | 'save'> {
  const address = () => `http://127.0.0.1:${port()}`;
  const get = async <T>(where: string) => (await fetch(`${address()}/api${where}`)).json() as Promise<T>;
  const drive = async (name: string): Promise<Opened> => {
    // What a page sends is there a moment after it shows it as sent, or begins to send it.
    for (const began = Date.now(); ; await new Promise((resolve) => setTimeout(resolve, 100))) {
      const { drives } = await get<{ drives: { id: string; name: string }[] }>('/drives');
      const found = drives.find((listed) => listed.name === name);
      if (found) return get<Opened>(`/drives/${found.id}`);
      if (Date.now() - began > LONGEST_MS) throw new Error(`The shop has no drive named ${name}`);
    }
  };
  const save: Emery['save'] = async (name, change) => {
    const { id, revision, document } = await drive(name);
    const changes = changesBetween(document, change(document));
    const answer = await fetch(`${address()}/api/drives/${id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision, saveId: randomUUID(), changes }),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return answer.json() as Promise<{ revision: number }>;
  };
  return { address, get, drive, save };
}

export const test = base.extend<Fixtures, OfWorker>({
  webFolder: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => use(await buildInterface()),
    { scope: 'worker', timeout: 180_000 },
  ],
  database: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const folder = mkdtempSync(path.join(tmpdir(), 'emery-e2e-'));
      const database = (await openDatabase(folder)) as Database;
      await use(database);
      await database.close();
      rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  openShop: [
    async ({ database, webFolder }, use) => {
      const server = await startProgram(await buildTestShops(), { args: [database.url('emery_'), webFolder] });
      const ask = async (method: string, what: string | number) => {
        const answer = await fetch(`http://127.0.0.1:${server.port}/${what}`, { method });
        if (!answer.ok) throw new Error(await answer.text());
        return answer.json() as Promise<{ port: number }>;
      };
      await use(async (shop) => {
        const { port } = await ask('POST', shop);
        return { port, shut: () => ask('DELETE', port) };
      });
      await server.stop();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  shop: ['demo', { option: true }],
  ownServer: [false, { option: true }],
  emery: async ({ browser, database, webFolder, openShop, shop, ownServer }, use) => {
    const databasePid = () => database.pid;
    // Windows that a test opened by itself would go on asking for their server beside the tests that follow.
    const closeWindows = () => Promise.all(browser.contexts().map((context) => context.close()));
    if (!ownServer) {
      const { port, shut } = await openShop(shop);
      const shared = () => Promise.reject(new Error('this server is shared; say test.use({ ownServer: true })'));
      await use({ ...asked(() => port), databasePid, start: shared, kill: shared });
      await closeWindows();
      await shut();
      return;
    }
    const databaseUrl = database.url(`emery_${randomUUID().slice(0, 8)}`);
    let port = 0;
    let server: Awaited<ReturnType<typeof startServer>> | null = null;
    const start = async () => {
      server = await startServer({ databaseUrl, port, webFolder, logs: undefined, shop });
      port = server.port;
    };
    const kill = async () => {
      server!.kill('SIGKILL');
      await server!.ended;
      server = null;
    };
    await start();
    await use({ ...asked(() => port), databasePid, start, kill });
    await closeWindows();
    await (server as Awaited<ReturnType<typeof startServer>> | null)?.stop();
  },
  baseURL: async ({ emery }, use) => use(emery.address()),
});

export { expect };

/** The length on the bench, mm, as the page holds it behind the rounded figure. */
export async function shownLength(page: Page): Promise<number> {
  return Number(await page.locator('[data-length-mm]').getAttribute('data-length-mm'));
}

/** The length core gives a document's belt. */
export function coreLength(drive: Drive, belt = 0): number {
  return solveDrive(drive).belts[belt]!.length.mm!;
}

/** Drags a shaft by px on the screen, in steps as a hand would. */
export async function dragBy(page: Page, station: string, dx: number, dy: number): Promise<void> {
  const box = (await page.locator(`[data-station="${station}"] .pulley-disc`).first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let step = 1; step <= 8; step += 1) await page.mouse.move(x + (dx * step) / 8, y + (dy * step) / 8);
  await page.mouse.up();
  // The drawing follows a frame behind the hand.
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
}

export const openDrive = (page: Page, name: string) =>
  page.getByRole('link', { name: new RegExp(`^Open ${name}`) }).click();

/** To a stage: by the rail, or on a phone by the line that opens all of them. */
export async function toStage(page: Page, name: string): Promise<void> {
  await page.locator('.rail').waitFor();
  const line = page.locator('.rail-now');
  const named = { name: new RegExp(`^\\d\\s*${name}`) };
  if (!(await line.isVisible())) return page.locator('.rail').getByRole('button', named).click();
  await line.click();
  await page.getByRole('dialog').getByRole('button', named).click();
}

export const saved = (page: Page) => expect(page.locator('[data-save="saved"]')).toBeVisible();

/** What a choice of that name shows. */
export const chosen = async (page: Page, name: string): Promise<string> =>
  (
    await page
      .getByRole('combobox', { name, exact: true })
      .locator('xpath=ancestor::*[contains(@class,"ant-select")][last()]')
      .innerText()
  ).trim();
