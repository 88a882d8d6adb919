import { bothChanges, changeOf, type ChangeEvent, type Route } from '@karyotome/contract';

/* What this page wrote and has not read anew since. */

let changed: ChangeEvent | null = null;

/**
 * To be called for every write that took effect, or may have.
 *
 * @param id - of its address
 * @param body - as it was sent
 */
export function noteWritten(write: Route, id?: string, body?: unknown): void {
  const change = changeOf(write, id, body);
  changed = changed ? bothChanges(changed, change) : change;
}

/** @returns what was written since it was last asked for */
export function takeWritten(): ChangeEvent {
  const change = changed ?? { tags: [] };
  changed = null;
  return change;
}
