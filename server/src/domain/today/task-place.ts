import { TASK_ACTS, type TaskAct } from '@karyotome/core';
import { readId } from '@karyotome/contract';
import { cursorText, readCursor } from '../../cursor.ts';
import { invalidField } from '../../refusal.ts';

/** Where a task stands among all tasks of a day: what was missed first, then by act or not, then in walking order. */
export interface TaskPlace {
  /** 0: its day has passed. 1: due today. */
  readonly urgency: number;
  /** By act: the place of the act, from 1; else 0. */
  readonly rank: number;
  readonly placeKey: string;
  /** The animal; nobody's for what stands before all animals. */
  readonly id: string;
  readonly ordinal: number;
}

/** Stands for no animal: before all of them. */
export const NOBODY = '00000000-0000-0000-0000-000000000000';

export const rankOf = (act: TaskAct, isByAct: boolean): number => (isByAct ? TASK_ACTS.indexOf(act) + 1 : 0);

export const toCursor = ({ urgency, rank, placeKey, id, ordinal }: TaskPlace): string =>
  cursorText([urgency, rank, placeKey, id, ordinal]);

/** @throws Refusal `invalid` for a cursor of another list */
export function fromCursor(text: string): TaskPlace {
  const [urgency, rank, placeKey, id, ordinal] = readCursor(text, [
    'number',
    'number',
    'string',
    'string',
    'number',
  ]);
  const place = { urgency, rank, placeKey, id, ordinal } as TaskPlace;
  const numbers = [place.urgency, place.rank, place.ordinal];
  const isOne =
    readId(place.id) !== null && numbers.every((n) => Number.isInteger(n) && n >= 0 && n < 32_768);
  if (!isOne || place.placeKey.includes('\0')) throw invalidField('after', 'is no cursor of this list');
  return place;
}

/** Orders as the database does: part by part, text by its bytes. */
export function comparePlaces(a: TaskPlace, b: TaskPlace): number {
  return (
    a.urgency - b.urgency ||
    a.rank - b.rank ||
    byBytes(a.placeKey, b.placeKey) ||
    byBytes(a.id, b.id) ||
    a.ordinal - b.ordinal
  );
}

const byBytes = (a: string, b: string): number => Buffer.compare(Buffer.from(a), Buffer.from(b));
