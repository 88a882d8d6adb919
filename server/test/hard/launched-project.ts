import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { AnimalSummary, Page } from '@karyotome/contract';
import { afterAll, afterEach } from 'vitest';
import type { Asker } from '../hostile/farm.ts';
import { copyProject, Launched } from './project-copy.ts';

/** A copy of the project for the tests of a file, made when one asks for it; what a test starts is stopped after it. */
export class ProjectCopy {
  private copy: string | null = null;
  private running: Launched | null = null;

  constructor() {
    afterEach(() => this.stop());
    afterAll(() => {
      if (this.copy !== null) rmSync(this.copy, { recursive: true, force: true });
    });
  }

  get folder(): string {
    this.copy ??= copyProject(tmpdir());
    return this.copy;
  }

  /** Starts it, not waiting until it answers. @param where - another copy, where it is not this one */
  async begun(where = this.folder): Promise<Launched> {
    this.running = await Launched.start(where);
    return this.running;
  }

  async started(where = this.folder): Promise<Launched> {
    const launched = await this.begun(where);
    await launched.ready(120);
    return launched;
  }

  /** Stops what was started last. */
  async stop(): Promise<void> {
    await this.running?.stop();
    this.running = null;
  }
}

export const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
export const add = async (ask: Asker, number: string): Promise<number> =>
  (await ask('POST', '/animals', { number, sex: 'male' })).status;
export const numbersOf = async (ask: Asker): Promise<string[]> =>
  ((await ask('GET', '/animals?limit=200')).body as Page<AnimalSummary>).items.map(({ number }) => number);
