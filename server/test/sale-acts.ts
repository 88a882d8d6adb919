import type { AnimalSummary, Page, SaleLine, StatusEventView } from '@karyotome/contract';
import { expect } from 'vitest';
import { ago } from './days.ts';
import { createdBy, type TestClient } from './test-app.ts';

/** What a seller does and reads, over the API. */
export function sellerOf(owner: () => TestClient) {
  const created = createdBy(owner);
  let count = 0;
  const young = async (): Promise<string> =>
    (await created('/animals', { number: `H-${++count}`, sex: 'female', hatchedOn: ago(120) })).id;
  const happens = (animalIds: string[], kind: string, on: string, details?: object) =>
    owner().post('/status-events', { animalIds, kind, on, ...(details ? { details } : {}) });
  const eventOf = async (id: string, kind: string, on: string, details?: object): Promise<string> => {
    const answer = await happens([id], kind, on, details);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    return (answer.body as { ids: [string] }).ids[0];
  };
  const statusOf = async (id: string): Promise<string> =>
    ((await owner().get(`/animals/${id}`)).body as AnimalSummary).status;
  const history = async (id: string): Promise<StatusEventView[]> =>
    ((await owner().get(`/animals/${id}/status-events`)).body as Page<StatusEventView>).items;
  const sales = async (query = ''): Promise<SaleLine[]> =>
    ((await owner().get(`/sales?limit=200${query}`)).body as Page<SaleLine>).items;
  const lineOf = async (id: string): Promise<SaleLine> => (await sales()).find((line) => line.id === id)!;
  return { created, young, happens, eventOf, statusOf, history, sales, lineOf };
}
