/* npm run screenshots: one current PNG of each main view, from the demo data, into docs/screenshots/. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import setup from '../e2e/global-setup.ts';
import { startServer, type RunningServer } from '../e2e/server.ts';
import { ROOT, stopPostgres } from './postgres.mjs';

const FOLDER = join(ROOT, 'docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

interface Shot {
  readonly name: string;
  readonly path: string | ((page: Page, server: RunningServer) => Promise<string>);
  readonly size?: typeof DESK;
  readonly theme?: 'night';
  /** What to do on the page before it is taken. */
  readonly before?: (page: Page) => Promise<void>;
}

async function fromApi<T>(page: Page, server: RunningServer, path: string): Promise<T> {
  return (await (await page.request.get(`${server.origin}/api/v1${path}`)).json()) as T;
}
const animalPath = (number: string) => async (page: Page, server: RunningServer) => {
  const animals = await fromApi<{ id: string; number: string }[]>(page, server, '/animals');
  return `/animals/${animals.find((animal) => animal.number === number)!.id}`;
};
/** The newest clutch that waits to be identified. */
const benchPath = async (page: Page, server: RunningServer): Promise<string> => {
  const pairings = await fromApi<
    { clutches: { id: string; hatched: number | null; identified: number }[] }[]
  >(page, server, '/pairings');
  const clutch = pairings.flatMap((p) => p.clutches).find((c) => c.hatched !== null && c.identified === 0)!;
  return `/bench/${clutch.id}`;
};
const publicPath = async (page: Page, server: RunningServer): Promise<string> => {
  const lines = await fromApi<{ slug: string }[]>(page, server, '/showcase');
  return `/p/${lines.at(-1)!.slug}`;
};
/** The animal whose advised move is of a kind. */
const advisedPath = (text: string) => async (page: Page, server: RunningServer) => {
  const { lines } = await fromApi<{ lines: { text: string; animal: { id: string } | null }[] }>(
    page,
    server,
    '/today',
  );
  return `/animals/${lines.find((line) => line.text.includes(text) && line.animal)!.animal!.id}`;
};

const SHOTS: readonly Shot[] = [
  { name: 'today', path: '/today' },
  { name: 'season', path: '/season' },
  { name: 'pairing', path: '/season', before: openPairing },
  { name: 'bench', path: benchPath },
  {
    name: 'identify',
    path: benchPath,
    before: (page) => page.getByRole('button', { name: 'Identify' }).first().click(),
  },
  { name: 'racks', path: '/racks' },
  { name: 'ladders', path: '/racks/ladders' },
  { name: 'animals', path: '/animals' },
  { name: 'import', path: '/animals/import', before: chooseCsv },
  { name: 'animal', path: advisedPath('Leave it where it is') },
  {
    name: 'claim',
    path: animalPath('2502-03'),
    before: async (page) => {
      await page.getByRole('button', { name: /^Why: .*het Ultramel/ }).click();
      await page.getByText('Breeding would settle it').waitFor();
    },
  },
  {
    name: 'kin',
    path: async (page, server) =>
      `${await animalPath('F-01')(page, server)}/kin?locus=ultramel&allele=ultramel`,
  },
  { name: 'contradictions', path: '/animals/contradictions' },
  { name: 'genes', path: '/genes' },
  { name: 'showcase', path: '/showcase' },
  { name: 'public-page', path: publicPath },
  { name: 'phone-today', path: '/today', size: PHONE },
  { name: 'phone-bench', path: benchPath, size: PHONE },
  { name: 'phone-animal-night', path: advisedPath('Move up'), size: PHONE, theme: 'night' },
];

async function openPairing(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New pairing' }).first().click();
  for (const [label, option] of [
    ['Female', 'F-02'],
    ['Male', 'M-03'],
    ['Second possible male, if any', 'M-01'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(option);
    await page
      .locator('.v-overlay-container')
      .getByRole('option')
      .filter({ hasText: option })
      .first()
      .click();
  }
}

async function chooseCsv(page: Page): Promise<void> {
  const csv =
    'number,sex,genes,dam,weight\nN-01,female,Cinnamon YB 66% het Clown,,1620\nN-02,male,Pastl Clown,,810\nN-03,mail,axanthic,F-01,heavy\n';
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'collection.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
}

await setup();
const server = await startServer('demo');
mkdirSync(FOLDER, { recursive: true });
const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium' });
try {
  const wanted = process.argv.slice(2);
  for (const shot of SHOTS.filter(({ name }) => wanted.length === 0 || wanted.includes(name))) {
    const page = await browser.newPage({ viewport: shot.size ?? DESK, locale: 'en-GB' });
    await page.goto(`${server.origin}/sign-in`);
    await page.evaluate((name) => localStorage.setItem('karyotome.theme', name), shot.theme ?? 'day');
    await page.reload();
    await page.getByLabel('E-mail').fill(server.email);
    await page.getByLabel('Password').fill(server.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL('**/today');
    await page.goto(
      server.origin + (typeof shot.path === 'string' ? shot.path : await shot.path(page, server)),
    );
    await page.waitForLoadState('networkidle');
    await shot.before?.(page);
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(FOLDER, `${shot.name}.png`) });
    await page.close();
    console.log(shot.name);
  }
} finally {
  // Also when a page could not be taken: nothing of ours stays behind.
  await browser.close();
  await server.stop();
}
await stopPostgres('tests');
