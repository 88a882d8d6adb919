import { expect, pick, signIn, test } from './test.ts';

/* Somebody is invited, joins on another device, works, changes their password, and is removed. */

test('a helper is let in by a link, works under their own name, and is out at once when removed', async ({
  page,
  empty,
  browser,
}) => {
  await signIn(page, empty, '/settings');
  await page.getByRole('link', { name: 'People' }).click();
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
  await page.getByLabel('Whom').fill('Ida');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.locator('.link').textContent();
  expect(link).toContain('/join#');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('Not taken yet')).toBeVisible();

  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
  const helper = await phone.newPage();
  await helper.goto(link!);
  await expect(helper.getByText(/invites you to .* as helper/)).toBeVisible();
  await helper.getByLabel('E-mail').fill('ida@example.test');
  await helper.getByLabel('Your name').fill('Ida Marsh');
  await helper.getByLabel('Password').fill('password1234');
  await helper.getByRole('button', { name: 'Join' }).click();
  await expect(helper.getByText('is one that many people have').first()).toBeVisible();
  await helper.getByLabel('Password').fill('nine herons at dusk');
  await helper.getByRole('button', { name: 'Join' }).click();
  await expect(helper.getByRole('heading', { level: 1 })).toHaveText('Today');

  await helper.goto(`${empty.origin}/settings/account`);
  await expect(helper.getByText('this one')).toBeVisible();
  await helper.getByLabel('The password you have').fill('nine herons at dusk');
  await helper.getByLabel('The new one').fill('ten herons at dawn');
  await helper.getByRole('button', { name: 'Change the password' }).click();
  await expect(helper.getByText('The password is changed')).toBeVisible();

  await helper.getByLabel('For which program').fill('Scale');
  await helper.getByRole('button', { name: 'Make a token' }).click();
  const token = await helper.locator('.secret').textContent();
  const animals = () =>
    fetch(`${empty.origin}/api/v1/animals`, { headers: { Authorization: `Bearer ${token}` } });
  expect((await animals()).status).toBe(200);

  await page.reload();
  await expect(page.getByText('Ida Marsh', { exact: true })).toBeVisible();
  // A set of one's own begins with what the helper may do.
  await pick(page, 'What Ida Marsh may do', 'Custom');
  await expect(page.getByText('Ida Marsh may now: look, record daily work')).toBeVisible();
  await page.getByLabel('breed and identify').check();
  await expect(page.getByText('look, record daily work, breed and identify')).toBeVisible();
  await helper.goto(`${empty.origin}/animals`);
  await expect(helper.getByRole('button', { name: 'Add an animal' }).first()).toBeVisible();
  await pick(page, 'What Ida Marsh may do', 'Viewer');
  await expect(page.getByText('Ida Marsh is viewer now')).toBeVisible();
  await helper.goto(`${empty.origin}/animals`);
  await expect(helper.getByRole('heading', { name: 'Animals' })).toBeVisible();
  await expect(helper.getByRole('button', { name: 'Add an animal' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Remove Ida Marsh' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Ida Marsh is out')).toBeVisible();
  expect((await animals()).status).toBe(401);
  await helper.goto(`${empty.origin}/animals`);
  await expect(helper.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await helper.goto(link!);
  await expect(helper.getByText('was taken, was withdrawn, or has run out')).toBeVisible();
  await phone.close();
});

test('a program is told of changes at its address, tried out, and told no more', async ({ page, empty }) => {
  await signIn(page, empty, '/settings');
  await page.getByLabel('Address of the program').fill('http://127.0.0.1:9/told');
  await page.getByRole('button', { name: 'Add a webhook' }).click();
  await expect(page.getByText('must begin with https://')).toBeVisible();
  // A name that no server has (RFC 6761).
  await page.getByLabel('Address of the program').fill('https://farm.invalid/told');
  await page.getByRole('button', { name: 'Add a webhook' }).click();
  await expect(page.getByText('whsec_')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: /^Send a test message/ }).click();
  await expect(page.getByText(/nobody answered/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove https://farm.invalid/told' }).click();
  await expect(page.getByText('is told nothing more')).toBeVisible();
});
