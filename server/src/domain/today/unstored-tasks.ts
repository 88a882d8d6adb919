import type { ComputedState } from '../states/compute-state.ts';
import { rankOf } from './task-place.ts';
import type { BenchTask, DueTask, TaskCount } from './today.queries.ts';

/* Tasks that were computed just now, as the stored rows would say them. */

/** @param isByAct - as in the list that they go into */
export function dueTasksOf({ id, placeKey, tasks }: ComputedState, isByAct: boolean): DueTask[] {
  return tasks
    .filter(({ clutchId }) => clutchId === null)
    .map(({ urgency, act, ordinal, task }) => ({
      urgency,
      rank: rankOf(act, isByAct),
      placeKey,
      id,
      ordinal,
      task,
    }));
}

export const countsOf = ({ tasks }: ComputedState): TaskCount[] =>
  tasks
    .filter(({ clutchId }) => clutchId === null)
    .map(({ act, urgency, prey }) => ({ act, urgency, prey, count: 1 }));

export const benchTasksOf = ({ tasks }: ComputedState): BenchTask[] =>
  tasks.flatMap(({ clutchId, task }) => (clutchId === null ? [] : [{ clutchId, task }]));
