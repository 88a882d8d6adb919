import { administer } from '../server/test/template.ts';
import { daysAgo, expect, getList, pick, postJson, signIn, test } from './test.ts';

/* The demo farm: what is claimed of an animal, why, and what happens when records clash. */

test('a claim opens to its records, what it hangs on, and its way through the kin chart', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals?q=F-01');
  await page.getByRole('link', { name: 'F-01' }).click();
  // Bought as a possible carrier; a young one that shows the gene proved it.
  await expect(page.getByText('100% het Ultramel').first()).toBeVisible();
  await page.getByRole('button', { name: 'Why: 100% het Ultramel' }).click();
  await expect(page.getByText('Evidence from offspring')).toBeVisible();
  await expect(page.getByText(/Yellow Belly Ultramel|Ultramel, certain/).first()).toBeVisible();
  await page.getByRole('link', { name: 'Follow it through the kin chart' }).click();
  await expect(page.getByRole('heading', { name: 'Kin of F-01' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^M-02, male, .*shows the gene/ })).toBeVisible();
  await expect(page.locator('g.evidence path').first()).toBeVisible();
  const before = await page.locator('a.animal').count();
  await page.getByRole('button', { name: 'Fewer generations' }).click();
  await expect.poll(() => page.locator('a.animal').count()).toBeLessThan(before);
  await page.getByText('The same as a table').click();
  await expect(page.getByRole('cell', { name: 'F-01' }).first()).toBeVisible();
});

test('a possible carrier names the mates that would prove it', async ({ page, demo }) => {
  // One parent carries, the other hardly can: a half, until she is bred.
  await signIn(page, demo, '/animals?q=2502-03');
  await page.getByRole('link', { name: '2502-03' }).click();
  await page.getByRole('button', { name: 'Why: 50% het Ultramel' }).click();
  await expect(page.getByText('without it the claim falls').first()).toBeVisible();
  await expect(page.getByText('Breeding would settle it')).toBeVisible();
  await expect(page.getByRole('row', { name: /Ultramel.*expected/ }).first()).toBeVisible();
});

test('with several contradictions, the few records that would settle them all are listed', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals/contradictions');
  await expect(page.locator('.explanations li').first()).toBeVisible();
  // Two clutch-mates are called by a gene that neither parent has.
  const animals = await getList<{ id: string; number: string }>(page, demo, '/animals');
  const slips = animals.filter(({ number }) => number.startsWith('2601-')).slice(0, 2);
  const records: string[] = [];
  for (const { id } of slips) {
    const { id: recordId } = await postJson<{ id: string }>(page, demo, `/animals/${id}/records`, {
      kind: 'identification',
      on: daysAgo(0),
      body: { genes: 'Super Champagne', sure: 'certain', by: 'Ida' },
    });
    records.push(recordId);
  }
  await page.reload();
  const list = page.locator('.check').first();
  await expect(list.getByRole('heading', { name: 'Look at these again' })).toBeVisible({ timeout: 30_000 });
  await expect(list).toContainText('looked at again, are enough to settle');
  for (const { number } of slips)
    await expect(list.getByRole('link', { name: number }).first()).toBeVisible();
  for (const id of records) await postJson(page, demo, `/records/${id}/void`, { reason: 'Undone' });
});

test('a slip is ranked first among what may have gone wrong, and one step mends it', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals');
  await page.getByRole('link', { name: '1 contradiction' }).click();
  const lines = page.locator('.explanations li');
  await expect(lines.first()).toContainText('is identified wrongly');
  expect(await lines.count()).toBeGreaterThan(2);
  // What somebody else sees follows: a second page of the same collection.
  const other = await page.context().newPage();
  await other.goto(`${demo.origin}/animals/contradictions`);
  await expect(other.locator('.explanations li').first()).toBeVisible();
  await lines.first().getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText('The records agree')).toBeVisible();
  await expect(other.getByText('The records agree')).toBeVisible();
  await other.close();
});

test("a line of one's own is added, used, corrected, and cannot be taken away from its records", async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/genes');
  await expect(page.getByRole('heading', { name: 'Blue-eyed white complex' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Search names, words, markers' }).fill('wobble');
  await expect(page.getByRole('heading', { name: 'Spider and blackhead' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Clown' })).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Search names, words, markers' }).fill('');
  await page.getByRole('button', { name: 'A gene or line' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Pastel');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('is a word that the catalogue has already')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Fenland Axanthic');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Fenland Axanthic: a gene of its own, recessive')).toBeVisible();

  await page.goto(`${demo.origin}/animals?add=1`);
  await page.getByLabel('Number').fill('F-77');
  await page.getByLabel('Genes, in your shorthand').fill('het fenland axanthic');
  await expect(page.getByText('Read as')).toContainText('Het Fenland Axanthic');
  await page.getByRole('button', { name: 'Add', exact: false }).last().click();
  await expect(page.getByRole('heading', { name: /F-77/ })).toBeVisible();
  await expect(page.getByText('100% het Fenland Axanthic').first()).toBeVisible();

  await page.goto(`${demo.origin}/genes`);
  await expect(page.getByText('in the records of 1 animals')).toBeVisible();
  await page.getByRole('button', { name: /^Edit Fenland Axanthic/ }).click();
  await pick(page, 'How it shows', 'Incomplete dominant');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('worked out anew').first()).toBeVisible();
  await page.getByRole('button', { name: /^Take out Fenland Axanthic/ }).click();
  await expect(page.getByText(/cannot be taken out.*F-77/)).toBeVisible();
});

test('an update of the catalogue shows what it changes, and counts once it is taken', async ({
  page,
  demo,
}) => {
  await administer(demo.databaseUrl, "update collections set catalogue_version = '2026.3'");
  await signIn(page, demo, '/genes');
  const card = page.locator('.update');
  await expect(card.getByRole('heading', { name: /changes how Leucistic is read/ })).toBeVisible();
  await expect(card.getByText('Nothing that is claimed of an animal today would change.')).toBeVisible();
  await card.getByRole('button', { name: /^Use catalogue/ }).click();
  await expect(card).toHaveCount(0);

  await page.getByRole('button', { name: 'Order of labels' }).click();
  await page.getByRole('button', { name: 'In the order of how many animals here have them' }).click();
  await expect(page.locator('.v-dialog .v-chip').first()).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('worked out anew').first()).toBeVisible();
});
