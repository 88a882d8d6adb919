import { Refusal } from '../refusal.ts';

/*
 * Who waits for whom within this process. A write that waited in the database would hold one of its few connections while it
 * waits; here it holds nothing.
 */

/** More than this many waiting for one thing are told to come back. */
const MOST_WAITING = 200;

/** At most so many at once, the others in the order in which they came. */
export class Turns {
  readonly #atOnce: number;
  readonly #mostWaiting: number;
  #running = 0;
  readonly #waiting: (() => void)[] = [];

  constructor(atOnce: number, mostWaiting = MOST_WAITING) {
    this.#atOnce = atOnce;
    this.#mostWaiting = mostWaiting;
  }

  get isIdle(): boolean {
    return this.#running === 0;
  }

  /** @throws Refusal `busy` where too many wait already */
  async take<T>(run: () => Promise<T>): Promise<T> {
    if (this.#running >= this.#atOnce) {
      if (this.#waiting.length >= this.#mostWaiting)
        throw new Refusal('busy', 'Too many requests wait for this already. Try again in a moment.');
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    } else this.#running += 1;
    try {
      return await run();
    } finally {
      // The turn goes straight to the next one, so that nobody slips in between.
      const next = this.#waiting.shift();
      if (next) next();
      else this.#running -= 1;
    }
  }
}

const byKey = new Map<string, Turns>();

/** One at a time for each key. */
export async function inTurn<T>(key: string, run: () => Promise<T>): Promise<T> {
  const turns = byKey.get(key) ?? new Turns(1);
  byKey.set(key, turns);
  try {
    return await turns.take(run);
  } finally {
    if (turns.isIdle) byKey.delete(key);
  }
}

/** Writes of single animals at once: connections are left for those who read. */
export const sharing = new Turns(6);

/** Reads that wait for the engine's thread hold a connection each meanwhile: a few of them at once. */
export const inferring = new Turns(4);
