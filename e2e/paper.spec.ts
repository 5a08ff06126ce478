import jsQR from 'jsqr';
import sharp from 'sharp';
import type { Download, Page } from '@playwright/test';
import { type Emery, expect, test } from './emery';
import { readPdf } from './read-pdf';
import { stationLabel } from '@emery/core/drive';
import { cardOf } from '@emery/core/job';
import { essentialsOf } from '@emery/core/records';

/* What comes out on paper, read back by a reader of PDF and of QR codes of its own. */

const FARM = 'Fan and alternator belts';
/** Latin with accents of West and East, Greek, Cyrillic. */
const NAME = 'Ødegård Œuvre Őszi Łódź Žižek · Ελλάδα ώς · Трактор Її';

/** The demo's pickup under a name in every script that the screen shows. */
async function renamed(emery: Emery) {
  const drive = await emery.drive(FARM);
  const { vehicleId } = await emery.get<{ vehicleId: string }>(`/drives/${drive.id}`);
  const vehicle = await emery.get<Record<string, unknown>>(`/vehicles/${vehicleId}`);
  const answer = await fetch(`${emery.address()}/api/vehicles/${vehicleId}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...vehicle, saveId: crypto.randomUUID(), name: NAME }),
  });
  expect(answer.status).toBe(200);
  return { ...drive, vehicleId, plate: String(vehicle['plate']) };
}

async function bytesOf(download: Download): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of await download.createReadStream()) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}
async function pdfFrom(page: Page, address: string): Promise<Buffer> {
  await page.goto(address);
  const button = page.getByRole('button', { name: /PDF/ }).first();
  await expect(button).toBeEnabled();
  const [file] = await Promise.all([page.waitForEvent('download'), button.click()]);
  return bytesOf(file);
}

test('all four PDFs: names in every script, one font of their own, a title, a language and tags', async ({
  page,
  emery,
}) => {
  const { id, vehicleId, document } = await renamed(emery);
  const steps = cardOf(document).steps;
  const papers = [
    { at: `/drives/${id}/job-card`, title: 'Job card', has: [steps[0]!.text, steps.at(-1)!.text, '✓'] },
    { at: `/drives/${id}/glovebox`, title: 'Glovebox card', has: ['outside, from the drawing'] },
    { at: `/drives/${id}/card`, title: 'Routing card', has: ['Fit last over'] },
    { at: `/vehicles/${vehicleId}`, title: 'History', has: ['Odometer', 'Drive'] },
  ];
  for (const { at, title, has } of papers) {
    const bytes = await pdfFrom(page, at);
    const pdf = await readPdf(bytes);
    expect(pdf.pages.length).toBeLessThanOrEqual(2);
    expect(pdf.title).toMatch(new RegExp(`^${title}: ${NAME.slice(0, 12)}`));
    expect([pdf.language, pdf.marked]).toEqual(['en', true]);
    expect(pdf.text).toContain(NAME);
    for (const words of has.filter((words) => words !== '✓')) expect(pdf.text).toContain(words);
    for (const { tags } of pdf.pages) expect(tags).toContain('"Document"');
    // Of each font a subset goes along, and no font that is not in the file is named.
    const fonts = [...new Set(bytes.toString('latin1').match(/\/BaseFont \/[^\s/]+/g) ?? [])];
    expect(fonts.length).toBeGreaterThan(0);
    for (const font of fonts) expect(font).toMatch(/^\/BaseFont \/[A-Z]{6}\+DejaVuSansCondensed/);
    expect(bytes.length).toBeLessThan(200_000);
  }
});

test('from the browser: a glovebox card of one A5 page, a job of two pages, and the bench with its drawing whole and all of its ledger', async ({
  page,
  emery,
}) => {
  const { id, document } = await emery.drive(FARM);
  await page.goto(`/drives/${id}/glovebox`);
  await expect(page.getByRole('img', { name: /^Glovebox card/ })).toBeVisible();
  const glovebox = await readPdf(await page.pdf({ preferCSSPageSize: true }));
  // A5 across, in points.
  expect(glovebox.pages.map(({ width, height }) => [width, height])).toEqual([[595, 420]]);

  await page.goto(`/drives/${id}/job-card`);
  await expect(page.getByRole('heading', { name: 'Hill farm pickup' })).toBeVisible();
  expect((await readPdf(await page.pdf({ preferCSSPageSize: true }))).pages.length).toBeLessThanOrEqual(2);

  await page.goto(`/drives/${id}/job`);
  await expect(page.getByRole('region', { name: 'After', exact: true })).toBeVisible();
  // However far it is zoomed in, and moved.
  for (let k = 0; k < 4; k += 1) await page.getByRole('button', { name: 'Zoom in' }).click();
  const bench = await readPdf(await page.pdf({ preferCSSPageSize: true }));
  const [first] = bench.pages;
  for (const station of document.stations) {
    const name = first!.words.find(({ text }) => text === stationLabel(station));
    expect(name).toBeDefined();
    expect(name!.x).toBeGreaterThan(0);
    expect(name!.x).toBeLessThan(first!.width);
    expect(name!.y).toBeGreaterThan(0);
    expect(name!.y).toBeLessThan(first!.height);
  }
  for (const { text } of cardOf(document, undefined, 'in').steps) expect(bench.text).toContain(text);
  // Back on the screen it is as it was.
  expect(await page.locator('.front-view-svg').getAttribute('viewBox')).toBeNull();
});

test.describe('the code on the glovebox card', () => {
  test.use({ viewport: { width: 1280, height: 900 }, deviceScaleFactor: 3 });

  test('is read back as the drive’s essentials, without a network, whatever letters its names have', async ({
    page,
    emery,
  }) => {
    const card = page.getByRole('img', { name: /^Glovebox card/ });
    const read = async () => {
      const { data, info } = await sharp(await card.screenshot())
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      return jsQR(new Uint8ClampedArray(data), info.width, info.height);
    };
    const truck = await emery.drive('Front drive');
    await page.goto(`/drives/${truck.id}/glovebox`);
    await expect(card).toContainText('TFW 02');
    await expect(card).toContainText('Release: turn the arm');
    const plain = await read();
    expect(plain?.data).toBe(essentialsOf(truck.document, { name: truck.vehicleName, plate: 'TFW 02' }));
    // ASCII is read alike by every reader, with nothing said of it.
    expect(plain?.data).toMatch(/^[\x20-\x7e\n]*$/);
    expect(plain?.chunks[0]).toMatchObject({ type: 'byte' });

    const { id, document, plate } = await renamed(emery);
    await page.goto(`/drives/${id}/glovebox`);
    await expect(card).toContainText(plate);
    const other = await read();
    expect(other?.data).toBe(essentialsOf(document, { name: NAME, plate }));
    // ECI 26 is UTF-8 (ISO/IEC 18004, 7.4.2).
    expect(other?.chunks[0]).toMatchObject({ type: 'eci', assignmentNumber: 26 });
  });
});
