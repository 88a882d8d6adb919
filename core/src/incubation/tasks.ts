import type { IsoDay } from '../calendar/days.ts';
import type { SeasonForecast } from '../breeding/forecast.ts';
import { task, type Task } from '../husbandry/task.ts';
import type { ClimateAlarm } from './climate.ts';
import { CHECK_LATE_DAYS, type IncubationClock } from './clock.ts';

/**
 * What a clutch in the incubator needs on a day.
 *
 * @example clutchTasks({ day: 60, pip: null, milestones: [], cutOn: null, cutting: null }, '2026-06-30').map(({ code }) => code) // ["hatching"]
 */
export function clutchTasks(clock: IncubationClock, today: IsoDay): Task[] {
  const { day, pip, cutOn, cutting } = clock;
  const check = clock.milestones.find(
    (milestone) =>
      milestone.what === 'egg-check' &&
      !milestone.done &&
      day >= milestone.day &&
      day < milestone.day + CHECK_LATE_DAYS,
  );
  const tasks: Task[] = [];
  if (pip === null) tasks.push(task({ code: 'hatching', facts: { day } }, today));
  else if (pip.from <= today) tasks.push(task({ code: 'first-pip-due', facts: pip }, pip.from));
  else if (check) tasks.push(task({ code: 'egg-check-due', facts: { day } }, check.on));
  if (cutOn !== null && cutOn <= today)
    tasks.push(task({ code: 'cutting-due', facts: { day, cutting } }, cutOn));
  return tasks;
}

/**
 * What a female's season asks for on a day: to look for the shed, or for eggs.
 *
 * @example seasonTasks({ stage: 'together', since: '2026-01-02', with: ['M1'], locks: 0, expected: [] }, '2026-01-05') // []
 */
export function seasonTasks(forecast: SeasonForecast, today: IsoDay): Task[] {
  return forecast.expected
    .filter(({ what, from }) => from <= today && !(what === 'eggs' && forecast.stage === 'ovulated'))
    .map((expected) =>
      task(
        { code: expected.what === 'eggs' ? 'eggs-due' : 'pre-lay-shed-due', facts: expected },
        expected.from,
      ),
    );
}

/**
 * What is wrong in an incubator, as tasks of the day.
 *
 * @example climateTasks([], '2026-11-28') // []
 */
export function climateTasks(alarms: readonly ClimateAlarm[], today: IsoDay): Task[] {
  return alarms.map((alarm) => task(alarm, today));
}
