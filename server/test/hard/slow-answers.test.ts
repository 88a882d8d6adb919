import type { Page } from '@karyotome/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest';
import { startServer, type RunningServer } from '../../../e2e/server.ts';
import { addDays } from '@karyotome/core';
import { machineToday } from '../../src/db/work.ts';
import { anIncubator, type Asker } from '../hostile/farm.ts';
import { raw, signIn } from '../hostile/raw-request.ts';
import { watchHealth } from '../hostile/watch-health.ts';

/* Slow answers block nobody: while each of these is made, /health is answered within its bar, and so is a small read. */

const BAR_MS = 200;
const TODAY = machineToday();

let server: RunningServer;
let ask: Asker;
let headers: Record<string, string>;
beforeAll(async () => {
  process.env['E2E_SERVER_URL'] = inject('serverUrl');
  process.env['E2E_TEMPLATE'] = inject('template');
  server = await startServer('empty', { SIGN_IN_ATTEMPTS: '1000' });
  ({ ask, headers } = await signIn(server.origin, server.email, server.password));
});
afterAll(() => server.stop());

/** The slowest answer of /health while something is made, in milliseconds. */
async function slowestHealth(make: () => Promise<unknown>): Promise<number> {
  const stopWatching = watchHealth(server.origin);
  try {
    await make();
  } catch (error) {
    await stopWatching();
    throw error;
  }
  const { slowestMs, failures } = await stopWatching();
  expect(failures).toEqual([]);
  return slowestMs;
}

const csv = (header: string, count: number, row: (i: number) => string): Buffer =>
  Buffer.from(`${header}\n${Array.from({ length: count }, (_, i) => row(i)).join('\n')}\n`);
const asCsv = { 'Content-Type': 'text/csv' };
const ok = async (answer: Promise<{ status: number; body: unknown }>): Promise<void> => {
  const { status, body } = await answer;
  expect(status, JSON.stringify(body).slice(0, 300)).toBeLessThan(300);
};

describe('while it is made, nobody waits', () => {
  test('an import of 1,500 animals', async () => {
    const file = csv(
      'number,sex,genes,weight',
      1_500,
      (i) => `S${i},${i % 2 ? 'male' : 'female'},Pastel het Clown,${900 + (i % 700)}`,
    );
    expect(await slowestHealth(() => ok(ask('POST', '/imports', file, asCsv)))).toBeLessThan(BAR_MS);
  });

  test('a preview of 5,000 rows of long unknown words', async () => {
    const file = csv(
      'number,sex,genes',
      5_000,
      (i) => `U${i},male,${`unheardof${i}`.repeat(12)} ${`wordless${i}`.repeat(8)}`,
    );
    expect(await slowestHealth(() => ok(ask('POST', '/imports/preview', file, asCsv)))).toBeLessThan(BAR_MS);
  });

  test('a preview of 3.9 MB of genes', async () => {
    const genes = 'Pastel het Clown 66% het Pied Enchi Banana Spider '.repeat(5).slice(0, 290);
    const file = csv(
      'number,sex,genes,note',
      5_000,
      (i) => `G${i},male,${genes},${'n'.repeat(480)}`,
    ).subarray(0, 3_900_000);
    expect(await slowestHealth(() => ok(ask('POST', '/imports/preview', file, asCsv)))).toBeLessThan(BAR_MS);
  });

  test('a preview of 5,000 generations', async () => {
    const file = csv(
      'number,sex,dam,sire',
      4_999,
      (i) =>
        `K${i},${i % 2 ? 'male' : 'female'},${i % 2 ? `K${i - 1}` : ''},${i > 0 && i % 2 === 0 ? `K${i - 1}` : ''}`,
    );
    expect(await slowestHealth(() => ok(ask('POST', '/imports/preview', file, asCsv)))).toBeLessThan(BAR_MS);
  });

  test('100,000 readings', async () => {
    const { id } = (await ask('POST', '/incubators', anIncubator('Box'))).body as { id: string };
    const from = Date.parse(`${addDays(TODAY, -80)}T00:00:00Z`);
    const file = csv(
      'time,temperature',
      100_000,
      (i) => `${new Date(from + i * 60_000).toISOString()},31.${i % 10}`,
    );
    expect(
      await slowestHealth(() => ok(ask('POST', `/incubators/${id}/readings/import`, file, asCsv))),
    ).toBeLessThan(BAR_MS);
  });

  test('labels for 120 animals, on the screen and on paper', async () => {
    const animals = ((await ask('GET', '/animals?limit=200')).body as Page<{ id: string }>).items;
    const order = { animalIds: animals.slice(0, 120).map(({ id }) => id), kind: 'full', size: 'a4-3x8' };
    expect(
      await slowestHealth(async () => {
        await ok(ask('POST', '/labels/preview', order));
        await ok(ask('POST', '/labels', order));
      }),
    ).toBeLessThan(BAR_MS);
  });

  test('thirty planners at once', async () => {
    await ok(ask('GET', '/planner'));
    // Not read as JSON: sixty megabytes of it would hold up the thread that measures.
    const planner = async (): Promise<void> => {
      const { status } = await raw(server.origin, 'GET', '/api/v1/planner', headers, null);
      expect(status).toBe(200);
    };
    expect(await slowestHealth(() => Promise.all(Array.from({ length: 30 }, planner)))).toBeLessThan(
      2 * BAR_MS,
    );
  });

  test('ten photographs at once: reads are answered meanwhile', async () => {
    const [animal] = ((await ask('GET', '/animals?limit=200')).body as Page<{ id: string }>).items;
    const sharp = (await import('sharp')).default;
    const noise = Buffer.from(Array.from({ length: 2_400 * 1_800 * 3 }, (_, i) => (i * 7919) % 253));
    const jpeg = await sharp(noise, { raw: { width: 2_400, height: 1_800, channels: 3 } })
      .jpeg()
      .toBuffer();
    const slowest = await slowestHealth(async () => {
      const uploads = Array.from({ length: 10 }, () =>
        ok(
          ask('POST', `/animals/${animal!.id}/pictures`, jpeg, {
            'Content-Type': 'image/jpeg',
            'Idempotency-Key': randomUUID(),
          }),
        ),
      );
      await ok(ask('GET', '/ladders'));
      await Promise.all(uploads);
    });
    expect(slowest).toBeLessThan(BAR_MS);
  });
});
