import { EventEmitter } from 'node:events';

/* Within one process; nothing but the fact that something changed is told. */

const changes = new EventEmitter().setMaxListeners(0);

/** To be called after the change is committed. */
export function tellChanged(collectionId: string): void {
  changes.emit(collectionId);
}

/** @returns ends it */
export function whenChanged(collectionId: string, told: () => void): () => void {
  changes.on(collectionId, told);
  return () => changes.off(collectionId, told);
}
