import { isMadeFrom, type ChangeEvent } from '@karyotome/contract';
import { useQueryCache, type UseQueryEntry } from '@pinia/colada';
import { ProblemError } from '../api/client.ts';
import { takeWritten } from '../api/written.ts';

const madeFrom =
  (change: ChangeEvent) =>
  ({ key: [name, of] }: UseQueryEntry): boolean =>
    isMadeFrom(String(name), change, typeof of === 'string' ? of : undefined);

/** Lets reads that are made from what changed go stale. */
export function useStaleReads() {
  const cache = useQueryCache();
  /** That something cannot be read anew does not undo what was written. */
  async function readAnew(change: ChangeEvent): Promise<void> {
    try {
      await cache.invalidateQueries({ predicate: madeFrom(change) });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
    }
  }
  return {
    /** Those on the screen are read anew at once, the others when they are shown again. */
    readAnew,
    /** The same for what this page wrote. */
    readOwnAnew: () => readAnew(takeWritten()),
    /** For a page that shows what it wrote by itself: nothing on the screen is read anew. */
    async markOwnStale(): Promise<void> {
      await cache.invalidateQueries({ predicate: madeFrom(takeWritten()) }, false);
    },
  };
}
