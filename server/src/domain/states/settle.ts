import { reading, type Database, type Reader } from '../../db/work.ts';
import { coalescedWork } from '../../shared-work.ts';
import { inThread } from '../../threads/pool.ts';
import type { ComputedState } from './compute-state.ts';
import { basisOf } from './day-basis.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { share } from './recent-states.ts';
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
    const found = await reading(database, { collectionId }, async (work) => {
      const [day] = await fitRevision(work, work.today);
      const stale = day ? await staleStates(work, work.today, BATCH) : [];
      const ids = stale.map(({ id }) => id);
      return ids.length === 0
        ? null
        : { basis: await basisOf(work), rows: await keptRows(work, ids, work.today), ids };
    });
    if (!found) return;
    const { basis, rows, ids } = found;
    const states = await share(collectionId, basis.today, ids, () => computed({ basis, rows }));
    await saveStates(database, collectionId, basis.today, statesToText(states));
  });

const computed = async (input: StatesInput): Promise<ComputedState[]> =>
  input.rows.length > ON_THIS_THREAD ? inThread('compute-states', input) : computeStates(input);
