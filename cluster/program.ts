import { spawn, type ChildProcess } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { asServiceUser, type ServiceUser } from '../scripts/service-user.mjs';

/** One that ended without being told to is started again after so long. */
const PAUSE_MS = 500;
/** One that was told to stop has so long. */
const STOP_MS = 50_000;

export interface Command {
  readonly name: string;
  readonly program: string;
  readonly args: readonly string[];
  readonly env?: NodeJS.ProcessEnv;
  /** Where it writes what it says. */
  readonly log: string;
  /** What tells it to stop. */
  readonly stopSignal?: NodeJS.Signals;
}

/** A program of the cluster, run as the service user and started again when it ends by accident. */
export class Program {
  readonly name: string;
  readonly #command: Command;
  readonly #user: ServiceUser;
  #process: ChildProcess | null = null;
  #isWanted = false;

  constructor(user: ServiceUser, command: Command) {
    this.name = command.name;
    this.#user = user;
    this.#command = command;
  }

  start(): void {
    this.#isWanted = true;
    this.#spawn();
  }

  #spawn(): void {
    const { program, args, env = {}, log } = this.#command;
    const [command, given, options] = asServiceUser(this.#user, program, args);
    const output = openSync(log, 'a', 0o600);
    const child = spawn(command, given, {
      ...options,
      // Ctrl-C is for the cluster, which stops its programs in their order.
      detached: true,
      env: { PATH: process.env['PATH'] ?? '', LANG: 'C.UTF-8', ...env },
      stdio: ['ignore', output, output],
    });
    closeSync(output);
    this.#process = child;
    child.once('error', (error) => console.error(`${this.name}: ${error.message}`));
    child.once('exit', () => {
      this.#process = null;
      setTimeout(() => this.#isWanted && !this.#process && this.#spawn(), PAUSE_MS).unref();
    });
  }

  get pid(): number | null {
    return this.#process?.pid ?? null;
  }

  /** Ends it at once; it is started again, unless it is held. */
  async kill({ hold = false } = {}): Promise<void> {
    if (hold) this.#isWanted = false;
    await this.#end('SIGKILL');
  }

  async stop(): Promise<void> {
    this.#isWanted = false;
    const killing = setTimeout(() => this.#process?.kill('SIGKILL'), STOP_MS);
    await this.#end(this.#command.stopSignal ?? 'SIGTERM');
    clearTimeout(killing);
  }

  async #end(signal: NodeJS.Signals): Promise<void> {
    const child = this.#process;
    if (!child) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill(signal);
    await ended;
  }
}

/** Waits until something is so. @throws Error, naming what, where it takes too long */
export async function until(
  what: string,
  isSo: () => Promise<boolean> | boolean,
  { withinMs = 60_000, everyMs = 200 } = {},
): Promise<void> {
  const end = Date.now() + withinMs;
  while (!(await isSo())) {
    if (Date.now() > end) throw new Error(`Not within ${withinMs / 1000} s: ${what}.`);
    await sleep(everyMs);
  }
}
