import { tagsChangedBy, type Route, type Tag } from '@karyotome/contract';

/* What this page wrote and has not read anew since. */

const changed = new Set<Tag>();

/** To be called for every write that took effect, or may have. */
export function noteWritten(write: Route): void {
  for (const tag of tagsChangedBy(write)) changed.add(tag);
}

/** @returns what was written since it was last asked for */
export function takeWritten(): Tag[] {
  const tags = [...changed];
  changed.clear();
  return tags;
}
