import { choose, daysAgo, expect, fillNumber, signIn, test } from './test.ts';

test('the planner: one pair, its cautions first; best mates; routes, played and compared; the season', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/season/planner');

  await test.step('typed genes: two spiders are warned of, above the odds', async () => {
    await page.getByRole('button', { name: 'Typed genes' }).first().click();
    await page.getByRole('button', { name: 'Typed genes' }).last().click();
    await page.getByLabel('Female, genes', { exact: true }).fill('Spider het Clown');
    await page.getByLabel('Male, genes', { exact: true }).fill('Spider Clown');
    await page.getByLabel('What do you want?').fill('Spider Clown');
    await expect(page.getByText('Before you do')).toBeVisible();
    // A textbook cross: half of the young clown; beside them the odds per egg.
    await expect(page.getByText('One egg', { exact: true })).toBeVisible();
    await expect(page.getByText('What they can produce, by what shows')).toBeVisible();
  });

  await test.step('two of mine: het to visual, half of the young', async () => {
    await page.getByLabel('What do you want?').fill('Clown');
    await page.getByRole('button', { name: 'Female of mine', exact: true }).click();
    await page.getByRole('button', { name: 'Male of mine', exact: true }).click();
    await choose(page, 'Female', 'F-07');
    await choose(page, 'Male', 'M-05');
    await expect(page.getByText('1 in 2', { exact: true })).toBeVisible();
    await expect(page.getByText('not related')).toBeVisible();
  });

  await test.step('best mates are ranked, with the reasons against each', async () => {
    await page.getByRole('button', { name: 'Best mates' }).click();
    await expect(page.getByRole('row', { name: /F-11 Linnet M-05 Fennel/ })).toContainText('nothing');
    await expect(page.getByRole('row', { name: /F-07 Bramble M-05 Fennel/ })).toContainText(
      'has laid this season',
    );
    await page.getByLabel('What do you want?').fill('Clown Ultramel');
    await expect(page.getByText('No pair of yours can give it in one step')).toBeVisible();
  });

  await test.step('routes: two are played side by side, one is stopped', async () => {
    await page.getByRole('button', { name: 'Find routes' }).click();
    await page.getByRole('button', { name: 'Find routes' }).click();
    await expect(page.getByRole('heading', { name: 'Route 2' })).toBeVisible({ timeout: 20_000 });
    await page.getByRole('button', { name: 'Play as A' }).first().click();
    await page.getByRole('button', { name: 'As B' }).nth(1).click();
    await expect(page.getByText(/within 10 years/)).toHaveCount(2, { timeout: 30_000 });
    await page.getByText('Year by year').first().click();
    await expect(page.getByRole('columnheader', { name: 'Plan B' })).toBeVisible();
    await page.getByRole('button', { name: 'Put away' }).first().click();
    await expect(page.getByText('Choose a route below to play it here.')).toBeVisible();
  });

  await test.step('a gene nobody has must be bought', async () => {
    await page.getByLabel('What do you want?').fill('Axanthic A Clown');
    await page.getByRole('button', { name: 'Find routes' }).click();
    await expect(page.getByText(/None of your animals carries Axanthic A/)).toBeVisible();
    await page.getByLabel('One animal may be bought').check();
    await page.getByLabel('Its genes').fill('Axanthic A het Clown');
    await page.getByRole('button', { name: 'Find routes' }).click();
    await expect(page.getByText('the bought animal').first()).toBeVisible({ timeout: 20_000 });
  });

  await test.step('the season: filled for a target, and what the keeper fixes is kept', async () => {
    await page.getByRole('button', { name: 'Season plan' }).click();
    await page.getByLabel('Target 1').fill('Clown');
    const linnet = page.getByRole('row', { name: /^F-11 Linnet/ });
    await expect(linnet.getByText('M-05 Fennel')).toBeVisible();
    await choose(page, 'Male for F-11', 'Nobody this season');
    await expect(linnet).toContainText('but you fixed her');
    await choose(page, 'Male for F-11', 'M-02');
    await expect(linnet.getByRole('cell').nth(2)).toContainText('M-02');
  });
});

test('incubators: by hand, from a logger, an alarm on Today; the calendar has a secret address', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/season/incubators');
  await expect(page.getByText('Simulated sensor')).toBeVisible();
  await page.getByRole('button', { name: 'New incubator' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Incubator 3');
  await fillNumber(page, 'Alarm below, °C', '33');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('must be less than the upper limit')).toBeVisible();
  await fillNumber(page, 'Alarm below, °C', '30');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const card = page.getByRole('region', { name: 'Incubator 3' });
  const file = async (text: string) => {
    await card
      .locator('input[type=file]')
      .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    // The farm's own zone is proposed for the logger's clock.
    await page.getByRole('button', { name: 'Read the file' }).click();
  };
  await file(`time,temperature\n${daysAgo(2)} 08:00,31.2\n${daysAgo(2)} 09:00,warm\n`);
  await expect(page.getByText('log.csv was not taken: nothing of it was kept.')).toBeVisible();
  await file(`time,temperature\n${daysAgo(2)} 08:00,31.2\n${daysAgo(2)} 09:00,31.4\n`);
  await expect(page.getByText('2 readings taken, 0 were known')).toBeVisible();
  const second = page.getByRole('region', { name: 'Incubator 2' });
  await expect(second.getByText(/No reading for \d+ hours/)).toBeVisible();
  await second.getByRole('button', { name: 'Reading…' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('is missing').first()).toBeVisible();
  await fillNumber(page, 'Temperature, °C', '27.5');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(second.getByText(/^27.5°C, .*/)).toBeVisible();
  await page.goto(`${demo.origin}/today`);
  await expect(page.getByRole('group', { name: /^Incubator 2: .*27.5/ })).toBeVisible();

  await page.goto(`${demo.origin}/settings`);
  await page.getByRole('button', { name: 'Make an address' }).click();
  await expect(page.getByText('is empty').or(page.getByText('is missing')).first()).toBeVisible();
  await page.getByLabel('For which device or person').fill('Phone');
  await page.getByRole('button', { name: 'Make an address' }).click();
  const address = (await page.locator('.secret').textContent())!;
  const feed = await page.request.get(address);
  expect(feed.headers()['content-type']).toContain('text/calendar');
  expect(await feed.text()).toContain('BEGIN:VEVENT');
  await page.getByRole('button', { name: 'Revoke Phone' }).click();
  await expect(page.locator('.secret')).toHaveCount(0);
  expect((await page.request.get(address)).status()).toBe(404);
});

test('a room is watched: its limits, a reading out of them, and it stands on Today', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/racks/climate');
  await expect(page.getByRole('region', { name: 'Snake room' }).getByText('Simulated sensor')).toBeVisible();
  await page.getByRole('button', { name: 'Watch a room' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/is empty|is missing/).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Room' }).fill('Quarantine room');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const room = page.getByRole('region', { name: 'Quarantine room' });
  await expect(room.getByText('No reading yet').first()).toBeVisible();
  await room.getByRole('button', { name: 'Reading…' }).click();
  await fillNumber(page, 'Temperature, °C', '31.5');
  await fillNumber(page, 'Humidity, %', '50');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(room.getByText('31.5°C, 50% humidity')).toBeVisible();
  await expect(room.getByText('31.5°C, over 30.0°C')).toBeVisible();
  await page.goto(`${demo.origin}/today`);
  await page
    .getByRole('group', { name: /^Quarantine room: .*31.5/ })
    .getByRole('link', { name: 'Open' })
    .click();
  await expect(page).toHaveURL(/\/racks\/climate$/);
});
