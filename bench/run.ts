/*
 * npm run bench: how fast it starts, how heavy the first page is, and how fast the API answers at 1,000 animals and
 * 300,000 events. Ratios within one run are what to compare; absolute times depend on the machine.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { parseParent, pairingOutcomes } from '@karyotome/core';
import { build } from '../scripts/build.mjs';
import { stopPostgres } from '../scripts/postgres.mjs';
import { ROOT } from '../scripts/root.mjs';
import { migrate } from '../server/src/db/migrate.ts';
import { openDatabase } from '../server/src/db/open.ts';
import { administer, databaseUrl, startServer } from '../server/test/template.ts';
import { fillCollection } from './collection.ts';
import { EMAIL, launch, PASSWORD } from './launch.ts';
import { ms, summarise, time } from './report.ts';
import { benchForecast, benchRound } from './rounds.ts';

const lines: string[] = [];
const say = (line: string): void => {
  lines.push(line);
  console.log(line);
};
/** Limits that were set; what lies over one fails the run. */
function within(what: string, took: number, limit: number): void {
  if (took <= limit) return;
  console.error(`${what}: ${ms(took)}, over its limit of ${ms(limit)}`);
  process.exitCode = 1;
}

/** JavaScript that a browser fetches until Today stands, gzipped. */
async function initialJavaScript(origin: string): Promise<number> {
  const browser = await chromium.launch({ executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium' });
  const page = await browser.newPage();
  const sizes: Promise<number>[] = [];
  page.on('response', (response) => {
    if (/\.js$/.test(new URL(response.url()).pathname))
      sizes.push(response.body().then((body) => gzipSync(body).length));
  });
  await page.goto(`${origin}/sign-in`);
  await page.getByLabel('E-mail').fill(EMAIL);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Today' }).waitFor();
  await page.waitForLoadState('networkidle');
  const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  await browser.close();
  return total;
}

async function benchApi(): Promise<number> {
  const { serverUrl: server } = await startServer('tests');
  await administer(server, 'drop database if exists bench with (force)', 'create database bench');
  const url = databaseUrl(server, 'bench');
  const database = openDatabase(url, (error) => console.error(error));
  await migrate(database.sequelize);
  const { ids, racks } = await fillCollection(database, 1000, 300_000, PASSWORD);
  await database.sequelize.close();
  const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-bench-'));
  const running = await launch(url, dataDir);
  say(`| server start, database migrated | ${ms(running.startedMs)} | |`);
  const signedIn = await fetch(`${running.origin}/api/v1/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email: EMAIL, password: PASSWORD }),
  });
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!;
  const { csrfToken } = (await signedIn.json()) as { csrfToken: string };
  const get = async (path: string): Promise<void> => {
    const response = await fetch(`${running.origin}/api/v1${path}`, { headers: { cookie } });
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
    await response.arrayBuffer();
  };
  let turn = 0;
  const nextId = (): string => ids[(turn++ * 37) % ids.length]!;
  const post = async (): Promise<void> => {
    const body = { kind: 'weight', on: new Date().toISOString().slice(0, 10), body: { massG: 900 } };
    const response = await fetch(`${running.origin}/api/v1/animals/${nextId()}/records`, {
      method: 'POST',
      headers: {
        cookie,
        'Content-Type': 'application/json',
        'X-CSRF-Token': csrfToken,
        'Idempotency-Key': crypto.randomUUID(),
      },
      body: JSON.stringify(body),
    });
    if (response.status !== 201) throw new Error(`record: ${response.status}`);
  };
  const questions: [string, number, () => Promise<void>][] = [
    ['health (the floor of a request)', 100, () => get('/health')],
    ['log a weight', 60, post],
    ['one animal’s page', 30, () => get(`/animals/${nextId()}`)],
    ['all animals', 15, () => get('/animals')],
    ['today', 25, () => get('/today')],
    ['racks', 25, () => get('/racks')],
    ['a rack of the round', 25, () => get(`/rounds/racks/${racks[0]!}`)],
    ['today, after each a record', 15, async () => (await post(), await get('/today'))],
  ];
  const begun = performance.now();
  await get('/today');
  const first = performance.now() - begun;
  say(`| today, the first time: every animal’s state is computed | ${ms(first)} | |`);
  let floor = 0;
  for (const [name, runs, act] of questions) {
    const timing = await time(runs, act);
    floor ||= timing.median;
    say(
      `| ${name} | ${ms(timing.median)} | ${ms(timing.p95)}, ${(timing.median / floor).toFixed(0)} × the floor |`,
    );
    if (['today', 'racks'].includes(name)) within(name, timing.p95, 300);
  }
  await benchRound(running.origin, PASSWORD, { cookie, csrfToken }, ids, say, within);
  await benchForecast(running.origin, cookie, say, within);
  const weight = await initialJavaScript(running.origin);
  await running.stop();
  rmSync(dataDir, { recursive: true, force: true });
  await administer(server, 'drop database bench with (force)');
  return weight;
}

function benchOdds(): void {
  const sire = parseParent('pastel enchi leopard fire banana 66% het clown', 'male').parent;
  const dam = parseParent(
    'mojave yellow belly pinstripe orange dream het clown 50% het pied spotnose',
    'female',
  ).parent;
  const samples = Array.from({ length: 40 }, () => {
    const start = performance.now();
    pairingOutcomes(sire, dam, 50);
    return performance.now() - start;
  });
  const { median, p95 } = summarise(samples);
  say(`| first 50 outcomes of a pair with 12 segregating loci | ${ms(median)} | ${ms(p95)} |`);
}

await build();
say('| question | median | p95 |');
say('| --- | --- | --- |');
benchOdds();
const weight = await benchApi();
say(`| JavaScript until Today stands, gzip | ${(weight / 1000).toFixed(0)} kB | limit 300 kB |`);
mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
writeFileSync(
  join(ROOT, 'bench/results/README.md'),
  `# Last measured\n\nGenerated by \`npm run bench\` at 1,000 animals and 300,000 events; never edited by hand. Compare ratios, not times.\n\n${lines.join('\n')}\n`,
);
await stopPostgres('tests');
if (weight > 300_000) {
  console.error('The first page is too heavy.');
  process.exitCode = 1;
}
