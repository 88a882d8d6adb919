import { Worker } from 'node:worker_threads';

export interface HealthWatch {
  readonly slowestMs: number;
  readonly failures: readonly string[];
  /** Slow answers: when each was asked for, milliseconds since 1970, and how long it took. */
  readonly slow: readonly { readonly at: number; readonly ms: number }[];
}

/** Begins to ask /health. @returns what ends it and tells how it went */
export function watchHealth(origin: string): () => Promise<HealthWatch> {
  const worker = new Worker(new URL('watch-health.mjs', import.meta.url), {
    workerData: { url: `${origin}/api/v1/health` },
  });
  const told = new Promise<HealthWatch>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
  });
  return () => {
    worker.postMessage('stop');
    return told;
  };
}
