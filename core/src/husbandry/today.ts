import { addDays, daysBetween, type IsoDay } from '../calendar/days.ts';
import type { Meal } from '../feeding/next-meal.ts';
import type { PlanState } from '../feeding/plan-state.ts';
import type { HealthState } from '../health/health-state.ts';
import { healthTasks } from '../health/health-tasks.ts';
import type { LoanRecord } from '../loans/loan-records.ts';
import { isAway, loanTasks } from '../loans/loan.ts';
import type { Concern } from './concern.ts';
import { lastCare, type History } from './history.ts';
import { judgeMove } from './judge-move.ts';
import { type MoveAdvice } from './move-advice.ts';
import { shedCycle, soakPlan, type ShedCycle } from './shed-cycle.ts';
import { inShed, waitsForFirstShed } from './shed-state.ts';
import { task, type MealFacts, type Task } from './task.ts';

export interface AnimalDay {
  readonly history: History;
  readonly sex: { readonly sex: 'female' | 'male' | 'unknown'; readonly on: IsoDay | null };
  readonly identified: boolean;
  /** An identification that is not certain: how sure, and from which day. */
  readonly unsure?: { readonly sure: string; readonly on: IsoDay } | null;
  readonly advice: MoveAdvice;
  readonly meal: Meal | null;
  readonly concerns: readonly Concern[];
  /** Left out: nothing is recorded of it. */
  readonly health?: HealthState;
  /** Left out: none runs. */
  readonly loan?: LoanRecord | null;
  readonly cleanEveryDays: number;
}

/* All intervals: common practice, no source. */
const WEIGH_EVERY_DAYS = 30;
const ADULT_WEIGH_EVERY_DAYS = 60;
const ADULT_G = 1000;
const RECHECK_FEMALE_DAYS = 90;
const YOUNG_DAYS = 400;
/** After a shed the tub is cleaned within so many days. */
const CLEAN_AFTER_SHED_DAYS = 7;
const FIRST_SHED = { from: 7, to: 10 } as const;

/**
 * What one animal needs on a day, in the order in which a hand would do it.
 *
 * @example animalTasks({ history: { hatchedOn: '2020-06-01', weights: [], feedings: [], sheds: [], moves: [], care: [{ id: 'c', on: '2026-10-01', act: 'cleaned' }] }, sex: { sex: 'female', on: null }, identified: true, advice: { verdict: 'none' }, meal: null, concerns: [], cleanEveryDays: 30 }, '2026-11-28').map(({ code }) => code) // ["first-weighing-due", "cleaning-due"]
 */
export function animalTasks(animal: AnimalDay, today: IsoDay): Task[] {
  const { history, loan = null } = animal;
  // Lent to somebody else, it is that one's to care for.
  if (isAway(loan)) return loanTasks(loan, today);
  const age = history.hatchedOn ? daysBetween(history.hatchedOn, today) : null;
  const shed = shedCycle(history, today);
  const hasShed = history.sheds.some((record) => record.stage === 'shed');
  return [
    ...animal.concerns.map(concernTask),
    ...(animal.health ? healthTasks(animal.health, today) : []),
    ...loanTasks(loan, today),
    ...firstShedTask(history, age, today),
    ...shedTask(animal, shed, today),
    ...(animal.meal?.verdict === 'due' ? [mealTask(animal.meal)] : []),
    ...(shed ? [] : weighTask(history, animal.health?.courses ?? [], today)),
    ...cleaningTasks(history, animal.cleanEveryDays, today),
    ...(hasShed && !animal.identified && age !== null && age < YOUNG_DAYS
      ? [task({ code: 'identification-due', facts: {} }, today)]
      : []),
    ...lookAgainTask(animal, age, today),
    ...sexTask(animal, age, today),
    ...moveTask(animal, today),
  ];
}

function firstShedTask(history: History, age: number | null, today: IsoDay): Task[] {
  if (age === null || age < FIRST_SHED.from || !waitsForFirstShed(history, today)) return [];
  const dueOn = addDays(history.hatchedOn!, FIRST_SHED.from);
  const facts = { ageDays: age, fromDay: FIRST_SHED.from, toDay: FIRST_SHED.to };
  return [task({ code: 'first-shed-due', facts }, dueOn > today ? today : dueOn)];
}

function concernTask({ since, records, ...fact }: Concern): Task {
  return task(fact, since, records);
}

function shedTask(animal: AnimalDay, shed: ShedCycle | null, today: IsoDay): Task[] {
  const { history } = animal;
  if (shed) {
    const { from, to } = shed.expected;
    const facts = { stage: shed.stage, day: shed.days, from, to };
    return [task({ code: shed.late ? 'shed-overdue' : 'shed-due', facts }, shed.since, [shed.record])];
  }
  const soak = soakPlan(history, today);
  if (!soak || (!soak.dueToday && !soak.veterinarian)) return [];
  const soaks = soak.soaks.length;
  return [
    soak.veterinarian
      ? task({ code: 'retained-shed', facts: { remains: soak.what, soaks } }, soak.since, [soak.record])
      : task({ code: 'soak-due', facts: { remains: soak.what, soak: soaks + 1 } }, soak.since, [soak.record]),
  ];
}

