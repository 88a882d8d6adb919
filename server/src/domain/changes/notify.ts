import { TAGS, type ChangeEvent, type Notice } from '@karyotome/contract';
import { onMissed, onTold, tellAll } from '../../relay.ts';

/* That something changed in a collection, and what people at work should hear at once: in whatever process they watch. */

/** What changed, and on which open page: that one knows already. */
export interface Change extends ChangeEvent {
  readonly page: string | null;
}

const changed = (collectionId: string): string => `changed ${collectionId}`;
const noticed = (collectionId: string): string => `notice ${collectionId}`;

/** To be called after the change is committed. */
export function notifyChanged(collectionId: string, change: Change = { tags: TAGS, page: null }): void {
  if (change.tags.length > 0) tellAll(changed(collectionId), change);
}

/** Tells everybody who watches something that none of them can see by looking at their own page alone. */
export const notify = (collectionId: string, notice: Notice): void => tellAll(noticed(collectionId), notice);

/** @returns ends it */
export const onNotice = (collectionId: string, told: (notice: Notice) => void): (() => void) =>
  onTold(noticed(collectionId), told);

/** Also told that everything may have changed, where this process was cut off from the others. @returns ends it */
export function onChanged(collectionId: string, told: (change: Change) => void): () => void {
  const ends = [onTold(changed(collectionId), told), onMissed(() => told({ tags: TAGS, page: null }))];
  return () => ends.forEach((end) => end());
}
