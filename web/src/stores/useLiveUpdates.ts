import { onScopeDispose } from 'vue';
import { listenForChanges } from '../api/changes.ts';
import { noticeWords } from '../format/notice-words.ts';
import { useNotices } from './notices.ts';
import { useStaleReads } from './useStaleReads.ts';

/** What somebody else records shows up here too: what is made of it reads itself anew. */
export function useLiveUpdates(): void {
  const stale = useStaleReads();
  const notices = useNotices();
  onScopeDispose(
    listenForChanges(
      (change) => void stale.readAnew(change),
      (notice) => notices.warn(noticeWords(notice)),
    ),
  );
}
