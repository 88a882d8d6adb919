import { Piscina } from 'piscina';
import { threadOptions } from './pool.ts';

/**
 * Runs something long in a thread that is made for it and ends with it.
 *
 * @param at - the worker without its ending
 */
export async function inOwnThread<Answer>(at: URL, input: object): Promise<Answer> {
  const thread = new Piscina({ ...threadOptions(at), minThreads: 1, maxThreads: 1 });
  try {
    return (await thread.run(input)) as Answer;
  } finally {
    await thread.destroy();
  }
}
