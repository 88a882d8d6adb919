import type { AnimalSummary, AnimalView, SessionView, TodayView } from '@karyotome/contract';
import { dayIn } from '@karyotome/core';
import type { Page } from '@playwright/test';
import { startServer, type RunningServer } from './server.ts';
import { expect, getList, signIn, test } from './test.ts';

/* What a device tells: the farm's day far from the farm, whose entries it holds, and nothing after signing out. */

/** An empty farm of one animal, spoken to by its owner. */
async function farm(page: Page, server: RunningServer) {
  const session = (await (await page.request.get(`${server.origin}/api/v1/session`)).json()) as SessionView;
  const headers = { 'X-CSRF-Token': session.csrfToken };
  const get = async <T>(path: string): Promise<T> =>
    (await (await page.request.get(`${server.origin}/api/v1${path}`)).json()) as T;
  const made = await page.request.post(`${server.origin}/api/v1/animals`, {
    data: { number: 'N-01', sex: 'female', genes: 'pastel', hatchedOn: '2025-05-01', massG: 210 },
    headers,
  });
  return { get, id: ((await made.json()) as { id: string }).id, session };
}

test('a phone far from the farm: days are the farm’s, and it shows that its own clock differs', async ({
  browser,
}) => {
  const server = await startServer('new');
  const context = await browser.newContext({ timezoneId: 'Pacific/Honolulu', locale: 'en-GB' });
  const page = await context.newPage();

  await test.step('at the first start the browser’s zone is proposed, and another can be said', async () => {
    // Whoever comes to a server without an owner is led to its first start; the code is typed as somebody reads it.
    await page.goto(server.origin);
    await page.getByLabel('Code').fill(server.startCode!.toLowerCase().replaceAll('-', ' '));
    await page.getByLabel('Your name').fill('Ida Marsh');
    await page.getByLabel('E-mail').fill(server.email);
    await page.getByLabel('Password').fill('password1234');
    await page.getByLabel('Its name, as buyers see it').fill('Reedwater');
    const zone = page.getByLabel('Time zone', { exact: true });
    await expect(zone).toHaveValue('Pacific/Honolulu');
    await zone.fill('Kiritimati');
    await page.getByRole('option', { name: 'Pacific/Kiritimati' }).click();
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByText('is one that many people have').first()).toBeVisible();
    await page.getByLabel('Password').fill(server.password);
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Today');
    await expect(page.getByText('Which time zone is the farm in?')).toBeHidden();
    await expect(page.getByRole('link', { name: /^Farm \d\d:\d\d/ })).toBeVisible();
  });

  await test.step('a meal of the farm’s today is done today, though here it is yesterday', async () => {
    const { get, id } = await farm(page, server);
    // 24 hours lie between the two: the farm is always a day ahead.
    const today = dayIn('Pacific/Kiritimati', Date.now());
    expect(dayIn('Pacific/Honolulu', Date.now())).not.toBe(today);
    expect((await get<TodayView>('/today')).today).toBe(today);
    await page.goto(`${server.origin}/animals/${id}`);
    await page.getByRole('button', { name: 'Meal', exact: true }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Save|^Record/ })
      .click();
    await expect(page.getByRole('dialog')).toBeHidden();
    const { records } = await get<AnimalView>(`/animals/${id}`);
    expect(records.find(({ kind }) => kind === 'feeding')!.on).toBe(today);
  });
  await context.close();
  await server.stop();
});

test('an answer that was lost: the form sent again enters it once', async ({ browser }) => {
  const server = await startServer('empty');
  const context = await browser.newContext({ locale: 'en-GB' });
  const page = await context.newPage();
  await signIn(page, server);
  const { get, id } = await farm(page, server);
  await page.goto(`${server.origin}/animals/${id}`);
  // The server hears of it; only the answers are lost, as often as the page tries by itself.
  let lost = 0;
  await page.route(`**/animals/${id}/records`, async (route) => {
    if (lost++ < 3) {
      await route.fetch();
      await route.abort();
    } else await route.continue();
  });
  await page.getByRole('button', { name: 'Weight', exact: true }).click();
  await page.getByRole('dialog').getByLabel('Weight, g').fill('345');
  const save = page.getByRole('dialog').getByRole('button', { name: /^Save|^Record/ });
  await save.click();
  await expect(page.getByText('The server cannot be reached').first()).toBeVisible({ timeout: 20_000 });
  await save.click();
  await expect(page.getByRole('dialog')).toBeHidden();
  const { records } = await get<AnimalView>(`/animals/${id}`);
  expect(records.filter((record) => record.kind === 'weight' && record.body.massG === 345)).toHaveLength(1);
  await context.close();
  await server.stop();
});

