import type { Page } from '@playwright/test';
import { allPlaces } from './places.ts';
import { expect, signIn, test } from './test.ts';

/* The narrowest phones: nothing is scrolled sideways, and nothing is too small to read. */

test.use({ viewport: { width: 360, height: 740 }, hasTouch: true });

/** How far the page is wider than the window, and by which elements. */
const tooWide = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { clientWidth, scrollWidth } = document.documentElement;
    if (scrollWidth <= clientWidth) return [];
    const wide = [...document.querySelectorAll('body *')].filter(
      (element) => element.getBoundingClientRect().right > clientWidth + 1,
    );
    return [
      `${scrollWidth - clientWidth} px too wide`,
      ...wide.slice(-3).map(({ tagName, className }) => `${tagName} ${String(className).slice(0, 60)}`),
    ];
  });

/** Text in sight that is smaller than 12 px. A drawing scales as a whole. */
const tooSmall = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found = new Set<string>();
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const element = node.parentElement;
      const text = node.textContent?.trim() ?? '';
      if (!element || text === '' || element.closest('svg') || element.getClientRects().length === 0)
        continue;
      const size = Number.parseFloat(getComputedStyle(element).fontSize);
      if (size < 12) found.add(`${size} px: ${text.slice(0, 30)} (${element.className || element.tagName})`);
    }
    return [...found].slice(0, 5);
  });

const PARTS = 2;
test.describe.configure({ mode: 'parallel' });
for (let part = 0; part < PARTS; part++)
  test(`no place is scrolled sideways at 360 px, and all text can be read (${part + 1} of ${PARTS})`, async ({
    page,
    demo,
  }) => {
    await signIn(page, demo);
    const found: string[] = [];
    for (const place of (await allPlaces(page, demo)).filter((_, at) => at % PARTS === part)) {
      await page.goto(`${demo.origin}${place}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await page.waitForLoadState('networkidle');
      for (const fault of [...(await tooWide(page)), ...(await tooSmall(page))])
        found.push(`${place}: ${fault}`);
    }
    expect(found).toEqual([]);
  });
