import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { exampleIds, expect, getJson, getList, signIn, test } from './test.ts';

/* The longest test stands alone, and first: others run beside it. */

/** Chooses a theme as another window of this device would. */
async function setTheme(page: Page, theme: 'day' | 'night'): Promise<void> {
  await page.evaluate((newValue) => {
    localStorage.setItem('karyotome.theme', newValue);
    window.dispatchEvent(
      new StorageEvent('storage', { key: 'karyotome.theme', newValue, storageArea: localStorage }),
    );
  }, theme);
  await expect(page.locator(`.v-application.v-theme--${theme}`)).toBeVisible();
  // Colours change over a moment.
  await page.evaluate(async () => {
    const transitions = document.getAnimations().filter((one) => one instanceof CSSTransition);
    await Promise.allSettled(transitions.map(({ finished }) => finished));
  });
}

test('every place can be read and reached, by day and by night', async ({ page, demo }) => {
  // Some thirty places, each looked through whole.
  test.setTimeout(600_000);
  await signIn(page, demo);
  const { animalId, slug, clutchId } = await exampleIds(page, demo);
  const pairings = await getList<{
    clutches: { id: string; hatchedOn: string | null; identified: number; hatched: number }[];
  }>(page, demo, '/pairings');
  const waiting = pairings
    .flatMap(({ clutches }) => clutches)
    .find(({ hatchedOn, hatched }) => hatchedOn !== null && hatched === 8)!;
  const bench = await getJson<{ hatchlings: { id: string }[] }>(page, demo, `/clutches/${waiting.id}/bench`);
  const one = bench.hatchlings[0]!.id;
  const places = [
    '/today',
    '/today/feeding',
    '/today/sheds',
    '/today/plans',
    '/rounds',
    '/racks/forecast',
    '/racks/moves',
    '/season',
    '/season/planner',
    '/season/incubators',
    '/season/past',
    `/season/clutches/${clutchId}`,
    '/bench',
    '/bench/calls',
    `/bench/${waiting.id}`,
    `/bench/${waiting.id}?one=${one}`,
    '/racks',
    '/racks/ladders',
    '/animals',
    '/animals/import',
    `/animals/${animalId}`,
    '/animals/contradictions',
    `/animals/${animalId}/kin`,
    '/showcase',
    '/showcase/sales',
    '/showcase/inbox',
    '/showcase/people',
    `/showcase/desk/${waiting.id}`,
    '/c/thistlecote-burrow',
    '/c/thistlecote-burrow/inquiry',
    '/verify',
    '/genes',
    '/settings',
    `/p/${slug}`,
    '/nowhere',
  ];
  const found: string[] = [];
  const look = async (place: string, axe: AxeBuilder): Promise<void> => {
    const { violations } = await axe.analyze();
    for (const { id, nodes } of violations) {
      const targets = nodes.map((node) => node.target.join(' ')).slice(0, 3);
      found.push(`${place} ${id}: ${targets.join(' | ')}`);
    }
  };
  for (const place of places) {
    await page.goto(`${demo.origin}${place}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    await look(place, new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']));
    // The themes differ in their colours alone.
    // Public pages follow the system.
    const isPublic = place.startsWith('/p/') || place.startsWith('/c/');
    if (isPublic) await page.emulateMedia({ colorScheme: 'dark' });
    else await setTheme(page, 'night');
    await look(`${place} by night`, new AxeBuilder({ page }).withRules(['color-contrast']));
    if (isPublic) await page.emulateMedia({ colorScheme: 'light' });
    else await setTheme(page, 'day');
  }
  expect(found).toEqual([]);
});
