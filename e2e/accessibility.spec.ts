import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { allPlaces } from './places.ts';
import { expect, signIn, test } from './test.ts';

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
