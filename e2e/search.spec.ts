import type { AnimalView } from '@karyotome/contract';
import { expect, getJson, getList, signIn, test } from './test.ts';

/* Finding anything from anywhere, and entering what was done by typing it. */

const field = 'A number, name, gene, rack, person or place, or what was done';

test('a key opens it; an animal is found by the parts of its number, a place with a slip', async ({
  page,
  demo,
}) => {
  await signIn(page, demo);
  const [animal] = await getList<{ id: string; number: string }>(page, demo, '/animals');
  await page.keyboard.press('/');
  await page.getByLabel(field).fill(animal!.number.replace('-', '').toLowerCase());
  await expect(page.getByRole('option').first()).toContainText(animal!.number);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`/animals/${animal!.id}$`));
  await page.keyboard.press('Control+k');
  await page.getByLabel(field).fill('incubtors');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Incubators', level: 1 })).toBeVisible();
});

test('what was done is typed, entered by the round, and taken back', async ({ page, demo }) => {
  await signIn(page, demo);
  const [animal] = await getList<{ id: string; number: string; massG: number }>(page, demo, '/animals');
  const { id, number, massG } = animal!;
  await page.keyboard.press('/');
  await page.getByLabel(field).fill(`${massG + 1} g ${number.toLowerCase()} weigh`);
  const offered = page.getByRole('option').filter({ hasText: `${number}:` });
  await expect(offered).toHaveCount(1);
  await page.keyboard.press('Enter');
  const notice = page.getByRole('status').getByText(`${number}:`);
  await expect(notice).toBeVisible();
  const kept = async (): Promise<boolean[]> => {
    const { records } = await getJson<AnimalView>(page, demo, `/animals/${id}`);
    return records
      .filter((one) => one.kind === 'weight' && one.body.massG === massG + 1)
      .map(({ voided }) => voided === null);
  };
  await expect.poll(kept).toEqual([true]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(kept).toEqual([false]);
});

test('on a phone it lies at the thumb, finds animals without a connection, and keeps what is entered', async ({
  browser,
  demo,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    locale: 'en-GB',
  });
  const page = await context.newPage();
  await signIn(page, demo);
  const nav = page.locator('.v-bottom-navigation');
  await expect(nav.getByRole('link').or(nav.getByRole('button'))).toHaveText([
    'Today',
    'Rounds',
    'Search',
    'Bench',
    'More',
  ]);
  // The first time, what the device keeps is read.
  await nav.getByRole('button', { name: 'Search' }).tap();
  await page.getByLabel(field).fill('cleaned grow 1 1-1');
  await expect(page.getByRole('option').first()).toContainText('tub cleaned');
  await page.getByRole('button', { name: 'Close' }).tap();
  await context.setOffline(true);
  await nav.getByRole('button', { name: 'Search' }).tap();
  await page.getByLabel(field).fill('cleaned grow 1 1-1');
  await page.getByRole('option').first().tap();
  await expect(page.getByRole('status').getByText('tub cleaned')).toBeVisible();
  await context.setOffline(false);
  await nav.getByRole('link', { name: 'Rounds' }).tap();
  await expect(page.getByText('All kept')).toBeVisible({ timeout: 30_000 });
  await nav.getByRole('button', { name: 'More' }).tap();
  await page.getByRole('navigation', { name: 'More places' }).getByRole('link', { name: 'Racks' }).tap();
  await expect(page.getByRole('heading', { name: 'Racks', level: 1 })).toBeVisible();
  await context.close();
});

test('a rack is fed at once, but for who refused', async ({ page, demo }) => {
  await signIn(page, demo, '/rounds');
  const feed = page.getByRole('button', { name: /^Feed all of/ }).first();
  const rack = (await feed.getAttribute('aria-label'))!.replace('Feed all of ', '');
  await feed.click();
  const offers = page.getByRole('dialog').locator('.one');
  const due = await offers.count();
  expect(due).toBeGreaterThan(1);
  await offers.first().click();
  await page.getByRole('button', { name: /^Enter:/ }).click();
  await expect(page.getByText(`Feed ${rack}: ${due - 1} took it, 1 refused`)).toBeVisible();
  await expect(page.getByRole('button', { name: `Feed all of ${rack}`, exact: true })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: `Feed all of ${rack}`, exact: true })).toBeVisible();
});
