import { expect, getList, signIn, test } from './test.ts';

/* A camera of the browser's own: a moving picture with a counter. */
test.use({
  launchOptions: {
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    args: ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream', '--no-first-run'],
  },
});

test('a clutch is photographed one after another, by keys', async ({ page, demo }) => {
  await signIn(page, demo, '/bench');
  await page.getByRole('link', { name: /0 of 8 identified/ }).click();
  await page.getByRole('button', { name: 'Pictures', exact: true }).click();
  await page.getByRole('button', { name: 'One after another…' }).click();
  const booth = page.getByRole('dialog').filter({ hasText: '1 of 8' });
  const first = await booth.locator('.number').textContent();
  await expect(booth.getByRole('button', { name: /^Take / })).toBeEnabled();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('2 of 8')).toBeVisible();
  await page.keyboard.press('ArrowLeft');

  /** Takes one; where it looks bad it is kept all the same. */
  const take = async (place: number): Promise<void> => {
    await page.keyboard.press('Enter');
    const next = page.getByText(`${place + 1} of 8`);
    const keep = page.getByRole('button', { name: 'Keep it' });
    await expect(next.or(keep).first()).toBeVisible();
    if (await keep.isVisible()) await page.keyboard.press('Enter');
    await expect(next).toBeVisible();
  };
  await take(1);
  await take(2);
  await expect(page.getByText('2 pictures kept')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  const animals = await getList<{ number: string; pictureId: string | null }>(page, demo, '/animals');
  expect(animals.find(({ number }) => number === first!.trim())!.pictureId).not.toBeNull();
});
