import { EventEmitter } from 'node:events';
import { TAGS, type Notice, type Tag } from '@karyotome/contract';

/* Within one process: that something changed, and what people at work should hear at once. */

/** What changed, and on which open page: that one knows already. */
export interface Change {
  readonly tags: readonly Tag[];
  readonly page: string | null;
}

const changes = new EventEmitter().setMaxListeners(0);

/** To be called after the change is committed. */
export function notifyChanged(collectionId: string, change: Change = { tags: TAGS, page: null }): void {
  if (change.tags.length > 0) changes.emit(collectionId, change);
}

const notices = new EventEmitter().setMaxListeners(0);

/** Tells everybody who watches something that none of them can see by looking at their own page alone. */
export function notify(collectionId: string, notice: Notice): void {
  notices.emit(collectionId, notice);
}

/** @returns ends it */
export function onNotice(collectionId: string, told: (notice: Notice) => void): () => void {
  notices.on(collectionId, told);
  return () => notices.off(collectionId, told);
}

/** @returns ends it */
export function onChanged(collectionId: string, told: (change: Change) => void): () => void {
  changes.on(collectionId, told);
  return () => changes.off(collectionId, told);
}
