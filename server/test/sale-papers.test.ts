import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PersonExport } from '@karyotome/contract';
import Papa from 'papaparse';
import type { Test } from 'supertest';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { version as ifVersion } from './bench-acts.ts';
import { ago, TODAY } from './days.ts';
import { sellerOf } from './sale-acts.ts';
import { binary, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* What a sale leaves on paper, and what is kept of people. */

let app: TestApp;
let owner: TestClient;
let buyer: string;
const { created, young, eventOf, lineOf } = sellerOf(() => owner);

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  buyer = (await created('/persons', { name: 'Ada Fernwood', email: 'ada@example.test' })).id;
});
afterAll(() => app.close());

const paper = async (path: string): Promise<string> =>
  textOf((await (owner.get(path) as Test).buffer(true).parse(binary)).body as Buffer);
const textOf = (pdf: Buffer): string => {
  const folder = mkdtempSync(join(tmpdir(), 'paper-'));
  writeFileSync(join(folder, 'a.pdf'), pdf);
  const text = execFileSync('pdftotext', ['-layout', join(folder, 'a.pdf'), '-'], { encoding: 'utf8' });
  rmSync(folder, { recursive: true });
  return text;
};

describe('papers', () => {
  test('a receipt and a care sheet say what is recorded; a table holds all sales', async () => {
    const id = (
      await created('/animals', {
        number: 'P-1',
        sex: 'female',
        genes: 'Spider',
        massG: 152,
        hatchedOn: ago(90),
      })
    ).id;
    const body = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true };
    await created(`/animals/${id}/records`, { kind: 'feeding', on: ago(6), body });
    const offered = await eventOf(id, 'offered', ago(30));
    expect((await owner.get(`/status-events/${offered}/receipt`)).status).toBe(409);
    const details = { personId: buyer, price: 1250, currency: 'USD', paidOn: TODAY };
    const sold = await eventOf(id, 'sold', TODAY, details);
    const receipt = await paper(`/status-events/${sold}/receipt`);
    for (const words of ['Receipt', 'Ada Fernwood', 'P-1', 'Spider', 'US$1,250', 'not yet'])
      expect(receipt).toContain(words);
    const sheet = await paper(`/animals/${id}/care-sheet`);
    for (const words of [
      'P-1',
      '152 g',
      'rat pup',
      '1 of 1 taken',
      'wobble',
      'Salmonella',
      'CITES',
      'thermostat',
    ])
      expect(sheet).toContain(words);
    const seen = { signs: ['wound'], words: 'a scratch' };
    await created(`/animals/${id}/records`, { kind: 'health-check', on: ago(2), body: seen });
    expect(await paper(`/animals/${id}/care-sheet`)).not.toContain('scratch');
    expect(await paper(`/animals/${id}/care-sheet?health=1`)).toContain('wound; a scratch');
    const table = Papa.parse<Record<string, string>>((await owner.get('/sales.csv')).text, {
      header: true,
      skipEmptyLines: true,
    });
    expect(table.errors).toEqual([]);
    expect(table.data.find(({ number }) => number === 'P-1')).toMatchObject({
      status: 'sold',
      buyer: 'Ada Fernwood',
      price: '1250',
      currency: 'USD',
      paidOn: TODAY,
    });
  });
});

describe('people', () => {
  test('are exported whole, and erased without the history of animals', async () => {
    const id = (await created('/persons', { name: 'Bo Larch', phone: '0123', note: 'Likes Clown' })).id;
    const animalId = await young();
    await owner.post('/status-events', {
      animalIds: [animalId],
      kind: 'reserved',
      on: TODAY,
      note: 'Bo calls on Sunday',
      details: { personId: id },
    });
    const kept = (await owner.get(`/persons/${id}/export`)).body as PersonExport;
    expect(kept).toMatchObject({
      person: { name: 'Bo Larch', phone: '0123' },
      events: [{ kind: 'reserved' }],
    });
    expect((await owner.delete(`/persons/${id}`)).status).toBe(204);
    expect((await owner.delete(`/persons/${id}`)).status).toBe(204);
    expect((await lineOf(animalId)).event).toMatchObject({
      kind: 'reserved',
      note: null,
      person: { id, name: null },
    });
    const { rows } = await everything();
    expect(rows).not.toMatch(/Bo Larch|Likes Clown|Sunday|0123/);
    const again = await owner.put(`/persons/${id}`, { name: 'Bo' }, ifVersion(2));
    expect(again.status).toBe(409);
  });

  test('are nothing for those who only look', async () => {
    const viewer = await app.newCollection('Looking', 'viewer');
    for (const path of ['/persons', '/sales', '/sales.csv'])
      expect((await viewer.get(path)).status, path).toBe(403);
  });
});

/** All that is kept in the tables of sales, as text. */
async function everything(): Promise<{ rows: string }> {
  const [rows] = await app.database.sequelize.query(
    'select (select json_agg(p) from persons p) as persons, (select json_agg(e) from status_events e) as events',
  );
  return { rows: JSON.stringify(rows) };
}
