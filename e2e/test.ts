import { addDays, localDay } from '@karyotome/core';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { startServer, type RunningServer } from './server.ts';

interface Fixtures {
  page: Page;
}
interface WorkerFixtures {
  empty: RunningServer;
  demo: RunningServer;
}

/** What the browser may complain of: a refused request is what many tests are about. */
const EXPECTED = /Failed to load resource: the server responded with a status of 4\d\d/;

/** Names of this machine. */
const HERE = ['127.0.0.1', 'localhost'];

/** Pages fail their test when the browser reports an error, or asks for anything beyond this machine. */
export const test = base.extend<Fixtures, WorkerFixtures>({
  empty: [
    async ({}, use) => {
      const server = await startServer('empty');
      await use(server);
      await server.stop();
    },
    { scope: 'worker' },
  ],
  demo: [
    async ({}, use) => {
      const server = await startServer('demo');
      await use(server);
      await server.stop();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  page: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error' && !EXPECTED.test(message.text())) faults.push(message.text());
    });
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('request', (request) => {
      const url = new URL(request.url());
      if (!['data:', 'blob:'].includes(url.protocol) && !HERE.includes(url.hostname))
        faults.push(`asked for ${request.url()}`);
    });
    await use(page);
    expect(faults).toEqual([]);
  },
});

export { expect };

export async function signIn(page: Page, server: RunningServer, to = '/today'): Promise<void> {
  await page.goto(`${server.origin}${to}`);
  await page.getByLabel('E-mail').fill(server.email);
  await page.getByLabel('Password').fill(server.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Karyotome');
}

/** What the server answers to a read. @param path - under `/api/v1` */
export async function getJson<T>(page: Page, server: RunningServer, path: string): Promise<T> {
  return (await (await page.request.get(`${server.origin}/api/v1${path}`)).json()) as T;
}

/** What the server answers to a write, as whoever is signed in. @param path - under `/api/v1` */
export async function postJson<T = undefined>(
  page: Page,
  server: RunningServer,
  path: string,
  data: object,
): Promise<T> {
  const { csrfToken } = await getJson<{ csrfToken: string }>(page, server, '/session');
  const answer = await page.request.post(`${server.origin}/api/v1${path}`, {
    headers: { 'X-CSRF-Token': csrfToken },
    data,
  });
  const text = await answer.text();
  expect(answer.ok(), text).toBe(true);
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

/** The first items of a list, up to 200. @param path - under `/api/v1` */
export async function getList<T>(page: Page, server: RunningServer, path: string): Promise<T[]> {
  return (await getJson<{ items: T[] }>(page, server, `${path}?limit=200`)).items;
}

/** One of each that a demo farm has a page of: a published animal, its public page, and a clutch in the incubator. */
export async function exampleIds(
  page: Page,
  server: RunningServer,
): Promise<{ animalId: string; slug: string; clutchId: string }> {
  const animals = await getList<{ id: string; published: boolean }>(page, server, '/animals');
  const [offered] = await getList<{ slug: string }>(page, server, '/showcase');
  const { items: females } = await getJson<{
    items: { pairing: { clutch: { id: string } | null } | null }[];
  }>(page, server, '/season/females?limit=200');
  return {
    animalId: animals.find(({ published }) => published)!.id,
    slug: offered!.slug,
    clutchId: females.flatMap(({ pairing }) => pairing?.clutch ?? [])[0]!.id,
  };
}

const optionOf = (page: Page, text: string) =>
  page.locator('.v-overlay-container').getByRole('option').filter({ hasText: text }).first();

/**
 * Takes an entry of a list: the click is given to the entry itself, since a list that still grows, shrinks or changes sides
 * moves away from under a pointer, and Vuetify moves the focus after a list was drawn. The list is opened again where it
 * closed meanwhile.
 */
async function takeEntry(entry: Locator, open: () => Promise<void>): Promise<void> {
  await expect(async () => {
    if (!(await entry.isVisible())) await open();
    await entry.dispatchEvent('click', {}, { timeout: 2_000 });
  }).toPass();
}

/** Types into an autocomplete and takes the option that holds the text. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await takeEntry(optionOf(page, option), async () => {
    await field.fill('');
    await field.fill(option);
  });
}

/** Opens a select by key and takes the option that holds the text; the field shows it then. */
export async function pick(page: Page, label: string, option: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await takeEntry(optionOf(page, option), () => field.press('ArrowDown'));
  await expect(page.locator('.v-input').filter({ has: field })).toContainText(option);
}

/** Takes an entry of a button's menu. */
export async function takeFromMenu(page: Page, button: string, entry: string): Promise<void> {
  const item = page.locator('.v-menu .v-list-item').filter({ hasText: entry });
  await takeEntry(item, () => page.getByRole('button', { name: button }).press('Enter'));
}

/** Goes on with the Tab key until something has the focus: a hand that has no pointer. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let i = 0; i < 250; i++) {
    const way = await target.evaluate((element) => {
      const active = document.activeElement;
      if (element === active) return null;
      // Backwards where it stands before: a hand would do so too.
      return active && active.compareDocumentPosition(element) & Node.DOCUMENT_POSITION_PRECEDING
        ? 'Shift+Tab'
        : 'Tab';
    });
    if (way === null) return;
    await page.keyboard.press(way);
  }
  throw new Error('Nothing leads there by the Tab key.');
}

/** The same, and then presses it. */
export async function pressOn(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press('Enter');
}

/** A number field: cleared first, since typing into one adds to what is there. */
export async function fillNumber(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.clear();
  await field.fill(value);
  await field.blur();
}

/** A day as it is typed and shown here: the tests' browser is British. */
export const shownDay = (daysBack: number): string => daysAgo(daysBack).split('-').reverse().join('/');

/** Types a day into a date field, and leaves it. */
export async function fillDay(field: Locator, daysBack: number): Promise<void> {
  await field.fill(shownDay(daysBack));
  await field.blur();
  await expect(field).toHaveValue(shownDay(daysBack));
}

/** A day so many days back from today, here. */
export function daysAgo(days: number): string {
  return addDays(localDay(new Date()), -days);
}

/** Every rack of the room, each read as it comes into sight. */
export async function showAllRacks(page: Page): Promise<void> {
  const tiles = page.locator('.tile');
  await expect(tiles.first()).toBeVisible();
  for (const tile of await tiles.all()) {
    await tile.scrollIntoViewIfNeeded();
    await expect(tile.locator('.tub').first()).toBeVisible();
  }
  await tiles.first().scrollIntoViewIfNeeded();
}
