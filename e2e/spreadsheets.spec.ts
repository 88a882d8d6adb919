import { expect, pick, signIn, test } from './test.ts';

/* A spreadsheet as somebody has kept it for years: its columns and words are matched, and it is taken back whole. */

const SHEET = [
  'Snake;Weighed;Grams;Who',
  '2503-02;03.04.2026;412,5;me',
  '2503-02;17.04.2026;431,0;me',
  'nobody;17.04.2026;431,0;me',
].join('\n');
const MEALS = [
  'Snake;Fed;Item;Size;Ate;How',
  '2503-02;03.04.2026;Rats;Sm;yep;FT',
  '2503-02;10.04.2026;Rats;Sm;nope;FT',
].join('\n');

test('weights in another style come in, and are taken back; words are said once', async ({ page, demo }) => {
  await signIn(page, demo, '/animals/import');
  const upload = (name: string, text: string) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

  await test.step('weights: a column is matched by hand, a bad row is left out', async () => {
    await upload('weights.csv', SHEET);
    await expect(page.getByRole('heading', { name: 'Bring in weights.csv' })).toBeVisible();
    await expect(page.getByText('“03.04.2026” is read as 3 Apr 2026')).toBeVisible();
    await expect(page.getByText('2 rows are right, 1 to correct')).toBeVisible();
    await expect(page.getByText('names no animal of the collection')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Bring in/ })).toBeDisabled();
    await page.getByText('Leave out 1 row that is wrong').click();
    await page.getByRole('button', { name: 'Bring in 2 rows' }).click();
    await expect(page.getByText('2 rows of weights.csv brought in')).toBeVisible();
  });

  await test.step('taken back', async () => {
    await page.goto(`${demo.origin}/animals/import`);
    await expect(page.getByText('2 rows brought in')).toBeVisible();
    await page.getByRole('button', { name: 'Take weights.csv back' }).click();
    await expect(page.getByText('weights.csv is taken back')).toBeVisible();
    await expect(page.getByText('2 rows taken back')).toBeVisible();
  });

  await test.step('meals: unknown words are asked for', async () => {
    await upload('meals.csv', MEALS);
    await expect(page.getByRole('heading', { name: 'Bring in meals.csv' })).toBeVisible();
    await pick(page, 'Live, thawed or killed, in every row', 'Frozen thawed');
    await pick(page, 'Taken: “yep”, 1 row', 'Yes');
    await pick(page, 'Taken: “nope”, 1 row', 'No');
    await expect(page.getByText('2 rows are right')).toBeVisible();
    await page.getByRole('button', { name: 'Bring in 2 rows' }).click();
    await expect(page.getByText('2 rows of meals.csv brought in')).toBeVisible();
  });
});
