import type { AnimalView, HealthCaseView, MiteWatchView } from '@karyotome/contract';
import { expect, getJson, getList, signIn, test } from './test.ts';

/* Signs, a treatment with its doses, quarantine and mites, as a keeper records them. */

test('signs are seen, a treatment is written down, and its dose is given on Today', async ({
  page,
  demo,
}) => {
  await signIn(page, demo);
  const cases = await getList<HealthCaseView>(page, demo, '/health-cases');
  const ill = new Set(cases.map(({ id }) => id));
  const animals = await getList<{ id: string; number: string; tub: object | null }>(page, demo, '/animals');
  const { id, number } = animals.find((one) => one.tub !== null && !ill.has(one.id))!;
  await page.goto(`${demo.origin}/animals/${id}`);
  const card = page
    .locator('.v-card')
    .filter({ has: page.getByRole('heading', { name: 'Health', exact: true }) });
  await card.getByRole('button', { name: 'Record…' }).click();
  await page.getByText('Health check…').click();
  await page.getByRole('dialog').getByText('Wound', { exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Record' }).click();
  await expect(card).toContainText('Wound, since');
  await card.getByRole('button', { name: 'Record…' }).click();
  await page.getByText('Treatment…').click();
  const form = page.getByRole('dialog');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(form).toContainText('is empty');
  await form.getByLabel('What is given, or done').fill('Wound dressing');
  await form.getByLabel('Dose, as ordered').fill('thin layer');
  await form.getByLabel('Ordered by').fill('Dr. Ines Vold');
  await form.getByRole('textbox', { name: 'Doses in all' }).fill('2');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(card).toContainText('0 of 2 doses given');

  await page.goto(`${demo.origin}/today`);
  // Wherever it lives: the first page of the day may end before its rack.
  await page.locator('.v-chip').filter({ hasText: 'Health' }).click();
  const row = page.locator('.line').filter({ hasText: number });
  await expect(row).toContainText('Wound dressing, thin layer: dose 1 of 2');
  await row.getByRole('button', { name: 'Given' }).click();
  await expect(row.getByText('Wound dressing')).toHaveCount(0);
  const { care } = await getJson<AnimalView>(page, demo, `/animals/${id}`);
  expect(care.health.courses).toMatchObject([{ given: 1, next: { ordinal: 2 } }]);
  await page.goto(`${demo.origin}/today/health`);
  await expect(page.locator('.case').filter({ hasText: number })).toContainText('1 of 2 doses given');
});

test('a rack in which mites were seen is looked through at once, one with a finding', async ({
  page,
  demo,
}) => {
  await signIn(page, demo);
  const [watch] = await getList<MiteWatchView>(page, demo, '/mite-watches');
  await page.goto(`${demo.origin}/today`);
  const line = page.locator('.line').filter({ hasText: 'Mites seen' });
  await line.getByRole('button', { name: 'Look through…' }).click();
  const rows = page.getByRole('dialog').locator('.one');
  await expect(rows).toHaveCount(watch!.toCheck.length);
  await rows.first().click();
  await page
    .getByRole('button', { name: `Enter: nothing on ${watch!.toCheck.length - 1}, mites on 1` })
    .click();
  const left = async (): Promise<(number | undefined)[]> =>
    (await getList<MiteWatchView>(page, demo, '/mite-watches')).map(({ toCheck }) => toCheck.length);
  // Whoever was looked through before the new finding is due again.
  const dueAgain = watch!.of - watch!.toCheck.length;
  await expect.poll(left).toEqual([dueAgain]);
  await expect(line).toContainText(`look through ${dueAgain} of ${watch!.of}`);
});

test('who is in quarantine comes last on the round, until it is ended', async ({ page, demo }) => {
  await signIn(page, demo);
  const apart = (await getList<HealthCaseView>(page, demo, '/health-cases')).find(
    ({ health }) => health.quarantine !== null,
  )!;
  await page.goto(`${demo.origin}/rounds`);
  const last = page.locator('.rack').last();
  await expect(last).toContainText('Quarantine');
  await last.getByRole('button', { name: /Begin/ }).click();
  await expect(page.getByRole('article')).toContainText(apart.animal.number);
  await expect(page.getByText('Last on the round, with')).toBeVisible();
  await page.goto(`${demo.origin}/today/health`);
  const own = page.locator('.case').filter({ hasText: apart.animal.number });
  await own.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByRole('status').getByText('quarantine ended')).toBeVisible();
  await page.goto(`${demo.origin}/rounds`);
  await expect(page.locator('.rack').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Quarantine' })).toHaveCount(0);
});
