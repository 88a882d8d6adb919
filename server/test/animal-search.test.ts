import { randomUUID } from 'node:crypto';
import type { AnimalFilterView, AnimalListView, AnimalSummary, Page } from '@karyotome/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { backgroundEnded } from '../src/background.ts';
import { breederOf } from './breeder.ts';
import { ago } from './days.ts';
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

test('a search can ask what is asked of animals: words, masses, breeding and health', async () => {
  const numbersOf = (search: string): Promise<string[]> => numbers({ search });
  expect(await numbersOf('female, clown or het clown')).toEqual(['F-1', 'F-2']);
  expect(await numbersOf('het clown or pastel, over 1600 g')).toEqual(['F-1']);
  expect(await numbersOf('het clown, female')).toEqual(['F-1']);
  expect(await numbersOf('male or sold')).toEqual(['F-3', 'M-1']);
  expect(await numbersOf('not pastel')).toEqual(['F-2']);
  expect(await numbersOf('never weighed')).toEqual(['F-3']);
  // Together with what else is asked for, and in an order.
  expect(await numbers({ search: 'female', status: 'breeder', sort: 'massG' })).toEqual(['F-2', 'F-1']);
  const dam = ids.get('F-2');
  await app.owner.post('/season/introductions', { damId: dam, sireId: ids.get('M-1'), on: ago(3) });
  expect(await numbersOf('female, not bred this season')).toEqual(['F-1', 'F-3']);
  expect(await numbersOf('male, bred this season')).toEqual(['M-1']);
  const seen = { kind: 'health-check', on: ago(1), body: { signs: ['wound'] } };
  await app.owner.post(`/animals/${dam}/records`, seen);
  // What was computed and what was just recorded count alike.
  expect(await numbersOf('with signs')).toEqual(['F-2']);
  await app.owner.get('/today');
  await backgroundEnded();
  expect(await numbersOf('with signs')).toEqual(['F-2']);
});

test('how a search is read is told, with what of it was not understood', async () => {
  const read = async (text: string): Promise<AnimalFilterView> =>
    (await app.owner.get(`/animal-filter?${new URLSearchParams({ text })}`)).body as AnimalFilterView;
  expect(await read('female, over 1200 g')).toMatchObject({
    isFilter: true,
    clauses: [[{ code: 'sex' }], [{ code: 'mass', facts: { fromG: 1200 } }]],
  });
  expect(await read('female, as large as a boa')).toMatchObject({
    isFilter: false,
    unread: ['as large as a boa'],
  });
  expect(await read('')).toEqual({ isFilter: false, clauses: [], unread: [] });
});

test('a list is kept under a name, once, changed as it was read, and removed', async () => {
  const words = 'female, het clown';
  const add = (name: string) => app.owner.post('/animal-lists', { name, words });
  const { id } = (await add('Het females')).body as { id: string };
  expect((await add('Het females')).body).toMatchObject({ errors: [{ field: 'name', code: 'taken' }] });
  const answers = await Promise.all([add('Twice'), add('Twice')]);
  expect(answers.map(({ status }) => status).toSorted()).toEqual([201, 409]);
  const lists = async (): Promise<AnimalListView[]> =>
    ((await app.owner.get('/animal-lists')).body as Page<AnimalListView>).items;
  expect(await lists()).toMatchObject([{ id, name: 'Het females', words, version: 1 }, { name: 'Twice' }]);
  const change = (version: number) =>
    app.owner.put(
      `/animal-lists/${id}`,
      { name: 'Het females', words: 'female' },
      { 'If-Match': `"${version}"` },
    );
  expect((await change(1)).status).toBe(200);
  expect((await change(1)).status).toBe(412);
  const remove = (version: number) => app.owner.delete(`/animal-lists/${id}`, { 'If-Match': `"${version}"` });
  expect((await remove(1)).status).toBe(412);
  expect((await remove(2)).status).toBe(204);
  expect((await remove(2)).status).toBe(404);
  expect(await lists()).toMatchObject([{ name: 'Twice' }]);
});
