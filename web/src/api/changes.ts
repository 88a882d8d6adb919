import { TAGS, type ChangeEvent, type Notice, type Tag } from '@karyotome/contract';
import { PAGE_ID } from './client.ts';

/** Several records in a row are one change for whoever watches. */
const GATHER_MS = 400;

/**
 * Calls back after somebody else changed the collection, on another page or elsewhere, and with what is told to everybody. The
 * browser connects again by itself; what happened meanwhile is not known, so then everything may have changed.
 *
 * @returns ends it
 */
export function listenForChanges(
  onChange: (tags: readonly Tag[]) => void,
  onNotice: (notice: Notice) => void,
): () => void {
  const source = new EventSource(`/api/v1/changes?page=${PAGE_ID}`);
  const gathered = new Set<Tag>();
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let isFirst = true;
  const gather = (tags: readonly Tag[]): void => {
    for (const tag of tags) gathered.add(tag);
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      const all = [...gathered];
      gathered.clear();
      onChange(all);
    }, GATHER_MS);
  };
  source.addEventListener('open', () => {
    if (!isFirst) gather(TAGS);
    isFirst = false;
  });
  source.addEventListener('change', ({ data }: MessageEvent<string>) =>
    gather((JSON.parse(data) as ChangeEvent).tags),
  );
  source.addEventListener('notice', ({ data }: MessageEvent<string>) => onNotice(JSON.parse(data) as Notice));
  return () => {
    clearTimeout(waiting);
    source.close();
  };
}
