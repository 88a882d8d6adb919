import { startServer } from './server.ts';
import { expect, test } from './test.ts';

/* A new owner, from the address that the terminal prints to the first meal logged. */

test('from the first start to the first meal in a dozen fields and touches', async ({ page }) => {
  const server = await startServer('new');
  const shoot = async (name: string): Promise<void> => {
    if (process.env['SHOTS']) await page.screenshot({ path: `${process.env['SHOTS']}/${name}.png` });
  };
  await page.goto(`${server.origin}/start#${server.startCode}`);
  await page.getByLabel('Your name').fill('Ida Marsh');
  await page.getByLabel('E-mail').fill(server.email);
  await page.getByLabel('Password').fill(server.password);
  await page.getByLabel('Its name, as buyers see it').fill('Reedwater');
  await shoot('1-start');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Today');
  await expect(page.getByText('Nothing is due')).toBeVisible();
  await shoot('2-today');
  await page.getByRole('link', { name: 'Add an animal' }).click();
  const adding = page.getByRole('dialog');
  await adding.getByLabel('Number').fill('F-01');
  await adding.getByLabel('Weight today').fill('1650');
  await shoot('3-animal');
  await adding.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('F-01');
  await shoot('4-animal');
  await page.getByRole('button', { name: 'Meal', exact: true }).click();
  await shoot('5-meal');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Save|^Record/ })
    .click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await shoot('6-logged');
  await expect(page.getByText(/taken/).first()).toBeVisible();
  await server.stop();
});
