/*
 * npm run bench:browser: how the interface feels at 1,000 animals on a phone of the middle range, which is the browser's own
 * slow-down of the processor by four: when Today can be used on a second visit, how soon a touch is answered, how smoothly a
 * long list scrolls, and how much program is fetched before Today is there.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import config from '../e2e/playwright.config.ts';
import { build } from '../scripts/build.mjs';
import { stopPostgres } from '../scripts/postgres.mjs';
import { startServer } from '../server/test/template.ts';
import { ROOT } from '../scripts/root.mjs';
import { EMAIL, launch, PASSWORD } from './launch.ts';
import { fill } from './load-farm.ts';
import { summarise } from './report.ts';

const ANIMALS = 1000;
const EVENTS = 300_000;
const SLOW_DOWN = 4;
const PHONE = { width: 390, height: 844 };
const LIMITS = { interactiveMs: 2500, touchMs: 100, programKb: 200, framesPerSecond: 60 };
/** A frame that came a little late is one frame all the same. */
const LATE = 0.95;

/** What `watch-page.js` has seen of a page. */
type Seen = { readonly interactive: number; readonly touches: readonly number[] };
const seenOf = (page: Page): Promise<Seen> => page.evaluate(() => (window as unknown as { seen: Seen }).seen);

async function slowly(page: Page): Promise<Page> {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOW_DOWN });
  return page;
}

/** Signs in, and lets the browser keep the application. */
async function firstVisit(context: BrowserContext, origin: string): Promise<void> {
  const page = await context.newPage();
  await page.goto(`${origin}/sign-in`);
  await page.getByLabel('E-mail').fill(EMAIL);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.locator('.line').first().waitFor();
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // It has everything by then: what is fetched for later visits is not a part of the next one.
  await page.waitForLoadState('networkidle');
  await page.close();
}

/** Kilobytes of program, compressed, that a browser without any of it fetches before Today stands. */
async function programOf(context: BrowserContext, origin: string): Promise<number> {
  const state = await context.storageState();
  const other = await context.browser()!.newContext({ storageState: state, serviceWorkers: 'block' });
  const page = await other.newPage();
  const fetched: Promise<number>[] = [];
  page.on('response', (response) => {
    if (new URL(response.url()).pathname.endsWith('.js'))
      fetched.push(response.body().then((body) => gzipSync(body).length));
  });
  await page.goto(`${origin}/today`);
  await page.locator('.line').first().waitFor();
  const bytes = (await Promise.all(fetched)).reduce((sum, one) => sum + one, 0);
  await other.close();
  return bytes / 1000;
}

async function secondVisits(context: BrowserContext, origin: string): Promise<number> {
  const took: number[] = [];
  for (let visit = 0; visit < 5; visit++) {
    const page = await slowly(await context.newPage());
    await page.goto(`${origin}/today`, { waitUntil: 'commit' });
    await page.waitForFunction(() => (window as unknown as { seen: Seen }).seen.interactive > 0);
    took.push((await seenOf(page)).interactive);
    await page.close();
  }
  return summarise(took).median;
}

/** What a person does on a round of the day, touch by touch. @returns milliseconds of the slowest */
async function touches(context: BrowserContext, origin: string): Promise<number> {
  const page = await slowly(await context.newPage());
  await page.goto(`${origin}/today`);
  await page.locator('.line').first().waitFor();
  for (let line = 0; line < 3; line++) await page.locator('.line .acts .v-btn').nth(line).tap();
  await page.getByText('Why').first().tap();
  await page.getByRole('button', { name: 'By act' }).tap();
  await page.locator('.line').first().waitFor();
  await page.getByRole('button', { name: 'By place' }).tap();
  await page.locator('.line').first().waitFor();
  await page.getByRole('link', { name: 'Rounds' }).first().tap();
  await page
    .getByRole('link', { name: /Rack|rack/ })
    .first()
    .waitFor();
  await page.waitForTimeout(1_000);
  const { touches: found } = await seenOf(page);
  await page.close();
  return Math.max(...found);
}

/** Frames a second while a finger drags a list of all animals on. */
async function scrolling(context: BrowserContext, origin: string): Promise<number> {
  const page = await slowly(await context.newPage());
  await page.goto(`${origin}/animals`);
  await page.getByText('B-00001').first().waitFor();
  await page.waitForTimeout(1_000);
  const frames = await page.evaluate(async () => {
    const scrolled =
      [...document.querySelectorAll<HTMLElement>('*')].find(
        (one) =>
          one.scrollHeight > 3 * one.clientHeight && /auto|scroll/.test(getComputedStyle(one).overflowY),
      ) ?? document.documentElement;
    const times: number[] = [];
    const begun = performance.now();
    await new Promise<void>((resolve) => {
      const step = (now: number): void => {
        times.push(now);
        scrolled.scrollTop += 24;
        if (now - begun < 4_000) requestAnimationFrame(step);
        else resolve();
      };
      requestAnimationFrame(step);
    });
    return times.length / ((times.at(-1)! - times[0]!) / 1000);
  });
  await page.close();
  return frames;
}

await build();
const { serverUrl: server } = await startServer('bench');
const farm = await fill({ animals: ANIMALS, events: EVENTS }, server);
const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-browser-'));
const running = await launch(farm.url, dataDir);
const browser = await chromium.launch(config.use!.launchOptions);
const context = await browser.newContext({
  viewport: PHONE,
  hasTouch: true,
  isMobile: true,
  locale: 'en-GB',
});
await context.addInitScript({ path: join(ROOT, 'bench/watch-page.js') });
const lines = [
  '# In the browser',
  '',
  `Generated by \`npm run bench:browser\`; never edited by hand. ${ANIMALS} animals and ${EVENTS.toLocaleString('en')} events, a screen of ${PHONE.width} × ${PHONE.height}, the processor ${SLOW_DOWN} times slower than it is; browser, server and database on the same cores.`,
  '',
  '| what | found | limit |',
  '| --- | --- | --- |',
];
const say = (what: string, found: number, limit: number, unit: string, isKept: boolean): void => {
  if (!isKept) process.exitCode = 1;
  lines.push(`| ${what} | ${found.toFixed(0)} ${unit}${isKept ? '' : ' **missed**'} | ${limit} ${unit} |`);
};
try {
  await firstVisit(context, running.origin);
  const program = await programOf(context, running.origin);
  say('program before Today, gzip', program, LIMITS.programKb, 'kB', program <= LIMITS.programKb);
  const interactive = await secondVisits(context, running.origin);
  say(
    'Today can be used, second visit',
    interactive,
    LIMITS.interactiveMs,
    'ms',
    interactive <= LIMITS.interactiveMs,
  );
  const touch = await touches(context, running.origin);
  say('the slowest touch is answered', touch, LIMITS.touchMs, 'ms', touch <= LIMITS.touchMs);
  const frames = await scrolling(context, running.origin);
  const least = LATE * LIMITS.framesPerSecond;
  say('frames while the list scrolls', frames, LIMITS.framesPerSecond, 'a second', frames >= least);
} finally {
  await browser.close();
  await running.stop();
  await stopPostgres('bench');
  rmSync(dataDir, { recursive: true, force: true });
}
console.log(lines.join('\n'));
mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(join(ROOT, 'bench/results/browser.md'), `${lines.join('\n')}\n`);
