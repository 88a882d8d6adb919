import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { AnimalSummary, LetterView, SaleLine, ShowcaseLine } from '@karyotome/contract';
import { startServer, type RunningServer } from './server.ts';
import { choose, daysAgo, expect, getList, postJson, signIn, test } from './test.ts';

/*
 * From undecided to sold, over to another server, and back: a young proves what was claimed with a chance, its keeper's
 * statement comes back, and whoever holds the animal is told.
 */

const NUMBER = '2502-02';

async function idOf(page: Page, server: RunningServer, number: string): Promise<string> {
  const animals = await getList<AnimalSummary>(page, server, '/animals');
  return animals.find((animal) => animal.number === number)!.id;
}

test('a clutch is decided, eleven are offered, one is sold, goes to its buyer, and its young prove it', async ({
  page,
  browser,
}) => {
  const farm = await startServer('demo');
  const buyers = await startServer('empty');
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
  const phone = await context.newPage();
  try {
    await signIn(page, farm);
    await test.step('a clutch is decided upon at its desk', async () => {
      const { clutchId } = (await getList<AnimalSummary>(page, farm, '/animals')).find(
        ({ number }) => number === '2601-01',
      )!;
      await page.goto(`${farm.origin}/showcase/desk/${clutchId}`);
      const card = page.locator('.mate', { hasText: '2601-03' });
      await card.getByRole('button', { name: 'Hold back' }).click();
      await expect(page.getByText('2601-03: held back')).toBeVisible();
      await page.getByRole('button', { name: 'Undo' }).click();
      await expect(card.getByRole('button', { name: 'Undecided' })).toHaveClass(/v-btn--active/);
      await page.getByLabel('What you breed for').fill('Desert Ghost');
      await expect(page.getByText(/of eggs with/).first()).toBeVisible();
      await expect(page.getByText(/who waits?, first/).first()).toBeVisible();
    });

    await test.step('eleven are offered in one go, and priced down a column', async () => {
      await page.goto(`${farm.origin}/showcase/sales`);
      await page.getByText(/^Held back \d+$/).click();
      const boxes = page.locator('tbody input[type=checkbox]');
      for (let i = 0; i < 11; i++) await boxes.nth(i).check();
      await page.getByRole('button', { name: 'Prices…' }).click();
      const prices = page.getByRole('dialog').getByLabel(/^Price of/);
      await expect(prices).toHaveCount(11);
      await prices.first().fill('275');
      await page.getByRole('button', { name: 'Same for all without one' }).click();
      await page.getByRole('button', { name: 'Save prices' }).click();
      await expect(page.getByText('11 prices saved')).toBeVisible();
      await page.getByRole('button', { name: 'Offer for sale' }).click();
      await expect(page.getByText('11 animals: offered for sale')).toBeVisible();
      const lines = await getList<SaleLine>(page, farm, '/sales');
      expect(lines.filter(({ status, offer }) => status === 'for-sale' && offer.price === 275)).toHaveLength(
        11,
      );
    });

    await test.step('the first who waits is offered an animal, accepts, and it is reserved', async () => {
      await page.goto(`${farm.origin}/showcase/waiting`);
      await page.getByRole('button', { name: 'Offer', exact: true }).first().click();
      await page.getByRole('button', { name: 'Accepted' }).click();
      await expect(page.getByText('Reserved', { exact: true })).toBeVisible();
      const lines = await getList<SaleLine>(page, farm, '/sales');
      expect(lines.some(({ event }) => event?.kind === 'reserved' && event.person?.name === 'Bo Larch')).toBe(
        true,
      );
    });

    const packed = await test.step('one is sold, with its receipt, and its package is fetched', async () => {
      await page.goto(`${farm.origin}/animals/${await idOf(page, farm, NUMBER)}`);
      await page.getByRole('button', { name: 'Sell…' }).click();
      await choose(page, 'To whom', 'Ada Fernwood');
      await page.getByRole('dialog').getByLabel('Price', { exact: true }).fill('240');
      await page.getByRole('button', { name: 'Record the sale' }).click();
      await expect(page.getByText(`${NUMBER} sold`)).toBeVisible();
      await page.getByRole('button', { name: 'History' }).click();
      const [receipt] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: 'Receipt' }).click(),
      ]);
      expect(receipt.suggestedFilename()).toBe(`receipt-${NUMBER}.pdf`);
      await page.getByRole('button', { name: 'Hand over…' }).click();
      const [file] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: 'Package as a file' }).click(),
      ]);
      return file.path();
    });

    await test.step('its buyer takes it in, on a phone', async () => {
      await signIn(phone, buyers, '/animals/take-in');
      await phone.locator('input[type=file]').setInputFiles(packed);
      await expect(phone.getByText('Everything holds')).toBeVisible();
      await expect(phone.getByText('It is new here.')).toBeVisible();
      await phone.getByRole('button', { name: 'Take in', exact: true }).click();
      await expect(phone.getByRole('heading', { level: 1 })).toContainText(NUMBER);
      await expect(phone.getByText('50% het Ultramel').first()).toBeVisible();
    });

    await test.step('a year goes by at both', async () => {
      for (const [place, server] of [
        [page, farm],
        [phone, buyers],
      ] as const) {
        await place.goto('about:blank');
        await server.kill();
        await server.revive({ CLOCK_AHEAD_DAYS: '365' });
        await place.goto(`${server.origin}/showcase`);
        await expect(place.getByText('Trying out')).toBeVisible();
      }
    });

    const statement = await test.step('a young proves it there, and is published', async () => {
      const sireId = await idOf(phone, buyers, NUMBER);
      await postJson(phone, buyers, '/animals', {
        number: 'B-1',
        sex: 'female',
        genes: 'Ultramel',
        hatchedOn: daysAgo(900),
      });
      const damId = await idOf(phone, buyers, 'B-1');
      await postJson(phone, buyers, '/animals', {
        number: 'K-1',
        sex: 'female',
        damId,
        sireId,
        hatchedOn: daysAgo(-305),
      });
      const young = await idOf(phone, buyers, 'K-1');
      const body = { genes: 'Ultramel', sure: 'certain', by: 'Bo' };
      await postJson(phone, buyers, `/animals/${young}/records`, {
        kind: 'identification',
        on: daysAgo(-365),
        body,
      });
      await phone.goto(`${buyers.origin}/animals/${young}`);
      await phone.getByRole('button', { name: 'Publish' }).click();
      await expect(phone.getByText('K-1 is published')).toBeVisible();
      const [line] = await getList<ShowcaseLine>(phone, buyers, '/showcase');
      await phone.goto(`${buyers.origin}/p/${line!.slug}`);
      const [file] = await Promise.all([
        phone.waitForEvent('download'),
        phone.getByRole('link', { name: 'Download', exact: true }).click(),
      ]);
      return readFileSync(await file.path());
    });

    await test.step('the statement flows back: the claim changes, and the buyer is written to', async () => {
      await page.goto(`${farm.origin}/animals/take-in`);
      const file = { name: 'k-1.json', mimeType: 'application/json', buffer: statement };
      await page.locator('input[type=file]').setInputFiles(file);
      await expect(page.getByText(new RegExp(`Known here: .*${NUMBER}`))).toBeVisible();
      await page.getByRole('button', { name: 'Take in', exact: true }).click();
      await expect(page.getByText('Its evidence counts from now on')).toBeVisible();
      await page.goto(`${farm.origin}/showcase`);
      const card = page.locator('.v-card', { hasText: NUMBER });
      await expect(card.getByText('100% het Ultramel').first()).toBeVisible();
      await card.getByRole('button', { name: 'Why it changed' }).click();
      await expect(card.getByText(/50% het Ultramel becomes 100% het Ultramel/)).toBeVisible();
      await card.getByRole('button', { name: 'Sign statement 2' }).click();
      await expect(page.getByText('Statement signed')).toBeVisible();
      await page.goto(`${farm.origin}/showcase/letters`);
      const letter = page.locator('.box', { hasText: 'what is known of its genes has changed' });
      await expect(letter.getByText('Dear Ada Fernwood')).toBeVisible();
      await letter.getByRole('button', { name: 'Send', exact: true }).click();
      await expect(letter.getByRole('button', { name: 'As it arrived (simulated)' })).toBeVisible();
      await letter.getByRole('button', { name: 'As it arrived (simulated)' }).click();
      await expect(page.getByRole('dialog').getByText('ada@fernwood.example')).toBeVisible();
      const letters = await getList<LetterView>(page, farm, '/letters');
      expect(letters.find(({ kind }) => kind === 'claims-changed')).toMatchObject({ state: 'sent' });
    });

    await test.step('a visitor without JavaScript reads the history, and asks', async () => {
      const [line] = (await getList<ShowcaseLine>(page, farm, '/showcase')).filter(
        ({ animal }) => animal.number === NUMBER,
      );
      const plain = await browser.newContext({ javaScriptEnabled: false, locale: 'en-GB' });
      const visitor = await plain.newPage();
      await visitor.goto(`${farm.origin}/p/${line!.slug}`);
      await expect(visitor.getByText(/50% het Ultramel became 100% het Ultramel/)).toBeVisible();
      await visitor.getByRole('link', { name: `Ask Thistlecote Burrow about ${NUMBER}` }).click();
      await visitor.getByLabel('Your name').fill('Cy Willow');
      await visitor.getByLabel('Your e-mail').fill('cy@willow.example');
      await visitor.getByLabel('What would you like to know?').fill('Does it eat rats?');
      await visitor.getByRole('button', { name: 'Send' }).click();
      await expect(visitor.getByText(/^Sent\./)).toBeVisible();
      await plain.close();
      await page.goto(`${farm.origin}/showcase/inbox`);
      await expect(page.getByText('Does it eat rats?')).toBeVisible();
    });
  } finally {
    // A page that listens to a server that ends would complain.
    await page.goto('about:blank');
    await context.close();
    await farm.stop();
    await buyers.stop();
  }
});
