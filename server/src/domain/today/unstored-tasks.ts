import type { Work } from '../../db/work.ts';
import type { ComputedState } from '../states/compute-state.ts';
import { rankOf } from './task-place.ts';
import { countTasks, type BenchTask, type DueTask, type TaskCount } from './today.queries.ts';

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

/** Counts of the day's tasks, stored or computed just now, by act, lateness and frozen prey; a count may come in parts. */
export const countedTasks = async (work: Work, unstored: readonly ComputedState[]): Promise<TaskCount[]> => [
  ...(await countTasks(
    work,
    unstored.map(({ id }) => id),
  )),
  ...unstored.flatMap(countsOf),
];

const countsOf = ({ tasks }: ComputedState): TaskCount[] =>
  tasks
    .filter(({ clutchId }) => clutchId === null)
    .map(({ act, urgency, prey }) => ({ act, urgency, prey, count: 1 }));

export const benchTasksOf = ({ tasks }: ComputedState): BenchTask[] =>
  tasks.flatMap(({ clutchId, task }) => (clutchId === null ? [] : [{ clutchId, task }]));
