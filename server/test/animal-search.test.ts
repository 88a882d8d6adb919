import { randomUUID } from 'node:crypto';
import type { AnimalSummary, Page } from '@karyotome/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { breederOf } from './breeder.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* What the list of animals can be asked for: words, states, and an order. */

let app: TestApp;
const ids = new Map<string, string>();

beforeAll(async () => {
  app = await startTestApp();
  const { animal, created } = breederOf(() => app.owner);
  for (const [number, sex, genes, massG] of [
    ['F-1', 'female', 'Pastel het Clown', 1800],
    ['F-2', 'female', 'Clown', 1500],
    ['M-1', 'male', 'Pastel Clown', 700],
  ] as const)
    ids.set(number, await animal(number, sex, genes, massG));
  const sold = await created('/animals', { number: 'F-3', sex: 'female', genes: 'Pastel', status: 'sold' });
  ids.set('F-3', sold.id);
});
afterAll(() => app.close());

const page = async (query: Record<string, string>): Promise<Page<AnimalSummary>> =>
  (await app.owner.get(`/animals?${new URLSearchParams(query)}`)).body as Page<AnimalSummary>;
const numbers = async (query: Record<string, string>): Promise<string[]> =>
  (await page(query)).items.map(({ number }) => number);

test('each word is found somewhere, in whatever order and letters', async () => {
  expect(await numbers({ search: 'clown pastel' })).toEqual(['F-1', 'M-1']);
  expect(await numbers({ search: 'PASTEL  f-' })).toEqual(['F-1', 'F-3']);
  expect(await numbers({ search: 'het' })).toEqual(['F-1']);
  expect(await numbers({ search: 'mojave' })).toEqual([]);
  // A pattern of SQL is only text.
  expect(await numbers({ search: 'F-_' })).toEqual([]);
});

test('several are asked for by their ids, as many as a page usually has', async () => {
  expect(await numbers({ id: `${ids.get('F-2')},${ids.get('F-3')}` })).toEqual(['F-2', 'F-3']);
  const most = [...ids.values(), ...Array.from({ length: 50 - ids.size }, () => randomUUID())];
  expect(await numbers({ id: most.join(',') })).toHaveLength(4);
  const refused = await app.owner.get(`/animals?id=${[...most, randomUUID(), 'x'].join(',')}`);
  expect(refused.body).toMatchObject({ status: 422, errors: [{ field: 'id' }] });
});

test('filters go together, and a page says how many there are', async () => {
  expect(await numbers({ search: 'pastel', sex: 'male' })).toEqual(['M-1']);
  expect(await numbers({ id: ids.get('F-2')! })).toEqual(['F-2']);
  expect(await page({ search: 'clown', limit: '1' })).toMatchObject({
    items: [{ number: 'F-1' }],
    total: 3,
  });
  const { next } = await page({ search: 'clown', limit: '1' });
  expect(await numbers({ search: 'clown', limit: '2', after: next! })).toEqual(['F-2', 'M-1']);
});

test('several states are asked for at once', async () => {
  expect(await numbers({ status: 'breeder' })).toEqual(['F-1', 'F-2', 'M-1']);
  expect(await numbers({ status: 'sold,breeder', sex: 'female' })).toEqual(['F-1', 'F-2', 'F-3']);
  expect(await numbers({ status: 'nothing' })).toEqual([]);
});

test('every order goes both ways, and what has no value comes last', async () => {
  expect(await numbers({ sort: '-massG' })).toEqual(['F-1', 'F-2', 'M-1', 'F-3']);
  expect(await numbers({ sort: 'massG' })).toEqual(['M-1', 'F-2', 'F-1', 'F-3']);
  const labels = (await page({ sort: 'label' })).items.map(({ label }) => label);
  expect(labels).toEqual(labels.toSorted());
  expect((await page({ sort: '-label' })).items.map(({ label }) => label)).toEqual(labels.toReversed());
  expect(await numbers({ sort: 'sex' })).toEqual(['F-1', 'F-2', 'F-3', 'M-1']);
});
