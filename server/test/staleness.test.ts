import { addDays, FEEDING_RULES, ORDER_RULES, SEASON_RULES } from '@karyotome/core';
import { changeOf, isMadeFrom, ROUTES, type Route } from '@karyotome/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { aRoom, buildFarm, type Asker, type Farm } from './hostile/farm.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * Which reads a write makes stale stands in a table (contract/src/routes/staleness.ts). Here every kind of write is done, and
 * every read is compared before and after: one that changed must be among those that the table names.
 */

let app: TestApp;
let owner: TestClient;
let farm: Farm;
let reads: Record<string, string>;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  farm = await buildFarm(asker(owner), machineToday());
  const [animal] = farm.params['/animals/:id']!;
  const young = farm.params['/animals/:id']!.at(-1)!;
  const [clutch] = farm.params['/clutches/:id']!;
  const [rack] = farm.params['/racks/:id']!;
  reads = {
    animals: '/animals',
    animal: `/animals/${young}`,
    catalogue: '/catalogue',
    contradictions: '/contradictions',
    suspects: '/suspects',
    doubtful: '/doubtful-records',
    surprises: '/surprises',
    claimDetail: `/animals/${young}/claims/clown/clown`,
    kin: `/animals/${animal}/kin`,
    season: '/season',
    seasonFemales: '/season/females?limit=200',
    seasonMales: '/season/males?limit=200',
    relatedMates: `/season/related/${animal}`,
    pairings: '/pairings',
    planner: '/planner',
    hatchRates: '/hatch-rates',
    clutch: `/clutches/${clutch}`,
    incubators: '/incubators',
    bench: `/clutches/${clutch}/bench`,
    calls: '/calls',
    setUpProposal: `/clutches/${clutch}/set-up`,
    today: '/today',
    round: '/rounds',
    roundRack: `/rounds/racks/${rack}`,
    sheds: '/sheds',
    feeding: '/feeding',
    feedingNight: '/feeding/night',
    feedingLessons: '/feeding/lessons',
    room: '/room',
    racks: '/racks',
    rack: `/racks/${rack}`,
    tubs: '/tubs',
    ladders: '/ladders',
    learnedMoves: '/moves/learned',
    showcase: '/showcase',
    calendarFeeds: '/calendar-feeds',
  };
}, 120_000);
afterAll(() => app.close());

const asker =
  (client: TestClient): Asker =>
  async (method, path, body, headers = {}) => {
    if (Buffer.isBuffer(body)) {
      const answer = await client.upload(path, headers['Content-Type']!, body);
      return { status: answer.status, body: answer.body as unknown };
    }
    const answer =
      method === 'GET'
        ? await client.get(path)
        : method === 'DELETE'
          ? await client.delete(path, headers)
          : await client[method.toLowerCase() as 'post' | 'put' | 'patch'](path, body as object, headers);
    return { status: answer.status, body: answer.body as unknown };
  };

