import type { Locator, Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';
import type { JobListed, JobOpened, StockedLength } from '@emery/core/api';
import { bringList, cardOf } from '@emery/core/job';

const TRUCK = 'Front drive';
const FARM = 'Fan and alternator belts';
const view = (page: Page, name: string) => page.locator('.ledger').getByText(name, { exact: true }).first().click();
const steps = (page: Page) => page.getByRole('checkbox');
const progress = (page: Page) => page.getByTestId('job-progress');

async function jobCard(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await openDrive(page, name);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('9');
  await expect(page.getByTestId('job-answer')).toBeVisible();
}

async function begin(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Start this job' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}$/);
  await expect(progress(page)).toContainText('0 of');
  return page.url().split('/').at(-1)!;
}

/** Goes on from step to step until none is left, or `until` is in sight. */
async function tickAll(page: Page, until?: Locator): Promise<void> {
  const next = page.getByRole('button', { name: 'Done, next step' });
  const total = Number(/of (\d+) steps/.exec((await progress(page).textContent())!)![1]);
  for (let k = 0; k < total && (await next.isVisible()); k += 1) {
    if (until && (await until.isVisible())) return;
    await next.click();
  }
  await expect(progress(page)).toContainText(`${total} of ${total} steps`);
}

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('from what was found to the bring list, the job, the sign-off and what is due', async ({ page, emery }) => {
    await page.goto('/');
    await page.getByRole('link', { name: new RegExp(`^Open ${TRUCK} of Rescue truck 2`) }).tap();
    await toStage(page, 'Inspect');
    await page.getByLabel('Odometer now, km', { exact: true }).fill('152000');
    await page.getByLabel('Rib depth, mm', { exact: true }).fill('1.9');
    await page.getByLabel('Rib depth, mm', { exact: true }).press('Enter');
    await expect(page.getByTestId('part-verdict').first()).toContainText('Replace');
    await saved(page);
    await toStage(page, 'Job card');
    await view(page, 'Bring');
    const { document } = await emery.drive(TRUCK);
    // What Size recommends goes by the shop's own list.
    const { lengths } = await emery.get<{ lengths: StockedLength[] }>('/stock/lengths?section=PK&ribs=6');
    const stock = { main: lengths.map(({ lengthMm }) => lengthMm) };
    const [bring] = bringList(document, undefined, stock).belts;
    const belt = page.getByRole('region', { name: 'The belt' });
    await expect(belt).toContainText(bring!.markings[0]!.text);
    await expect(belt).toContainText(`${Math.round(bring!.lengthMm)} mm`);
    await expect(page.getByRole('region', { name: 'Tools' })).toContainText('Long wrench for the arm');

    const id = await begin(page);
    expect(await steps(page).count()).toBe(cardOf(document).steps.length);
    await page.getByPlaceholder('Your name').first().fill('Ann');
    await page.getByRole('button', { name: /Start the clock/ }).tap();
    await page.getByRole('button', { name: 'Remark or picture, step 7', exact: true }).tap();
    await page.getByLabel('Remark, step 7').fill('Stiff arm');
    await page.getByRole('region', { name: 'Belts off' }).getByRole('button', { name: 'Add', exact: true }).tap();
    await page.getByLabel('Picture of step 7').setInputFiles('demo/1-rescue-truck-ribs.jpg');
    await expect(page.getByRole('img', { name: 'Of step 7' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Belts off' })).toContainText('Ann: Stiff arm');
    await page.getByRole('button', { name: 'Remark or picture, step 7', exact: true }).tap();
    // What can hurt stands with the step that is being done.
    const caution = page.getByRole('region', { name: 'Current step' }).getByText('A sprung arm snaps back');
    await tickAll(page, caution);
    await expect(caution).toBeVisible();
    await tickAll(page);
    await page.getByRole('button', { name: 'New belt fitted' }).tap();
    await page.getByLabel('Serial number').fill('TF 6-2001');
    await page.getByLabel('Serial number').press('Enter');
    await page.getByRole('button', { name: 'Worn out' }).tap();
    await page.getByLabel('Odometer, km').fill('far');
    await expect(page.getByRole('alert')).toContainText('Odometer: enter a number from 0');
    await page.getByLabel('Odometer, km').fill('152010');
    await page.getByLabel('Odometer, km').press('Enter');
    await page.getByLabel('Remark', { exact: true }).fill('Pulley of the pump is rusty');
    await page.getByRole('region', { name: 'Recorded with the job' }).getByRole('button', { name: 'Add' }).last().tap();
    expect(await page.evaluate(() => window.document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expect(page.getByRole('region', { name: 'Sign off' })).not.toContainText('not ticked');
    await page.getByRole('button', { name: 'Sign off' }).tap();
    await expect(page.getByText(/Signed off by Ann/)).toBeVisible();
    await expect(steps(page).first()).toBeDisabled();

    const after = await emery.drive(TRUCK);
    expect(after.document.belts[0]!.care).toMatchObject({ number: 'TF 6-2001', fittedOdometer: 152_010 });
    const job = await emery.get<JobOpened>(`/jobs/${id}`);
    expect(job.sheet.drive).toEqual(document);
    await page.getByRole('link', { name: /story/ }).tap();
    await expect(page.getByRole('region', { name: 'History' })).toContainText('Job signed off by Ann');
    await expect(page.getByRole('region', { name: 'History' })).toContainText('number TF 6-2001');
    await expect(page.getByRole('region', { name: 'History' })).toContainText('Stiff arm');
    await expect(page.getByRole('img', { name: 'Of Job signed off by Ann' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Due', exact: true })).toContainText('inspect it again');
    await page.goto('/records/due');
    await expect(page.getByRole('list', { name: 'Due' })).toContainText('Rescue truck 2');
    await expect(page.getByRole('list', { name: 'Due' })).toContainText('or at 152,810 km');
    expect(await page.evaluate(() => window.document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

    // The bench that stood open has the new belt, and what is changed there now is saved.
    await page.goto(`/drives/${after.id}/job`);
    await expect(page.getByTestId('job-answer')).toBeVisible();
    await page.getByRole('button', { name: /Add a step to after/ }).tap();
    await page.getByLabel('New step, after').fill('Wash the windscreen');
    await page.getByLabel('New step, after').press('Enter');
    await saved(page);
    expect((await emery.drive(TRUCK)).document.job!.own).toMatchObject([{ text: 'Wash the windscreen' }]);
    // The signed job has no such step.
    await page.goto(`/jobs/${id}/print`);
    await expect(page.getByRole('heading', { name: /Rescue truck 2/ })).toBeVisible();
    await expect(page.getByText('Wash the windscreen')).toHaveCount(0);
    await expect(page.getByText(/Pulley of the pump is rusty/)).toBeVisible();
  });
});

test('by keyboard: words, order, left out, bolts with their torque, and all of it undone', async ({ page, emery }) => {
  await jobCard(page, FARM);
  await expect(page.getByTestId('job-answer')).toHaveAttribute('data-off', 'outer inner');
  const before = page.getByRole('region', { name: 'Before', exact: true });
  const first = 'Take a picture of the drive from the front';
  const press = async (target: Locator, ...keys: string[]) => {
    await target.focus();
    for (const key of keys) await page.keyboard.press(key);
  };
  await press(before.getByRole('button', { name: new RegExp(`^${first}`) }), 'Enter');
  await press(before.getByRole('button', { name: 'edit Reword' }), 'Enter');
  await page.getByLabel('Text of the step').fill('Two pictures: front and side.');
  await page.keyboard.press('Enter');
  await expect(before).toContainText('1Two pictures: front and side.');
  // Down by one place: taken up, moved and put down by keys.
  await press(before.getByRole('button', { name: 'Move step 1', exact: true }), 'Space');
  await expect(page.getByText('Now at the position of: Two pictures')).toBeAttached();
  // On a busy machine a key can come before the places are measured, and then moves nothing.
  const second = page.getByText('Now at the position of: Key out');
  await expect(async () => {
    if ((await second.count()) === 0) await page.keyboard.press('ArrowDown');
    await expect(second).toBeAttached({ timeout: 3000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect(before).toContainText('1Key out, battery off.');
  await saved(page);
  expect((await emery.drive(FARM)).document.job).toMatchObject({
    words: [{ step: 'before picture', text: 'Two pictures: front and side.' }],
    order: ['before key', 'before picture', 'before cool', 'before lay-out', 'before covers'],
  });
  await press(before.getByRole('button', { name: 'close Leave out' }), 'Enter');
  await expect(page.getByRole('region', { name: 'Left out' })).toContainText('Two pictures');

  await view(page, 'Bolts');
  await press(page.getByRole('button', { name: /Add a bolt/ }), 'Enter');
  await page.getByLabel('Torque', { exact: true }).fill('tight');
  await expect(page.getByRole('alert')).toContainText('"tight" is no torque. Write a torque such as');
  await page.getByLabel('Torque', { exact: true }).fill('35 ft lb');
  await expect(page.locator('.bolt-form')).toContainText('35 lbf·ft (47.5 N·m)');
  await page.keyboard.press('Enter');
  await page.getByLabel('Tool', { exact: true }).fill('15 mm socket');
  await press(page.getByRole('button', { name: 'Done' }), 'Enter');
  await view(page, 'Card');
  await expect(page.getByRole('region', { name: 'Belts on' })).toContainText(
    'Tighten pivot bolt of Alternator, 15 mm socket, 35 lbf·ft (47.5 N·m).',
  );
  await expect(page.getByRole('region', { name: 'Belts off' })).toContainText('Slacken before the adjuster is turned');
  await view(page, 'Bring');
  await expect(page.getByRole('region', { name: 'Tools' })).toContainText('15 mm socket');
  await saved(page);
  expect((await emery.drive(FARM)).document.job!.bolts![0]!.torqueNm).toBeCloseTo(47.4537, 3);
  await view(page, 'Card');
  for (let k = 0; k < 12; k += 1) await page.keyboard.press('Control+z');
  await expect(before).toContainText(`1${first}`);
});

test.describe('with a server that ends', () => {
  test.use({ ownServer: true });

  test('a dead server and a flat phone: nothing that was ticked is lost, and two people see each other', async ({
    browser,
    emery,
  }) => {
    const context = await browser.newContext({ baseURL: emery.address() });
    const ann = await context.newPage();
    await jobCard(ann, FARM);
    const id = await begin(ann);
    await ann.getByPlaceholder('Your name').first().fill('Ann');
    const bob = await (await browser.newContext({ baseURL: emery.address() })).newPage();
    await bob.goto(`/jobs/${id}`);
    await bob.getByPlaceholder('Your name').first().fill('Bob');
    await steps(ann).nth(0).click();
    await steps(bob).nth(1).click();
    for (const page of [ann, bob]) await expect(progress(page)).toContainText('2 of');
    await expect(ann.getByText(/Bob, /)).toBeVisible();

    await emery.kill();
    await steps(ann).nth(2).click();
    await steps(ann).nth(3).click();
    await expect(ann.getByText(/2 entries wait on this device/)).toBeVisible();
    await steps(bob).nth(4).click();
    await expect(bob.getByText(/1 entry waits on this device/)).toBeVisible();
    // The phone goes flat with its ticks on it.
    await ann.close();
    await emery.start();
    await expect(bob.getByText(/waits on this device/)).toBeHidden({ timeout: 30_000 });
    await expect(progress(bob)).toContainText('3 of');
    const again = await context.newPage();
    await again.goto(`/jobs/${id}`);
    for (const page of [again, bob]) await expect(progress(page)).toContainText('5 of', { timeout: 20_000 });
    const { events } = await emery.get<JobOpened>(`/jobs/${id}`);
    expect(events).toHaveLength(5);

    // Signed off by one, what the other still ticks goes to the story as late. His remark is not taken: it stays on the
    // device, whole, through a reload and on every other page, and goes to a new job.
    await bob.context().setOffline(true);
    await steps(bob).nth(6).click();
    await bob.getByRole('textbox', { name: 'Remark', exact: true }).fill('The bracket is cracked');
    await bob
      .getByRole('region', { name: 'Recorded with the job' })
      .getByRole('button', { name: 'Add' })
      .last()
      .click();
    await again.getByRole('button', { name: 'Sign off' }).click();
    await expect(again.getByText(/Signed off by Ann/)).toBeVisible();
    await bob.context().setOffline(false);
    await expect(bob.getByText(/1 entry was not saved\./)).toBeVisible({ timeout: 30_000 });
    await expect(bob.getByText(/was signed off by Ann/)).toBeVisible();
    expect((await emery.get<{ jobs: JobListed[] }>('/jobs')).jobs).toEqual([]);
    await expect(bob.getByText(/^Ticked late: /)).toBeVisible();
    const kinds = (await emery.get<JobOpened>(`/jobs/${id}`)).events.map(({ kind }) => kind);
    expect(kinds).toEqual(Array(6).fill('tick'));
    await bob.reload();
    await expect(bob.getByRole('alert', { name: 'Not saved' })).toContainText('Remark: The bracket is cracked');
    for (const page of ['/', '/belts', '/counter']) {
      await bob.goto(page);
      await expect(bob.getByRole('status', { name: 'On this device' })).toContainText(
        '1 entry of a job was not saved.',
      );
    }
    await bob.getByRole('link', { name: 'The job', exact: true }).click();
    await bob.getByRole('button', { name: 'Add to a new job' }).click();
    await expect(bob.getByText('Bob: The bracket is cracked')).toBeVisible();
    await expect(bob.getByRole('alert', { name: 'Not saved' })).toBeHidden();
    const [next] = (await emery.get<{ jobs: JobListed[] }>('/jobs')).jobs;
    await expect
      .poll(async () => (await emery.get<JobOpened>(`/jobs/${next!.id}`)).events)
      .toMatchObject([{ kind: 'note', text: 'The bracket is cracked', by: 'Bob' }]);
  });
});

test('a plan that changes while the job is open is offered step by step; nothing ticked is lost', async ({
  page,
  browser,
  emery,
}) => {
  await jobCard(page, FARM);
  const id = await begin(page);
  const slack = page.getByRole('checkbox', { name: /Slacken the pivot bolts of Alternator/ });
  await slack.first().click();
  await expect(progress(page)).toContainText('1 of');
  const bolt = { id: 'l', station: 'alt', use: 'lock', torqueNm: 25, tool: '13 mm socket' } as const;
  await emery.save(FARM, (drive) => ({ ...drive, job: { bolts: [bolt] } }));
  const offers = page.getByRole('region', { name: 'The plan has changed' });
  const tighten = 'Tighten lock bolt of Alternator, 13 mm socket, 25 N·m (18.4 lbf·ft).';
  await expect(offers).toContainText(`Belts on, new step: ${tighten}`);
  // The step that is ticked is not offered reworded; the one after the run-in is.
  const said = 'now says: Slacken before the adjuster is turned';
  await expect(offers.getByRole('listitem').filter({ hasText: said })).toHaveText([/^~ After, now says/]);
  const on = page.getByRole('region', { name: 'Belts on' });
  await expect(on).not.toContainText(tighten);
  await offers
    .getByRole('listitem')
    .filter({ hasText: tighten })
    .first()
    .getByRole('button', { name: 'Accept' })
    .click();
  await expect(on).toContainText(tighten);
  const other = await (await browser.newContext({ baseURL: emery.address() })).newPage();
  await other.goto(`/jobs/${id}`);
  await expect(other.getByRole('region', { name: 'Belts on' })).toContainText(tighten);
  await other
    .getByRole('region', { name: 'The plan has changed' })
    .getByRole('button', { name: /^Accept all/ })
    .click();
  for (const device of [page, other])
    await expect(device.getByRole('region', { name: 'The plan has changed' })).toBeHidden();
  // Ticked, it says what it said when it was ticked; the step that the plan no longer has is gone.
  await expect(slack.first()).toBeChecked();
  await expect(on).not.toContainText('to the torque of the service manual, in its order');
  await page.getByPlaceholder('Your name').first().fill('Ann');
  await page.getByRole('button', { name: 'Sign off' }).click();
  await expect(page.getByText(/Signed off by Ann/)).toBeVisible();
  const { events } = await emery.get<JobOpened>(`/jobs/${id}`);
  expect(events.filter(({ kind }) => kind === 'plan').length).toBeGreaterThan(1);
  await page.goto(`/jobs/${id}/print`);
  await expect(page.getByText(tighten).first()).toBeVisible();
  await expect(page.getByText(/^Labour: /)).toBeVisible();
});

test('belts from before Emery: a look at the list first, and then they are in the story', async ({ page, emery }) => {
  await page.goto('/records/happened');
  const list = page.getByRole('region', { name: 'Belts from before Emery' });
  const choose = (text: string) =>
    page.getByLabel('CSV file of old belts').setInputFiles({
      name: 'old.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(text),
    });
  await choose('number,fitted\n1,2');
  await expect(list.getByRole('alert')).toContainText('has no first line with the columns vehicle, belt');
  await choose(
    [
      'vehicle;belt;number;fitted;odometer;taken off;odometer off;why',
      'Hill farm pickup;belt 2;OLD 77;2019-03-01;40000;2022-01-05;61000;broke',
      'Hill farm pickup;;OLD 78;2019-03-01;;;;',
    ].join('\n'),
  );
  await expect(list).toContainText('1 row to import, 1 row not understood');
  await expect(list).toContainText('Line 3: belt: is missing, and the vehicle has several');
  expect((await emery.drive(FARM)).document.inspect?.changed ?? []).toEqual([]);
  await list.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(list.getByRole('status')).toContainText('1 row imported.');
  await expect(page.getByRole('list', { name: 'History' })).toContainText('broke, number OLD 77');
  expect((await emery.drive(FARM)).document.inspect!.changed).toMatchObject([{ target: 'outer', odometer: 61_000 }]);
});

test('over the whole shop: due, belts in plain words, what happened, how long belts last', async ({ page }) => {
  await page.goto('/');
  const van = page.getByRole('region', { name: 'Mobile kitchen van' });
  await expect(van).toContainText('Due: belt 2, 4-rib PK: read its tension');
  await page.getByRole('link', { name: 'Due and records' }).click();
  await expect(page.getByTestId('due-answer')).toContainText('1 due');
  await page.getByRole('link', { name: 'Belts on' }).click();
  await page.getByLabel('Search: Belts on').fill('every 6-rib belt over 10,000 km');
  await expect(page.getByTestId('belts-answer')).toContainText('1 belt');
  await expect(page.getByTestId('belts-answer')).toContainText('Understood: 6 ribs · over 10,000 km.');
  await expect(page.getByRole('list', { name: 'Belts on' })).toContainText('number TF 6-1507');
  await page.getByRole('link', { name: 'History' }).click();
  await page.getByLabel('Search: History').fill('van broke');
  await expect(page.getByRole('list', { name: 'History' }).getByRole('listitem')).toHaveCount(1);
  await page.getByRole('link', { name: 'Belt life' }).click();
  await expect(page.getByTestId('lives-answer')).toContainText('45,060');
});

test('nothing in the job’s views stands in the way of a reader of the screen', async ({ page }) => {
  await jobCard(page, FARM);
  await expect(page.getByRole('region', { name: 'After' })).toBeVisible();
  await noFaultOfAccess(page, '.ledger');
  await noFaultOfAccess(page, '.unrolled');
  for (const name of ['Bolts', 'Bring']) {
    await view(page, name);
    await page.waitForTimeout(400);
    await noFaultOfAccess(page, '.ledger');
  }
  await begin(page);
  await noFaultOfAccess(page);
});

test('nor in the story, what is due and the card on paper', async ({ page, emery }) => {
  const farm = await emery.drive(FARM);
  const { id } = await emery.drive(TRUCK);
  await page.goto(`/vehicles/${(await emery.get<{ vehicleId: string }>(`/drives/${id}`)).vehicleId}`);
  await expect(page.getByRole('img', { name: /over the odometer/ })).toBeVisible();
  await noFaultOfAccess(page);
  for (const where of ['due', 'belts', 'happened', 'lives']) {
    await page.goto(`/records/${where}`);
    await expect(page.locator('.records-main .answer')).toBeVisible();
    await page.waitForTimeout(300);
    await noFaultOfAccess(page);
  }
  await page.goto(`/drives/${farm.id}/job-card`);
  await expect(page.getByRole('heading', { name: 'Hill farm pickup' })).toBeVisible();
  await noFaultOfAccess(page);
});
