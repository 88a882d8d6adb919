import { TASK_ACTS, type Task, type TaskAct } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { withClutchName } from '../season/clutch-name.ts';
import type { TaskPlace } from './task-place.ts';

export type DueTask = TaskPlace & { readonly task: Task };

export interface TaskFilter {
  readonly act: TaskAct | null;
  readonly isByAct: boolean;
  /** Animals whose stored tasks do not stand. */
  readonly except: readonly string[];
  readonly after: TaskPlace | null;
  readonly limit: number;
}

const RANK = `array_position(array[${TASK_ACTS.map((act) => `'${act}'`).join(', ')}], d.act)`;

const isNot = 'd.animal_id not in (:except)';

/** Tasks of single animals after a place, in order. Bench work of a clutch is not among them: see `benchTasks`. */
export function dueTasks(work: Work, { act, isByAct, except, after, limit }: TaskFilter): Promise<DueTask[]> {
  const place = ['d.urgency', ...(isByAct ? [RANK] : []), 'd.place_key', 'd.animal_id', 'd.ordinal'].join(
    ', ',
  );
  const given = [':urgency', ...(isByAct ? [':rank'] : []), ':placeKey', 'cast(:id as uuid)', ':ordinal'];
  return select<DueTask>(
    work,
    `select d.urgency, ${isByAct ? RANK : '0'} as rank, d.place_key as "placeKey", d.animal_id as id, d.ordinal, d.task
       from due_tasks d
      where d.collection_id = :collectionId and d.day = :today and d.clutch_id is null and ${isNot}
        ${act === null ? '' : 'and d.act = :act'} ${after === null ? '' : `and (${place}) > (${given.join(', ')})`}
      order by ${place} limit :limit`,
    { today: work.today, except, act, limit, ...after },
  );
}

export interface TaskCount {
  readonly act: TaskAct;
  readonly urgency: number;
  readonly prey: string | null;
  readonly count: number;
}

/** Counts of tasks by act, by whether their day has passed, and by the frozen prey that they take. */
export function countTasks(work: Work, except: readonly string[]): Promise<TaskCount[]> {
  return select<TaskCount>(
    work,
    `select d.act, d.urgency, d.prey, count(*)::int as count from due_tasks d
      where d.collection_id = :collectionId and d.day = :today and d.clutch_id is null and ${isNot}
      group by d.act, d.urgency, d.prey`,
    { today: work.today, except },
  );
}

/** A task of one of a clutch's young that is done at the bench. */
export interface BenchTask {
  readonly clutchId: string;
  readonly task: Task;
}

/** Tasks that are bench work of a clutch. */
export function benchTasks(work: Work, except: readonly string[]): Promise<BenchTask[]> {
  return select<BenchTask>(
    work,
    `select d.clutch_id as "clutchId", d.task from due_tasks d
      where d.collection_id = :collectionId and d.day = :today and d.act = 'bench' and d.clutch_id is not null and ${isNot}
      order by d.place_key, d.ordinal`,
    { today: work.today, except },
  );
}

/** Clutches by name, the last laid first. */
export async function namedClutches(
  work: Work,
  ids: readonly string[],
): Promise<{ id: string; name: string }[]> {
  if (ids.length === 0) return [];
  const rows = await select<{ id: string; season: number; ordinal: number }>(
    work,
    `select id, season, ordinal from clutches where collection_id = :collectionId and id in (:ids)
      order by laid_on desc, ordinal desc`,
    { ids },
  );
  return rows.map(withClutchName);
}
