/* How fast a round is: 200 entries sent at once, a tub advanced on the device, a season of places forecast. */
import { randomUUID } from 'node:crypto';
import { chromium } from '@playwright/test';
import { simulateRoom } from '@karyotome/core';
import type { RoomView, RoundResult } from '@karyotome/contract';
import { machineToday } from '../server/src/db/work.ts';
import { ms, summarise, time } from './report.ts';

type Say = (line: string) => void;
type Within = (what: string, took: number, limit: number) => void;
const ENTRIES = 200;
const TUBS = 30;

/** @param limits - milliseconds: 200 entries in 2,000, a tub in 50 */
export async function benchRound(
  origin: string,
  password: string,
  { cookie, csrfToken }: { cookie: string; csrfToken: string },
  ids: readonly string[],
  say: Say,
  within: Within,
): Promise<void> {
  const send = async (): Promise<void> => {
    const entries = ids.slice(0, ENTRIES).map((animalId) => ({
      key: randomUUID(),
      animalId,
      record: { kind: 'care', on: machineToday(), body: { act: 'cleaned' } },
    }));
    const response = await fetch(`${origin}/api/v1/rounds/entries`, {
      method: 'POST',
      headers: { cookie, 'Content-Type': 'application/json', 'X-CSRF-Token': csrfToken },
      body: JSON.stringify({ entries }),
    });
    const { results } = (await response.json()) as { results: RoundResult[] };
    if (results.some(({ status }) => status !== 'kept')) throw new Error('An entry was not kept.');
  };
  const sent = await time(5, send);
  say(`| a round of ${ENTRIES} entries is taken in | ${ms(sent.median)} | ${ms(sent.p95)} |`);
  within('a round taken in', sent.p95, 2000);
  const steps = summarise(await stepTimes(origin, password));
  say(`| a meal logged and the next tub shown, in the browser | ${ms(steps.median)} | ${ms(steps.p95)} |`);
  within('a tub advanced', steps.p95, 50);
}

/** Runs in the page; as text, since what the compiler adds to functions is not known there. */
const WALK = `async (count) => {
  const shown = () => document.querySelector('article')?.getAttribute('aria-label') ?? '';
  const taken = [];
  for (let i = 0; i < count; i++) {
    const before = shown();
    const start = performance.now();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 't', bubbles: true }));
    await new Promise((resolve) => {
      const look = () => (shown() === before ? requestAnimationFrame(look) : resolve());
      look();
    });
    taken.push(performance.now() - start);
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  return taken;
}`;

/** From the key to the next tub on the screen, tub after tub. */
async function stepTimes(origin: string, password: string): Promise<number[]> {
  const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium' });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.goto(`${origin}/sign-in?to=/rounds`);
  await page.getByLabel('E-mail').fill('bench@example.test');
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: 'Begin with Rack 000' }).click();
  await page.locator('article').waitFor();
  // Without a connection: what is measured is the device, which must not wait for a server.
  await page.context().setOffline(true);
  const times = (await page.evaluate(`(${WALK})(${TUBS})`)) as number[];
  await browser.close();
  return times;
}

/** A season of places by 2,000 runs, at most 3,000 milliseconds. */
export async function benchForecast(origin: string, cookie: string, say: Say, within: Within): Promise<void> {
  const response = await fetch(`${origin}/api/v1/room`, { headers: { cookie } });
  const { question } = (await response.json()) as RoomView;
  const clutches = Array.from({ length: 20 }, (_, i) => ({
    hatchInDays: 30 + 6 * i,
    sdDays: 5,
    eggs: 7,
    hatchShare: 0.85,
    chance: 0.9,
  }));
  const timing = await time(5, () => {
    simulateRoom({ ...question, clutches });
    return Promise.resolve();
  });
  say(
    `| places of a year by ${question.runs.toLocaleString('en-GB')} runs, ${question.animals.length.toLocaleString('en-GB')} animals and 20 clutches | ${ms(timing.median)} | ${ms(timing.p95)} |`,
  );
  within('the forecast of places', timing.p95, 3000);
}
