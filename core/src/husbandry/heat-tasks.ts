import type { IsoDay } from '../calendar/days.ts';
import type { HeatFault } from './heat.ts';
import { task, type Task } from './task.ts';

/**
 * A heat zone that is due for its check, or has something wrong.
 *
 * @example heatTasks({ faults: [], dueOn: '2026-11-20', everyDays: 30 }, '2026-11-28').map(({ code, dueOn }) => [code, dueOn]) // [["heat-check-due", "2026-11-20"]]
 */
export function heatTasks(
  zone: { faults: readonly HeatFault[]; dueOn: IsoDay; everyDays: number },
  today: IsoDay,
): Task[] {
  const { faults, everyDays } = zone;
  if (faults.length === 0 && zone.dueOn > today) return [];
  const dueOn = zone.dueOn > today ? today : zone.dueOn;
  return [
    faults.length > 0
      ? task({ code: 'heat-fault', facts: { faults, everyDays } }, dueOn)
      : task({ code: 'heat-check-due', facts: { everyDays } }, dueOn),
  ];
}
