import { storeAfterRead } from '../../background.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { oncePerRead } from '../../db/once-per-read.ts';
import type { Work } from '../../db/work.ts';
import { basisOf } from './day-basis.ts';
import { catchUp } from './catch-up.ts';
import { computeState, type ComputedState, type StoredState } from './compute-state.ts';
import { keptRows } from './kept-animals.queries.ts';
import { fitRevision, staleIds, standingStates } from './states.queries.ts';
import { saveStates } from './states.repository.ts';
import { statesToText } from './states-text.ts';
import { dayNotBegun } from './begin-day.ts';

/** So many states are computed while somebody waits, on the thread that answers; more go to another thread first. */
const COMPUTED_AT_ONCE = 12;

/**
 * The states of animals as of this moment, also of some that left the collection. What is stored and stands is read; the rest
 * is computed, and stored when the transaction has ended.
 *
 * @throws BeginAgain where many have to be computed first
 */
export async function statesOf(work: Work, ids: readonly string[]): Promise<Map<string, StoredState>> {
  const standing = await standingStates(work, ids);
  const states = new Map(standing.map(({ id, state }) => [id, state]));
  const missing = ids.filter((id) => !states.has(id));
  for (const { id, state } of await computed(work, missing)) states.set(id, state);
  return states;
}

/**
 * What was computed just now, of all animals whose stored state does not stand any more: what is read from stored rows alone
 * leaves these out and takes them from here.
 *
 * @throws BeginAgain where many have to be computed first
 */
export const unstoredStates = (work: Work): Promise<ComputedState[]> =>
  oncePerRead(work, 'unstored-states', async () => {
    const [day] = await fitRevision(work, work.today);
    if (!day) throw dayNotBegun(work, work.actor, work.today);
    const stale = await staleIds(work, work.today, COMPUTED_AT_ONCE + 1);
    return computed(work, stale, 'everybody');
  });

async function computed(
  work: Work,
  ids: readonly string[],
  wanted: 'these' | 'everybody' = 'these',
): Promise<ComputedState[]> {
  if (ids.length === 0) return [];
  if (ids.length > COMPUTED_AT_ONCE && !work.isWriting)
    throw new BeginAgain(() =>
      catchUp(work, work.actor, work.today, wanted === 'these' ? { first: ids } : {}),
    );
  const basis = await basisOf(work);
  const rows = await keptRows(work, ids, work.today);
  const states = rows.map((row) => computeState(row, basis));
  storeAfterRead(work, () => saveStates(work, work.actor.collectionId, work.today, statesToText(states)));
  return states;
}
