import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { add, numbersOf, wait, ProjectCopy } from './launched-project.ts';
import { copyProject } from './project-copy.ts';

const project = new ProjectCopy();

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
      const launched = await project.started(copy);
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
      const again = await project.started(copy);
      ask = await again.owner();
      expect(await numbersOf(ask)).toContain('before');
      rmSync(filler);
      await wait(1_000);
      await again.ready();
      expect(await add(ask, 'afterwards')).toBe(201);
      await project.stop();
    } finally {
      await project.stop();
      spawnSync('umount', ['-l', disk]);
      rmSync(copy, { recursive: true, force: true });
    }
  });
});
