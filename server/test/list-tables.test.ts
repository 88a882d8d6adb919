import type { Page } from '@karyotome/contract';
import Papa from 'papaparse';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { flat } from '../src/http/list-table.ts';
import { startTestApp, type TestApp } from './test-app.ts';

/* Any list as CSV, as it is filtered and sorted. */

let app: TestApp;
beforeAll(async () => {
  app = await startTestApp();
  for (let i = 0; i < 205; i++) {
    const sex = i % 2 === 0 ? 'female' : 'male';
    const made = await app.owner.post('/animals', { number: `T-${String(i).padStart(3, '0')}`, sex });
    expect(made.status).toBe(201);
  }
});
afterAll(() => app.close());

async function tableAt(path: string): Promise<{ name: string; rows: Record<string, string>[] }> {
  const { status, text, headers } = await app.owner.get(path);
  expect(status, text).toBe(200);
  expect((headers as Record<string, string>)['content-type']).toContain('text/csv');
  return {
    name: (headers as Record<string, string>)['content-disposition']!,
    rows: Papa.parse<Record<string, string>>(text.trim(), { header: true }).data,
  };
}

test('all of a list, however many pages it has, as it is filtered and sorted', async () => {
  const { name, rows } = await tableAt('/animals?format=csv&sort=-number');
  expect(name).toContain('animals.csv');
  expect(rows).toHaveLength(205);
  expect(rows[0]!['number']).toBe('T-204');
  const one = await tableAt('/animals?format=csv&search=T-01');
  expect(one.rows.map((row) => row['number'])).toEqual(Array.from({ length: 10 }, (_, i) => `T-01${i}`));
});

test('it holds what the pages hold', async () => {
  const page = (await app.owner.get('/ladders?limit=200')).body as Page<{ name: string; version: number }>;
  const { rows } = await tableAt('/ladders?format=csv');
  expect(rows.map((row) => [row['name'], row['version']])).toEqual(
    page.items.map(({ name, version }) => [name, String(version)]),
  );
});

test('what a spreadsheet would take for a formula is text', async () => {
  await app.owner.post('/animals', { number: '=1+1', sex: 'male' });
  const { rows } = await tableAt('/animals?format=csv&search=%3D1');
  expect(rows.map((row) => row['number'])).toEqual(["'=1+1"]);
});

test('who may not read a list gets no table of it, and other formats are refused', async () => {
  const helper = await app.newCollection('Helped', 'helper');
  expect((await helper.get('/members?format=csv')).status).toBe(403);
  expect((await app.owner.get('/animals?format=xml')).status).toBe(422);
  expect((await app.anonymous.get('/animals?format=csv')).status).toBe(401);
});

test('what lies within an item stands under dotted names', () => {
  const item = {
    tub: { rack: 'A', place: { level: 1 } },
    genes: ['Clown', 'Pied'],
    of: [{ id: 1 }],
    none: null,
  };
  expect(flat(item)).toEqual({
    'tub.rack': 'A',
    'tub.place.level': 1,
    genes: 'Clown; Pied',
    of: '[{"id":1}]',
    none: null,
  });
});
