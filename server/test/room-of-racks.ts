import type { Page, TodayView } from '@karyotome/contract';
import { ago } from './days.ts';
import { fieldsOf, maker, startTestApp, type TestApp, type TestClient } from './test-app.ts';
import { racksOf } from './wholes.ts';

export const meal = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true };

/** What a keeper of racks does, over the API. */
export function keeperOf(owner: () => TestClient) {
  const { created } = maker(owner, ago);
  const read = async <T>(path: string): Promise<T> => (await owner().get(path)).body as T;
  const record = (id: string, kind: string, on: string, body: object): Promise<string> =>
    created(`/animals/${id}/records`, { kind, on, body });
  /** A young male, weighed three weeks ago. */
  const animal = async (number: string, tubId: string | null, massG = 200): Promise<string> => {
    const young = { number, sex: 'male', genes: 'pastel', hatchedOn: ago(300) };
    const id = await created('/animals', { ...young, ...(tubId ? { tubId } : {}) });
    await record(id, 'weight', ago(20), { massG });
    return id;
  };
  const today = () => read<TodayView>('/today');
  const version = async (): Promise<string> =>
    `"${(await read<{ collection: { version: number } }>('/session')).collection.version}"`;
  return { created, read, record, animal, today, version };
}

/** Names of the fields that were refused. */
export const refusedFields = (response: Awaited<ReturnType<TestClient['get']>>): string[] =>
  fieldsOf(response).map((problem) => problem.split(':')[0]!);

/** A collection with a small and a large rack of six tubs each. @returns the tubs too, the small rack's first */
export async function startWithRacks(): Promise<{ app: TestApp; tubs: string[] }> {
  const app = await startTestApp();
  const { created, read } = keeperOf(() => app.owner);
  const ladders = (await read<Page<{ id: string; name: string }>>('/ladders?limit=200')).items;
  const ladderId = ladders.find(({ name }) => name === 'Four-step rack')!.id;
  for (const [stepPosition, name] of ['Small', 'Large'].entries())
    await created('/racks', { room: 'R', name, levels: 2, tubsPerLevel: 3, ladderId, stepPosition });
  const racks = await racksOf((path) => app.owner.get(path));
  return { app, tubs: racks.flatMap((rack) => rack.tubs.map(({ id }) => id)) };
}