function routeOf(method: string, path: string): Route {
  const fits = (route: Route): boolean =>
    route.method === method.toLowerCase() &&
    new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`).test(path.split('?')[0]!);
  // An address without parameters goes before one with: /records/void is no record's.
  const found = (Object.values(ROUTES) as Route[])
    .filter(fits)
    .toSorted((a, b) => a.path.split(':').length - b.path.split(':').length)[0];
  return found!;
}

async function snapshot(): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const [name, path] of Object.entries(reads)) {
    const answer = await owner.get(path);
    expect(answer.status, path).toBe(200);
    // The moment at which the server put it together is no part of what it says.
    const { at: _at, ...said } =
      name === 'round' ? (answer.body as { at: string }) : { at: '', body: answer.body as unknown };
    found.set(name, JSON.stringify(said));
  }
  return found;
}

/** Does a write and holds every read that it changed against the table. */
async function held(ask: Asker, method: string, path: string, body: unknown, headers = {}) {
  const before = await snapshot();
  const answer = await ask(method, path, body, headers);
  expect(answer.status, `${method} ${path} ${JSON.stringify(answer.body)}`).toBeLessThan(300);
  const after = await snapshot();
  const id = path.split('/')[2];
  const change = changeOf(routeOf(method, path), id, body);
  const missed = [...after].filter(
    ([name, text]) => text !== before.get(name) && !isMadeFrom(name, change, reads[name]!.split('/')[2]),
  );
  expect(
    missed.map(([name]) => name),
    `changed by ${method} ${path}, and not named`,
  ).toEqual([]);
  done.add(`${method} ${routeOf(method, path).path}`);
  return answer;
}
const done = new Set<string>();

test('every read that a write changes is named as made from what the write changes', async () => {
  const ask = asker(owner);
  const watched: Asker = (method, path, body, headers) =>
    method === 'GET' ? ask(method, path) : held(ask, method, path, body, headers);
  // A second farm in the same collection: some thirty kinds of writes.
  await buildFarm(watched, machineToday());

  const [pairing] = farm.params['/pairings/:id']!;
  const [clutch] = farm.params['/clutches/:id']!;
  const young = farm.params['/animals/:id']!.at(-1)!;
  const at = (path: string): string => farm.params[path]![0]!;
  const version = async (path: string): Promise<{ 'If-Match': string }> => ({
    'If-Match': `"${((await owner.get(path)).body as { version: number }).version}"`,
  });
  const today = machineToday();
  const ago = (days: number): string => addDays(today, -days);
  // What the second farm did to its own clutch and young is done to those that are read.
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#765' } })
    .png()
    .toBuffer();
  const pictured = { 'Content-Type': 'image/png' };
  await watched('POST', `/clutches/${clutch}/cards`, {});
  await watched('POST', `/clutches/${clutch}/pictures`, png, pictured);
  await watched('POST', `/animals/${young}/pictures`, png, pictured);
  await watched('POST', '/labels', { animalIds: [young], kind: 'full', size: 'roll-50x25' });
  await watched('POST', `/animals/${young}/opinions`, { by: 'Odo', genes: 'Pastel', sure: 'possible' });
  await watched('POST', `/clutches/${clutch}/opinion-links`, { animalIds: [young] });
  await watched('PUT', `/animals/${young}/publication`, { text: 'Words' });
  await watched('POST', `/clutches/${clutch}/egg-events`, { kind: 'check', on: ago(60), eggIds: null });
  await watched('POST', `/animals/${young}/records`, {
    kind: 'identification',
    on: ago(3),
    body: { genes: 'Pastel het Clown', sure: 'certain', by: 'Ida' },
  });
  await watched(
    'PUT',
    `/animals/${young}/observations`,
    { observations: { 'lips: pale': 'seen' } },
    {
      'If-Match': '"0"',
    },
  );
  await watched(
    'PUT',
    `/clutches/${clutch}/sorting`,
    { groups: [{ name: 'All', animalIds: [young] }] },
    {
      'If-Match': '"0"',
    },
  );
  const { id } = (
    await watched('POST', `/animals/${young}/records`, {
      kind: 'feeding',
      on: today,
      body: { species: 'mouse', size: 'hopper', preyG: 8, state: 'frozen-thawed', taken: true },
    })
  ).body as { id: string };
  await watched('POST', `/records/${id}/void`, { reason: 'wrong tub' });
  await watched('POST', `/moves`, {
    moves: [{ animalId: young, toTubId: farm.known['tubId']![0]! }],
    reason: 'grown',
    on: today,
  });
  await watched('POST', '/catalogue/entries', {
    kind: 'marker',
    phenotype: 'pastel',
    zone: 'lips',
    text: 'pink',
    pWith: 0.7,
    pWithout: 0.2,
  });
  await watched('DELETE', `/catalogue/entries/${at('/catalogue/entries/:id')}`, undefined);
  await watched('POST', `/pairings/${pairing}/events`, { kind: 'ovulation', on: ago(110) });
  await watched('POST', `/pairing-events/${at('/pairing-events/:id')}/void`, { reason: 'wrong pair' });
  await watched(
    'PATCH',
    `/clutches/${clutch}`,
    { note: 'turned once' },
    await version(`/clutches/${clutch}`),
  );
  await watched('POST', `/incubators/${at('/incubators/:id')}/readings`, {
    at: new Date(Date.now() - 60_000).toISOString(),
    celsius: 31.5,
  });
  await watched('POST', '/rooms', aRoom('Quarantine room'));
  await watched('POST', `/rooms/${at('/rooms/:id')}/readings`, {
    at: new Date(Date.now() - 60_000).toISOString(),
    celsius: 12,
  });
  await watched('DELETE', `/opinions/${at('/opinions/:id')}`, undefined);
  await watched('DELETE', `/opinion-links/${at('/opinion-links/:id')}`, undefined);
  const { rulesVersion } = (await owner.get('/feeding')).body as { rulesVersion: number };
  await watched(
    'PUT',
    '/feeding/rules',
    { feeding: { ...FEEDING_RULES }, order: { ...ORDER_RULES, leadDays: ORDER_RULES.leadDays + 1 } },
    { 'If-Match': `"${rulesVersion}"` },
  );
  await watched('POST', `/stock/${at('/stock/:id')}/void`, { reason: 'counted twice' });
  await watched('POST', `/surface-checks/${at('/surface-checks/:id')}/void`, { reason: 'wrong zone' });
  await watched('POST', `/heat-zones/${at('/heat-zones/:id')}/delete`, { reason: 'no longer there' });
  await watched('DELETE', `/pictures/${at('/pictures/:id')}`, undefined);
  await watched('DELETE', `/calendar-feeds/${at('/calendar-feeds/:id')}`, undefined);
  await watched('DELETE', `/animals/${farm.known['damId']![0]}/publication`, undefined);
  const board = (await owner.get('/season')).body as { rulesVersion: number };
  await watched(
    'PUT',
    '/season/rules',
    { ...SEASON_RULES, femaleRestDays: SEASON_RULES.femaleRestDays + 1 },
    { 'If-Match': `"${board.rulesVersion}"` },
  );
  expect(done.size).toBeGreaterThan(35);
}, 240_000);
