import { Piscina } from 'piscina';
import { Refusal } from '../../refusal.ts';
import { threadOptions } from '../../threads/pool.ts';
import type { Answers, Question } from './engine-questions.ts';

/*
 * The one way to the engine's thread. A single thread holds the engines, so that a collection's next record finds the last
 * one's tables; questions wait their turn there, and the server goes on answering meanwhile.
 */

/** More questions than this are told to come back: they would not be answered in anybody's patience. */
const MOST_WAITING = 60;

let pool: Piscina | null = null;

function thread(): Piscina {
  pool ??= new Piscina({
    ...threadOptions(new URL('./engine.worker', import.meta.url)),
    minThreads: 1,
    maxThreads: 1,
    idleTimeout: Infinity,
  });
  return pool;
}

export const stillWorking = (): Refusal =>
  new Refusal('busy', 'What these records say of genes is still being worked out.', { retryAfter: 15 });

/** @returns null where the thread holds another snapshot than the one that is asked about */
export async function askEngine<Q extends Question>(question: Q): Promise<Answers[Q['ask']] | null> {
  if (thread().queueSize >= MOST_WAITING) throw stillWorking();
  return (await thread().run(question)) as Answers[Q['ask']] | null;
}

interface Line {
  since: number;
  readonly waiting: { readonly start: () => void; readonly drop: (reason: Refusal) => void }[];
}
const lines = new Map<string, Line>();
/** An inference that takes longer than this holds up those that come after it. */
const SLOW_MS = 3_000;

/**
 * Inferences of one collection one after the other. While one takes long, only the newest of those that wait goes on: the
 * records it was asked with hold all that the others' hold.
 */
export async function inLine<T>(collection: string, run: () => Promise<T>): Promise<T> {
  const line = lines.get(collection) ?? { since: 0, waiting: [] };
  if (lines.has(collection)) {
    await new Promise<void>((resolve, reject) => {
      if (performance.now() - line.since > SLOW_MS)
        for (const one of line.waiting.splice(0)) one.drop(stillWorking());
      line.waiting.push({ start: resolve, drop: reject });
    });
  } else lines.set(collection, line);
  line.since = performance.now();
  try {
    return await run();
  } finally {
    const next = line.waiting.shift();
    if (next) next.start();
    else lines.delete(collection);
  }
}

export async function stopEngine(): Promise<void> {
  await pool?.destroy();
  pool = null;
}