function mealTask(meal: Meal): Task {
  const { species, size, state, massG, dueOn, everyDays, basis, notes } = meal;
  const facts = { species, size, state, massG, dueOn, everyDays, basis, notes, trying: tryingOf(meal.plan) };
  return task({ code: 'meal-due', facts }, dueOn, meal.records);
}

function tryingOf({ step, next, index, triesUsed }: PlanState): MealFacts['trying'] {
  if (step === null || (index === 0 && triesUsed === 0)) return null;
  return {
    name: step.name,
    isPlanned: index === 0,
    attempt: triesUsed + 1,
    tries: step.tries,
    next: next?.name ?? null,
    caution: step.caution ?? null,
  };
}

/**
 * Tubs are cleaned by the clock once a cleaning was recorded, and after a shed; not while one is in shed.
 *
 * @example cleaningTasks({ weights: [], feedings: [], sheds: [], moves: [], care: [{ id: 'c', on: '2026-11-01', act: 'cleaned' }] }, 30, '2026-11-28') // []
 */
export function cleaningTasks(history: History, everyDays: number, today: IsoDay): Task[] {
  const last = lastCare(history, 'cleaned', today);
  if (!last || inShed(history.sheds, today)) return [];
  const shed = history.sheds.findLast(({ stage, on }) => stage === 'shed' && on <= today);
  if (shed && shed.on > last.on && daysBetween(shed.on, today) <= CLEAN_AFTER_SHED_DAYS) {
    return [
      task({ code: 'cleaning-after-shed-due', facts: { shedOn: shed.on } }, addDays(shed.on, 1), [shed.id]),
    ];
  }
  const dueOn = addDays(last.on, everyDays);
  if (dueOn > today) return [];
  return [task({ code: 'cleaning-due', facts: { lastOn: last.on, everyDays } }, dueOn, [last.id])];
}

/** While it is treated an animal is weighed as often as was ordered, if that is more often. */
const weighEvery = (massG: number, courses: HealthState['courses']): number =>
  Math.min(
    massG >= ADULT_G ? ADULT_WEIGH_EVERY_DAYS : WEIGH_EVERY_DAYS,
    ...courses.map(({ weighEveryDays }) => weighEveryDays ?? Infinity),
  );

/**
 * The day of the next weighing; null for an animal that was never weighed.
 *
 * @param courses - the treatments that it is under
 * @example nextWeighing({ hatchedOn: '2020-06-01', weights: [{ id: 'w', on: '2026-11-01', massG: 1800 }], feedings: [], sheds: [], moves: [] }, []) // "2026-12-31"
 */
export function nextWeighing(history: History, courses: HealthState['courses']): IsoDay | null {
  const last = history.weights.at(-1);
  return last ? addDays(last.on, weighEvery(last.massG, courses)) : null;
}

function weighTask(history: History, courses: HealthState['courses'], today: IsoDay): Task[] {
  const last = history.weights.at(-1);
  if (!last) return [task({ code: 'first-weighing-due', facts: {} }, today)];
  const everyDays = weighEvery(last.massG, courses);
  const dueOn = addDays(last.on, everyDays);
  if (dueOn > today) return [];
  const facts = { lastOn: last.on, massG: last.massG, everyDays };
  return [task({ code: 'weighing-due', facts }, dueOn, [last.id])];
}

/** Colours open up: what was not certain is looked at again once it has shed since. */
function lookAgainTask({ unsure, history }: AnimalDay, age: number | null, today: IsoDay): Task[] {
  if (!unsure || age === null || age > YOUNG_DAYS) return [];
  const shed = history.sheds.findLast(({ stage, on }) => stage === 'shed' && on > unsure.on && on <= today);
  if (!shed) return [];
  const facts = { sure: unsure.sure, identifiedOn: unsure.on };
  return [task({ code: 'identification-recheck-due', facts }, shed.on, [shed.id])];
}

function sexTask(animal: AnimalDay, age: number | null, today: IsoDay): Task[] {
  if (age === null || age > YOUNG_DAYS) return [];
  const { sex, on } = animal.sex;
  if (sex === 'unknown') return [task({ code: 'sexing-due', facts: {} }, today)];
  if (sex === 'male' || on === null) return [];
  const checkedAt = daysBetween(animal.history.hatchedOn!, on);
  const dueOn = addDays(on, RECHECK_FEMALE_DAYS);
  if (checkedAt > RECHECK_FEMALE_DAYS || dueOn > today) return [];
  return [task({ code: 'sex-recheck-due', facts: { sexedOn: on } }, dueOn)];
}

const MOVE_TASKS = { 'move-up': 'move-up', 'go-back': 'move-back' } as const;

function moveTask(animal: AnimalDay, today: IsoDay): Task[] {
  const { advice, history } = animal;
  // Staying where it is is nothing to do.
  if (advice.verdict === 'hold') return [];
  if (advice.verdict !== 'none') {
    const { reasons } = advice;
    const records = reasons.flatMap((reason) => reason.records);
    return [task({ code: MOVE_TASKS[advice.verdict], facts: { reasons } }, today, records)];
  }
  const last = history.moves.at(-1);
  if (!last?.fromTub || judgeMove(last, history, today) !== 'settling') return [];
  const days = daysBetween(last.on, today);
  return days < 7 ? [] : [task({ code: 'settling-after-move', facts: { days } }, last.on, [last.id])];
}
