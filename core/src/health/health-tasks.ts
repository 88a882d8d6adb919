import { addDays, type IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import { task, type Task } from '../husbandry/task.ts';
import type { HealthFlags } from './health-facts.ts';
import type { HealthState } from './health-state.ts';

/* Intervals: common practice, no source. */
/** While signs last it is looked at again every so many days. */
export const RECHECK_DAYS = 3;
/** Whoever is kept apart is looked through for mites and signs every so many days. */
export const QUARANTINE_CHECK_DAYS = 7;
/** What a quarantine of a newcomer begins with; many keep it up longer. */
export const QUARANTINE_DAYS = 90;

/**
 * What an animal's health needs on a day, in the order in which a hand would do it.
 *
 * @example healthTasks({ lastCheckOn: null, openSigns: null, courses: [], quarantine: { record: 'q', since: '2026-08-01', until: '2026-10-30', reason: 'new' }, nextVisit: null }, '2026-11-28').map(({ code }) => code) // ["quarantine-over"]
 */
export function healthTasks(health: HealthState, today: IsoDay): Task[] {
  return [...doseTasks(health, today), ...checkTask(health, today), ...visitTask(health, today)];
}

function doseTasks({ courses }: HealthState, today: IsoDay): Task[] {
  return courses.flatMap(({ id, courseId, what, dose, orderedBy, doses, timesADay, next }) => {
    if (next === null || next.dueOn > today) return [];
    const { ordinal, timeOfDay, dueOn } = next;
    const isLate = dueOn < today;
    const facts = { courseId, what, dose, orderedBy, ordinal, of: doses, timeOfDay, timesADay, isLate };
    return [task({ code: 'dose-due', facts }, dueOn, [id])];
  });
}

/** One look serves all: signs that last, and the quarantine. */
function checkTask({ openSigns, quarantine, lastCheckOn }: HealthState, today: IsoDay): Task[] {
  if (openSigns) {
    const { record, ...facts } = openSigns;
    const dueOn = addDays(openSigns.lastOn, RECHECK_DAYS);
    return dueOn > today
      ? []
      : [task({ code: 'signs-recheck-due', facts: { ...facts, everyDays: RECHECK_DAYS } }, dueOn, [record])];
  }
  if (!quarantine) return [];
  const { record, since, until, reason } = quarantine;
  if (until <= today)
    return [task({ code: 'quarantine-over', facts: { since, until, reason } }, until, [record])];
  const seenOn = lastCheckOn !== null && lastCheckOn > since ? lastCheckOn : since;
  const dueOn = addDays(seenOn, QUARANTINE_CHECK_DAYS);
  const facts = { until, everyDays: QUARANTINE_CHECK_DAYS };
  return dueOn > today ? [] : [task({ code: 'quarantine-check-due', facts }, dueOn, [record])];
}

function visitTask({ nextVisit }: HealthState, today: IsoDay): Task[] {
  if (!nextVisit || nextVisit.on > today) return [];
  const { record, veterinarian, on } = nextVisit;
  return [task({ code: 'visit-due', facts: { veterinarian, on } }, on, [record])];
}

/**
 * What to know of an animal's health before touching it.
 *
 * @example healthFlags({ lastCheckOn: null, openSigns: null, courses: [], quarantine: { record: 'q', since: '2026-11-01', until: '2027-01-30', reason: 'new' }, nextVisit: null }) // [{"code": "in-quarantine", "facts": {"until": "2027-01-30"}}]
 */
export function healthFlags({ openSigns, courses, quarantine }: HealthState): FactOf<HealthFlags>[] {
  const flags: FactOf<HealthFlags>[] = [];
  if (quarantine) flags.push({ code: 'in-quarantine', facts: { until: quarantine.until } });
  if (openSigns) {
    const { record: _, ...facts } = openSigns;
    flags.push({ code: 'signs-seen', facts });
  }
  return [...flags, ...courses.map(({ what }) => ({ code: 'under-treatment', facts: { what } }) as const)];
}
