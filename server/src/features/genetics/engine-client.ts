import { Piscina } from 'piscina';
import type { Answers, Question } from './engine.worker.ts';

/*
 * The one way to the engine's thread. A single thread holds the engines, so that a collection's next record finds the last
 * one's tables; questions wait their turn there, and the server goes on answering meanwhile.
 */

const isSource = import.meta.url.endsWith('.ts');

let pool: Piscina | null = null;

function thread(): Piscina {
  pool ??= new Piscina({
    filename: new URL(isSource ? './engine.worker.ts' : './engine.worker.js', import.meta.url).href,
    minThreads: 1,
    maxThreads: 1,
    idleTimeout: Infinity,
    // Under a runner that reads TypeScript for the main thread only.
    execArgv: isSource ? ['--import', import.meta.resolve('tsx')] : [],
  });
  return pool;
}

export async function askEngine<Q extends Question>(question: Q): Promise<Answers[Q['ask']] | null> {
  return (await thread().run(question)) as Answers[Q['ask']] | null;
}

export async function stopEngine(): Promise<void> {
  await pool?.destroy();
  pool = null;
}
