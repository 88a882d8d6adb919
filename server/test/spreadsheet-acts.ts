import type { AnimalSummary, AnimalView, ImportPlan, ImportView, Page } from '@karyotome/contract';
import { expect } from 'vitest';
import type { TestApp, TestClient } from './test-app.ts';

/** Brings in spreadsheets over the API. @param app - read when it is needed, like the owner */
export function spreadsheetActs(app: () => TestApp, owner: () => TestClient) {
  const upload = (file: string | Buffer) =>
    owner().upload('/imports?name=my%20snakes.csv', 'text/csv', Buffer.from(file as string));
  async function brought(file: string | Buffer): Promise<ImportView> {
    const answer = await upload(file);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    return look((answer.body as { id: string }).id);
  }
  const look = async (id: string): Promise<ImportView> =>
    (await owner().get(`/imports/${id}`)).body as ImportView;
  async function planned(view: ImportView, change: Partial<ImportPlan>): Promise<ImportView> {
    const answer = await owner().put(`/imports/${view.id}/plan`, { ...view.plan, ...change });
    expect(answer.status, JSON.stringify(answer.body)).toBe(200);
    return answer.body as ImportView;
  }
  const run = (view: ImportView, body: object = {}) => owner().post(`/imports/${view.id}/run`, body);
  const undo = (view: ImportView) => owner().post(`/imports/${view.id}/undo`);
  const animals = async (): Promise<AnimalSummary[]> =>
    ((await owner().get('/animals?limit=200&sort=number')).body as Page<AnimalSummary>).items;
  const animal = async (number: string): Promise<AnimalView> => {
    const { id } = (await animals()).find((one) => one.number === number)!;
    return (await owner().get(`/animals/${id}`)).body as AnimalView;
  };
  const problemsOf = ({ problems }: ImportView): string[] =>
    problems.map(({ line, field, message }) => `${line} ${field} ${message}`);
  /** Every row of the collection's own, as text: nothing may differ after a file was taken back. */
  async function everything(): Promise<unknown> {
    const { collection } = (await owner().get('/session')).body as { collection: { id: string } };
    const tables = [
      'animals',
      'records',
      'used_numbers',
      'clutches',
      'eggs',
      'pairings',
      'pairing_sires',
      'pairing_events',
    ];
    const rows = [];
    for (const table of tables) {
      const [found] = await app().database.sequelize.query(
        `select (to_jsonb(t) - 'records_revision' - 'version')::text as row from ${table} t
        where collection_id = '${collection.id}' order by 1`,
      );
      rows.push([table, found]);
    }
    return rows;
  }
  return { upload, brought, look, planned, run, undo, animals, animal, problemsOf, everything };
}
