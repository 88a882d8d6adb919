import { inBackground } from '../../background.ts';
import { reading, type Database, type Reader, type Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { coalescedWork } from '../../shared-work.ts';
import { inThread } from '../../threads/pool.ts';
import { within } from '../../within.ts';
import type { ComputedState } from './compute-state.ts';
import { basisOf } from './day-basis.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { knownStates, share, type AskedState } from './recent-states.ts';
import { countStale, staleStates } from './states.queries.ts';
import { computeStates, type StatesInput } from './states-in-thread.ts';
import { statesToText } from './states-text.ts';
import { saveStates } from './states.repository.ts';

/** Somebody who waits for a whole collection is told to come back after so long. */
const PATIENCE_MS = 20_000;
/** So many states are computed on the thread that answers; more go to another one. */
const ON_THIS_THREAD = 6;
/** Of more than these, whoever reads meanwhile waits until they are stored. */
const SHARED_AT_ONCE = 30;

const storing = coalescedWork<true>();

/**
 * Computes what is stale of a day when it is asked for; what becomes stale meanwhile is left to whoever made it so. Whoever asks
 * for the same meanwhile waits for the same.
 *
 * @param first - these alone; without them, whoever is stale
 * @param patienceMs - how long somebody waits for it
 * @throws Refusal `busy` where it takes too long: it goes on, and is there later
 */
export async function catchUp(
  database: Database,
  reader: Reader,
  day: string,
  { first = [], patienceMs = PATIENCE_MS }: { first?: readonly string[]; patienceMs?: number } = {},
): Promise<void> {
  if (first.length > 0 && first.length <= BATCH) {
    const asked = first.map((id) => ({ id, changes: null }));
    await storeBatch(database, reader, day, () => Promise.resolve(asked));
    return;
  }
  const computing = storeStale(database, reader, day);
  // It is not given up with whoever waited for it.
  inBackground(() => computing, database.onFault);
  if ((await within(patienceMs, computing)) === null)
    throw new Refusal(
      'busy',
      'The day’s tasks of this collection are still being worked out. Try again in a moment.',
    );
}

/**
 * Computes what writes have made stale, once they are committed, so that whoever reads later finds it stored. Writes that come
 * meanwhile are settled together. On a day on which nobody has looked yet there is nothing to do.
 */
export async function settleStates(database: Database, reader: Reader): Promise<void> {
  await storeStale(database, reader, null);
}

/** @param day - null for today */
const storeStale = (database: Database, { collectionId }: Reader, day: string | null): Promise<true> =>
  storing(`${collectionId} ${day ?? ''}`, async () => {
    const reader = { collectionId };
    const next = (): Promise<number> =>
      storeBatch(database, reader, day, (work, on) => staleStates(work, on, BATCH));
    let last = await next();
    if (last < BATCH) return true;
    // No more than are stale now: others become so all the time.
    let left = await reading(database, reader, (work) => countStale(work, day ?? work.today));
    while (left > 0 && last > 0) {
      last = await next();
      left -= last;
    }
    return true;
  });

/**
 * @param day - null for today
 * @param find - the states that are to be stored
 * @returns how many
 */
async function storeBatch(
  database: Database,
  reader: Reader,
  day: string | null,
  find: (work: Work, day: string) => Promise<readonly AskedState[]>,
): Promise<number> {
  const { collectionId } = reader;
  const { on, asked, known, ids, input } = await reading(database, reader, async (work) => {
    const its = day ?? work.today;
    const found = await find(work, its);
    const { known: has, missing } = knownStates(collectionId, its, found);
    return {
      on: its,
      asked: found,
      known: has,
      ids: missing,
      input:
        missing.length > 0
          ? { basis: await basisOf(work, its), rows: await keptRows(work, missing, its) }
          : null,
    };
  });
  if (known.length > 0) await saveStates(database, collectionId, on, statesToText(known));
  if (input) {
    const text =
      ids.length > SHARED_AT_ONCE
        ? await inThread('states-as-text', input)
        : statesToText(await share(collectionId, on, ids, () => computed(input)));
    await saveStates(database, collectionId, on, text);
  }
  return asked.length;
}

const computed = async (input: StatesInput): Promise<ComputedState[]> =>
  input.rows.length > ON_THIS_THREAD ? inThread('compute-states', input) : computeStates(input);
