import { randomUUID } from 'node:crypto';
import type { Page as ListPage, AnimalView, RackSummary, RackView, SessionView } from '@karyotome/contract';
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { startServer, type RunningServer } from './server.ts';
import { daysAgo, expect, signIn, test } from './test.ts';

/* A feeding night: half of it without a connection, the server killed in the middle, two devices on one rack. */

/** Talks to the server as a keeper's own script would. */
async function keeper(context: BrowserContext, server: RunningServer) {
  const api = `${server.origin}/api/v1`;
  const session = await context.request.post(`${api}/session`, {
    data: { email: server.email, password: server.password },
  });
  const { csrfToken } = (await session.json()) as SessionView;
  const headers = { 'X-CSRF-Token': csrfToken };
  return {
    get: async <T>(path: string): Promise<T> => (await (await context.request.get(api + path)).json()) as T,
    async post(path: string, data: object): Promise<{ id: string }> {
      const response = await context.request.post(api + path, {
        data,
        headers: { ...headers, 'Idempotency-Key': randomUUID() },
      });
      expect(response.ok(), await response.text()).toBe(true);
      return (await response.json()) as { id: string };
    },
  };
}

const TUBS = 8;
/** A rack of eight tubs with eight youngsters, all of them due. */
async function fillRack(context: BrowserContext, server: RunningServer): Promise<string[]> {
  const { get, post } = await keeper(context, server);
  const ladders = (await get<ListPage<{ id: string; name: string }>>('/ladders?limit=200')).items;
  const ladderId = ladders.find(({ name }) => name === 'Four-step rack')!.id;
  await post('/racks', { room: 'Room', name: 'Left', levels: 2, tubsPerLevel: 4, ladderId, stepPosition: 0 });
  const [{ id: rackId }] = (await get<ListPage<RackSummary>>('/racks?limit=200')).items as [RackSummary];
  const rack = await get<RackView>(`/racks/${rackId}`);
  const ids: string[] = [];
  for (let i = 0; i < TUBS; i++) {
    const { id } = await post('/animals', {
      number: `N-0${i + 1}`,
      sex: 'female',
      genes: 'pastel',
      hatchedOn: daysAgo(200),
      tubId: rack.tubs[i]!.id,
    });
    await post(`/animals/${id}/records`, { kind: 'weight', on: daysAgo(15), body: { massG: 180 + i } });
    const body = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true };
    await post(`/animals/${id}/records`, { kind: 'feeding', on: daysAgo(9), body });
    ids.push(id);
  }
  return ids;
}

/** A device of its own: its own storage, its own worker. */
async function device(browser: Browser, server: RunningServer): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    locale: 'en-GB',
    hasTouch: true,
  });
  const page = await context.newPage();
  await signIn(page, server, '/sign-in?to=/rounds');
  await expect(page.getByRole('heading', { name: 'Rounds' })).toBeVisible();
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  // Only a page that was loaded under the worker is served by it.
  await page.reload();
  await expect(page.getByText('8 to feed')).toBeVisible();
  return page;
}
const tub = (page: Page, number: string) => page.getByRole('article', { name: new RegExp(`^${number},`) });

/** "All kept" may be on the screen already: it is the answer that says that an entry arrived. */
const answerOf = (page: Page) =>
  page.waitForResponse(
    (response) => /\/api\/v1\/rounds/.test(response.url()) && response.request().method() === 'POST',
  );

