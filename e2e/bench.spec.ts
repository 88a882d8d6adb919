import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { expect, pressOn, signIn, tabTo, test } from './test.ts';

const picture = (name: string, color: string) => async () => ({
  name,
  mimeType: 'image/jpeg',
  buffer: await sharp({ create: { width: 1200, height: 900, channels: 3, background: color } })
    .jpeg()
    .toBuffer(),
});

test('by keys alone: a clutch from an unsorted box to labelled animals in their tubs', async ({
  page,
  demo,
}) => {
  await signIn(page, demo, '/today');
  const tile = (n: number) => page.locator('[data-number]').nth(n);
  const button = (name: string | RegExp) =>
    page.getByRole('button', { name, exact: typeof name === 'string' });
  const inDialog = (name: string | RegExp) => page.getByRole('dialog').getByRole('button', { name });

  await test.step('the clutch that waits is found, and numbers are printed first', async () => {
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.keyboard.press('3');
    await expect(page.getByRole('heading', { name: 'Bench', level: 1 })).toBeVisible();
    await pressOn(page, page.getByRole('link', { name: /0 of 8 identified/ }));
    await expect(page.locator('[data-number]')).toHaveCount(8);
    await expect(tile(0)).toContainText('64 kinds possible');
    await pressOn(page, button('Labels'));
    await expect(page.getByRole('img', { name: /^Label: 26\d\d-01/ })).toBeVisible();
    const popup = page.waitForEvent('download');
    await pressOn(page, inDialog('Make the PDF'));
    expect((await popup).suggestedFilename()).toBe('labels.pdf');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  await test.step('like is put with like', async () => {
    const third = (await tile(2).getAttribute('data-number'))!;
    await tabTo(page, tile(2));
    await page.keyboard.press(']');
    await expect(page.getByRole('region', { name: 'Group 1' }).locator('[data-number]')).toHaveCount(1);
    const last = page.locator('[data-number]').nth(6);
    await tabTo(page, last);
    await page.keyboard.press(']');
    const group = page.getByRole('region', { name: 'Group 1' });
    await expect(group.locator('[data-number]')).toHaveCount(2);
    await tabTo(page, page.getByLabel('Name of the group Group 1'));
    await page.keyboard.press('Control+a');
    await page.keyboard.type('The brightest');
    await page.keyboard.press('Enter');
    await page.reload();
    const renamed = page.getByRole('region', { name: 'The brightest' });
    await expect(renamed.locator(`[data-number="${third}"]`)).toBeVisible();
    await tabTo(page, renamed.locator(`[data-number="${third}"]`));
    await page.keyboard.press('[');
    await expect(renamed.locator('[data-number]')).toHaveCount(1);
  });

  const odds = (gene: string) =>
    page.getByRole('list', { name: 'Gene by gene' }).getByRole('listitem').filter({ hasText: gene });

  await test.step('markers move the odds at once, and are kept', async () => {
    await tabTo(page, tile(0));
    await page.keyboard.press('Enter');
    await expect(odds('Pastel')).toContainText('50%');
    await tabTo(page, page.getByRole('radio', { name: /^lips/ }));
    await page.keyboard.press('Space');
    await tabTo(page, button('Seen: lips: pale'));
    await page.keyboard.press('Space');
    await expect(odds('Pastel')).toContainText('94.7%');
    await expect(page.getByText('18 times likelier')).toBeVisible();
    // Seen once more in another zone; both are there after a reload.
    await tabTo(page, page.getByRole('radio', { name: /^head top/ }));
    await page.keyboard.press('Space');
    const saved = page.waitForResponse(
      (response) => response.url().includes('/observations') && response.ok(),
    );
    await tabTo(page, button('Not seen: head top: pale and bright, a straight arrow behind'));
    await page.keyboard.press('Space');
    await saved;
    await expect(odds('Fire')).toContainText('9.52%');
    await page.reload();
    await expect(odds('Fire')).toContainText('9.52%');
    await expect(odds('Pastel')).toContainText('94.7%');
    await expect(page.getByRole('region', { name: 'Look here next' })).toContainText(/if seen/);
  });

  await test.step('a marker of one’s own, with its own chances', async () => {
    await tabTo(page, page.getByRole('radio', { name: /^tail/ }));
    await page.keyboard.press('Space');
    await pressOn(page, button('Add a marker here'));
    await tabTo(page, page.getByLabel('What is seen'));
    await page.keyboard.type('ringed in pairs');
    await pressOn(page, inDialog('Save'));
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await tabTo(page, button('Seen: tail: ringed in pairs'));
    await page.keyboard.press('Space');
    await expect(button('Seen: tail: ringed in pairs')).toHaveAttribute('aria-pressed', 'true');
  });

  await test.step('two are compared, and with an animal of the pair’s earlier clutch', async () => {
    await pressOn(page, button('Compare'));
    await expect(page.getByRole('dialog').getByRole('img', { name: /^Picture of/ })).toHaveCount(2);
    await tabTo(page, page.getByLabel('Right'));
    await page.keyboard.press('Control+a');
    await page.keyboard.type('this pair');
    await page.keyboard.press('Control+a');
    await page.keyboard.type('markers');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(
      page.getByRole('dialog').getByText('its markers, as the trade has them').last(),
    ).toBeVisible();
    await pressOn(page, inDialog('Close'));
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  await test.step('each is sexed and identified, the next one comes to hand', async () => {
    let number = '';
    for (let n = 0; n < 8; n++) {
      const current = page.locator('.strip [aria-current="true"]');
      await expect(current).not.toHaveAttribute('data-number', number);
      number = (await current.getAttribute('data-number'))!;
      await pressOn(page, button('Sex'));
      await tabTo(page, inDialog(n % 2 === 0 ? '♀ Female' : '♂ Male'));
      await page.keyboard.press('Space');
      await expect(page.getByRole('dialog')).toContainText('Inexperienced hands hurt animals');
      await pressOn(page, inDialog('Record'));
      await expect(page.getByRole('dialog')).toHaveCount(0);
      await expect(page.getByText(`Sex recorded for ${number}`)).toBeVisible();
      // The likeliest of the list, with what it leaves open in brackets.
      await pressOn(page, page.getByRole('button', { name: /now, .* before it was looked at/ }).first());
      await expect(page.getByLabel('Identified as')).not.toHaveValue('');
      await pressOn(page, button('Record identification'));
      await expect(page.getByText(`${number} identified`)).toBeVisible();
    }
    await expect(
      page.getByText('What this clutch says of its parents').or(page.getByText('Against the odds')).first(),
    ).toBeVisible();
    await expect(page.getByText('Against the odds')).toBeVisible();
  });

  await test.step('pictures are put to their animals by their names, wrong ones are refused with the reason', async () => {
    const numbers = await page
      .locator('[data-number]')
      .evaluateAll((tiles) => tiles.map((one) => one.getAttribute('data-number')!).toSorted());
    await pressOn(page, button('Pictures'));
    const chooser = page.waitForEvent('filechooser');
    await pressOn(page, inDialog('Choose files'));
    await (
      await chooser
    ).setFiles([
      await picture(`${numbers[0]}.jpg`, '#a86')(),
      await picture(`${numbers[1]} side.jpg`, '#8a6')(),
      await picture('card.jpg', '#fff')(),
      { name: 'broken.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') },
    ]);
    await expect(page.getByRole('dialog')).toContainText('1 belongs to nobody yet');
    await pressOn(page, inDialog('Keep 3'));
    await expect(page.getByText('3 pictures kept')).toBeVisible();
    await expect(page.getByRole('dialog').getByRole('img', { name: 'Kept picture' })).toBeVisible();
    await pressOn(page, inDialog('Close'));
  });

  await test.step('the clutch moves into its tubs in one act, and can move out again', async () => {
    await pressOn(page, button('Set up'));
    await expect(page.getByRole('dialog').getByLabel('On what')).toHaveValue('Plain paper');
    await pressOn(page, inDialog('Move them in'));
    await expect(page.getByText(/is in its tubs: 8 set up/)).toBeVisible();
  });

  await test.step('the old labels are out of date, and new ones say everything', async () => {
    // Asked for with the set-up: they come up by themselves.
    await expect(page.getByRole('dialog').getByText(/out of date, printed today/)).toHaveCount(8);
    await tabTo(page, inDialog('In full'));
    await page.keyboard.press('Space');
    await expect(page.getByRole('img', { name: /^Label: 26\d\d-01\s+(fe)?male/ })).toBeVisible();
    const download = page.waitForEvent('download');
    await pressOn(page, inDialog('Make the PDF'));
    expect(
      readFileSync(await (await download).path())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    await expect(page.locator('.tile').filter({ hasText: 'all done' })).toHaveCount(8);
  });
});

test.describe('by touch on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a clutch from an unsorted box to labelled animals in their tubs', async ({ page, demo }) => {
    await signIn(page, demo, '/bench');
    const tile = (n: number) => page.locator('[data-number]').nth(n);
    const tap = (name: string | RegExp) =>
      page
        .getByRole('button', { name, exact: typeof name === 'string' })
        .first()
        .tap();
    const inDialog = (name: string | RegExp) => page.getByRole('dialog').getByRole('button', { name });

    await page.getByRole('link', { name: /0 of 7 identified/ }).tap();
    await expect(page.locator('[data-number]')).toHaveCount(7);
    await expect(page.getByText('twin, two from one egg').first()).toBeVisible();

    await test.step('a marker by touch on the drawing', async () => {
      await tile(0).tap();
      await page.locator('.drawing .neck').tap();
      await expect(page.getByRole('heading', { name: 'Neck' })).toBeVisible();
      await page.getByRole('radio', { name: /^back/ }).tap();
      await tap('Seen: back: pattern in broken pieces');
      const genes = page.getByRole('list', { name: 'Gene by gene' });
      await expect(genes.getByRole('listitem').filter({ hasText: 'Puzzle' })).toContainText('94.7%');
    });

    await test.step('each is identified from the list, against the odds with a reason', async () => {
      let number = '';
      for (let n = 0; n < 7; n++) {
        const current = page.locator('.strip [aria-current="true"]');
        await expect(current).not.toHaveAttribute('data-number', number);
        number = (await current.getAttribute('data-number'))!;
        await tap('Sex');
        await inDialog('♂ Male').tap();
        await inDialog('Record').tap();
        await expect(page.getByRole('dialog')).toHaveCount(0);
        await page
          .getByRole('button', { name: n === 0 ? /^Mocha Puzzle:/ : /^Puzzle:/ })
          .first()
          .tap();
        await tap('probable');
        await tap('Record identification');
        await expect(page.getByText(`${number} identified`)).toBeVisible();
      }
      await expect(page.getByText('Against the odds')).toBeVisible();
    });

    await test.step('a second opinion, and one from outside', async () => {
      await tile(0).tap();
      await tap('Note a second opinion');
      await page.getByLabel('Whose').fill('Wren Halloway');
      await page.getByLabel('What it is to them').fill('Puzzle');
      await inDialog('Keep it').tap();
      await expect(page.getByText('Second opinion kept')).toBeVisible();
      await expect(page.getByRole('region', { name: 'Second opinions' })).toContainText('Wren Halloway');
      await tap('Picture');
      await page.getByLabel('Camera', { exact: true }).setInputFiles(await picture('IMG_0001.jpg', '#c96')());
      await inDialog(/^Keep/).tap();
      await expect(page.getByText('1 picture kept')).toBeVisible();
      await inDialog('Close').tap();
      await tap('The whole clutch');
      await tap('Ask somebody');
      await page.getByRole('dialog').getByRole('checkbox').first().check();
      await inDialog('Make an address').tap();
      const address = await page.getByRole('dialog').locator('code').innerText();
      const stranger = await (await page.context().browser()!.newContext()).newPage();
      await stranger.goto(address);
      await expect(stranger.getByRole('img', { name: /^Picture of/ })).toBeVisible();
      await stranger.getByLabel(/is, to you/).fill('Mocha Puzzl');
      await stranger.getByLabel('Your name').fill('Teal Odgers');
      await stranger.getByRole('button', { name: 'Send my answer' }).click();
      await expect(stranger.getByText('is not a known gene').first()).toBeVisible();
      await stranger.getByLabel(/is, to you/).fill('Mocha Puzzle');
      await stranger.getByRole('button', { name: 'Send my answer' }).click();
      await expect(stranger.getByRole('heading', { name: 'Thank you' })).toBeVisible();
      await stranger.goto(address);
      await expect(stranger.getByRole('heading', { name: 'This address is closed' })).toBeVisible();
      await stranger.context().close();
      await inDialog('Discard').tap();
      await expect(page.getByRole('dialog')).toHaveCount(0);
    });

    await test.step('into their tubs, and labelled', async () => {
      await tap('Labels');
      await inDialog('In full').tap();
      const download = page.waitForEvent('download');
      await inDialog('Make the PDF').tap();
      await download;
      await expect(page.locator('.tile').filter({ hasText: 'identify' })).toHaveCount(0);
      const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect(overflow).toBeLessThanOrEqual(0);
    });
  });
});
