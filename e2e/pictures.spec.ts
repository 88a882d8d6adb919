import sharp from 'sharp';
import { expect, getJson, getList, signIn, test } from './test.ts';

interface Pictured {
  pictures: { id: string; width: number; height: number; edit: { turn: number; isEvened: boolean } | null }[];
}

test('a picture is turned and cropped, and an animal is seen over time and beside its clutch', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/animals');
  const [animal] = (await getList<{ id: string; number: string }>(page, demo, '/animals')).filter(
    ({ number }) => number === '2401-05',
  );
  await page.goto(`${demo.origin}/animals/${animal!.id}`);

  await test.step('it comes in lying on its side', async () => {
    const buffer = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#c8b89a' } })
      .jpeg()
      .toBuffer();
    await page
      .getByLabel('Picture files')
      .setInputFiles({ name: 'side.jpg', mimeType: 'image/jpeg', buffer });
    await expect(page.getByText('Picture added')).toBeVisible();
  });
  const shown = async () => (await getJson<Pictured>(page, demo, `/animals/${animal!.id}`)).pictures[0]!;

  await test.step('a quarter to the right, evened; then as it came again', async () => {
    await page.getByRole('button', { name: 'Turn and crop' }).first().click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.locator('.cropper-crop-box')).toBeVisible();
    await dialog.getByRole('button', { name: 'A quarter to the right' }).click();
    await dialog.getByLabel('Even the light on the ground').check();
    await dialog.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('Picture changed.')).toBeVisible();
    const { width, height, edit } = await shown();
    expect(edit).toMatchObject({ turn: 90, isEvened: true });
    expect(Math.abs(width / height - 600 / 900)).toBeLessThan(0.02);
    await page.getByRole('button', { name: 'Turn and crop' }).first().click();
    await dialog.getByRole('button', { name: 'As it came' }).click();
    await expect(dialog).toHaveCount(0);
    await expect.poll(shown).toMatchObject({ width: 900, height: 600 });
  });

  await test.step('its pictures stand beside one another', async () => {
    await page.getByRole('button', { name: 'Over time…' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.locator('.frame')).toHaveCount(2);
    await expect(dialog.getByText('sub-adult').first()).toBeVisible();
    await dialog.getByRole('button', { name: 'Close' }).click();
  });

  await test.step('its growth lies over that of its clutch, with the figures as a table', async () => {
    await page.getByRole('button', { name: 'Beside its clutch…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByText('As a table').click();
    await expect(dialog.getByRole('row', { name: /2401-05/ })).toBeVisible();
    await dialog.getByRole('button', { name: 'All of its season' }).click();
    await expect(dialog.getByRole('row', { name: /2401-0/ })).not.toHaveCount(0);
  });
});
