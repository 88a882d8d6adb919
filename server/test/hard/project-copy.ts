import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { postmasterOf } from '../../../scripts/postgres.mjs';
import { ROOT } from '../../../scripts/root.mjs';
import { codeIn, FIRST_OWNER, makeOwner } from '../first-owner.ts';
import { raw, signIn } from '../hostile/raw-request.ts';
import type { Asker } from '../hostile/farm.ts';

/** The whole project in another folder, with its packages and as it was built; without anybody's data. */
export function copyProject(parent: string): string {
  mkdirSync(parent, { recursive: true });
  const folder = mkdtempSync(join(parent, 'karyotome-copy-'));
  const listed = spawnSync('git', ['ls-files', '-co', '--exclude-standard', '-z'], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  for (const file of listed.stdout
    .split('\0')
    .filter((name) => name !== '' && existsSync(join(ROOT, name)))) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    cpSync(join(ROOT, file), join(folder, file));
  }
  for (const built of ['server/dist', 'web/dist'])
    cpSync(join(ROOT, built), join(folder, built), { recursive: true });
  // Hard links where both lie on one disk: packages are only read.
  const linked = spawnSync('cp', ['-al', join(ROOT, 'node_modules'), join(folder, 'node_modules')]);
  if (linked.status !== 0) {
    rmSync(join(folder, 'node_modules'), { recursive: true, force: true });
    spawnSync('cp', ['-a', join(ROOT, 'node_modules'), join(folder, 'node_modules')]);
  }
  return folder;
}

/** Below those that the system gives away by itself: a server that starts beside this one cannot be given it meanwhile. */
const PORTS = { from: 20_000, count: 10_000 } as const;

async function freePort(): Promise<number> {
  for (;;) {
    const port = PORTS.from + randomInt(PORTS.count);
    const probe = createServer();
    const isFree = await new Promise<boolean>((resolve) => {
      probe.once('error', () => resolve(false));
      probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
    });
    if (isFree) return port;
  }
}

export class Launched {
  readonly folder: string;
  readonly origin: string;
  readonly process: ChildProcess;
  output = '';

  private constructor(folder: string, port: number) {
    this.folder = folder;
    this.origin = `http://127.0.0.1:${port}`;
    this.process = spawn(process.execPath, ['scripts/launch.mjs', 'start'], {
      cwd: folder,
      env: { ...process.env, PORT: String(port), DATABASE_URL: '' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [this.process.stdout!, this.process.stderr!])
      stream.on('data', (part: Buffer) => (this.output += String(part)));
  }

  /** Starts a copy as npm start does. */
  static async start(folder: string): Promise<Launched> {
    return new Launched(folder, await freePort());
  }

  get dataDir(): string {
    return join(this.folder, '.data', 'main');
  }

  get databasePid(): number | null {
    return postmasterOf(join(this.dataDir, 'pg'));
  }

  get serverPid(): number | null {
    const found = spawnSync('pgrep', ['-f', join(this.folder, 'server/dist/main.js')], { encoding: 'utf8' });
    return Number(found.stdout.trim().split('\n')[0]) || null;
  }

  /** @returns the exit code, or null where it was ended by a signal */
  ended(): Promise<number | null> {
    if (this.process.exitCode !== null) return Promise.resolve(this.process.exitCode);
    return new Promise((resolve) => this.process.once('exit', (code) => resolve(code)));
  }

  async status(): Promise<number> {
    try {
      return (await raw(this.origin, 'GET', '/api/v1/health', {}, null)).status;
    } catch {
      return 0;
    }
  }

  /** Waits until it answers. @returns the seconds it took */
  async ready(seconds = 60): Promise<number> {
    const began = Date.now();
    while ((await this.status()) !== 200) {
      if (this.process.exitCode !== null)
        throw new Error(`It ended with ${this.process.exitCode}: ${this.output}`);
      if (Date.now() - began > seconds * 1000) throw new Error(`It does not answer: ${this.output}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return (Date.now() - began) / 1000;
  }

  async owner(): Promise<Asker> {
    const { email, password } = FIRST_OWNER;
    try {
      const { isOpen } = (await (await fetch(`${this.origin}/api/v1/first-start`)).json()) as {
        isOpen: boolean;
      };
      // Its code is written a moment after the server answers.
      for (let i = 0; isOpen && i < 100 && codeIn(this.output) === null; i++)
        await new Promise((resolve) => setTimeout(resolve, 100));
      if (isOpen) await makeOwner(this.origin, this.output);
      const { ask } = await signIn(this.origin, email, password);
      return ask;
    } catch (error) {
      throw new Error(`What was started said: ${this.output}`, { cause: error });
    }
  }

  async stop(): Promise<number | null> {
    const ended = this.ended();
    this.process.kill('SIGTERM');
    return ended;
  }
}

export const exists = (pid: number): boolean => existsSync(`/proc/${pid}`);
