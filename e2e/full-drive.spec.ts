import { expect, openDrive, saved, test } from './emery';
import type { Drive } from '@emery/core/drive';

const FARM = 'Fan and alternator belts';

/** The drive with as many of everything as a file may hold. */
function full(drive: Drive): Drive {
  const times = <T>(count: number, make: (k: number) => T) => Array.from({ length: count }, (_, k) => make(k));
  const [station] = drive.stations;
  const pulley = station!.pulleys[0]!;
  return {
    ...drive,
    stations: [
      ...drive.stations,
      ...times(64 - drive.stations.length, (k) => ({
        ...{ id: `full${k}`, role: 'idler', x: 40 * (k % 8) - 600, y: 40 * Math.floor(k / 8) + 500 },
        pulleys: [{ ...pulley, id: `full${k}p`, diameter: 30 }],
      })),
    ],
    belts: [
      ...drive.belts,
      ...times(16 - drive.belts.length, (k) => ({ id: `full belt ${k}`, section: 'PK', ribs: 6, route: [] })),
    ],
    obstacles: times(64, (k) => ({ id: `full o${k}`, x: -700, y: 40 * k, diameter: 10 })),
    loads: times(100, (k) => ({ id: `full l${k}`, name: `Lamp ${k}`, amps: 1 })),
    job: {
      bolts: times(100, (k) => ({ id: `full b${k}`, station: station!.id, use: 'pivot' })),
      own: times(100, (k) => ({ id: `full s${k}`, phase: 'after', text: `Step ${k}` })),
    },
  } as unknown as Drive;
}

test('a drive that is full of everything: what adds to it says why it does not, beside itself, and all is still saved', async ({
  page,
  emery,
}) => {
  const { revision } = await emery.drive(FARM);
  expect(await emery.save(FARM, full)).toMatchObject({ revision: revision + 1, clashes: [] });
  const faults: string[] = [];
  page.on('pageerror', ({ message }) => faults.push(message));
  await page.goto('/');
  await openDrive(page, FARM);
  await expect(page.locator('.pulley').first()).toBeVisible();
  const shown = page.locator('.full-notice');
  const refused = async (words: RegExp) => {
    await expect(shown.getByRole('alert')).toHaveText(words);
    await shown.getByRole('button', { name: 'OK' }).click();
    await expect(shown).toBeHidden();
  };
  await page.keyboard.press('9');
  await page.locator('.ledger').getByText('Bolts', { exact: true }).first().click();
  const bolt = page.getByRole('button', { name: /Add a bolt/ });
  await bolt.click();
  await expect(shown).toBeVisible();
  // Beside the button that was pressed, and all of it on the page.
  const [notice, button] = [(await shown.boundingBox())!, (await bolt.boundingBox())!];
  const gap = Math.max(notice.y - (button.y + button.height), button.y - (notice.y + notice.height));
  expect(gap).toBeLessThanOrEqual(16);
  await refused(/^Bolt: a drive holds 100 at most\. Nothing was changed/);
  await page.locator('.ledger').getByText('Card', { exact: true }).first().click();
  await page.getByRole('button', { name: /Add a step to after/ }).click();
  const step = page.getByLabel(/^New step/).first();
  await step.fill('Wipe the pulley');
  await step.press('Enter');
  await refused(/^Step: a drive holds 100 at most/);
  await expect(step).toHaveValue('Wipe the pulley');
  expect(faults).toEqual([]);
  // What is changed afterwards is saved as ever.
  await page.keyboard.press('Escape');
  await page.keyboard.press('1');
  await saved(page);
  const now = (await emery.drive(FARM)).document;
  expect([now.stations.length, now.belts.length, now.job!.bolts!.length]).toEqual([64, 16, 100]);
});
