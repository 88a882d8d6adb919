/* npm run screenshots: one current PNG of each main view, from the demo data, into docs/screenshots/. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import sharp from 'sharp';
import setup from '../e2e/global-setup.ts';
import { startServer, type RunningServer } from '../e2e/server.ts';
import { stopPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';
import {
  advisedPath,
  animalPath,
  benchPath,
  deskPath,
  eggsPath,
  outsidePath,
  publicPath,
} from './screenshot-paths.ts';

const FOLDER = join(ROOT, 'docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const GAP = 12;

/** Chooses the first published animal's statement on the page that verifies. */
async function verifyFirstStatement(page: Page): Promise<void> {
  const text = await page.evaluate(async () => {
    const { items } = (await (await fetch('/api/v1/showcase')).json()) as { items: { slug: string }[] };
    return (await fetch(`/api/v1/public/${items[0]!.slug}/statements/1`)).text();
  });
  const file = { name: 'statement-1.json', mimeType: 'application/json', buffer: Buffer.from(text) };
  await page.locator('input[type=file]').setInputFiles(file);
  await page.getByText('Everything holds').waitFor();
}

interface Shot {
  readonly name: string;
  readonly path: string | ((page: Page, server: RunningServer) => Promise<string>);
  readonly size?: typeof DESK;
  readonly theme?: 'night';
  /** What to do on the page before it is taken. */
  readonly before?: (page: Page) => Promise<void>;
}

