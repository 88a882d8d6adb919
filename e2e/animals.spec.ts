import { expect, pick, signIn, test } from './test.ts';

/* The list of animals is searched, filtered and sorted by the server, and draws what is in sight. */

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
      (await rows.locator('td:nth-child(5)').allInnerTexts())
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
