import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';
import { writeWav } from '@emery/core/sound';
import { targetTension, runDrive, statesThatMatter, tensionOf, windowOf, worstOf } from '@emery/core/loads';
import {
  combineReadings,
  type Meaning,
  meaningOf,
  settingFor,
  simulatedPlucks,
  spanFigures,
} from '@emery/core/tension';
import { limitOrDefault, marksOf } from '@emery/core/accessory';

const FARM = 'Fan and alternator belts';

test('from a squeal under load to the new setting, by mouse', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, `${FARM} of Hill farm pickup`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('5');

  // It squeals at idle with everything on: the bench says what slips, by core's one answer.
  const { document } = await emery.drive(FARM);
  const tension = tensionOf(document);
  const standing = tension.staticBelts[0]!;
  const marks = marksOf(document.speeds);
  const idle = runDrive(tension, { all: 'heaviest', rpm: marks.idle });
  const worst = worstOf(idle.belts[0]!)!;
  const shown = page.getByTestId('worst-margin');
  await expect(shown).toHaveAttribute('data-margin', String(worst.margin));
  await expect(shown).toContainText('slips');
  await expect(page.getByTestId('tension-answer')).toContainText('too loose');
  await page.getByRole('button', { name: 'Motorway' }).click();
  await expect(shown).not.toHaveAttribute('data-margin', String(worst.margin));
  await page.getByRole('button', { name: 'Idle, everything on' }).click();

  // How far to move the alternator in its slot for the aim, and what that does to the other belt.
  await page.getByRole('button', { name: 'Set it' }).click();
  const states = statesThatMatter(marks, { all: 'heaviest' }, false);
  const aim = Math.round(targetTension(windowOf(tension, 'inner', states, limitOrDefault)!)!);
  await expect(page.getByLabel('Set it to (target tension), N')).toHaveValue(String(aim));
  await expect(page.getByTestId('setting')).toHaveAttribute('data-mm', String(settingFor(document, standing, aim)!.mm));
  await expect(page.getByText(/Belt 2.*has no other adjuster/)).toBeVisible();
  await page.getByLabel(/^Set it to/).fill('a lot');
  await page.getByLabel(/^Set it to/).blur();
  await expect(page.getByText(/Set it to.*: enter a number from 0 to 20000/)).toBeVisible();
  await page.getByLabel(/^Set it to/).fill('420');
  await page.getByLabel(/^Set it to/).press('Enter');
  await expect(page.getByTestId('setting')).toHaveAttribute('data-mm', String(settingFor(document, standing, 420)!.mm));

  // Moved; now it is checked by two schools on one span, and what they read is taken.
  await page.getByText('Check', { exact: true }).click();
  await page.getByLabel('Push, N').fill('27');
  await page.getByLabel('Deflection, mm').fill('4.4');
  await page.getByLabel('Deflection, mm').press('Enter');
  await page.getByRole('button', { name: 'Record reading' }).click();
  await page.getByRole('button', { name: 'Click gauge' }).click();
  await page.getByLabel('Gauge reading, kgf').fill('43');
  await page.getByLabel('Gauge reading, kgf').press('Enter');
  await page.getByRole('button', { name: 'Record reading' }).click();
  await expect(page.getByRole('list', { name: 'Readings' }).getByRole('listitem')).toHaveCount(2);
  await saved(page);
  const read = (await emery.drive(FARM)).document;
  const readings = read.belts[0]!.tensionReadings!;
  const meanings = readings.map((reading) => ({
    way: reading.way,
    meaning: meaningOf(read, standing, reading) as Meaning,
  }));
  const measured = combineReadings(meanings)!;
  await expect(page.getByTestId('measured')).toHaveAttribute('data-measured', String(measured.at));
  await page.getByRole('button', { name: /^Take \d+ N as present tension/ }).click();
  await saved(page);
  const set = (await emery.drive(FARM)).document.belts[0]!;
  expect(set.staticTension).toBeCloseTo(measured.at, 1);
  await expect(page.getByTestId('tension-answer')).not.toContainText('too loose');
  await page.getByText('Runs', { exact: true }).click();
  await expect(shown).toContainText('slip margin');

  // What its maker says of an accessory goes before the default.
  await page.getByText('Loads', { exact: true }).click();
  await page.getByRole('row', { name: /^Alternator/ }).click();
  await page.getByLabel('Its own speed, rev/min').fill('3000');
  await page.getByLabel('Torque, N·m').fill('6.5');
  await page.getByLabel('Torque, N·m').press('Enter');
  await page.getByRole('button', { name: 'Add this point' }).click();
  await expect(page.getByText('on: 3,000 rev/min, 6.5 N·m')).toBeVisible();
  await page.keyboard.press('Escape');
  for (const view of ['Runs', 'Range', 'Set', 'Check']) {
    await page.getByText(view, { exact: true }).click();
    await noFaultOfAccess(page, '.ledger');
  }
});

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a WAV of a plucked span to a tension; noise and what is not a sound file are refused', async ({
    page,
    emery,
  }) => {
    await page.goto('/');
    await page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ }).tap();
    await toStage(page, 'Tension');
    await page.getByText('Check', { exact: true }).tap();
    // A push tells nothing of a sprung arm's belt; the bench says so, and what does.
    await page.getByRole('button', { name: 'Push' }).tap();
    await expect(page.getByText(/A push moves the sprung arm, not the belt/)).toBeVisible();
    await page.getByRole('button', { name: 'Pluck', exact: true }).tap();
    await page.getByText('Sound file', { exact: true }).tap();

    const { document: truck } = await emery.drive('Front drive');
    const standing = tensionOf(truck).staticBelts[0]!;
    const longest = standing.spans.reduce(
      (best, { length }, k) => (length > standing.spans[best]!.length ? k : best),
      0,
    );
    const span = spanFigures(standing, longest);
    const file = (name: string, plucks: number, hiss: number) => ({
      name,
      mimeType: 'audio/wav',
      buffer: Buffer.from(writeWav(simulatedPlucks(span, 290, { hum: 0.1, hiss, plucks }, 5))),
    });
    const give = (what: { name: string; mimeType: string; buffer: Buffer }) =>
      page.locator('input[type="file"]').setInputFiles(what);
    await give({ name: 'notes.wav', mimeType: 'audio/wav', buffer: Buffer.from('not a sound file') });
    await expect(page.getByText(/notes\.wav is not a sound file this browser can read/)).toBeVisible();
    await give(file('noise.wav', 0, 0.3));
    await expect(page.getByText(/^No note\./)).toBeVisible();
    await give(file('plucks.wav', 3, 0.02));
    const heard = page.getByTestId('heard');
    await expect(heard).toBeVisible();
    expect(Math.abs(Number(await heard.getAttribute('data-tension')) / 290 - 1)).toBeLessThan(0.02);
    await page.getByRole('button', { name: 'Record pluck' }).tap();
    await saved(page);
    const [kept] = (await emery.drive('Front drive')).document.belts[0]!.tensionReadings!;
    expect(kept).toMatchObject({
      way: 'pluck',
      hz: expect.closeTo(Number(await heard.getAttribute('data-hz')), 1) as unknown,
    });
    await expect(page.getByTestId('measured')).toContainText('1 reading');

    // The arm's pointer with it: less than its spring should hold where it stands.
    await page.getByText('Set', { exact: true }).tap();
    await page.getByLabel('Pointer, as drawn, °').fill('75');
    await page.getByLabel('Pointer, as drawn, °').press('Enter');
    await expect(page.getByTestId('arm-left')).toContainText('%');
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  });
});

