import type { TodayLine } from '@karyotome/contract';
import { nextMeal, task, type TaskFact } from '@karyotome/core';
import { HISTORY } from './round.ts';

/** The meal of an animal of 200 g, as Today has it. */
export function mealDue(): TaskFact {
  const { species, size, state, massG, dueOn, everyDays, basis, notes } = nextMeal(HISTORY, '2026-06-20')!;
  return {
    code: 'meal-due',
    facts: { species, size, state, massG, dueOn, everyDays, basis, notes, trying: null },
  };
}

/** A line of Today about nothing in particular, unless it is said. */
export const todayLine = (
  fact: TaskFact,
  more: Partial<
    Pick<
      TodayLine,
      'animal' | 'preset' | 'zone' | 'advice' | 'dueOn' | 'clutch' | 'incubator' | 'room' | 'rack'
    >
  > = {},
): TodayLine => ({
  key: `${fact.code}-${more.animal?.number ?? ''}`,
  animal: null,
  clutch: null,
  incubator: null,
  room: null,
  advice: null,
  preset: null,
  staysInTub: false,
  zone: null,
  rack: null,
  ...task(fact, '2026-06-20'),
  ...more,
});