/** In order; shots of one name are joined to one picture. */
const SHOTS: readonly Shot[] = [
  { name: 'today', path: '/today' },
  { name: 'season', path: '/season' },
  { name: 'season', path: '/season', before: putTogether },
  { name: 'eggs', path: eggsPath('F-07') },
  { name: 'incubators', path: '/season/incubators' },
  { name: 'incubators', path: '/season/past' },
  { name: 'planner', path: '/season/planner', before: planPair },
  { name: 'planner-season', path: '/season/planner', before: (page) => plan(page, 'Best mates', 'Clown') },
  { name: 'planner-season', path: '/season/planner', before: planSeason },
  { name: 'planner-season', path: '/season/planner', before: playRoutes },
  { name: 'bench', path: benchPath, before: sortClutch },
  { name: 'bench', path: benchPath, before: lookAtOne },
  { name: 'bench-hands', path: benchPath, before: compareTwo },
  { name: 'bench-hands', path: '/bench/calls', before: (page) => page.locator('canvas').waitFor() },
  { name: 'bench-hands', path: outsidePath },
  { name: 'bench-papers', path: benchPath, before: (page) => openDialog(page, 'Labels') },
  { name: 'bench-papers', path: benchPath, before: (page) => openDialog(page, 'Set up') },
  { name: 'bench-papers', path: benchPath, before: (page) => openDialog(page, 'Pictures') },
  { name: 'feeding', path: '/today/feeding' },
  { name: 'feeding', path: '/today/sheds' },
  { name: 'feeding', path: '/today/plans' },
  { name: 'rounds', path: '/rounds', before: beginRound },
  { name: 'rounds', path: '/rounds', before: weigh, theme: 'night' },
  { name: 'rounds', path: '/rounds', size: PHONE, theme: 'night', before: beginRound },
  { name: 'room', path: '/racks/forecast', before: forecast },
  { name: 'room', path: '/racks/moves' },
  { name: 'room', path: '/racks/forecast', before: forecast, theme: 'night' },
  { name: 'racks', path: '/racks', before: takeUpTwo },
  { name: 'racks', path: '/racks/ladders' },
  { name: 'animals', path: '/animals' },
  { name: 'animals', path: '/animals/import', before: chooseCsv },
  { name: 'animals', path: advisedPath('hold') },
  {
    name: 'kin',
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
  { name: 'kin', path: '/animals/contradictions' },
  { name: 'genes', path: '/genes' },
  { name: 'showcase', path: '/showcase' },
  { name: 'sales', path: '/showcase/sales' },
  {
    name: 'sales',
    path: deskPath,
    before: (page) => page.getByLabel('What you breed for').fill('Desert Ghost'),
  },
  { name: 'sales', path: '/showcase/waiting' },
  { name: 'showcase', path: '/c/thistlecote-burrow' },
  { name: 'showcase', path: publicPath },
  { name: 'showcase', path: '/verify', before: verifyFirstStatement },
  { name: 'phones', path: '/today', size: PHONE },
  { name: 'phones', path: eggsPath('F-08'), size: PHONE },
  { name: 'phones', path: eggsPath('F-07'), size: PHONE },
  { name: 'phones', path: benchPath, size: PHONE },
  { name: 'phones', path: benchPath, size: PHONE, before: (page) => page.locator('.tile').nth(1).click() },
  { name: 'phones', path: advisedPath('move-up'), size: PHONE, theme: 'night' },
];

async function beginRound(page: Page): Promise<void> {
  await page
    .getByRole('button', { name: /^Begin with Hatch/ })
    .first()
    .click();
  await page.locator('article').waitFor();
}
async function weigh(page: Page): Promise<void> {
  await beginRound(page);
  await page.keyboard.press('w');
  await page.getByRole('button', { name: '5', exact: true }).click();
  await page.getByRole('button', { name: 'Keep' }).waitFor();
}
async function forecast(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Try', exact: true }).first().waitFor({ timeout: 30_000 });
}
async function takeUpTwo(page: Page): Promise<void> {
  for (const n of [0, 1]) await page.locator('.hand').nth(n).click();
}
async function choose(page: Page, label: string, option: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(option);
  await page.locator('.v-overlay-container').getByRole('option').filter({ hasText: option }).first().click();
}
async function putTogether(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Select M-05' }).click();
  await page.getByRole('group', { name: /^F-04/ }).getByRole('button', { name: 'Put M-05 here' }).click();
  await page.getByText('What this pair can produce').waitFor();
}
async function plan(page: Page, tab: string, target: string): Promise<void> {
  await page.getByRole('button', { name: tab }).click();
  await page.getByLabel('What do you want?').fill(target);
}
async function sortClutch(page: Page): Promise<void> {
  for (const n of [3, 6]) {
    await page.locator('.tile').nth(n).focus();
    await page.keyboard.press(']');
    await page.waitForTimeout(300);
  }
  await page.getByLabel('Name of the group Group 1').fill('Dark stripe');
  await page.keyboard.press('Enter');
  await page.evaluate(() => window.scrollTo(0, 0));
}
async function lookAtOne(page: Page): Promise<void> {
  await page.locator('.tile').nth(1).click();
  for (const [zone, answer] of [
    ['lips', 'Seen: lips: pale'],
    ['ground colour', 'Not seen: ground colour: orange'],
    ['belly edge', 'Not seen: belly edge: bold spots'],
    ['head top', 'Not seen: head top: four-winged mark'],
    ['head top', 'Not seen: head top: pale and bright, a straight arrow behind'],
  ] as const) {
    await page.getByRole('radio', { name: new RegExp(`^${zone}`) }).click();
    await page.getByRole('button', { name: answer, exact: true }).click();
  }
}
async function compareTwo(page: Page): Promise<void> {
  await page.locator('.tile').nth(1).click();
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await choose(page, 'Right', 'Clown: its markers');
}
async function openDialog(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click();
  await page.getByRole('dialog').waitFor();
  await page.waitForLoadState('networkidle');
}
async function planPair(page: Page): Promise<void> {
  await plan(page, 'One pair', 'Pastel Clown');
  await choose(page, 'Female', 'F-07');
  await choose(page, 'Male', 'M-05');
}
async function planSeason(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Season plan' }).click();
  await page.getByLabel('Target 1', { exact: true }).fill('Clown');
  await page.getByRole('button', { name: 'Another target' }).click();
  await page.getByLabel('Target 2', { exact: true }).fill('Banana');
}
async function playRoutes(page: Page): Promise<void> {
  await plan(page, 'Project routes', 'Fire Clown');
  await page.getByRole('button', { name: 'Find routes' }).click();
  await page.getByRole('button', { name: 'Play as A' }).first().click();
  await page.getByRole('button', { name: 'As B' }).nth(1).click();
  await page.getByText('Year by year').nth(1).waitFor();
}

async function chooseCsv(page: Page): Promise<void> {
  const csv =
    'number,sex,genes,dam,weight\nN-01,female,Cinnamon YB 66% het Clown,,1620\nN-02,male,Pastl Clown,,810\nN-03,mail,axanthic,F-01,heavy\n';
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'collection.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await page.getByText('to correct').waitFor();
}

/** Pictures of one name stand side by side. */
async function write(name: string, pictures: readonly Buffer[]): Promise<void> {
  const sizes = await Promise.all(pictures.map((picture) => sharp(picture).metadata()));
  const lefts = sizes.map((_, i) => sizes.slice(0, i).reduce((sum, { width }) => sum + width + GAP, 0));
  await sharp({
    create: {
      width: lefts.at(-1)! + sizes.at(-1)!.width,
      height: Math.max(...sizes.map(({ height }) => height)),
      channels: 3,
      background: '#ffffff',
    },
  })
    .composite(pictures.map((input, i) => ({ input, left: lefts[i]!, top: 0 })))
    .png({ palette: true })
    .toFile(join(FOLDER, `${name}.png`));
}

const clearUp = await setup();
const taken = new Map<string, Buffer[]>();
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
    taken.set(shot.name, [...(taken.get(shot.name) ?? []), await page.screenshot()]);
    await page.close();
    console.log(shot.name);
  }
  for (const [name, pictures] of taken) await write(name, pictures);
} finally {
  // Also when a page could not be taken: nothing of ours stays behind.
  await browser.close();
  await server.stop();
  await clearUp();
}
await stopPostgres('tests');