test('a marked length that cannot be fitted is said here as on the job card, by all that was measured', async ({
  page,
  emery,
}) => {
  const drive = (measurements: object[]) => ({
    format: 'emery-drive',
    version: 1,
    name: 'slide',
    crankRotation: 'ccw',
    stations: [
      { id: 'crank', role: 'crankshaft', x: 0, y: 0, pulleys: [{ id: 'c', surface: 'vee', diameter: 140, plane: 0 }] },
      {
        id: 'alt',
        role: 'alternator',
        x: 240,
        y: 60,
        adjuster: { kind: 'slide', direction: 14, travel: 40 },
        pulleys: [{ id: 'a', surface: 'vee', diameter: 70, plane: 0 }],
      },
    ],
    belts: [
      {
        id: 'main',
        section: 'AV10',
        length: 915,
        measurements,
        route: [
          { pulley: 'c', side: 'drive' },
          { pulley: 'a', side: 'drive' },
        ],
      },
    ],
  });
  const words = '915 mm cannot be fitted';
  const taped = { id: 'm', tool: 'marking', mm: 920, plusMinus: 0.5, state: 'tight' };
  for (const [measurements, misfits] of [
    [[], true],
    [[taped], false],
  ] as const) {
    const response = await page.request.post(`${emery.address()}/api/drives`, {
      data: { document: drive([...measurements]) },
    });
    const { id } = (await response.json()) as { id: string };
    for (const stage of ['tension', 'job']) {
      await page.goto(`/drives/${id}/${stage}`);
      await expect(page.locator('.ledger')).toContainText(stage === 'tension' ? 'Static tension' : 'Bring');
      await expect(page.getByText(words)).toHaveCount(misfits ? 1 : 0);
    }
  }
});
