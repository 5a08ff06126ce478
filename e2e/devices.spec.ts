import { noFaultOfAccess } from './access';
import { dragBy, expect, openDrive, saved, shownLength, test, toStage } from './emery';
import { atMachine, device, PASSPHRASE, PHONE, share, signIn, trusting } from './network';
import type { BringCode } from '@emery/core/api';

test('at the machine: the owner is made, the shop is shared, and a phone stands where the laptop stood', async ({
  browser,
  page,
  emery,
}) => {
  await page.goto(`${emery.address()}/devices`);
  await expect(page.getByText('○ Not shared')).toBeVisible();
  await page.getByLabel('Name').fill('Ines');
  await page.getByLabel('Passphrase').fill('short');
  await page.getByRole('button', { name: 'Make the owner' }).click();
  await expect(page.getByText(/must be 10 characters or more/)).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Ines');
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.getByRole('button', { name: 'Make the owner' }).click();
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await expect(page.getByText('● Shared on the network')).toBeVisible();
  const origin = await page.locator('.share-address').innerText();
  await noFaultOfAccess(page);

  await page.goto(`${emery.address()}/`);
  await openDrive(page, 'Front drive of Rescue truck 2');
  await toStage(page, 'Tension');
  await page.locator('[data-station="alt"]').click();
  await page.getByRole('button', { name: 'On my phone' }).click();
  const digits = await page.getByTestId('code-digits').innerText();
  await noFaultOfAccess(page);

  const phone = await (await device(browser, origin, PHONE)).newPage();
  await phone.goto('/in');
  await phone.getByRole('textbox', { name: /Six digits/ }).fill(digits);
  await phone.getByRole('button', { name: 'Use the digits' }).click();
  await expect(phone).toHaveURL(/\/drives\/[^/]+\/tension\?on=/);
  await expect(phone.getByText('Rescue truck 2').first()).toBeVisible();
  await expect(phone.locator('[data-station="alt"]')).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText('✓ Another device has opened it.')).toBeVisible();

  // It is listed, and shut out at once.
  await page.goto(`${emery.address()}/devices`);
  const row = page.getByRole('listitem').filter({ hasText: 'Ines owner' });
  await row.getByRole('button', { name: 'Shut out' }).click();
  await expect(row).toBeHidden();
  await phone.goto('/');
  await expect(phone.getByRole('dialog', { name: 'Sign in' })).toContainText('This device was shut out');
});

test('a session that ends while a drive is drawn: nothing is lost, and it goes once somebody is signed in', async ({
  browser,
  emery,
}) => {
  const { origin } = await share(emery);
  const laptop = await (await device(browser, origin)).newPage();
  await laptop.goto('/');
  await signIn(laptop, 'Ines');
  await openDrive(laptop, 'Front drive of Rescue truck 2');
  await dragBy(laptop, 'alt', 30, 0);
  await saved(laptop);
  const { revision } = await emery.drive('Front drive');
  const { devices } = await emery.get<{ devices: { id: string }[] }>('/access/devices');
  await fetch(`${emery.address()}/api/access/devices/${devices[0]!.id}`, { method: 'DELETE' });
  await dragBy(laptop, 'alt', 20, 0);
  await expect(laptop.getByRole('dialog', { name: 'Sign in' })).toContainText('What was typed is still here');
  await expect(laptop.locator('[data-save="waiting"]')).toContainText('Sign in to save it');
  await signIn(laptop, 'Ines');
  await saved(laptop);
  await expect.poll(async () => (await emery.drive('Front drive')).revision).toBeGreaterThan(revision);
});

