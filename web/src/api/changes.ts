import { bothChanges, TAGS, type ChangeEvent, type Notice } from '@karyotome/contract';
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
  onChange: (change: ChangeEvent) => void,
  onNotice: (notice: Notice) => void,
): () => void {
  const source = new EventSource(`/api/v1/changes?page=${PAGE_ID}`);
  let gathered: ChangeEvent | null = null;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let isFirst = true;
  const gather = (change: ChangeEvent): void => {
    const all = gathered ? bothChanges(gathered, change) : change;
    gathered = all;
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      gathered = null;
      onChange(all);
    }, GATHER_MS);
  };
  source.addEventListener('open', () => {
    if (!isFirst) gather({ tags: TAGS });
    isFirst = false;
  });
  source.addEventListener('change', ({ data }: MessageEvent<string>) =>
    gather(JSON.parse(data) as ChangeEvent),
  );
  source.addEventListener('notice', ({ data }: MessageEvent<string>) => onNotice(JSON.parse(data) as Notice));
  return () => {
    clearTimeout(waiting);
    source.close();
  };
}
