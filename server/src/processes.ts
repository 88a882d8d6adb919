import cluster, { type Worker } from 'node:cluster';
import { announce } from './announce.ts';
import type { Config } from './config.ts';

/*
 * Several processes behind one port of this machine. The first one serves nobody: it starts the others, starts one anew that
 * ended without being told to, and passes on that all should end.
 */

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 10_000;
/** One that has served so long ended by an accident, not by what it begins with. */
const STEADY_MS = 60_000;

/** @param code - of the first start; null where there is an owner */
export function runProcesses(
  config: Pick<Config, 'processes' | 'hasLauncher' | 'host'>,
  onFault: (error: unknown) => void,
  code: string | null,
): void {
  const { processes: count, hasLauncher } = config;
  // Each takes connections itself: handed over by this process, those on their way to one that is killed would never end.
  cluster.schedulingPolicy = cluster.SCHED_NONE;
  let isStopping = false;
  let exitCode = 0;
  let pause = FIRST_PAUSE_MS;
  const listening = new Set<number>();
  const start = (): void => {
    const begun = Date.now();
    const worker = cluster.fork();
    // First of all to requests; what else it listens to is its own.
    worker.once('listening', ({ port }) => {
      listening.add(worker.id);
      // Said once: the launcher waits for it.
      if (listening.size === count) announce(config, port, code);
    });
    worker.on('exit', (code, signal) => {
      if (isStopping) {
        // One that had only begun is ended by the signal itself.
        if (code !== 0 && signal !== 'SIGTERM') exitCode = 1;
        return endWhenAlone(exitCode);
      }
      onFault(new Error(`A serving process ended (${code}, ${signal}); another one takes its place.`));
      pause = Date.now() - begun > STEADY_MS ? FIRST_PAUSE_MS : Math.min(2 * pause, LONGEST_PAUSE_MS);
      setTimeout(() => !isStopping && start(), pause);
    });
  };
  const stop = (): void => {
    isStopping = true;
    for (const worker of workers()) worker.process.kill('SIGTERM');
    endWhenAlone(exitCode);
  };
  for (let i = 0; i < count; i++) start();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
  // Started by a launcher, the server ends with it, even when the launcher was killed.
  if (hasLauncher) process.stdin.on('end', stop).resume();
}

/** Places of workers that ended stay, empty. */
const workers = (): Worker[] =>
  Object.values<Worker | undefined>(cluster.workers ?? {}).filter((worker) => worker !== undefined);

function endWhenAlone(exitCode: number): void {
  if (workers().length === 0) process.exit(exitCode);
}
