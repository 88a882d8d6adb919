import type { GrowthLine } from '@karyotome/contract';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { ago } from './days.ts';
import { startWithClutch } from './one-clutch.ts';
import { fieldsOf, type TestApp } from './test-app.ts';

/* Weights of several animals, to be laid over one another. */

let app: TestApp;
let clutch: string;
let dam: string;
beforeAll(async () => {
  ({ app, clutch, dam } = await startWithClutch());
});
afterAll(() => app.close());

test('a clutch, its season, or animals that are named; whoever was never weighed has no line', async () => {
  const hatched = await app.owner.post(
    `/clutches/${clutch}/hatchlings`,
    { hatchedOn: ago(1), hatched: 3 },
    { 'If-Match': '"1"' },
  );
  const { ids } = hatched.body as { ids: string[] };
  const weigh = (id: string, on: string, massG: number) =>
    app.owner.post(`/animals/${id}/records`, { kind: 'weight', on, body: { massG } });
  await weigh(ids[0]!, ago(1), 62);
  await weigh(ids[0]!, ago(0), 61);
  await weigh(ids[1]!, ago(0), 70);
  const lines = async (query: string): Promise<string[][]> =>
    ((await app.owner.get(`/growth${query}`)).body as GrowthLine[]).map(({ id, weights }) => [
      id,
      weights.map(({ massG }) => massG).join(),
    ]);
  const young = [
    [ids[0], '62,61'],
    [ids[1], '70'],
  ];
  expect(await lines(`?clutch=${clutch}`)).toEqual(young);
  expect(await lines(`?seasonOf=${clutch}`)).toEqual(young);
  expect(await lines(`?id=${ids[1]},${dam},no-id`)).toEqual([
    [ids[1], '70'],
    [dam, '1900'],
  ]);
  expect(await lines('')).toEqual([]);
  expect(fieldsOf(await app.owner.get('/growth?clutch=x'))[0]).toContain('clutch');
});