test('a job is lent to a phone: ticked under the name it was lent to, out once it is signed off', async ({
  browser,
  page,
  emery,
}) => {
  const { origin } = await share(emery);
  await page.goto(emery.address());
  await openDrive(page, 'Front drive of Rescue truck 2');
  await toStage(page, 'Job card');
  await page.getByRole('button', { name: 'Start this job' }).click();
  await expect(page).toHaveURL(/\/jobs\//);
  await page.getByRole('button', { name: 'Lend this job' }).click();
  await page.getByLabel('Lent to').fill('Tam from next door');
  await page.getByRole('button', { name: 'Show the code' }).click();
  const digits = await page.getByTestId('code-digits').innerText();
  const phone = await (await device(browser, origin, PHONE)).newPage();
  await phone.goto('/in');
  await phone.getByRole('textbox', { name: /Six digits/ }).fill(digits);
  await phone.getByRole('button', { name: 'Use the digits' }).click();
  await phone.getByRole('checkbox').first().click();
  // What is done is folded on a phone.
  await phone.getByRole('button', { name: 'Show done steps' }).first().click();
  await expect(phone.getByText(/Tam from next door, /)).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Sign off' })).toBeHidden();
  // On the other screen as well, by itself.
  await page.keyboard.press('Escape');
  await expect(page.getByText(/Tam from next door, /)).toBeVisible();
  // The rest of the shop is not for it.
  await phone.goto('/');
  await expect(phone.getByText('This is not for a device that one job was lent to.').first()).toBeVisible();
  await phone.goBack();
  await expect(phone.getByRole('checkbox').first()).toBeVisible();
  const id = /jobs\/([^/?]+)/.exec(page.url())![1]!;
  await atMachine(emery, 'POST', `/jobs/${id}/sign-off`, { by: 'Ines', at: new Date().toISOString() });
  await expect(phone.getByRole('dialog', { name: 'Sign in' })).toContainText('The job that was lent');
});

test('with the authority installed the address is trusted, and camera and microphone work; without, it warns', async ({
  browser,
  emery,
}) => {
  const { origin, trustPage } = await share(emery);
  const stranger = await (await browser.newContext()).newPage();
  await expect(stranger.goto(origin)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  const plain = await stranger.context().newPage();
  await plain.goto(trustPage);
  await expect(plain.getByRole('link', { name: 'Download the certificate' })).toBeVisible();
  await noFaultOfAccess(plain);
  const own = await trusting(trustPage);
  try {
    // By a code, in the address that the square on the screen holds.
    const { link } = await atMachine<BringCode>(emery, 'POST', '/access/codes', { place: '/counter' });
    const phone = await (await own.browser.newContext({ ...PHONE, permissions: [] })).newPage();
    await phone.goto(link);
    await expect(phone).toHaveURL(`${origin}/counter`);
    const heard = await phone.evaluate(async () => {
      const stream = await navigator.mediaDevices.getUserMedia({ video: true, audio: true });
      const kinds = stream.getTracks().map(({ kind, readyState }) => `${kind} ${readyState}`);
      return { secure: window.isSecureContext, kinds: kinds.sort() };
    });
    expect(heard).toEqual({ secure: true, kinds: ['audio live', 'video live'] });
    // The code is not kept in the history.
    expect(await phone.evaluate(() => window.location.href)).not.toContain('#');
  } finally {
    await own.close();
  }
});

test('a phone and a laptop on one shop: each sees who saved, and whose tick it is', async ({ browser, emery }) => {
  const { origin } = await share(emery);
  await atMachine(emery, 'POST', '/access/people', { name: 'Tam', role: 'bench', passphrase: PASSPHRASE });
  const laptop = await (await device(browser, origin, { viewport: { width: 1280, height: 800 } })).newPage();
  const phone = await (await device(browser, origin, PHONE)).newPage();
  for (const [page, name] of [
    [laptop, 'Ines'],
    [phone, 'Tam'],
  ] as const) {
    await page.goto('/');
    await signIn(page, name);
    await openDrive(page, 'Front drive of Rescue truck 2');
    await expect(page.locator('[data-length-mm]')).toBeVisible();
  }
  // What Ines has changed is on the phone, and under whose name; what Tam changes then is with it.
  const told = expect(phone.locator('.changed-line')).toContainText('Ines changed: Alternator');
  await dragBy(laptop, 'alt', 30, 0);
  await saved(laptop);
  await told;
  await expect.poll(async () => shownLength(phone)).toBeCloseTo(await shownLength(laptop), 6);
  await dragBy(phone, 'ac', 0, 12);
  await saved(phone);
  await expect.poll(async () => shownLength(laptop)).toBeCloseTo(await shownLength(phone), 6);
  await expect(laptop.getByRole('button', { name: '1 other here' })).toContainText('Tam');
});

test('what goes wrong is said: no network, a clock that is off, a new version under an open page', async ({
  browser,
  emery,
}) => {
  const { origin } = await share(emery);
  const context = await device(browser, origin, PHONE);
  const phone = await context.newPage();
  await phone.goto('/');
  await signIn(phone, 'Ines');
  await expect(phone.getByText('Rescue truck 2')).toBeVisible();
  // The answers of the server as they would be after an update, an hour from now.
  await context.route('**/api/**', async (route) => {
    const answer = await route.fetch();
    const headers = {
      ...answer.headers(),
      'emery-build': 'another',
      date: new Date(Date.now() + 3_600_000).toUTCString(),
    };
    await route.fulfill({ response: answer, headers });
  });
  await phone.getByRole('link', { name: 'Belts in stock' }).click();
  const notice = phone.getByRole('status', { name: 'About this device' });
  await expect(notice).toContainText('Emery was updated.');
  await expect(notice).toContainText(/The clock of this device is (59|60|61) minutes behind Emery's\./);
  await notice.getByRole('button', { name: 'Hide' }).click();
  await expect(notice).toBeHidden();
  await context.unroute('**/api/**');
  await context.setOffline(true);
  await phone.getByRole('link', { name: 'Emery' }).click();
  await phone.getByRole('link', { name: 'Due and records' }).click();
  await expect(phone.getByText('This device has no network.').first()).toBeVisible({ timeout: 60_000 });
});
