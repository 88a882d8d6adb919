import { useQueryCache } from '@pinia/colada';
import { onScopeDispose } from 'vue';
import { listenForChanges } from '../api/changes.ts';
import { noticeWords } from '../format/notice-words.ts';
import { useNotices } from './notices.ts';

/** What somebody else records shows up here too: whatever is on the screen reads itself anew. */
export function useLiveUpdates(): void {
  const cache = useQueryCache();
  const notices = useNotices();
  onScopeDispose(
    listenForChanges(
      () => void cache.invalidateQueries(),
      (notice) => notices.warn(noticeWords(notice)),
    ),
  );
}
