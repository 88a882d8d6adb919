import { expect, signIn, test } from './test.ts';

test('a route becomes a project with one touch, is planned, and says who is wanted twice', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/season/planner');
  await test.step('from the planner', async () => {
    await page.getByRole('button', { name: 'Project routes' }).click();
    await page.getByLabel('What do you want?').fill('Clown Mojave');
    await page.getByRole('button', { name: 'Find routes' }).click();
    await page.getByRole('button', { name: 'Make it a project' }).first().click();
    await expect(page.getByRole('heading', { name: 'Clown Mojave', level: 1 })).toBeVisible();
  });
  await test.step('what comes next is played, and planned for the season', async () => {
    await expect(page.getByText(/Played from today:/)).toBeVisible({ timeout: 60_000 });
    await page
      .getByRole('button', { name: /^Plan for \d{4}$/ })
      .first()
      .click();
    await expect(page.getByText(/^planned for \d{4}$/)).toBeVisible();
    await expect(page.getByText('planned, not made yet')).toBeVisible();
  });
  await test.step('an animal comes in with a reason, and is taken out and back again', async () => {
    await page.getByRole('button', { name: 'Add an animal…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Animal', { exact: true }).fill('F-10');
    await page.getByRole('option', { name: /F-10/ }).click();
    await dialog.getByLabel('Why').fill('A spare female');
    await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('A spare female')).toBeVisible();
    await page.getByRole('button', { name: 'Take F-10 out' }).click();
    await expect(page.getByText('A spare female')).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('A spare female')).toBeVisible();
  });
  await test.step('the projects of the demo share a male, and luck is told', async () => {
    await page.getByRole('link', { name: 'Projects' }).click();
    await page.locator('a.project strong', { hasText: /^Vanilla Ultramel$/ }).click();
    await expect(page.getByText(/is wanted by Mocha Ultramel too/)).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Against the odds, over all seasons' })).toBeVisible();
    await expect(page.getByText(/of 12 hatchlings;/)).toBeVisible();
  });
  await test.step('an ended one wants nobody', async () => {
    await page.getByRole('button', { name: 'End', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
    await expect(page.getByText(/is wanted by/)).toHaveCount(0);
  });
});

test('a line that is not proven is kept, seen, and told how it would be proven', async ({ page, demo }) => {
  await signIn(page, demo, '/genes');
  await page.getByRole('button', { name: 'A gene or line' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('Smoke');
  await dialog.getByLabel(/^Not proven/).check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Not proven' })).toBeVisible();
  await expect(page.getByText('No animal shows it yet.')).toBeVisible();
  await page.goto(`${demo.origin}/animals?add=1`);
  const form = page.getByRole('dialog');
  await form.getByLabel('Number').fill('S-1');
  await form.getByLabel('Genes').fill('Smoke');
  await form.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(form).toHaveCount(0);
  await page.goto(`${demo.origin}/genes`);
  await expect(page.getByText('What would prove it')).toBeVisible();
  await expect(page.getByText(/It tells whether it shows in one copy/).first()).toBeVisible();
});

test('the racks are put into walking order, by drag and by the arrows', async ({ page, demo }) => {
  await signIn(page, demo, '/racks');
  await page.getByRole('button', { name: 'Walking order…' }).click();
  const dialog = page.getByRole('dialog');
  const names = dialog.locator('li strong');
  const before = await names.allTextContents();
  await dialog.getByRole('button', { name: `${before[0]} later` }).click();
  await expect(names.first()).toHaveText(before[1]!);
  const grips = dialog.locator('.grip');
  await grips.last().hover();
  await page.mouse.down();
  const top = (await grips.first().boundingBox())!;
  await page.mouse.move(top.x + 10, top.y + 40, { steps: 12 });
  await page.mouse.move(top.x + 10, top.y + 4, { steps: 8 });
  await page.mouse.up();
  await expect(names.first()).toHaveText(before.at(-1)!);
  await dialog.getByRole('button', { name: 'Keep this order' }).click();
  await expect(dialog).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Walking order…' }).click();
  await expect(names.first()).toHaveText(before.at(-1)!);
  await expect(names.nth(1)).toHaveText(before[1]!);
});
