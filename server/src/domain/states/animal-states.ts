import { storeAfterRead } from '../../background.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { oncePerRead } from '../../db/once-per-read.ts';
import type { Work } from '../../db/work.ts';
import { basisOf } from './day-basis.ts';
import { catchUp } from './catch-up.ts';
import { computeState, type ComputedState, type StoredState } from './compute-state.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { recentStates, type AskedState } from './recent-states.ts';
import { fitRevision, staleStates, storedStates } from './states.queries.ts';
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
  const stored = await storedStates(work, ids);
  const states = new Map(stored.flatMap(({ id, state }) => (state ? [[id, state] as const] : [])));
  const stale = stored.filter(({ state }) => state === null);
  const rows = new Set(stored.map(({ id }) => id));
  const gone = ids.filter((id) => !rows.has(id));
  for (const { id, state } of [...(await fresh(work, stale)), ...(await computed(work, gone, gone))])
    states.set(id, state);
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
    const stale = await staleStates(work, work.today, BATCH + 1);
    return stale.length > BATCH
      ? computed(
          work,
          stale.map(({ id }) => id),
          [],
        )
      : fresh(work, stale, []);
  });

const fresh = (
  work: Work,
  stale: readonly AskedState[],
  first: readonly string[] = stale.map(({ id }) => id),
): Promise<ComputedState[]> => recentStates(work, work.today, stale, (ids) => computed(work, ids, first));

/** @param first - whose are needed; without them, everybody's */
async function computed(
  work: Work,
  ids: readonly string[],
  first: readonly string[],
): Promise<ComputedState[]> {
  if (ids.length === 0) return [];
  if (ids.length > COMPUTED_AT_ONCE && !work.isWriting)
    throw new BeginAgain(() => catchUp(work, work.actor, work.today, { first }));
  const basis = await basisOf(work);
  const rows = await keptRows(work, ids, work.today);
  const states = rows.map((row) => computeState(row, basis));
  storeAfterRead(work, () => saveStates(work, work.actor.collectionId, work.today, statesToText(states)));
  return states;
}
