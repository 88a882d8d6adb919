import { expect, fillNumber, pressOn, showAllRacks, signIn, test } from './test.ts';

/* The demo farm's room: animals carried to other tubs, heat, the year's places, the freezer, and a plan of one's own. */

test('two animals change places by keys, several move at once, and one undo takes it back', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/racks');
  await showAllRacks(page);
  const tubs = page.locator('.tub');
  const numberIn = async (n: number): Promise<string> => (await tubs.nth(n).innerText()).split(/\s/)[0]!;
  const [first, second] = [await numberIn(0), await numberIn(1)];
  await pressOn(page, page.getByRole('button', { name: `Take up ${first}` }));
  await expect(page.getByText(`In the hand: ${first}.`)).toBeVisible();
  await pressOn(page, tubs.nth(1).getByRole('button', { name: /^Put into/ }));
  await expect.poll(() => numberIn(0)).toBe(second);
  expect(await numberIn(1)).toBe(first);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => numberIn(0)).toBe(first);
  for (const number of [first, second]) await page.getByRole('button', { name: `Take up ${number}` }).click();
  // Two free tubs side by side, wherever earlier acts have left them.
  const isFree = await tubs.evaluateAll((all) => all.map((tub) => tub.classList.contains('free')));
  const at = isFree.findIndex((free, i) => free && isFree[i + 1]);
  await tubs
    .nth(at)
    .getByRole('button', { name: /^Put into/ })
    .click();
  await expect.poll(() => numberIn(at)).toBe(first);
  await expect.poll(() => numberIn(at + 1)).toBe(second);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => numberIn(1)).toBe(second);
  await page.getByRole('button', { name: `Take up ${first}` }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('In the hand')).toHaveCount(0);
});

test('an animal is dragged to a free tub', async ({ page, demo }) => {
  await signIn(page, demo, '/racks');
  await showAllRacks(page);
  const tubs = page.locator('.tub');
  const number = (await tubs.nth(0).innerText()).split(/\s/)[0]!;
  const isFree = await tubs.evaluateAll((all) => all.map((tub) => tub.classList.contains('free')));
  const free = tubs.nth(isFree.indexOf(true));
  await tubs.nth(0).locator('.in').dragTo(free);
  await expect(free.getByText(number)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(tubs.nth(0).getByText(number)).toBeVisible();
});

test('the year’s places: what would mend it is tried out on the spot', async ({ page, demo }) => {
  await signIn(page, demo, '/racks/forecast');
  await expect(page.getByText('full from about').first()).toBeVisible({ timeout: 30_000 });
  const buy = page.locator('.mend').filter({ hasText: 'Buy' });
  await expect(buy).toContainText('it lasts the year', { timeout: 30_000 });
  await buy.getByRole('button', { name: 'Try' }).click();
  await expect(page.getByText('full from about')).toHaveCount(0, { timeout: 30_000 });
  await page.getByRole('button', { name: 'As it is' }).click();
  await expect(page.getByText('full from about').first()).toBeVisible({ timeout: 30_000 });
});

test('the freezer is booked in; a plan of one’s own is made; the rules decide who is due', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/today/feeding');
  const row = page.getByRole('row', { name: /^rat small/ });
  const before = Number(await row.getByRole('cell').nth(1).innerText());
  await page.getByRole('button', { name: 'Book in or count…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Prey').press('ArrowDown');
  await page.locator('.v-overlay-container').getByRole('option', { name: 'rat small' }).click();
  await fillNumber(page, 'How many', '30');
  await dialog.getByRole('button', { name: 'Book', exact: true }).click();
  await expect(row.getByRole('cell').nth(1)).toHaveText(String(before + 30));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row.getByRole('cell').nth(1)).toHaveText(String(before));

  await page.getByRole('link', { name: 'Plans and rules' }).click();
  await page.getByRole('button', { name: 'A plan of your own…' }).click();
  await dialog.getByLabel('Name').fill('Patience');
  for (let i = 0; i < 12; i++) await dialog.getByRole('button', { name: 'Remove step 3' }).click();
  await dialog.getByRole('button', { name: 'Save plan' }).click();
  await expect(page.getByRole('heading', { name: 'Patience' })).toBeVisible();

  await page.getByRole('link', { name: 'Feeding night' }).click();
  const eating = page.getByRole('heading', { name: /^Eats tonight/ });
  const due = Number((await eating.innerText()).split(/\s/).at(-1));
  await page.getByRole('link', { name: 'Plans and rules' }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await dialog.getByLabel('Every … days').first().fill('2');
  await dialog.getByRole('button', { name: 'Save rules' }).click();
  await expect(dialog).toHaveCount(0);
  await page.getByRole('link', { name: 'Feeding night' }).click();
  await expect.poll(async () => Number((await eating.innerText()).split(/\s/).at(-1))).toBeGreaterThan(due);
});
