import { choose, expect, fillDay, fillNumber, pick, takeFromMenu, test } from './test.ts';

/*
 * A breeder takes one clutch from its parents to a published page, with a wrong input at each step and a reload in the
 * middle. One long walk, as a person would take it: every step rests on the one before.
 */
test('one clutch, from its parents to a published page', async ({ page, empty }) => {
  await test.step('sign in, first with a wrong password', async () => {
    await page.goto(`${empty.origin}/season`);
    await page.getByLabel('E-mail').fill(empty.email);
    await page.getByLabel('Password').fill('not-it');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('alert')).toContainText('Check both fields');
    await page.getByLabel('Password').fill(empty.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('heading', { name: 'Season' })).toBeVisible();
    await expect(page.getByText('Nobody is grown yet')).toBeVisible();
  });

  await test.step('enter the dam; a misspelt gene is answered with a suggestion, and a reload loses nothing', async () => {
    await page.goto(`${empty.origin}/animals`);
    await page.getByRole('button', { name: 'Add an animal' }).first().click();
    await page.getByLabel('Number', { exact: true }).fill('F-01');
    await page.getByLabel('Name, if any').fill('Juniper');
    await page.getByLabel('Genes, in your shorthand').fill('Cinamon YB 66% het Clown');
    await expect(page.getByText('Did you mean')).toBeVisible();
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    // Once by the field itself, once by the server: it was sent all the same.
    await expect(page.getByText('“Cinamon” is not a known gene')).toHaveCount(2);
    await page.reload();
    await page.getByRole('button', { name: 'Add an animal' }).first().click();
    await expect(page.getByLabel('Number', { exact: true })).toHaveValue('F-01');
    // What she carries is known: a recessive gene that the statement does not name is not there.
    await page.getByLabel('What the statement leaves open').press('Enter');
    await page.getByRole('option', { name: /^Nothing/ }).click();
    await page.getByText('Cinnamon', { exact: true }).click();
    await expect(page.getByText('Yellow Belly Cinnamon 66% Het Clown')).toBeVisible();
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('F-01');
  });

  await test.step('bring two sires in from a CSV file, after a bad one was refused row by row', async () => {
    await page.goto(`${empty.origin}/animals/import`);
    const upload = (text: string | Buffer) =>
      page
        .locator('input[type=file]')
        .setInputFiles({ name: 'animals.csv', mimeType: 'text/csv', buffer: Buffer.from(text as string) });
    await upload('number,sex,genes,weight\nM-01,male,pastel clown,900\nM-02,mle,vanila,heavy\n');
    await expect(page.getByText('1 row is right, 1 to correct')).toBeVisible();
    await expect(page.getByText('“mle” must be one of female, male, unknown')).toBeVisible();
    await expect(page.getByText('must be a weight')).toBeVisible();
    await expect(page.getByText('“vanila” is not a known gene. Did you mean Vanilla?')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Bring in/ })).toBeDisabled();
    await page.goto(`${empty.origin}/animals/import`);
    await upload('number,sex\n');
    await expect(page.getByText('holds no rows under its header')).toBeVisible();
    await upload('number,sex,genes,weight\nM-01,male,pastel clown,900\nM-02,male,vanilla,850\n');
    await page.getByRole('button', { name: 'Bring in 2 rows' }).click();
    await expect(page.getByRole('link', { name: 'M-02' })).toBeVisible();
  });

  await test.step('put two males to her, one after the other; without a female it is refused', async () => {
    await page.goto(`${empty.origin}/season`);
    const put = (name: string) => page.getByRole('dialog').getByRole('button', { name, exact: true }).click();
    for (const [male, day] of [
      ['M-01', 160],
      ['M-02', 155],
    ] as const) {
      await page.getByRole('button', { name: 'Introduce' }).first().click();
      if (male === 'M-01') {
        await put('Introduce');
        await expect(page.getByText('is missing').first()).toBeVisible();
      }
      await choose(page, 'Female', 'F-01');
      await choose(page, 'Male', male);
      await fillDay(page.getByLabel('Together since'), day);
      await expect(page.getByText('What this pair can produce')).toBeVisible();
      // The board knows her from the first night on, and that she was never weighed.
      await put(male === 'M-01' ? 'Introduce' : 'Introduce anyway');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
    await expect(page.getByRole('group', { name: /^F-01: With M-01 and M-02/ })).toBeVisible();
    await takeFromMenu(page, 'F-01: more', 'Her season and the fathers…');
    await expect(page.getByText('50%')).toHaveCount(2);
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  await test.step('record the clutch; eggs before the pairing are refused at their field', async () => {
    await takeFromMenu(page, 'F-01: more', 'Eggs laid…');
    await fillDay(page.getByLabel('Laid on'), 200);
    await fillNumber(page, 'Eggs in all', '5');
    await page.getByRole('button', { name: 'Record clutch' }).click();
    await expect(page.getByText('lies before the pairing began')).toBeVisible();
    await fillDay(page.getByLabel('Laid on'), 80);
    await page.getByRole('button', { name: 'Record clutch' }).click();
    await expect(page.getByText('5 good')).toBeVisible();
  });

  await test.step('the eggs hatch; a hatch date before the lay date is refused', async () => {
    await page.getByRole('button', { name: 'Hatched…' }).click();
    await fillDay(page.getByLabel('Hatched on'), 90);
    await fillNumber(page, 'How many left the egg', '4');
    await page.getByRole('button', { name: 'Number them' }).click();
    await expect(page.getByText('lies before the lay date')).toBeVisible();
    await fillDay(page.getByLabel('Hatched on'), 22);
    await page.getByRole('button', { name: 'Number them' }).click();
    await expect(page.locator('[data-number]')).toHaveCount(4);
  });

  const first = page.locator('[data-number]').first();
  const second = page.locator('[data-number]').nth(1);

  const table = () => page.getByRole('button', { name: 'The whole clutch' }).click();

  await test.step('identify one from what the pairing can produce', async () => {
    await first.click();
    await page.getByRole('button', { name: 'Record identification' }).click();
    await expect(page.getByText('is empty').first()).toBeVisible();
    await page.getByText(/less likely/).click();
    await page.getByRole('button', { name: /^Pastel Clown:/ }).click();
    // What the list leaves open was put in brackets: this one is sure of what it is.
    await page.getByLabel('Identified as').fill('Pastel Clown');
    await page.getByRole('button', { name: 'certain' }).click();
    await page.getByRole('button', { name: 'Record identification' }).click();
    await expect(first.getByText('Pastel Clown')).toBeVisible();
    await expect(first.getByText('by M-01, 100%')).toBeVisible();
  });

  await test.step('a morph the pairing cannot give is recorded, and flagged with the reason', async () => {
    await second.click();
    await page.getByLabel('Identified as').fill('Pied');
    await expect(page.getByText('Not among what this pair can give')).toBeVisible();
    await page.getByRole('button', { name: 'certain' }).click();
    await page.getByRole('button', { name: 'Record identification' }).click();
    await expect(second.getByText('contradicts its parents')).toBeVisible();
    await second.click();
    await expect(page.getByText('The pairing cannot give this')).toContainText(
      'can only give Normal at this locus',
    );
    await first.click();
  });

  await test.step('sex, weight, shed and meals; a weight in words is refused', async () => {
    const open = (name: string) => page.getByRole('button', { name, exact: true }).click();
    const record = () => page.getByRole('button', { name: 'Record', exact: true }).click();
    await open('Sex');
    await record();
    await expect(page.getByText('Sex must be')).toBeVisible();
    await page.getByRole('button', { name: '♀ Female' }).click();
    await record();
    await expect(page.getByText('Sex recorded for')).toBeVisible();
    await open('Shed');
    await fillDay(page.getByRole('dialog').getByLabel('Day', { exact: true }), 13);
    await record();
    await expect(page.getByText(', whole')).toBeVisible();
    for (const days of [11, 8, 5]) {
      await open('Meal');
      await fillDay(page.getByRole('dialog').getByLabel('Day', { exact: true }), days);
      await record();
      await expect(page.getByRole('dialog')).toHaveCount(0);
    }
    await expect(page.getByText('3 of 3 meals')).toBeVisible();
    await open('Weight');
    await record();
    await expect(page.getByText('must be a number')).toBeVisible();
    await fillNumber(page, 'Weight, g', '312');
    await fillDay(page.getByRole('dialog').getByLabel('Day', { exact: true }), 30);
    await record();
    await expect(page.getByText('lies before the hatch date')).toBeVisible();
    await fillDay(page.getByRole('dialog').getByLabel('Day', { exact: true }), 1);
    await record();
    await expect(page.getByText('312 g')).toBeVisible();
    await table();
  });

  await test.step('two racks; the animal is put into a tub and the move up is advised', async () => {
    await page.goto(`${empty.origin}/racks`);
    for (const [name, kind] of [
      ['Hatch 1', 'Hatchling tub'],
      ['Young 1', 'Yearling tub'],
    ] as const) {
      await page.getByRole('button', { name: 'New rack' }).first().click();
      if (kind === 'Hatchling tub') {
        await page.getByRole('button', { name: 'Add rack' }).click();
        await expect(page.getByText('is empty').first()).toBeVisible();
      }
      await page.getByLabel('Name of the rack').fill(name);
      await pick(page, 'Kind of tub', kind);
      await page.getByRole('button', { name: 'Add rack' }).click();
      await expect(page.getByRole('heading', { name })).toBeVisible();
    }
    await page.goto(`${empty.origin}/bench`);
    await page.getByRole('link', { name: /2 of 4 identified/ }).click();
    await first.click();
    await page.getByRole('button', { name: 'Tub', exact: true }).click();
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect(page.getByText('is empty').first()).toBeVisible();
    await choose(page, 'To tub', 'Hatch 1 1-1');
    await page.getByLabel('Reason').fill('Set up');
    await fillDay(page.getByRole('dialog').getByLabel('Day', { exact: true }), 20);
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(page.getByText('Hatch 1 1-1')).toBeVisible();
    await page.goto(`${empty.origin}/today`);
    await expect(page.getByText('Move up')).toBeVisible();
    await page
      .getByRole('link', { name: /\d{4}-01/ })
      .first()
      .click();
    await expect(page.getByRole('heading', { name: 'Move it up' })).toBeVisible();
    await expect(page.getByText('312 g, 4% over the 300 g of the Hatchling tub')).toBeVisible();
    await page.getByRole('button', { name: 'Move…' }).click();
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect(page.getByText('Hatch 1 1-1 → Young 1 1-1, settling')).toBeVisible();
  });

  await test.step('the animal’s page shows its lifeline, kin and claims, each with what it rests on', async () => {
    await expect(page.locator('canvas')).toBeVisible();
    await expect(page.getByRole('link', { name: 'F-01 Juniper' })).toBeVisible();
    await expect(page.getByText('ruled out as sire')).toBeVisible();
    await page.getByRole('button', { name: 'Why: Clown' }).click();
    await expect(page.getByText('None of these records can be left out')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Edit name, parents, status and private note' }).click();
    await page.getByLabel('Private note, never published').fill('SECRET: promised to a friend');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText('changed').first()).toBeVisible();
  });

  await test.step('publish, look as a buyer, withdraw', async () => {
    await page.getByRole('button', { name: 'Price, words, pictures…' }).click();
    await page.getByRole('dialog').getByLabel('Words for buyers').fill('Calm.');
    await page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText(/The offer of \S+ is saved/)).toBeVisible();
    await page.getByRole('button', { name: 'Publish', exact: true }).click();
    const address = (await page.locator('.address a').textContent())!;
    const stranger = await page.context().browser()!.newContext();
    const visitor = await stranger.newPage();
    await visitor.goto(address);
    await expect(visitor.getByText('What it is and carries, and what that rests on')).toBeVisible();
    await expect(visitor.getByText('Pastel Clown').first()).toBeVisible();
    await expect(visitor.getByText('3 of 3 taken')).toBeVisible();
    expect(await visitor.content()).not.toContain('SECRET');
    const [download] = await Promise.all([
      visitor.waitForEvent('download'),
      visitor.getByRole('link', { name: 'Download the records as JSON' }).click(),
    ]);
    const json = await (await import('node:fs/promises')).readFile((await download.path())!, 'utf8');
    expect(JSON.parse(json)).toMatchObject({ format: 'karyotome-public-animal/1', sex: 'female' });
    expect(json).not.toContain('SECRET');
    await page.getByRole('button', { name: 'Void Identification' }).click();
    await page.getByRole('textbox', { name: 'Why' }).fill('typo');
    await page.getByRole('button', { name: 'Void', exact: true }).last().click();
    await expect(page.getByText('A published claim rests on this record')).toBeVisible();
    await page.getByRole('button', { name: 'Withdraw' }).click();
    await expect(page.getByText('Withdrawn')).toBeVisible();
    // A page may be a second old.
    await expect(async () => {
      await visitor.reload();
      await expect(visitor.getByRole('heading', { name: 'This page was withdrawn' })).toBeVisible({
        timeout: 500,
      });
    }).toPass();
    await stranger.close();
  });
});
