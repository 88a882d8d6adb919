import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { PublicAnimal, ShowcaseLine } from '@karyotome/contract';
import { daysAgo, expect, getJson, getList, postJson, signIn, test } from './test.ts';

/* What a breeder signs, a stranger can check in the browser; evidence that comes later is signed anew. */

const chooseFile = (page: Page, name: string, text: string) =>
  page.locator('input[type=file]').setInputFiles({
    name,
    mimeType: 'application/json',
    buffer: Buffer.from(text),
  });

test('a buyer downloads a statement and verifies it, without a connection; a changed one is found', async ({
  page,
  demo,
  context,
}) => {
  await signIn(page, demo);
  const [line] = await getList<ShowcaseLine>(page, demo, '/showcase');
  await page.goto(`${demo.origin}/showcase`);
  const [packed] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Package' }).first().click(),
  ]);
  await context.clearCookies();
  await page.goto(`${demo.origin}/p/${line!.slug}`);
  await expect(page.getByRole('heading', { name: 'Signed statements' })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download', exact: true }).last().click(),
  ]);
  expect(download.suggestedFilename()).toBe(`${line!.animal.number}-statement-1.json`);
  const text = readFileSync(await download.path(), 'utf8');
  await page.getByRole('link', { name: 'verify', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Verify a statement' })).toBeVisible();
  await context.setOffline(true);
  await chooseFile(page, 'statement.json', text);
  await expect(page.getByText('Everything holds')).toBeVisible();
  await expect(page.getByText('The signature is valid')).toBeVisible();
  await page.locator('input[type=file]').setInputFiles(await packed.path());
  await page.getByText(/^\d+ files$/).click();
  await expect(page.getByText('records.csv: intact')).toBeVisible();
  await expect(page.getByText(/^pictures\/.*: intact$/).first()).toBeVisible();
  await expect(page.getByText('Everything holds')).toBeVisible();
  await context.setOffline(false);

  await chooseFile(page, 'changed.json', text.replace(line!.animal.number, 'ZZ-99'));
  await expect(page.getByText('This does not hold')).toBeVisible();
  await expect(page.getByText('The signature is not valid')).toBeVisible();
  await chooseFile(page, 'note.json', '{"a":1,"a":2}');
  await expect(
    page.getByText('note.json is no statement that can be read. a: is given twice.'),
  ).toBeVisible();
});

test('evidence that changes a claim is shown in Showcase, and signed by one touch', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/showcase');
  const lines = await getList<ShowcaseLine>(page, demo, '/showcase');
  const { animal, slug } = lines.find(({ claims }) => claims.includes('Yellow Belly'))!;
  // A second look that does not see it any more.
  const body = { genes: 'normal', sure: 'certain', by: 'Ida' };
  await postJson(page, demo, `/animals/${animal.id}/records`, {
    kind: 'identification',
    on: daysAgo(0),
    body,
  });
  const card = page.locator('.v-card', { hasText: animal.number });
  await expect(card.getByText('The records now:').first()).toBeVisible();
  await card.getByRole('button', { name: 'Sign statement 2' }).click();
  await expect(page.getByText('Statement signed')).toBeVisible();
  await expect(card.getByText('Statement 2, signed as of')).toBeVisible();
  await expect(card.getByText('The records now:')).toHaveCount(0);
  const { statements } = await getJson<PublicAnimal>(page, demo, `/public/${slug}`);
  expect(statements.map(({ statement }) => statement)).toEqual([2, 1]);
  await page.goto(`${demo.origin}/p/${slug}`);
  await expect(page.getByText(/became/).first()).toBeVisible();

  // The first statement's code, as a camera would see it, leads to it, and to the newer one.
  await page.goto(`${demo.origin}/p/${slug}/statements/1`);
  const code = await page.getByRole('img', { name: 'Code of statement 1' }).screenshot();
  await scan(page, demo, code);
  await expect(page.getByText('There is a newer statement: number 2')).toBeVisible();
  await expect(page.getByText(/Yellow Belly became/)).toBeVisible();
});

test('the key’s code is held against a statement, and the key comes back from its backup', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/showcase');
  const [line] = await getList<ShowcaseLine>(page, demo, '/showcase');
  await page.getByRole('button', { name: 'Key', exact: true }).click();
  const code = await page.getByRole('img', { name: 'Code of the key' }).screenshot();
  await page.getByLabel('Password for a backup').fill('a long password');
  const [backup] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save a backup' }).click(),
  ]);
  await page.getByRole('button', { name: 'Bring a key back' }).click();
  await page
    .getByRole('dialog')
    .locator('input[type=file]')
    .setInputFiles(await backup.path());
  await page.getByLabel('Its password').fill('another password');
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByText('does not open this backup')).toBeVisible();
  await page.getByLabel('Its password').fill('a long password');
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByText('The key is back')).toBeVisible();

  await scan(page, demo, code);
  await expect(page.getByText('it is held against this key')).toBeVisible();
  const document = await getJson<object>(page, demo, `/public/${line!.slug}/statements/1`);
  await chooseFile(page, 'statement.json', JSON.stringify(document));
  await expect(page.getByText('It is signed by the key that you scanned.')).toBeVisible();
});

/** Scans a picture of a code on the page for everybody. */
async function scan(page: Page, { origin }: { origin: string }, picture: Buffer): Promise<void> {
  await page.goto(`${origin}/verify`);
  await page.getByRole('button', { name: 'Scan a code' }).click();
  const file = { name: 'code.png', mimeType: 'image/png', buffer: picture };
  await page.getByRole('dialog').locator('input[type=file]').setInputFiles(file);
}
