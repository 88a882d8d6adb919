import type { Expected } from '../breeding/forecast.ts';
import type { CuttingProtocol } from '../breeding/rules.ts';
import type { IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import type { Meal } from '../feeding/next-meal.ts';
import type { HealthTasks } from '../health/health-facts.ts';
import type { LoanTasks } from '../loans/loan-records.ts';
import type { ClimateAlarms } from '../incubation/climate.ts';
import type { Concerns } from './concern.ts';
import type { HeatFault } from './heat.ts';
import type { ShedStage } from './history.ts';
import type { WeighedReason } from './move-reasons.ts';
import type { SoakPlan } from './shed-cycle.ts';

/** The work a task belongs to: tasks of one kind are done in the same way. */
export type TaskKind =
  | 'meal'
  | 'weigh'
  | 'shed'
  | 'sex'
  | 'identify'
  | 'move'
  | 'settle'
  | 'eggs'
  | 'season'
  | 'climate'
  | 'first-shed'
  | 'clean'
  | 'concern'
  | 'dose'
  | 'health'
  | 'heat'
  | 'stock'
  | 'sale'
  | 'loan';

/** What kinds of task are gathered under where a day's work is looked through by what is done. */
export type TaskAct =
  'meal' | 'shed' | 'weigh' | 'move' | 'bench' | 'eggs' | 'season' | 'health' | 'concern' | 'room';

/** In the order in which they are shown. */
export const TASK_ACTS = [
  'meal',
  'shed',
  'weigh',
  'move',
  'bench',
  'eggs',
  'season',
  'health',
  'concern',
  'room',
] as const satisfies readonly TaskAct[];

export const ACT_OF_KIND: Readonly<Record<TaskKind, TaskAct>> = {
  meal: 'meal',
  weigh: 'weigh',
  shed: 'shed',
  'first-shed': 'shed',
  sex: 'bench',
  identify: 'bench',
  move: 'move',
  settle: 'move',
  eggs: 'eggs',
  season: 'season',
  climate: 'eggs',
  concern: 'concern',
  dose: 'health',
  health: 'health',
  clean: 'room',
  heat: 'room',
  stock: 'room',
  sale: 'concern',
  loan: 'season',
};

/** What has a day of its own can be overdue; a shed lasts, and is not. */
const HAS_A_DAY: readonly TaskKind[] = ['meal', 'weigh', 'clean', 'heat', 'dose', 'health', 'loan'];

/**
 * Whether the day of a task has passed.
 *
 * @example isOverdue({ kind: 'meal', dueOn: '2026-11-27' }, '2026-11-28') // true
 */
export const isOverdue = ({ kind, dueOn }: Pick<Task, 'kind' | 'dueOn'>, today: IsoDay): boolean =>
  HAS_A_DAY.includes(kind) && dueOn < today;

/** Everything that can be due. Masses in grams, temperatures in degrees Celsius; days are counted from 0. */
export interface Tasks extends Concerns, ClimateAlarms, HealthTasks, LoanTasks {
  /** A reservation ran out by itself: it is for sale again. */
  readonly 'reservation-lapsed': { readonly until: IsoDay };
  readonly 'first-shed-due': { readonly ageDays: number; readonly fromDay: number; readonly toDay: number };
  readonly 'shed-due': {
    readonly stage: Exclude<ShedStage, 'shed'>;
    readonly day: number;
    readonly from: IsoDay;
    readonly to: IsoDay;
  };
  readonly 'shed-overdue': {
    readonly stage: Exclude<ShedStage, 'shed'>;
    readonly day: number;
    readonly from: IsoDay;
    readonly to: IsoDay;
  };
  /** `soak`: which soak it is, 1 for the first. */
  readonly 'soak-due': { readonly remains: SoakPlan['what']; readonly soak: number };
  readonly 'retained-shed': { readonly remains: SoakPlan['what']; readonly soaks: number };
  readonly 'meal-due': MealFacts;
  readonly 'cleaning-due': { readonly lastOn: IsoDay; readonly everyDays: number };
  readonly 'cleaning-after-shed-due': { readonly shedOn: IsoDay };
  readonly 'first-weighing-due': object;
  readonly 'weighing-due': { readonly lastOn: IsoDay; readonly massG: number; readonly everyDays: number };
  readonly 'identification-due': object;
  readonly 'identification-recheck-due': { readonly sure: string; readonly identifiedOn: IsoDay };
  readonly 'sexing-due': object;
  readonly 'sex-recheck-due': { readonly sexedOn: IsoDay };
  /** Identifying and sexing of one clutch's young at the bench: how many of each. */
  readonly 'bench-work-due': { readonly identify: number; readonly sex: number };
  readonly 'move-up': { readonly reasons: readonly WeighedReason[] };
  readonly 'move-back': { readonly reasons: readonly WeighedReason[] };
  readonly 'settling-after-move': { readonly days: number };
  readonly 'egg-check-due': { readonly day: number };
  readonly 'first-pip-due': Expected;
  readonly hatching: { readonly day: number };
  readonly 'cutting-due': { readonly day: number; readonly cutting: Cutting };
  readonly 'eggs-due': Expected;
  readonly 'pre-lay-shed-due': Expected;
  readonly 'heat-fault': { readonly faults: readonly HeatFault[]; readonly everyDays: number };
  readonly 'heat-check-due': { readonly everyDays: number };
  readonly 'prey-short': StockFacts;
  readonly 'prey-order-due': StockFacts;
}

export type MealFacts = Pick<
  Meal,
  'species' | 'size' | 'state' | 'massG' | 'dueOn' | 'everyDays' | 'basis' | 'notes'
> & {
  /** The step of the feeding plan that is tried with an animal that refuses; null for a meal as planned. */
  readonly trying: {
    readonly name: string;
    readonly isPlanned: boolean;
    readonly attempt: number;
    readonly tries: number;
    readonly next: string | null;
    readonly caution: string | null;
  } | null;
};

/** The keeper's cutting protocol eggs, with the day of those that cut on one. */
export interface Cutting {
  readonly protocol: CuttingProtocol;
  readonly day: number;
}

/** Pieces of one prey: in the freezer after tonight, thawed tonight, used in a week, and the number at which to order. */
export interface StockFacts {
  readonly prey: string;
  readonly left: number;
  readonly tonight: number;
  readonly perWeek: number;
  readonly reorderAt: number;
  readonly runsOutOn: IsoDay | null;
}

export type TaskFact = FactOf<Tasks>;
export type TaskCode = TaskFact['code'];

/** One thing that needs a person now. */
export type Task = TaskFact & {
  readonly kind: TaskKind;
  readonly dueOn: IsoDay;
  readonly records: readonly string[];
};

export const TASK_KINDS: Readonly<Record<TaskCode, TaskKind>> = {
  'below-own-best': 'concern',
  'below-growth': 'concern',
  'meals-refused': 'concern',
  'regurgitated-again': 'concern',
  'dose-due': 'dose',
  'signs-recheck-due': 'health',
  'visit-due': 'health',
  'quarantine-check-due': 'health',
  'quarantine-over': 'health',
  'mite-check-due': 'health',
  'loan-over': 'loan',
  'first-shed-due': 'first-shed',
  'shed-due': 'shed',
  'shed-overdue': 'shed',
  'soak-due': 'shed',
  'retained-shed': 'shed',
  'meal-due': 'meal',
  'cleaning-due': 'clean',
  'cleaning-after-shed-due': 'clean',
  'first-weighing-due': 'weigh',
  'weighing-due': 'weigh',
  'identification-due': 'identify',
  'identification-recheck-due': 'identify',
  'sexing-due': 'sex',
  'sex-recheck-due': 'sex',
  'bench-work-due': 'identify',
  'move-up': 'move',
  'move-back': 'move',
  'settling-after-move': 'settle',
  'egg-check-due': 'eggs',
  'first-pip-due': 'eggs',
  hatching: 'eggs',
  'cutting-due': 'eggs',
  'eggs-due': 'season',
  'pre-lay-shed-due': 'season',
  'too-warm': 'climate',
  'too-cold': 'climate',
  'too-dry': 'climate',
  silent: 'climate',
  'heat-fault': 'heat',
  'heat-check-due': 'heat',
  'prey-short': 'stock',
  'reservation-lapsed': 'sale',
  'prey-order-due': 'stock',
};

/**
 * A task of a fact; its kind follows from the code.
 *
 * @example task({ code: 'heat-check-due', facts: { everyDays: 30 } }, '2026-11-28') // {"code": "heat-check-due", "facts": {"everyDays": 30}, "kind": "heat", "dueOn": "2026-11-28", "records": []}
 */
export function task(fact: TaskFact, dueOn: IsoDay, records: readonly string[] = []): Task {
  return { ...fact, kind: TASK_KINDS[fact.code], dueOn, records };
}