test('nothing that was entered is lost, and nothing counts twice', async ({ browser }) => {
  const server = await startServer('empty');
  const setUp = await browser.newContext();
  const ids = await fillRack(setUp, server);
  const one = await device(browser, server);
  const other = await device(browser, server);

  await test.step('with a connection: a touch logs, and the round goes on', async () => {
    await one.getByRole('button', { name: 'Begin with Left' }).click();
    await expect(tub(one, 'N-01')).toBeVisible();
    for (const [press, next] of [
      [/^Took it/, 'N-02'],
      [/^Refused/, 'N-03'],
    ] as const) {
      const answered = answerOf(one);
      await one.getByRole('button', { name: press }).click();
      await expect(tub(one, next)).toBeVisible();
      await answered;
      await expect(one.getByText('All kept')).toBeVisible();
    }
  });

  await test.step('the line drops: the round goes on, also after a reload', async () => {
    await one.context().setOffline(true);
    await one.getByRole('button', { name: /^Took it/ }).click();
    await expect(tub(one, 'N-04')).toBeVisible();
    await one.getByRole('button', { name: /^Weigh/ }).click();
    const pad = one.getByRole('dialog');
    for (const key of ['9', '2']) await pad.getByRole('button', { name: key, exact: true }).click();
    // Half of last time: asked about before it is kept.
    await pad.getByRole('button', { name: 'Keep' }).click();
    await expect(pad.getByText('right animal?')).toBeVisible();
    await pad.getByRole('button', { name: 'Delete the last digit' }).click();
    await pad.getByRole('button', { name: 'Delete the last digit' }).click();
    for (const key of ['1', '9', '4']) await pad.getByRole('button', { name: key, exact: true }).click();
    await pad.getByRole('button', { name: 'Keep' }).click();
    await expect(one.getByRole('dialog')).toHaveCount(0);
    await one.getByRole('button', { name: /^Took it/ }).click();
    await expect(tub(one, 'N-05')).toBeVisible();
    // The address follows the hand, and a reload goes by it.
    await expect(one).toHaveURL(new RegExp(`at=${ids[4]}`));
    await one.reload();
    await expect(tub(one, 'N-05')).toBeVisible();
    await expect(one.getByText('this is the round as it was read')).toBeVisible();
    await expect(one.getByText('No connection, 3 waiting')).toBeVisible({ timeout: 15_000 });
    await one.getByRole('button', { name: /^Blue/ }).click();
    await one.getByRole('button', { name: 'Take back: blue eyes' }).click();
    await expect(one.getByText('blue eyes')).toHaveCount(0);
    await one.getByRole('button', { name: /^Not offered/ }).click();
    await expect(tub(one, 'N-06')).toBeVisible();
  });

  await test.step('meanwhile the other device logs on the same rack, until the server is killed', async () => {
    await other.getByRole('button', { name: 'Begin with Left' }).click();
    // It was due when this device read the round; another hand has fed it since, without a connection.
    await other.getByRole('textbox', { name: 'Find a number' }).waitFor({ state: 'hidden' });
    await other.getByRole('button', { name: /^Next/ }).click();
    await other.getByRole('button', { name: /^Next/ }).click();
    await expect(tub(other, 'N-05').or(tub(other, 'N-03'))).toBeVisible();
    while (!(await tub(other, 'N-03').isVisible())) await other.getByRole('button', { name: 'Back' }).click();
    const answered = answerOf(other);
    await other.getByRole('button', { name: /^Took it/ }).click();
    await answered;
    await expect(other.getByText('All kept')).toBeVisible();
    await server.kill();
    while (!(await tub(other, 'N-07').isVisible()))
      await other.getByRole('button', { name: /^Next/ }).click();
    await other.getByRole('button', { name: /^Took it/ }).click();
    await expect(tub(other, 'N-08')).toBeVisible();
    await other.getByRole('button', { name: /^Cleaned/ }).click();
    await expect(other.getByText(/No connection, 2 waiting/)).toBeVisible({ timeout: 15_000 });
  });

  await test.step('the server is back, and so is the line: all of it catches up by itself', async () => {
    await server.revive();
    await expect(other.getByText('All kept')).toBeVisible({ timeout: 30_000 });
    await one.context().setOffline(false);
    await expect(one.getByText('All kept')).toBeVisible({ timeout: 30_000 });
  });

  await test.step('what both have logged is shown, and one of the two is taken back', async () => {
    await one.getByRole('button', { name: '1 to review' }).click();
    const dialog = one.getByRole('dialog');
    await expect(dialog.getByText('N-03: rat pup taken')).toBeVisible();
    await dialog.getByRole('button', { name: 'Take mine back' }).click();
    await expect(dialog.getByText('Nothing any more.')).toBeVisible();
    await dialog.getByRole('button', { name: 'Close' }).click();
    await expect(one.getByText('All kept')).toBeVisible();
  });

  await test.step('afterwards every acknowledged entry is there once', async () => {
    const { get } = await keeper(setUp, server);
    const today = daysAgo(0);
    const logged = await Promise.all(
      ids.map(async (id) => {
        const { records } = await get<AnimalView>(`/animals/${id}`);
        return records
          .filter(
            ({ on, voided, kind }) =>
              on === today && !voided && ['feeding', 'weight', 'care', 'shed'].includes(kind),
          )
          .map(({ kind, body }) => {
            const { taken, massG, act } = body as { taken?: boolean; massG?: number; act?: string };
            return kind === 'feeding' ? (taken ? 'took' : 'refused') : (massG ?? act ?? kind);
          })
          .toSorted();
      }),
    );
    expect(logged).toEqual([
      ['took'],
      ['refused'],
      ['took'],
      [194, 'took'].toSorted(),
      ['not-offered'],
      [],
      ['took'],
      ['cleaned'],
    ]);
  });
  await Promise.all([one, other].map((page) => page.context().close()));
  await setUp.close();
  await server.stop();
});

test('by keys and with the simulated scale, in the night theme', async ({ browser }) => {
  const server = await startServer('empty');
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  const setUp = await browser.newContext();
  await fillRack(setUp, server);
  await setUp.close();
  const page = await context.newPage();
  await signIn(page, server);
  await page.getByRole('button', { name: 'Night theme' }).click();
  await page.keyboard.press('4');
  await page.getByRole('button', { name: 'Begin with Left' }).press('Enter');
  await expect(tub(page, 'N-01')).toBeVisible();
  await page.keyboard.press('w');
  await page.getByRole('button', { name: 'Simulated scale' }).click();
  const shown = page.getByLabel('Weight entered');
  await expect(shown).not.toHaveText(/^0 g/, { timeout: 15_000 });
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('s');
  await page.keyboard.press('e');
  await expect(page.getByLabel('Logged today').getByText('eye caps checked: both off')).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByLabel('Logged today').getByText('eye caps checked: both off')).toHaveCount(0);
  await page.keyboard.press('r');
  await expect(tub(page, 'N-02')).toBeVisible();
  await page.keyboard.press('ArrowLeft');
  await expect(
    tub(page, 'N-01')
      .getByText('rat pup, frozen-thawed, refused')
      .or(tub(page, 'N-01').getByText('rat pup refused')),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Rounds' })).toBeVisible();
  await expect(page.getByText('1 logged today')).toBeVisible();
  await context.close();
  await server.stop();
});
