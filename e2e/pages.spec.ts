import type { Page } from '@playwright/test';
import { exampleIds, expect, signIn, test } from './test.ts';

/* Pages for everybody, as the browser itself measures them: by sizes, requests and shifts, not by how long they took. */

/** Of a page without its pictures, compressed. */
const MOST_BYTES = 30_000;
/** Of what moves while a page loads: "good", Web Vitals (web.dev/articles/cls). */
const MOST_SHIFT = 0.1;
/** Widths come in steps: the next one up is at most so much wider than what is shown. */
const WIDEST_STEP = 2;

interface Measured {
  readonly bytes: number;
  readonly scripts: readonly string[];
  readonly foreign: readonly string[];
  readonly shift: number;
  readonly cookies: string;
  readonly pictures: readonly { readonly type: string; readonly ratio: number }[];
}

const measure = (page: Page): Promise<Measured> =>
  page.evaluate(async () => {
    const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
    const resources = performance.getEntriesByType('resource') as PerformanceResourceTiming[];
    const shift = await new Promise<number>((resolve) => {
      new PerformanceObserver((list) =>
        resolve(
          list.getEntries().reduce((sum, entry) => sum + (entry as unknown as { value: number }).value, 0),
        ),
      ).observe({ type: 'layout-shift', buffered: true });
      setTimeout(() => resolve(0), 500);
    });
    const images = [...document.querySelectorAll('img')].filter((image) => image.complete);
    const pictures = await Promise.all(
      images.map(async (image) => ({
        type: (await fetch(image.currentSrc)).headers.get('content-type') ?? '',
        ratio: image.naturalWidth / (image.clientWidth * devicePixelRatio),
      })),
    );
    return {
      bytes: navigation!.encodedBodySize,
      scripts: resources.filter(({ initiatorType }) => initiatorType === 'script').map(({ name }) => name),
      foreign: resources.map(({ name }) => name).filter((name) => !name.startsWith(location.origin)),
      shift,
      cookies: document.cookie,
      pictures,
    };
  });

test('are small, without scripts and cookies, hold still, and load pictures that fit', async ({
  page,
  demo,
  browser,
}) => {
  await signIn(page, demo);
  const { slug } = await exampleIds(page, demo);
  for (const viewport of [
    { width: 1280, height: 800 },
    { width: 390, height: 844 },
  ]) {
    const context = await browser.newContext({ viewport, locale: 'en-GB' });
    const visitor = await context.newPage();
    for (const path of ['/c/thistlecote-burrow', `/p/${slug}`, `/p/${slug}/statements/1`]) {
      await visitor.goto(`${demo.origin}${path}`);
      await visitor.waitForLoadState('networkidle');
      const found = await measure(visitor);
      expect(found.bytes, path).toBeGreaterThan(500);
      expect(found, path).toMatchObject({ scripts: [], foreign: [], cookies: '' });
      expect(found.bytes, path).toBeLessThanOrEqual(MOST_BYTES);
      expect(found.shift, path).toBeLessThan(MOST_SHIFT);
      for (const { type, ratio } of found.pictures) {
        expect(type).toBe('image/webp');
        expect(ratio, path).toBeLessThan(WIDEST_STEP);
      }
      if (!path.includes('statements')) expect(found.pictures.length, path).toBeGreaterThan(0);
    }
    expect(await context.cookies()).toEqual([]);
    await context.close();
  }
});

test('files of the application are sent compressed, and kept for a year', async ({ page, demo }) => {
  const start = await (await page.request.get(`${demo.origin}/`)).text();
  const [script] = /\/assets\/[\w-]+\.js/.exec(start)!;
  for (const [accepted, sent] of [
    ['br, gzip', 'br'],
    ['gzip', 'gzip'],
  ] as const) {
    const answer = await page.request.get(`${demo.origin}${script}`, {
      headers: { 'Accept-Encoding': accepted },
    });
    expect(answer.headers()).toMatchObject({
      'content-encoding': sent,
      vary: 'Accept-Encoding',
      'cache-control': 'public, max-age=31536000, immutable',
    });
  }
  expect((await page.request.get(`${demo.origin}/assets/nothing.js`)).status()).toBe(404);
});
