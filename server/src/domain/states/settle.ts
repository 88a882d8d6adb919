import { reading, type Database, type Reader } from '../../db/work.ts';
import { coalescedWork } from '../../shared-work.ts';
import { inThread } from '../../threads/pool.ts';
import { basisOf } from './day-basis.ts';
import { BATCH, keptRows } from './kept-animals.queries.ts';
import { fitRevision, staleIds } from './states.queries.ts';
import { saveStates } from './states.repository.ts';
import { computeStates, type StatesInput } from './states-in-thread.ts';

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
      const stale = day ? await staleIds(work, work.today, BATCH) : [];
      return stale.length === 0
        ? null
        : { basis: await basisOf(work), rows: await keptRows(work, stale, work.today) };
    });
    if (found) await saveStates(database, collectionId, found.basis.today, await computedAsText(found));
  });

const computedAsText = async (input: StatesInput): Promise<string> =>
  input.rows.length > ON_THIS_THREAD ? inThread('compute-states', input) : computeStates(input);
