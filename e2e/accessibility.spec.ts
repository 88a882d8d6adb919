import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import type { RunningServer } from './server.ts';
import { exampleIds, expect, getJson, getList, signIn, test } from './test.ts';

/* The longest of all: in parts, which run beside one another and the others. */

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

/** Every place of the application that a demo farm shows something at, and the pages for everybody. */
async function allPlaces(page: Page, demo: RunningServer): Promise<string[]> {
  const { animalId, slug, clutchId } = await exampleIds(page, demo);
  const pairings = await getList<{
    clutches: { id: string; hatchedOn: string | null; identified: number; hatched: number }[];
  }>(page, demo, '/pairings');
  const waiting = pairings
    .flatMap(({ clutches }) => clutches)
    .find(({ hatchedOn, hatched }) => hatchedOn !== null && hatched === 8)!;
  const bench = await getJson<{ hatchlings: { id: string }[] }>(page, demo, `/clutches/${waiting.id}/bench`);
  const one = bench.hatchlings[0]!.id;
  return [
    '/today',
    '/today/feeding',
    '/today/sheds',
    '/today/plans',
    '/rounds',
    '/racks/climate',
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
    '/animals/take-in',
    `/animals/${animalId}`,
    '/animals/contradictions',
    `/animals/${animalId}/kin`,
    '/showcase',
    '/showcase/sales',
    '/showcase/waiting',
    '/showcase/letters',
    '/showcase/inbox',
    '/showcase/people',
    `/showcase/desk/${waiting.id}`,
    '/c/thistlecote-burrow',
    '/c/thistlecote-burrow/inquiry',
    '/verify',
    '/genes',
    '/settings',
    '/settings/people',
    '/settings/bin',
    '/settings/account',
    '/settings/history',
    '/start',
    '/join',
    '/reset',
    `/p/${slug}`,
    `/p/${slug}/statements/1`,
    '/nowhere',
  ];
}

const PARTS = 4;
test.describe.configure({ mode: 'parallel' });
for (let part = 0; part < PARTS; part++)
  test(`every place can be read and reached, by day and by night (${part + 1} of ${PARTS})`, async ({
    page,
    demo,
  }) => {
    await signIn(page, demo);
    const places = (await allPlaces(page, demo)).filter((_, at) => at % PARTS === part);
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
