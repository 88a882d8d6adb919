import type { AnimalView, Page, UnprovenGeneView } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { geneticsActs } from './genetics-acts.ts';
import { startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* A line that looks different: kept as a gene of its own, from which nothing is inferred until it is proven. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});
const { created, founder, young, read } = geneticsActs(() => owner);
const SMOKE = { kind: 'locus', name: 'Smoke', expression: 'incomplete-dominant', isUnproven: true };
const unproven = async (): Promise<UnprovenGeneView[]> =>
  (await read<Page<UnprovenGeneView>>('/catalogue/unproven')).items;

test('it is seen and said, and nothing follows from it; what its young show tells how it is inherited', async () => {
  await created('/catalogue/entries', SMOKE);
  expect(await unproven()).toMatchObject([{ name: 'Smoke', shows: [], odds: null, tests: [] }]);
  const sire = await founder('M', 'male', 'Smoke Pastel');
  const dam = await founder('F', 'female', 'Normal');
  const [before] = await unproven();
  expect(before!.tests).toMatchObject([{ dam: null, sire: { number: 'M' } }]);
  const ids: string[] = [];
  for (const [i, genes] of ['Smoke', 'Smoke', 'Smoke', 'Normal', 'Normal'].entries())
    ids.push(await young(`Y-${i}`, dam, sire, genes));
  const [after] = await unproven();
  expect(after).toMatchObject({ young: { showing: 3, others: 2 } });
  expect(after!.odds!['one-copy']).toBeGreaterThan(0.95);
  const animal = await read<AnimalView>(`/animals/${ids[0]}`);
  expect(animal.label).toContain('Smoke');
  expect(animal.claims.map(({ locus }) => locus)).not.toContain('own-smoke');
});

test('once it is proven it is a gene like any other', async () => {
  const entry = await created('/catalogue/entries', SMOKE);
  const sire = await founder('M', 'male', 'Smoke');
  const dam = await founder('F', 'female', 'Normal');
  const id = await young('Y-1', dam, sire, 'Normal');
  const proven = { kind: 'locus', name: 'Smoke', expression: 'recessive' };
  const answer = await owner.put(`/catalogue/entries/${entry}`, proven, { 'If-Match': '"1"' });
  expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  expect(await unproven()).toEqual([]);
  expect((await read<AnimalView>(`/animals/${id}`)).label).toContain('100% het Smoke');
});
