import type { Page, AnimalSummary, AnimalView, RoundView, TodayView } from '@karyotome/contract';
import { addDays, CATALOGUE, type RecordedAnimal } from '@karyotome/core';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import { askEngine, stopEngine } from '../src/domain/genetics/engine-client.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/*
 * Daily work never waits for inference. The engine's thread is kept busy here with another collection, too wide for it: everything
 * that husbandry asks is answered meanwhile, as recorded.
 */

const TODAY = machineToday();
const ago = (days: number): string => addDays(TODAY, -days);
let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp({ inferencePatienceMs: 300 });
  owner = app.owner;
});
afterAll(() => app.close());

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

/**
 * A collection that takes minutes: nobody said anything of its founders, any of several males may be the sire in each of several
 * generations, and every gene of the catalogue is named of one of the last young.
 */
function tooWide(): RecordedAnimal[] {
  const animals: RecordedAnimal[] = [];
  let [dams, sires]: string[][] = [[], []];
  for (let generation = 0; generation < 6; generation++) {
    const next: string[][] = [[], []];
    for (let n = 0; n < 40; n++) {
      const id = `w${generation}-${n}`;
      const parents =
        generation === 0 ? [] : sires!.slice(n % 5, (n % 5) + 6).map((sire) => ({ id: sire, weight: 1 }));
      animals.push({
        id,
        sex: n % 2 ? 'female' : 'male',
        ...(generation === 0 ? {} : { dam: dams![n % dams!.length]! }),
        sires: parents,
      });
      next[n % 2 ? 0 : 1]!.push(id);
    }
    [dams, sires] = next;
  }
  const genes = CATALOGUE.loci.map(({ alleles }) => alleles[0]!.name).join(' ');
  const last = animals.at(-1)!;
  animals[animals.length - 1] = { ...last, identification: { record: 'r', genes, sure: 'probable' } };
  return animals;
}

test('while the engine is at work, animals, rounds and Today are answered, and a sex is recorded', async () => {
  const dam = await animal('female');
  const sires = [await animal('male'), await animal('male')];
  const [young] = await clutch(dam, sires, 300);
  const snapshot = { collection: 'too wide', token: -1, entries: [], animals: tooWide() };
  const isOver = vi.fn();
  askEngine({ ask: 'update', snapshot }).then(isOver, () => undefined);
  const identified = await owner.post(`/animals/${young}/records`, {
    kind: 'identification',
    on: TODAY,
    body: { genes: 'Pastel Enchi het Clown', sure: 'certain', by: 'Ida' },
  });
  expect(identified.status).toBe(201);
  const page = (await owner.get(`/animals/${young}`)).body as AnimalView;
  expect(page.isGeneticsPending).toBe(true);
  expect(page.label).toBe('Pastel Enchi Het Clown');
  expect(page.claims).toEqual([]);
  const animals = ((await owner.get('/animals?limit=200')).body as Page<AnimalSummary>).items;
  expect(animals).toHaveLength(3 + 6);
  expect(((await owner.get('/rounds')).body as RoundView).racks.length).toBeGreaterThan(0);
  expect(((await owner.get('/today')).body as TodayView).today).toBe(TODAY);
  for (const path of ['/racks', '/feeding', '/season', '/room'])
    expect((await owner.get(path)).status, path).toBe(200);
  expect((await sexed(young!, 'male')).status).toBe(201);
  const weighed = { kind: 'weight', on: TODAY, body: { massG: 70 } };
  expect((await owner.post(`/animals/${young}/records`, weighed)).status).toBe(201);

  // All of that was answered beside the work, which still goes on; it is ended with its thread.
  expect(isOver).not.toHaveBeenCalled();
  await stopEngine();
  await vi.waitFor(
    async () => {
      const { isGeneticsPending, claims } = (await owner.get(`/animals/${young}`)).body as AnimalView;
      expect(isGeneticsPending).toBe(false);
      expect(claims.map(({ locus }) => locus)).toContain('pastel');
    },
    { timeout: 60_000, interval: 200 },
  );
}, 120_000);
