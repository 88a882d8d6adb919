import { performance } from 'node:perf_hooks';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startTestApp, type TestApp, type TestClient } from '../test-app.ts';

/* What a request costs grows with its size, whatever it is made of: ratios in one run, no clock's own measure. */

let app: TestApp;
let owner: TestClient;
beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
});
afterAll(() => app.close());

/** What a task takes, in units of another of the same kind: no clock decides, only how one grows against the other. */
async function ratio(small: () => Promise<unknown>, large: () => Promise<unknown>): Promise<number> {
  const time = async (run: () => Promise<unknown>): Promise<number> => {
    const began = performance.now();
    await run();
    return performance.now() - began;
  };
  await small();
  const times: number[] = [];
  for (let i = 0; i < 3; i++) times.push((await time(large)) / Math.max(1, await time(small)));
  return Math.min(...times);
}

describe('time grows with the size', () => {
  // Ten times as much takes about ten times as long; what grew with the square took a hundred times.
  const LINEAR = 40;

  test('unknown keys, eggs and entries', async () => {
    const keys = (n: number) => Object.fromEntries(Array.from({ length: n }, (_, i) => [`key${i}`, 1]));
    expect(
      await ratio(
        () => owner.post('/animals', keys(90)),
        () => owner.post('/animals', keys(900)),
      ),
    ).toBeLessThan(LINEAR);
    const { id } = (await owner.post('/animals', { number: 'L-1', sex: 'male' })).body as { id: string };
    const eggs = (n: number) => owner.put(`/clutches/${id}/eggs`, { eggs: Array(n).fill({}) });
    expect(
      await ratio(
        () => eggs(95),
        () => eggs(950),
      ),
    ).toBeLessThan(LINEAR);
    const entries = (n: number) =>
      owner.post('/rounds/entries', { entries: Array.from({ length: n }, () => ({})) });
    expect(
      await ratio(
        () => entries(20),
        () => entries(200),
      ),
    ).toBeLessThan(LINEAR);
  });

  test('cells of a file, whatever stands in them', async () => {
    const file = (n: number) => {
      const rows = Array.from(
        { length: n },
        (_, i) => `x${i},male,${'q'.repeat(120)}${i},${'1'.repeat(1500)}${' '.repeat(400)}g`,
      );
      return Buffer.from(`number,sex,genes,weight\n${rows.join('\n')}\n`);
    };
    const preview = (n: number) => owner.upload('/imports/preview', 'text/csv', file(n));
    expect((await preview(3)).status).toBe(200);
    expect(
      await ratio(
        () => preview(60),
        () => preview(600),
      ),
    ).toBeLessThan(LINEAR);
  });
});
