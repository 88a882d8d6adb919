import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { signIn } from '../server/test/hostile/raw-request.ts';

/*
 * People at work while something fails: each enters weights and looks at pages, one after another. A request that fails is
 * repeated with the same key, as the interface does it, until it is answered or given up.
 */

const API = '/api/v1';
/** A request is given up after so long without an answer. */
const GIVEN_UP_MS = 60_000;
/** One try has so long. */
const ANSWER_MS = 10_000;
const PAUSE_MS = 250;
/** Each entry has a weight of its own, so that one that stands twice is found. */
const FIRST_G = 1000;
const STEP_G = 0.1;
const READS = ['/today', '/racks', '/animals?limit=25'];

/** What became of a request. */
export interface Answered {
  readonly isWrite: boolean;
  /** Tries beyond the first. */
  readonly repeated: number;
  readonly isGivenUp: boolean;
  /** When its answer came, milliseconds. */
  readonly at: number;
}

/** An entry that was answered: it has to be there from then on. */
export interface Entry {
  readonly id: string;
  readonly massG: number;
}

export class Load {
  readonly #origin: string;
  /** Of the session that all of them share. */
  readonly #headers: Readonly<Record<string, string>>;
  readonly #animals: readonly string[];
  readonly #today: string;
  readonly #people: Promise<void>[] = [];
  readonly #answers: Answered[] = [];
  readonly entries: Entry[] = [];
  /** Weights whose entry was given up: they may be there or not, once at most. */
  readonly givenUp: number[] = [];
  #count = 0;
  #isOver = false;

  private constructor(
    origin: string,
    headers: Readonly<Record<string, string>>,
    animals: readonly string[],
    today: string,
  ) {
    this.#origin = origin;
    this.#headers = headers;
    this.#animals = animals;
    this.#today = today;
  }

  /** Begins it, with so many people. */
  static async begin(
    origin: string,
    [email, password]: readonly [string, string],
    people: number,
  ): Promise<Load> {
    const { ask, headers } = await signIn(origin, email, password);
    const read = async <T>(path: string): Promise<T> => (await ask('GET', path)).body as T;
    const { items } = await read<{ items: { id: string }[] }>('/animals?limit=100');
    const { today } = await read<{ today: string }>('/today');
    const load = new Load(
      origin,
      headers,
      items.map(({ id }) => id),
      today,
    );
    for (let i = 0; i < people; i++) load.#people.push(load.#work(i));
    return load;
  }

  /** Answers that came since a moment. */
  since(at: number): readonly Answered[] {
    return this.#answers.filter((one) => one.at >= at);
  }

  async end(): Promise<void> {
    this.#isOver = true;
    await Promise.all(this.#people);
  }

  async #work(person: number): Promise<void> {
    for (let turn = person; !this.#isOver; turn++) {
      const animal = this.#animals[(turn * 7) % this.#animals.length]!;
      if (turn % 2 === 0) await this.#enter(animal);
      else await this.#look(turn % 4 === 1 ? `/animals/${animal}` : READS[turn % READS.length]!);
    }
  }

  async #look(path: string): Promise<void> {
    await this.#ask(path, false, {});
  }

  async #enter(animal: string): Promise<void> {
    const massG = Math.round((FIRST_G + STEP_G * this.#count++) * 10) / 10;
    const answer = await this.#ask(`/animals/${animal}/records`, true, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': randomUUID() },
      body: JSON.stringify({ kind: 'weight', on: this.#today, body: { massG } }),
    });
    if (answer === null) this.givenUp.push(massG);
    else this.entries.push({ id: (answer as { id: string }).id, massG });
  }

  /** @returns null where it was given up @throws Error where it was refused: that is no fault of the cluster's */
  async #ask(path: string, isWrite: boolean, init: RequestInit): Promise<unknown> {
    const begun = Date.now();
    for (let repeated = 0; ; repeated++) {
      const answer = await this.#try(path, init);
      const isAnswered = answer !== null;
      if (isAnswered || Date.now() - begun > GIVEN_UP_MS) {
        this.#answers.push({ isWrite, repeated, isGivenUp: !isAnswered, at: Date.now() });
        return answer;
      }
      await sleep(PAUSE_MS);
    }
  }

  /** @returns null where it is to be tried again */
  async #try(path: string, init: RequestInit): Promise<unknown> {
    let status: number;
    let text: string;
    try {
      const answer = await fetch(`${this.#origin}${API}${path}`, {
        ...init,
        headers: {
          ...(init.headers as Record<string, string> | undefined),
          ...this.#headers,
        },
        signal: AbortSignal.timeout(ANSWER_MS),
      });
      status = answer.status;
      text = await answer.text();
    } catch {
      return null;
    }
    if (status < 300) return JSON.parse(text) as unknown;
    if (status >= 500 || status === 429) return null;
    throw new Error(`${path}: ${status} ${text.slice(0, 300)}`);
  }
}
