import type { SearchView } from '@karyotome/contract';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { ago } from './days.ts';
import { peopleActs } from './people-acts.ts';
import { createdBy, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* One search over animals, clutches and people. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
});
afterAll(() => app.close());
beforeEach(async () => {
  owner = await app.newCollection('Reedwater');
});
const { invited, joined } = peopleActs(
  () => app,
  () => owner,
);
const make = maker(() => owner, ago);
const created = createdBy(() => owner);
const found = async (words: string, client: Pick<TestClient, 'get'> = owner): Promise<SearchView> => {
  const { status, body } = await client.get(`/search?q=${encodeURIComponent(words)}`);
  expect(status).toBe(200);
  return body as SearchView;
};

test('animals by number and genes, clutches by name and female, people by name, in any order of words', async () => {
  const damId = await make.animal('D-1', 'female', 'Pastel');
  const sireId = await make.animal('S-1', 'male', 'Clown');
  const pairing = { season: 2026, damId, sires: [{ animalId: sireId, weight: 1 }], startedOn: ago(90) };
  const { id: pairingId } = await created('/pairings', pairing);
  const { id: clutchId } = await created('/clutches', { pairingId, laidOn: ago(20), eggs: 4 });
  const { id: personId } = await created('/persons', { name: 'Ida Reed Marsh' });
  expect((await found('clown s-1')).animals.map(({ id }) => id)).toEqual([sireId]);
  expect((await found('2601')).clutches).toEqual([
    { id: clutchId, name: '2601', laidOn: ago(20), hatchedOn: null, dam: 'D-1' },
  ]);
  expect(await found('d-1')).toMatchObject({ animals: [{ id: damId }], clutches: [{ id: clutchId }] });
  expect((await found('marsh IDA')).persons).toEqual([{ id: personId, name: 'Ida Reed Marsh' }]);
});

test('no more of each kind than fit on a screen; nothing of no words', async () => {
  for (let i = 1; i <= 10; i += 1) await make.animal(`N-${i}`, 'female', 'Pastel');
  expect((await found('pastel')).animals).toHaveLength(8);
  expect(await found('  ')).toEqual({ animals: [], clutches: [], persons: [] });
  const refused = await owner.get(`/search?q=${'x'.repeat(101)}`);
  expect(refused.body).toMatchObject({ status: 422, errors: [{ field: 'q' }] });
});

test('whoever may not sell finds nobody of the address book; no words reach into a query', async () => {
  await created('/persons', { name: 'Ida Reed' });
  const helper = await joined((await invited('helper')).token);
  expect((await found('ida', helper)).persons).toEqual([]);
  expect((await found('ida')).persons).toHaveLength(1);
  for (const words of ["' or 1=1 --", '%', '_', '\\', "');"])
    expect((await found(words)).persons).toEqual([]);
});

test('of another collection nothing is found', async () => {
  await created('/persons', { name: 'Ida Reed' });
  await make.animal('D-1', 'female', 'Pastel');
  const other = await app.newCollection('Elsewhere');
  expect(await found('d-1', other)).toEqual({ animals: [], clutches: [], persons: [] });
  expect(await found('ida', other)).toEqual({ animals: [], clutches: [], persons: [] });
});