test('signing out without a connection leaves nothing readable, and another person’s entries stay theirs', async ({
  browser,
}) => {
  const server = await startServer('demo');
  const context = await browser.newContext({ locale: 'en-GB' });
  const page = await context.newPage();
  await signIn(page, server, '/sign-in?to=/rounds');
  await expect(page.getByRole('heading', { name: 'Rounds' })).toBeVisible();
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await page.reload();
  const begin = page.getByRole('button', { name: /^Begin with/ }).first();
  await expect(begin).toBeVisible();
  const animals = await getList<AnimalSummary>(page, server, '/animals');
  const kept = () =>
    page.evaluate(async () => {
      const open = indexedDB.open('karyotome');
      const database = await new Promise<IDBDatabase>(
        (resolve) => (open.onsuccess = () => resolve(open.result)),
      );
      const all = (name: string): Promise<unknown[]> =>
        new Promise((resolve) => {
          const request = database.transaction(name).objectStore(name).getAll();
          request.onsuccess = () => resolve(request.result);
        });
      const held = JSON.stringify([await all('rounds'), await all('queue'), { ...localStorage }]);
      database.close();
      return held;
    });

  await test.step('an entry waits, and another window signs in as somebody else: it does not leave', async () => {
    await context.setOffline(true);
    await begin.click();
    await page
      .getByRole('button', { name: /^Cleaned/ })
      .first()
      .click();
    await expect(page.getByText('No connection, 1 waiting')).toBeVisible();
    await page.route('**/rounds/entries', (route) => route.abort());
    await context.setOffline(false);
    // As another window would: the browser holds one session for both.
    const other = await context.newPage();
    const answer = await other.request.post(`${server.origin}/api/v1/session`, {
      data: { email: 'ilko@thistlecote.example', password: server.password },
    });
    expect(answer.status()).toBe(201);
    // Looked out for before the way is free: the queue tries again by itself, too. What was aborted has no response.
    const sent = page.waitForResponse((response) => response.url().endsWith('/rounds/entries'), {
      timeout: 30_000,
    });
    await page.unroute('**/rounds/entries');
    await page.evaluate(() => window.dispatchEvent(new Event('online')));
    expect((await sent).status()).toBe(403);
    await expect(page.getByText(/1 (waiting|on the way)/)).toBeHidden();
    await other.close();
  });

  await test.step('its owner signs in again, is asked before signing out, and leaves nothing', async () => {
    await page.goto(`${server.origin}/today`);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await signIn(page, server, '/sign-in?to=/rounds');
    await expect(page.getByRole('button', { name: /^Begin with/ }).first()).toBeVisible();
    await context.setOffline(true);
    await page
      .getByRole('button', { name: /^Begin with/ })
      .first()
      .click();
    await page
      .getByRole('button', { name: /^Cleaned/ })
      .first()
      .click();
    await expect(page.getByText(/No connection, [12] waiting/)).toBeVisible();
    await page.getByRole('button', { name: 'Sign out' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('Not sent yet');
    await dialog.getByRole('button', { name: 'Sign out and lose this' }).click();
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    const left = await kept();
    for (const word of [animals[0]!.number, server.email, 'Thistlecote']) expect(left).not.toContain(word);
  });

  await test.step('the session ends on the server as soon as it can be reached', async () => {
    await context.setOffline(false);
    await page.goto(`${server.origin}/today`);
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    expect((await page.request.get(`${server.origin}/api/v1/animals`)).status()).toBe(401);
  });
  await context.close();
  await server.stop();
});
