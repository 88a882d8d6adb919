import type { Notice } from '@karyotome/contract';

/** Several records in a row are one change for whoever watches. */
const GATHER_MS = 400;

/**
 * Calls back after the collection changed, wherever that was done, and with what is told to everybody. The browser connects
 * again by itself.
 *
 * @returns ends it
 */
export function listenForChanges(onChange: () => void, onNotice: (notice: Notice) => void): () => void {
  const source = new EventSource('/api/v1/changes');
  let waiting: ReturnType<typeof setTimeout> | undefined;
  source.addEventListener('change', () => {
    clearTimeout(waiting);
    waiting = setTimeout(onChange, GATHER_MS);
  });
  source.addEventListener('notice', ({ data }: MessageEvent<string>) => onNotice(JSON.parse(data) as Notice));
  return () => {
    clearTimeout(waiting);
    source.close();
  };
}
