import type { Page, AnimalSummary, AnimalView, RoundView, TodayView } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { stopEngine } from '../src/domain/genetics/engine-client.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * Daily work never waits for inference. A collection whose genes nobody stated, with several candidate sires in each of three
 * generations, keeps the engine busy for long: everything that husbandry asks is answered meanwhile, as recorded.
 */

const TODAY = machineToday();
const ago = (days: number): string => addDays(TODAY, -days);
let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp({ inferencePatienceMs: 300 });
  owner = app.owner;
});
afterAll(async () => {
  // The engine is still at it: its thread is ended with it.
  await stopEngine();
  await app.close();
});

async function created<T>(path: string, body: object, headers = {}): Promise<T> {
  const answer = await owner.post(path, body, headers);
  expect(answer.status, `${path} ${JSON.stringify(answer.body)}`).toBe(201);
  return answer.body as T;
}
let turn = 0;
const animal = async (sex: string): Promise<string> => {
  turn += 1;
  return (await created<{ id: string }>('/animals', { number: `B-${turn}`, sex })).id;
};
const sexed = (id: string, sex: string) =>
  owner.post(`/animals/${id}/records`, {
    kind: 'sex',
    on: TODAY,
    body: { sex, method: 'popped', sure: 'certain', by: 'Ida' },
  });
async function clutch(damId: string, sires: readonly string[], from: number): Promise<string[]> {
  const { id: pairingId } = await created<{ id: string }>('/pairings', {
    season: 2026,
    damId,
    startedOn: ago(from),
    sires: sires.map((animalId) => ({ animalId, weight: 1 })),
  });
  const { id } = await created<{ id: string }>('/clutches', {
    pairingId,
    laidOn: ago(from - 5),
    eggs: 6,
    slugs: 0,
  });
  const { version } = (await owner.get(`/clutches/${id}`)).body as { version: number };
  const { ids } = await created<{ ids: string[] }>(
    `/clutches/${id}/hatchlings`,
    { hatchedOn: ago(from - 60), hatched: 6 },
    { 'If-Match': `"${version}"` },
  );
  return ids;
}

test('while the engine is at work, animals, rounds and Today are answered, and a sex is recorded', async () => {
  const dams = [await animal('female'), await animal('female'), await animal('female')];
  const sires = [await animal('male'), await animal('male'), await animal('male'), await animal('male')];
  let [mothers, fathers] = [dams, sires];
  for (const from of [900, 600, 300]) {
    const next: string[] = [];
    for (const dam of mothers) next.push(...(await clutch(dam, fathers, from)));
    for (const [i, id] of next.entries())
      expect((await sexed(id, i % 2 ? 'female' : 'male')).status).toBe(201);
    mothers = next.filter((_, i) => i % 2).slice(0, 3);
    fathers = next.filter((_, i) => i % 2 === 0).slice(0, 4);
  }
  const young = mothers[0]!;
  // Something that moves the odds of everybody, so that all of it is to be inferred anew.
  const identified = await owner.post(`/animals/${young}/records`, {
    kind: 'identification',
    on: TODAY,
    body: { genes: 'Pastel Enchi het Clown', sure: 'probable', by: 'Ida' },
  });
  expect(identified.status).toBe(201);
  const page = (await owner.get(`/animals/${young}`)).body as AnimalView;
  expect(page.isGeneticsPending).toBe(true);
  expect(page.label).toBe('Pastel Enchi Het Clown');
  expect(page.claims).toEqual([]);
  const animals = ((await owner.get('/animals?limit=200')).body as Page<AnimalSummary>).items;
  expect(animals).toHaveLength(7 + 3 * 18);
  expect(((await owner.get('/rounds')).body as RoundView).racks.length).toBeGreaterThan(0);
  expect(((await owner.get('/today')).body as TodayView).today).toBe(TODAY);
  for (const path of ['/racks', '/feeding', '/season', '/room'])
    expect((await owner.get(path)).status, path).toBe(200);
  expect((await sexed(fathers[0]!, 'male')).status).toBe(201);
  expect(
    (await owner.post(`/animals/${young}/records`, { kind: 'weight', on: TODAY, body: { massG: 70 } }))
      .status,
  ).toBe(201);
}, 120_000);
