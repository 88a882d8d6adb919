import { expect, signIn, test } from './test.ts';

/* An animal entered twice is deleted, looked at among what was deleted, and restored; another is erased. */

test('an owner deletes an animal for a reason, restores it as it was, and erases another', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals');
  const find = page.getByRole('textbox', { name: /^Find by/ });
  const open = async (number: string): Promise<void> => {
    await page.goto(`${demo.origin}/animals`);
    await find.fill(number);
    await page.getByRole('link', { name: number }).first().click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(number);
  };
  const remove = async (number: string, reason: string): Promise<void> => {
    await open(number);
    await page.getByRole('button', { name: /^Edit name/ }).click();
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    const dialog = page.getByRole('dialog').filter({ hasText: `Delete ${number}` });
    await dialog.getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(dialog.getByText('is missing')).toBeVisible();
    await dialog.getByLabel('Why').fill(reason);
    await dialog.getByRole('button', { name: 'Delete', exact: true }).click();
  };

  await test.step('a parent stays, and it is said why', async () => {
    await remove('F-01', 'Entered twice');
    await expect(
      page.getByText(/published page of .* shows this animal: it cannot be deleted/),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Keep it' }).click();
  });

  await test.step('deleted and restored', async () => {
    await remove('2607-03', 'Entered twice');
    await expect(page.getByText('2607-03 deleted')).toBeVisible();
    await page.goto(`${demo.origin}/settings`);
    await page.getByRole('link', { name: 'Deleted' }).click();
    await expect(page.getByText('“Entered twice”')).toBeVisible();
    await page.getByRole('button', { name: 'Restore 2607-03' }).click();
    await expect(page.getByText('2607-03 is back')).toBeVisible();
    await expect(page.getByText('Nothing was deleted lately')).toBeVisible();
    await open('2607-03');
  });

  await test.step('erased for good', async () => {
    await remove('2607-03', 'Never lived here');
    await page.goto(`${demo.origin}/settings/bin`);
    await page.getByRole('button', { name: 'Erase 2607-03' }).click();
    await page.getByRole('button', { name: 'Erase', exact: true }).click();
    await expect(page.getByText('2607-03 is erased')).toBeVisible();
    await page.goto(`${demo.origin}/settings/history`);
    const lines = page.locator('.lines li');
    await expect(lines.nth(0)).toContainText('Erased 2607-03');
    await expect(lines.nth(1)).toContainText('Deleted 2607-03');
    await expect(lines.nth(1)).toContainText('Never lived here');
  });
});
