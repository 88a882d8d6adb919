import { administer } from '../server/test/template.ts';
import type { AnimalView } from '@karyotome/contract';
import { expect, fillNumber, getJson, getList, signIn, test } from './test.ts';

/* The demo farm: what a keeper does on an ordinary day. */

test('a meal is logged in one touch, and undone in one', async ({ page, demo }) => {
  await signIn(page, demo);
  const meals = page
    .getByRole('button', { name: /^Meals/ })
    .or(page.locator('.v-chip', { hasText: 'Meals' }))
    .first();
  const before = Number(await meals.locator('.num').textContent());
  expect(before).toBeGreaterThan(1);
  await meals.click();
  const rows = page.locator('.line.meal');
  await expect(rows).toHaveCount(before);
  const number = (await rows.first().locator('strong').textContent())!.trim().split(' ')[0]!;
  await rows.first().getByRole('button', { name: 'Taken' }).click();
  await expect(page.getByRole('status').getByText(`${number}:`)).toBeVisible();
  await expect(rows).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(before);
});

test('a meal is logged by key, and the keys are shown', async ({ page, demo }) => {
  await signIn(page, demo);
  await page.locator('.v-chip', { hasText: 'Meals' }).click();
  const rows = page.locator('.line.meal');
  await expect(page.locator('.line:not(.meal)')).toHaveCount(0);
  const before = await rows.count();
  await page.keyboard.press('j');
  await expect(rows.first()).toBeFocused();
  await page.keyboard.press('r');
  await expect(page.getByRole('status').getByText('refused')).toBeVisible();
  await expect(rows).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(before);
  await page.keyboard.press('?');
  await expect(page.getByText('the meal of this row was taken')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).last().click();
  await page.keyboard.press('5');
  await expect(page.getByRole('heading', { name: 'Racks' })).toBeVisible();
});

test('advice speaks for and against, each with its reasons', async ({ page, demo }) => {
  await signIn(page, demo);
  await page.locator('.v-chip', { hasText: 'Moves' }).click();
  const lines = page.locator('.line.move');
  // Until the others are gone the list still moves under the pointer.
  await expect(page.locator('.line:not(.move)')).toHaveCount(0);
  await expect(lines.filter({ hasText: 'Move up' }).first()).toBeVisible();
  await expect(lines.filter({ hasText: 'Back to the last tub' }).first()).toBeVisible();
  const up = lines.filter({ hasText: 'Move up' }).first();
  await up.getByRole('button', { name: /^Why: Move up/ }).click();
  await expect(page.getByText('For:').first()).toBeVisible();
  await page.keyboard.press('Escape');
  // Staying is nothing to do: its animal's page says why.
  for (const { id } of await getList<{ id: string }>(page, demo, '/animals')) {
    const { advice } = await getJson<AnimalView>(page, demo, `/animals/${id}`);
    if (advice.verdict !== 'hold') continue;
    await page.goto(`${demo.origin}/animals/${id}`);
    await expect(page.getByText('against', { exact: true }).first()).toBeVisible();
    return;
  }
  throw new Error('No animal of the demo stays in its tub.');
});

test('a record is corrected with a reason, and what was there stays to be seen', async ({ page, demo }) => {
  await signIn(page, demo, '/animals?q=F-03');
  await page.getByRole('link', { name: 'F-03' }).click();
  await page
    .getByRole('button', { name: /^Correct Weight/ })
    .first()
    .click();
  await fillNumber(page, 'Weight, g', '1701');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByText('is empty').or(page.getByText('is missing')).first()).toBeVisible();
  await page.getByLabel('Why it is corrected').fill('read from the wrong line');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByText('1,701 g').first()).toBeVisible();
  await page.getByLabel('Also voided').click();
  await expect(page.getByText('corrected by Maren Thistle: read from the wrong line')).toBeVisible();
});

test('two keepers: the later one is told, and nothing is lost', async ({ page, demo }) => {
  await signIn(page, demo, '/animals?q=F-04');
  await page.getByRole('link', { name: 'F-04' }).click();
  await page.getByRole('button', { name: 'Edit name, parents, status and private note' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Golden Plover');
  // Meanwhile somebody else changes the same animal.
  await page.evaluate(async () => {
    const id = location.pathname.split('/').pop();
    const session = await (await fetch('/api/v1/session')).json();
    const { version } = await (await fetch(`/api/v1/animals/${id}`)).json();
    await fetch(`/api/v1/animals/${id}`, {
      method: 'PATCH',
      headers: {
        'Content-Type': 'application/json',
        'X-CSRF-Token': session.csrfToken,
        'If-Match': `"${version}"`,
      },
      body: JSON.stringify({ name: 'Plover II' }),
    });
  });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('changed in the meantime');
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Golden Plover');
});

test('a ladder is edited, and a wrong weight range is answered at its field', async ({ page, demo }) => {
  await signIn(page, demo, '/racks/ladders');
  await page.getByRole('button', { name: 'Edit Two-tub economy' }).click();
  const upper = page.getByRole('textbox', { name: 'Up to, g' }).nth(1);
  await upper.clear();
  await upper.fill('200');
  await page.getByRole('button', { name: 'Save ladder' }).click();
  await expect(page.getByText('must be more than the weight it starts from').first()).toBeVisible();
  await upper.clear();
  await upper.fill('2600');
  await page.getByRole('button', { name: 'Save ladder' }).click();
  await expect(page.getByText('Two-tub economy saved')).toBeVisible();
  await expect(page.getByText('2,600 g')).toBeVisible();
});

test('a session that ended leads to the sign-in and back', async ({ page, demo }) => {
  await signIn(page, demo, '/season');
  // What this place still asks for would find the session ended, and lead back here.
  await page.waitForLoadState('networkidle');
  // On the server: a cookie that was cleared here would come again with an answer on its way.
  await administer(demo.databaseUrl, 'delete from sessions');
  await page.getByRole('link', { name: 'Racks' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await page.getByLabel('E-mail').fill(demo.email);
  await page.getByLabel('Password').fill(demo.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Racks' })).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
});

test.describe('by touch on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a meal is swiped: to the right taken, to the left refused, a little way nothing', async ({
    page,
    demo,
  }) => {
    await signIn(page, demo);
    await page.locator('.v-chip', { hasText: 'Meals' }).tap();
    const rows = page.locator('.line.meal');
    await expect(page.locator('.line:not(.meal)')).toHaveCount(0);
    const before = await rows.count();
    const cdp = await page.context().newCDPSession(page);
    const swipe = async (px: number): Promise<void> => {
      const box = (await rows.first().boundingBox())!;
      const [x, y] = [box.x + box.width / 2, box.y + 12];
      const at = (dx: number) => ({ touchPoints: [{ x: x + dx, y }] });
      await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', ...at(0) });
      for (let step = 1; step <= 8; step++)
        await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', ...at((px * step) / 8) });
      await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    };
    for (const [px, said] of [
      [140, 'taken'],
      [-140, 'refused'],
    ] as const) {
      await swipe(px);
      await expect(page.getByRole('status').getByText(said)).toBeVisible();
      await expect(rows).toHaveCount(before - 1);
      await page.getByRole('button', { name: 'Undo' }).tap();
      await expect(rows).toHaveCount(before);
    }
    await swipe(50);
    await expect(rows.first()).not.toHaveClass(/drawn/);
    await expect(rows).toHaveCount(before);
  });
});
