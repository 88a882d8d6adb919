import { reading, type Database, type Reader } from '../../db/work.ts';
import { coalescedWork } from '../../shared-work.ts';
import { inThread } from '../../threads/pool.ts';
import type { ComputedState } from './compute-state.ts';
import { basisOf } from './day-basis.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { knownStates, share, type AskedState } from './recent-states.ts';
import { fitRevision, staleStates } from './states.queries.ts';
import { saveStates } from './states.repository.ts';
import { computeStates, type StatesInput } from './states-in-thread.ts';
import { statesToText } from './states-text.ts';

/** So many states are computed on the thread that answers; more go to another one. */
const ON_THIS_THREAD = 6;

const settling = coalescedWork<void>();

/**
 * Computes what writes have made stale, once they are committed, so that whoever reads next finds it stored. Writes that come
 * meanwhile are settled together; of very many, what is left is taken up by whoever comes next, or reads. On a day on which nobody has looked yet there is nothing to do.
 */
export const settleStates = (database: Database, { collectionId }: Reader): Promise<void> =>
  settling(collectionId, async () => {
    const stale = await reading(database, { collectionId }, async (work) => {
      const [day] = await fitRevision(work, work.today);
      const asked = day ? await staleStates(work, work.today, BATCH) : [];
      const known = knownStates(collectionId, work.today, asked);
      const ids = withoutThose(asked, known);
      return {
        day: work.today,
        known,
        ids,
        input:
          ids.length > 0 ? { basis: await basisOf(work), rows: await keptRows(work, ids, work.today) } : null,
      };
    });
    const { day, known, ids, input } = stale;
    const states = input
      ? [...known, ...(await share(collectionId, day, ids, () => computed(input)))]
      : known;
    if (states.length > 0) await saveStates(database, collectionId, day, statesToText(states));
  });

function withoutThose(asked: readonly AskedState[], known: readonly ComputedState[]): string[] {
  const has = new Set(known.map(({ id }) => id));
  return asked.map(({ id }) => id).filter((id) => !has.has(id));
}

const computed = async (input: StatesInput): Promise<ComputedState[]> =>
  input.rows.length > ON_THIS_THREAD ? inThread('compute-states', input) : computeStates(input);
