import { inBackground } from '../../background.ts';
import { reading, type Database, type Reader } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { sharedWork } from '../../shared-work.ts';
import { inThread } from '../../threads/pool.ts';
import { within } from '../../within.ts';
import { basisOf } from './day-basis.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { countStale, staleStates } from './states.queries.ts';
import type { StatesInput } from './states-in-thread.ts';
import { saveStates } from './states.repository.ts';

/** Somebody who waits for a whole collection is told to come back after so long. */
const PATIENCE_MS = 20_000;

const underWay = sharedWork<true>();

/**
 * Computes what is stale of a day when it is asked for, in a thread; what becomes stale meanwhile is left to whoever made it so.
 * Whoever asks for the same meanwhile waits for the same.
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
  if (first.length > 0 && first.length <= BATCH) return computeBatch(database, reader, day, first);
  const computing = underWay(`${reader.collectionId} ${day}`, () => computeStale(database, reader, day));
  // It is not given up with whoever waited for it.
  inBackground(() => computing, database.onFault);
  if ((await within(patienceMs, computing)) === null)
    throw new Refusal(
      'busy',
      'The day’s tasks of this collection are still being worked out. Try again in a moment.',
    );
}

async function computeStale(database: Database, reader: Reader, day: string): Promise<true> {
  let left = await reading(database, reader, (work) => countStale(work, day));
  while (left > 0) {
    const stale = await reading(database, reader, (work) => staleStates(work, day, BATCH));
    const ids = stale.map(({ id }) => id);
    if (ids.length === 0) break;
    await computeBatch(database, reader, day, ids);
    left -= ids.length;
  }
  return true;
}

async function computeBatch(
  database: Database,
  reader: Reader,
  day: string,
  ids: readonly string[],
): Promise<void> {
  const input = await reading(database, reader, async (work): Promise<StatesInput> => ({
    basis: await basisOf(work, day),
    rows: await keptRows(work, ids, day),
  }));
  await saveStates(database, reader.collectionId, day, await inThread('states-as-text', input));
}
