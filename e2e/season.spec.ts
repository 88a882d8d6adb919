import { choose, expect, fillDay, fillNumber, pick, shownDay, signIn, takeFromMenu, test } from './test.ts';

/*
 * A season as a breeder works through it: from the first night together to numbered hatchlings, with slips that are put
 * right; the planner before it, the incubators beside it, the calendar around it.
 */

test('a whole season, from the first introduction to numbered hatchlings', async ({ page, demo }) => {
  await signIn(page, demo, '/season');
  const teasel = page.getByRole('group', { name: /^F-06: / });

  await test.step('a male is dragged to her; undone, and put to her again on the day it really was', async () => {
    const grip = page.locator('[data-male]').filter({ hasText: 'M-01' }).locator('.grip');
    await grip.hover();
    await page.mouse.down();
    await teasel.scrollIntoViewIfNeeded();
    const row = (await teasel.boundingBox())!;
    await page.mouse.move(row.x + 200, row.y + 20, { steps: 8 });
    await page.mouse.move(row.x + 240, row.y + 30, { steps: 8 });
    await page.mouse.up();
    await expect(page.getByText('M-01 put to F-06')).toBeVisible();
    await expect(page.getByRole('group', { name: /^F-06: With M-01 since today/ })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('group', { name: 'F-06: Ready' })).toBeVisible();
    await page.getByRole('button', { name: 'F-06: put a male to her' }).click();
    await choose(page, 'Male', 'M-01');
    await fillDay(page.getByLabel('Together since'), 149);
    await page.getByRole('dialog').getByRole('button', { name: 'Introduce', exact: true }).click();
    await expect(page.getByRole('group', { name: /^F-06: With M-01 for 149 days/ })).toBeVisible();
  });

  await test.step('a lock at one touch, corrected to the night it was; then apart, ovulated, shed', async () => {
    await page.getByRole('button', { name: 'F-06: lock seen with M-01' }).click();
    await expect(page.getByText('F-06: lock today')).toBeVisible();
    await takeFromMenu(page, 'F-06: more', 'Her season and the fathers…');
    await page.getByRole('button', { name: 'Correct…' }).first().click();
    await fillDay(page.getByLabel('On', { exact: true }), 200);
    await page.getByRole('button', { name: 'Correct', exact: true }).click();
    await expect(page.getByText('lies before the first introduction')).toBeVisible();
    await fillDay(page.getByLabel('On', { exact: true }), 148);
    await page.getByRole('button', { name: 'Correct', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    for (const [what, day] of [
      ['Separated', 146],
      ['Ovulated', 109],
      ['Pre-lay shed', 90],
    ] as const) {
      await takeFromMenu(page, 'F-06: more', 'Something on another day…');
      await pick(page, 'What', what);
      await fillDay(page.getByLabel('On', { exact: true }), day);
      await page.getByRole('button', { name: 'Note it' }).click();
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
    await expect(page.getByRole('group', { name: /^F-06: Pre-lay shed/ })).toBeVisible();
    await expect(teasel.getByText(/Day 90/)).toBeVisible();
    await teasel.getByRole('button', { name: /^Why/ }).click();
    await expect(page.getByText(/Rests on \d+ of your own clutches/)).toBeVisible();
    await page.keyboard.press('Escape');
  });

  await test.step('the eggs are laid into an incubator', async () => {
    await teasel.getByRole('button', { name: 'Eggs laid…' }).click();
    await fillDay(page.getByLabel('Laid on'), 59);
    await fillNumber(page, 'Eggs in all', '5');
    await pick(page, 'Incubator', 'Incubator 1');
    await page.getByRole('button', { name: 'Record clutch' }).click();
    await expect(page.getByText('5 good')).toBeVisible();
  });

  await page.setViewportSize({ width: 390, height: 844 });
  const egg = (position: number) => page.getByRole('button', { name: new RegExp(`^Egg ${position}: `) });

  await test.step('on a phone: weighed one after another, a slug, two stuck, all marked, one moved', async () => {
    await page.getByRole('button', { name: 'Lay down' }).click();
    await page.getByLabel('Egg 1 weighs, g').fill('900');
    await page.getByRole('button', { name: 'Weighed', exact: true }).click();
    await expect(page.getByText('must be between 5 g and 300 g')).toBeVisible();
    for (const grams of ['86', '84,5', '88', '90', '41']) {
      await page.getByLabel(/^Egg \d weighs, g/).fill(grams);
      await page.keyboard.press('Enter');
    }
    await expect(egg(2)).toHaveAccessibleName('Egg 2: good, 84.5 g');
    await egg(5).click();
    await page.getByRole('button', { name: 'Slug', exact: true }).click();
    await egg(1).click();
    await egg(2).click();
    await page.getByRole('button', { name: 'Stuck together' }).click();
    await page.getByRole('button', { name: 'All eggs' }).click();
    await page.getByRole('button', { name: 'Top marked' }).click();
    await egg(4).click();
    await page.getByRole('button', { name: 'Doubtful' }).click();
    await expect(egg(4)).toHaveAccessibleName('Egg 4: doubtful, 90 g, marked');
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await expect(egg(4)).toHaveAccessibleName('Egg 4: good, 90 g, marked');
    await egg(3).focus();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible();
    await page.reload();
    await expect(egg(1)).toHaveAccessibleName('Egg 1: good, 86 g, marked, stuck to others');
    await expect(egg(5)).toHaveAccessibleName('Egg 5: slug, 41 g, marked');
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(overflow).toBeLessThanOrEqual(0);
  });

  await test.step('candled: mould on one, taken back, then the whole clutch is fine', async () => {
    await page.getByRole('button', { name: 'Look at' }).click();
    await egg(3).click();
    await page.getByText('Mould', { exact: true }).click();
    await fillDay(page.getByLabel('Seen on'), 40);
    await page.getByRole('button', { name: 'Record for egg 3' }).click();
    await expect(egg(3)).toHaveAccessibleName(/mould/);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(egg(3)).not.toHaveAccessibleName(/mould/);
    await page.getByRole('button', { name: 'Looked at the whole clutch: fine' }).click();
    await expect(page.getByText('All eggs: looked at, nothing to note')).toBeVisible();
  });

  await test.step('pipped, one cut by the protocol with its caution, twins, one died', async () => {
    await page.getByRole('button', { name: 'Hatch', exact: true }).click();
    // The day of the lamp does not stay for what is seen today.
    await expect(page.getByLabel('Seen on')).toHaveValue(shownDay(0));
    await expect(page.getByText('what has not pipped by day 60 is cut')).toHaveCount(2);
    await expect(page.getByText('learned from somebody trained').first()).toBeVisible();
    const act = (name: string) => page.getByRole('button', { name, exact: true }).click();
    await egg(1).click();
    await act('Pipped');
    await expect(egg(1)).toHaveAccessibleName(/pipped/);
    await act('Choose all unpipped');
    await expect(egg(2)).toHaveAttribute('aria-pressed', 'true');
    await expect(egg(5)).toHaveAttribute('aria-pressed', 'false');
    await act('Cut');
    await egg(1).click();
    await egg(2).click();
    await act('Out');
    await expect(egg(2)).toHaveAccessibleName(/out/);
    await egg(3).click();
    await act('Out: twins');
    await expect(egg(3)).toHaveAccessibleName(/twins/);
    await egg(4).click();
    await act('Died in the egg');
    await expect(page.getByText('4 good, 1 slug, 3 out, 4 young, 1 died')).toBeVisible();
    // A slip: what is out cannot die in the egg.
    await egg(3).click();
    await act('Died in the egg');
    await expect(page.getByText('The egg is egg 3, which is out already')).toBeVisible();
  });

  await test.step('the card is a PDF and is kept', async () => {
    const [card] = await Promise.all([
      page.waitForResponse((response) => response.url().includes('/cards') && response.status() === 201),
      page.getByRole('button', { name: 'Card' }).click(),
    ]);
    const { id } = (await card.json()) as { id: string };
    const pdf = await page.request.get(`${demo.origin}/api/v1/clutch-cards/${id}`);
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
    await expect(page.getByRole('link', { name: /^Card of/ })).toBeVisible();
  });

  await test.step('all young are numbered in one act', async () => {
    await page.getByRole('button', { name: 'Hatched…' }).click();
    await expect(page.getByLabel('How many left the egg')).toHaveValue('4');
    await page.getByRole('button', { name: 'Number them' }).click();
    await expect(page.locator('[data-number]')).toHaveCount(4);
    await page.getByRole('link', { name: 'Eggs' }).click();
    await expect(page.getByRole('link', { name: 'To the young' })).toBeVisible();
    await page.goto(`${demo.origin}/season/past`);
    await page.getByRole('button', { name: 'Female', exact: true }).click();
    await expect(page.getByRole('row', { name: /^F-06/ })).toContainText(/9 of 11|8 of 10/);
  });
});

test('the reasons against a pair are said before they are together, and keys carry a male', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/season');
  await page.getByRole('button', { name: 'Select M-05' }).press('Enter');
  const plover = page.getByRole('group', { name: /^F-04: / });
  await plover.getByRole('button', { name: 'Put M-05 here' }).press('Enter');
  await expect(page.getByText(/F-04: Laid \d+ days ago/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Introduce anyway' })).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
  await page.getByRole('button', { name: 'Select M-05' }).press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Put M-05 here' })).toHaveCount(0);
  await expect(plover).toContainText('Laid');
});

test('earlier mates stay possible fathers, with weights of the keeper’s own', async ({ page, demo }) => {
  await signIn(page, demo, '/season');
  await takeFromMenu(page, 'F-02: more', 'Her season and the fathers…');
  await expect(page.getByText('stored sperm').first()).toBeVisible();
  await expect(page.getByText('98%', { exact: true })).toBeVisible();
  await fillNumber(page, 'Weight of M-03', '1');
  await page.getByRole('button', { name: 'Save the fathers' }).click();
  await expect(page.getByText('The possible fathers are saved')).toBeVisible();
  await expect(page.getByText(/^49\.\d+%$/).first()).toBeVisible();
});

test('the rules of the season are the keeper’s own', async ({ page, demo }) => {
  await signIn(page, demo, '/season');
  await page.getByRole('button', { name: 'Rules' }).click();
  await fillNumber(page, 'Females in a season', '0');
  await page.getByRole('button', { name: 'Save the rules' }).click();
  await expect(page.getByText(/must be .*1/).first()).toBeVisible();
  await fillNumber(page, 'Females in a season', '6');
  await page.getByRole('button', { name: 'Save the rules' }).click();
  await expect(page.getByText('The rules are saved')).toBeVisible();
  await expect(page.getByText(/of 6 females/).first()).toBeVisible();
});
