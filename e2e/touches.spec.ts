import fs from 'node:fs';
import path from 'node:path';
import type { AnimalSummary, HealthCaseView } from '@karyotome/contract';
import { ROOT } from '../scripts/root.mjs';
import { startServer, type RunningServer } from './server.ts';
import { expect, getList, signIn, test } from './test.ts';
import { ANIMAL_JOURNEYS } from './touches/animal-journeys.ts';
import { DAILY_JOURNEYS } from './touches/daily-journeys.ts';
import { Hand } from './touches/hand.ts';

/*
 * How many touches the most frequent acts take, counted while they are walked, on a phone. `npm run touches` writes what was
 * counted into docs/guide/touches.md; otherwise it must stand there already.
 */

const DOCUMENT = path.join(ROOT, 'docs/guide/touches.md');
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, locale: 'en-GB' } as const;

let farm: RunningServer;
test.beforeAll(async () => {
  farm = await startServer('demo');
});
test.afterAll(() => farm.stop());

const HEAD = `# Touches

Counted by \`npm run touches\`, which walks each act on a phone of 390 × 844 points with the demo data: touches of buttons,
rows and fields. Words and numbers that are typed, also on keys that the page shows, are counted apart, a text each. “Before” is what the same act took before there were a search, meals of a whole rack at once, and health.

| act | from | touches | texts typed | no more than | touches before |
| --- | --- | --- | --- | --- | --- |
`;

test('the most frequent acts take no more touches than they may', async ({ browser }) => {
  test.setTimeout(300_000);
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  await signIn(page, farm);
  const cases = new Set((await getList<HealthCaseView>(page, farm, '/health-cases')).map(({ id }) => id));
  const all = await getList<AnimalSummary>(page, farm, '/animals');
  const animals = all.filter(
    ({ id, massG, status }) => !cases.has(id) && massG !== null && massG > 1400 && status === 'breeder',
  );
  const clutchId = all
    .map((one) => one.clutchId)
    .find((id) => id && all.filter((one) => one.clutchId === id && one.tub === null).length === 8)!;
  const numbers = animals.map(({ number }) => number);
  const counted: string[] = [];
  for (const { act, before, from, at, most, walk } of [...DAILY_JOURNEYS, ...ANIMAL_JOURNEYS])
    await test.step(act, async () => {
      await page.goto(farm.origin + at.replace(/\d$/, (i) => animals[Number(i)]!.id));
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      const hand = new Hand(page);
      await walk(hand, { numbers, clutchId });
      expect(hand.touches, act).toBeLessThanOrEqual(most);
      counted.push(
        `| ${act} | ${from} | ${hand.touches} | ${hand.typed} | ${most} | ${before ?? 'not possible'} |`,
      );
    });
  await context.close();
  const text = `${HEAD}${counted.join('\n')}\n`;
  if (process.env['TOUCHES'] === 'write') fs.writeFileSync(DOCUMENT, text);
  expect(fs.readFileSync(DOCUMENT, 'utf8')).toBe(text);
});
