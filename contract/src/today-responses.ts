import { TASK_ACTS, type MoveAdvice, type PreyState, type Task, type TaskAct } from '@karyotome/core';
import Joi from 'joi';
import type { AnimalSummary, TubPlace } from './animal-summary.ts';
import { listFields } from './list-query.ts';
import type { ListQuery } from './page.ts';

export type TodayLine = Task & {
  key: string;
  animal: AnimalSummary | null;
  clutch: { id: string; name: string } | null;
  incubator: { id: string; name: string } | null;
  room: { id: string; name: string } | null;
  advice: (MoveAdvice & { freeTubs: TubPlace[] }) | null;
  preset: MealPreset | null;
  /** Heavy enough for the next step of its ladder, with more against moving it than for it. */
  staysInTub: boolean;
  zone: { id: string; name: string; rack: string } | null;
  /** A rack that is looked through as a whole. */
  rack: { id: string; name: string } | null;
};

/** What one touch records as offered. */
export interface MealPreset {
  species: 'rat' | 'mouse';
  size: string;
  preyG: number;
  state: PreyState;
  step: string | null;
}

/** The day's work: what was missed first, then in walking order or act by act. */
export interface TodayView {
  today: string;
  /** A page of the lines that were asked for. */
  lines: TodayLine[];
  /** Where the next page begins; null at the end. */
  next: string | null;
  /** Lines that were asked for, on all pages. */
  total: number;
  /** Lines by act, whatever was asked for. */
  counts: Record<TaskAct, number>;
  /** Of those that were asked for, how many lie on a day that has passed: they come first. */
  overdue: number;
  thaw: { prey: string; count: number; left: number | null }[];
}

/** `act`: of one act alone. `by`: what the lines are gathered by. */
export interface TodayQuery extends ListQuery {
  readonly act: TaskAct | null;
  readonly by: 'place' | 'act';
}

export const todayQuery = Joi.object<TodayQuery>({
  ...listFields({ sorts: [], filters: [] }),
  act: Joi.string()
    .valid(...TASK_ACTS)
    .default(null),
  by: Joi.string().valid('place', 'act').default('place'),
});
