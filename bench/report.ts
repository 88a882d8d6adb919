/** Timings of one question, in milliseconds. */
export interface Timing {
  readonly median: number;
  readonly p95: number;
}

export function summarise(samples: readonly number[]): Timing {
  const sorted = samples.toSorted((a, b) => a - b);
  const at = (share: number): number =>
    sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return { median: at(0.5), p95: at(0.95) };
}

/** Runs an act some times after a warm-up, and summarises. */
export async function time(runs: number, act: () => unknown): Promise<Timing> {
  await act();
  const samples: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await act();
    samples.push(performance.now() - start);
  }
  return summarise(samples);
}

export const ms = (value: number): string => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
