import { readFileSync } from 'node:fs';
import { inject, expect, test } from 'vitest';
import { openDatabase } from '../../src/db/open.ts';
import { machineToday } from '../../src/db/work.ts';
import { createCollection } from '../../src/domain/collection/create-collection.ts';
import { fuzz } from '../hostile/fuzz.ts';
import { PASSWORD } from '../test-app.ts';
import { startServer } from '../../../e2e/server.ts';

const REQUESTS = Number(process.env['FUZZ_REQUESTS'] ?? 100_000);
/** Told with the outcome: the same seed makes the same requests. */
const SEED = Number(process.env['FUZZ_SEED'] ?? Date.now() % 1_000_000);
/** The bar of docs/architecture.md: whatever goes on, /health answers within this. */
const HEALTH_MS = 200;

const residentKb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]);

test(`${REQUESTS} hostile requests: no 5xx, no page broken, no stall, and memory stays level`, async () => {
  process.env['E2E_SERVER_URL'] = inject('serverUrl');
  process.env['E2E_TEMPLATE'] = inject('template');
  const server = await startServer('empty', { SIGN_IN_ATTEMPTS: '100000' });
  const database = openDatabase(server.databaseUrl, () => undefined);
  let turn = 0;
  const memory: number[] = [];
  try {
    const outcome = await fuzz({
      origin: server.origin,
      email: '',
      password: PASSWORD,
      requests: REQUESTS,
      atOnce: 8,
      seed: SEED,
      today: machineToday(),
      perFarm: 2_500,
      async anew() {
        turn += 1;
        const email = `hostile-${turn}@example.test`;
        await createCollection(database, { email, name: 'Hostile', password: PASSWORD }, 'Hostile');
        return { email, password: PASSWORD };
      },
      onFarmDone: () => memory.push(residentKb(server.pid)),
    });
    console.log(JSON.stringify({ seed: SEED, ...outcome, faults: outcome.faults.length, memory }));
    expect(outcome.faults.slice(0, 20)).toEqual([]);
    expect(outcome.brokenPages.slice(0, 20)).toEqual([]);
    expect(outcome.slowestHealth).toBeLessThan(HEALTH_MS);
    // Level: the second half does not grow by more than a third over what the first half reached.
    const half = Math.floor(memory.length / 2);
    if (half > 2)
      expect(Math.max(...memory.slice(half))).toBeLessThan(1.34 * Math.max(...memory.slice(0, half)));
  } finally {
    await database.sequelize.close();
    await server.stop();
  }
});
