import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page, AnimalSummary } from '@karyotome/contract';
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import type { Asker } from '../hostile/farm.ts';
import { copyProject, Launched } from './project-copy.ts';

let folder: string;
let running: Launched | null = null;
beforeAll(() => {
  folder = copyProject(tmpdir());
});
afterEach(async () => {
  await running?.stop();
  running = null;
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function started(where = folder): Promise<Launched> {
  running = await Launched.start(where);
  await running.ready(120);
  return running;
}
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const add = async (ask: Asker, number: string): Promise<number> =>
  (await ask('POST', '/animals', { number, sex: 'male' })).status;
const numbersOf = async (ask: Asker): Promise<string[]> =>
  ((await ask('GET', '/animals?limit=200')).body as Page<AnimalSummary>).items.map(({ number }) => number);

const canMount =
  process.getuid!() === 0 && spawnSync('mount', ['-V']).status === 0 && existsSync('/proc/filesystems');

describe('a full disk', () => {
  test('is said in words, reading goes on, and so does everything once there is space', async () => {
    if (!canMount) return expect(canMount).toBe(false);
    const copy = copyProject(tmpdir());
    const disk = join(copy, '.data');
    mkdirSync(disk);
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=420m', 'tmpfs', disk]);
    if (mounted.status !== 0) return expect(mounted.status).not.toBe(0);
    try {
      const launched = await started(copy);
      let ask = await launched.owner();
      expect(await add(ask, 'before')).toBe(201);
      const filler = join(disk, 'filler');
      spawnSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=64k'], { stdio: 'ignore' });
      // Writes use up what the database holds in reserve within its own files, then they are refused in words.
      let refused = 0;
      for (let i = 0; i < 4_000 && refused === 0; i++) {
        const { status, body } = await ask('POST', '/animals', {
          number: `f${i}`,
          sex: 'male',
          note: 'x'.repeat(2_000),
        });
        if (status !== 201) {
          refused = status;
          expect(JSON.stringify(body)).toMatch(/disk is full|cannot be reached/);
        }
      }
      if (refused !== 0) expect(refused).toBe(503);
      // A start on the full disk: it gives up its reserve, and can be read.
      await launched.stop();
      const again = await started(copy);
      ask = await again.owner();
      expect(await numbersOf(ask)).toContain('before');
      rmSync(filler);
      await wait(1_000);
      await again.ready();
      expect(await add(ask, 'afterwards')).toBe(201);
      await again.stop();
      running = null;
    } finally {
      await running?.stop();
      running = null;
      spawnSync('umount', ['-l', disk]);
      rmSync(copy, { recursive: true, force: true });
    }
  });
});
