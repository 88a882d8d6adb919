import { expect, getList, pick, signIn, test } from './test.ts';

/* The list of animals is searched, filtered and sorted by the server, and draws what is in sight. */

test('a search asks in words, says how it was read, and is kept as a list', async ({ page, demo }) => {
  await signIn(page, demo, '/animals');
  const rows = page.locator('tbody tr:has(a)');
  const find = page.getByRole('textbox', { name: /^Find by/ });
  await find.fill('female, over 1200 g, not bred this season');
  const line = page.locator('.line').filter({ hasText: 'Read as' });
  await expect(line.locator('.v-chip')).toHaveText(['female', 'at least 1,200 g', /not bred in season/]);
  await expect(rows.first()).toBeVisible();
  for (const sex of await rows.locator('td:nth-child(3)').allInnerTexts()) expect(sex).toBe('♀');
  await line.getByRole('button', { name: 'Keep as a list…' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Females to pair');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await find.fill('female, striped like a zebra');
  await expect(page.getByText('Not understood: “striped like a zebra”')).toBeVisible();
  await page.getByRole('button', { name: 'Lists…' }).click();
  await page.getByText('Females to pair', { exact: true }).click();
  await expect(find).toHaveValue('female, over 1200 g, not bred this season');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Columns…' }).click();
  await page.getByLabel('Weighed').click();
  await expect(page.getByRole('columnheader', { name: 'Weighed' })).toHaveCount(0);
});

test('animals are found by words, by what became of them, and in whatever order', async ({ page, demo }) => {
  await signIn(page, demo, '/animals');
  const rows = page.locator('tbody tr:has(a)');
  const find = page.getByRole('textbox', { name: /^Find by/ });
  const total = page.locator('.filters .num');
  await expect(rows.first()).toBeVisible();
  const all = Number.parseInt(await total.innerText(), 10);

  await test.step('words in any order, over the whole collection', async () => {
    await find.fill('het clown');
    await expect(total).not.toHaveText(`${all} animals`);
    await expect(rows.first()).toBeVisible();
    for (const text of await rows.allInnerTexts()) expect(text.toLowerCase()).toMatch(/het .*clown/);
    await find.fill('no such animal');
    await expect(page.getByText('No animal fits')).toBeVisible();
    await find.fill('');
    await expect(total).toHaveText(`${all} animals`);
  });

  await test.step('sorted both ways, also what is not in sight yet', async () => {
    const weights = async (): Promise<number[]> =>
      (await rows.locator('td:nth-child(6)').allInnerTexts())
        .filter((text) => text.trim() !== '')
        .map((text) => Number(text.replace(/[^\d.]/g, '')));
    const weight = page.getByRole('columnheader', { name: 'Weight' });
    await weight.click();
    await expect(page).toHaveURL(/sort=massG/);
    await expect.poll(async () => (await weights())[0]).toBeLessThan(100);
    expect(await weights()).toEqual((await weights()).toSorted((a, b) => a - b));
    await weight.click();
    await expect(page).toHaveURL(/sort=-massG/);
    await expect.poll(async () => (await weights())[0]).toBeGreaterThan(1500);
    expect(await weights()).toEqual((await weights()).toSorted((a, b) => b - a));
  });

  await test.step('what became of them, kept in the address', async () => {
    await pick(page, 'Which', 'Breeder');
    await expect(page).toHaveURL(/status=breeder/);
    await expect(rows.first()).toContainText('Breeder');
    await page.reload();
    await expect(rows.first()).toContainText('Breeder');
    for (const text of await rows.allInnerTexts()) expect(text).toContain('Breeder');
  });

  await test.step('scrolled to the end, the last is there', async () => {
    await page.goto(`${demo.origin}/animals?status=all`);
    await expect(rows.first()).toBeVisible();
    const count = Number.parseInt(await total.innerText(), 10);
    expect(await rows.count()).toBeLessThan(count);
    const list = page.locator('.v-table__wrapper');
    const first = await rows.first().innerText();
    await expect
      .poll(async () => {
        await list.evaluate((element) => element.scrollTo(0, element.scrollHeight));
        return rows.first().innerText();
      })
      .not.toBe(first);
  });
});

test('the meals of several chosen animals are entered at once', async ({ page, demo }) => {
  await signIn(page, demo, '/animals');
  const due = await getList<{ number: string }>(page, demo, '/feeding/night');
  const boxes = page.locator('tbody tr:has(a) input[type=checkbox]');
  await expect(boxes.first()).toBeVisible();
  await page.locator('thead input[type=checkbox]').check();
  const bar = page.getByRole('region', { name: 'Chosen animals' });
  const feed = bar.getByRole('button', { name: /^Feed \d+…/ });
  await expect(feed).toBeVisible();
  const count = Number(/\d+/.exec(await feed.innerText())![0]);
  expect(count).toBeLessThanOrEqual(due.length);
  await feed.click();
  await expect(page.getByRole('dialog').locator('.one')).toHaveCount(count);
  await page.getByRole('button', { name: `Enter: ${count} took it` }).click();
  await expect(page.getByRole('status').getByText(`${count} took it`)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
});

test('several are chosen at once, decided upon, moved together, and all of it taken back', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals?q=2601-');
  const rows = page.locator('tbody tr:has(a)');
  await expect(rows.first()).toBeVisible();
  const status = async (at: number): Promise<string> => rows.nth(at).locator('td').last().innerText();
  const before = [await status(0), await status(1)];
  for (const at of [0, 1]) await rows.nth(at).getByRole('checkbox').check();
  const bar = page.getByRole('region', { name: 'Chosen animals' });
  await expect(bar).toContainText('2 animals chosen');
  await expect(bar.getByRole('link', { name: 'Download table' })).toHaveAttribute(
    'href',
    /id=[\w-]{36}(,|%2C)[\w-]{36}&/,
  );

  await bar.getByRole('button', { name: 'Status…' }).click();
  await page.getByText('Kept as a breeder', { exact: true }).click();
  await expect(bar).toBeHidden();
  await expect.poll(async () => [await status(0), await status(1)]).toEqual(['Breeder', 'Breeder']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => [await status(0), await status(1)]).toEqual(before);

  for (const at of [0, 1]) await rows.nth(at).getByRole('checkbox').check();
  await bar.getByRole('button', { name: 'Move…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.locator('.v-select .v-field').first().click();
  await page.locator('.v-overlay--active .v-list-item:not(.v-list-item--disabled)').first().click();
  await expect(dialog.getByRole('listitem')).toHaveCount(2);
  const [first] = await dialog.getByRole('listitem').allInnerTexts();
  await dialog.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText('2 animals moved')).toBeVisible();
  const [number, place] = first!.split(': ');
  await expect(rows.filter({ hasText: number! })).toContainText(place!);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows.filter({ hasText: number! })).not.toContainText(place!);
});
