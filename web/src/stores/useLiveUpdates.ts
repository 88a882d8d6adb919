import { useQueryCache } from '@pinia/colada';
import { onScopeDispose } from 'vue';
import { listenForChanges } from '../api/changes.ts';

/** What somebody else records shows up here too: whatever is on the screen reads itself anew. */
export function useLiveUpdates(): void {
  const cache = useQueryCache();
  onScopeDispose(listenForChanges(() => void cache.invalidateQueries()));
}
