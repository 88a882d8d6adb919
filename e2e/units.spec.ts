import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { daysAgo, exampleIds, expect, getJson, pick, signIn, test } from './test.ts';
import { startServer } from './server.ts';

/* Whoever chose ounces and Fahrenheit reads no gram and no degree Celsius, on any page or paper. */

const FORBIDDEN = /\d\s?g\b|\bgrams?\b|°C|Celsius/;

/** Lines of a page that tell a mass or a temperature in a unit that was not chosen. */
async function strangeUnits(page: Page): Promise<string[]> {
  const text = await page.locator('body').innerText();
  return text.split('\n').filter((line) => FORBIDDEN.test(line));
}

test.use({ locale: 'en-US' });

/** Scrolls until nothing is left that is read only once it comes into sight. */
async function showAll(page: Page): Promise<void> {
  await expect
    .poll(async () => {
      const waiting = page.locator('.v-skeleton-loader');
      const count = await waiting.count();
      // It may have been read meanwhile.
      if (count > 0)
        await waiting
          .first()
          .scrollIntoViewIfNeeded({ timeout: 1_000 })
          .catch(() => undefined);
      return count;
    })
    .toBe(0);
}

test('with ounces and Fahrenheit chosen, no page tells grams or Celsius', async ({ page }) => {
  const farm = await startServer('demo');
  try {
    await signIn(page, farm, '/settings');
    await pick(page, 'Weights', 'Ounces');
    await pick(page, 'Temperatures', 'Fahrenheit');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('status').getByText(/saved/i)).toBeVisible();
    const { animalId, slug, clutchId } = await exampleIds(page, farm);
    const places = [
      '/today',
      '/today/feeding',
      '/today/sheds',
      '/today/plans',
      '/rounds',
      '/season',
      '/season/planner',
      '/season/incubators',
      '/season/past',
      `/season/clutches/${clutchId}`,
      '/bench',
      '/racks',
      '/racks/climate',
      '/racks/forecast',
      '/racks/moves',
      '/racks/ladders',
      '/animals',
      '/animals/contradictions',
      `/animals/${animalId}`,
      `/animals/${animalId}/kin`,
      '/showcase',
      '/showcase/sales',
      `/showcase/desk/${clutchId}`,
      '/c/thistlecote-burrow',
      `/p/${slug}`,
    ];
    const found: string[] = [];
    for (const place of places) {
      await page.goto(`${farm.origin}${place}`);
      await expect(page.getByRole('heading').first()).toBeVisible();
      await showAll(page);
      found.push(...(await strangeUnits(page)).map((line) => `${place}: ${line}`));
    }
    expect(found).toEqual([]);

    await test.step('what is typed is typed in ounces and as an American writes days, and kept in grams', async () => {
      await page.goto(`${farm.origin}/animals/${animalId}`);
      await page.getByRole('button', { name: 'Weight', exact: true }).click();
      await page.getByLabel('Weight, oz', { exact: true }).fill('70.55');
      const day = page.getByRole('dialog').getByLabel('Day', { exact: true });
      const [year, month, dayOfMonth] = daysAgo(1).split('-');
      await day.fill(`${month}/${dayOfMonth}/${year}`);
      await page.getByRole('button', { name: 'Record', exact: true }).click();
      await expect(page.getByText('70.55 oz').first()).toBeVisible();
      // 1 oz is 28.349523125 g (avoirdupois, exact).
      const { records } = await getJson<{ records: { kind: string; on: string; body: { massG: number } }[] }>(
        page,
        farm,
        `/animals/${animalId}`,
      );
      const typed = records.find(
        ({ kind, body }) => kind === 'weight' && Math.abs(body.massG - 2000.06) < 0.01,
      );
      expect(typed?.on).toBe(daysAgo(1));
    });

    await test.step('the clutch card tells Fahrenheit and ounces', async () => {
      const { csrfToken } = await getJson<{ csrfToken: string }>(page, farm, '/session');
      const made = await page.request.post(`${farm.origin}/api/v1/clutches/${clutchId}/cards`, {
        headers: { 'X-CSRF-Token': csrfToken, 'Accept-Language': 'en-US' },
      });
      const { id } = (await made.json()) as { id: string };
      const pdf = await (await page.request.get(`${farm.origin}/api/v1/clutch-cards/${id}`)).body();
      const text = textOf(pdf);
      expect(text).toContain('°F');
      expect(text).toMatch(/\d oz/);
      expect(text).not.toMatch(FORBIDDEN);
    });
  } finally {
    await farm.stop();
  }
});

/** The text of a PDF, as Debian's pdftotext reads it. */
function textOf(pdf: Buffer): string {
  const folder = mkdtempSync(join(tmpdir(), 'karyotome-'));
  try {
    const file = join(folder, 'card.pdf');
    writeFileSync(file, pdf);
    return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  } finally {
    rmSync(folder, { recursive: true });
  }
}
