import { addDays, type IsoDay } from '../calendar/days.ts';
import type { HealthHistory, TreatmentRecord } from './health-records.ts';

/** Where one course of treatment stands on a day. */
export interface TreatmentCourse extends TreatmentRecord {
  /** Doses that were logged: given, and left out. */
  readonly given: number;
  readonly leftOut: number;
  readonly endedOn: IsoDay | null;
  /** The dose that comes next; null where the course is over. */
  readonly next: {
    readonly ordinal: number;
    readonly dueOn: IsoDay;
    /** Which of its day's doses it is, from 1. */
    readonly timeOfDay: number;
  } | null;
}

/**
 * An animal's courses, the last begun first. The next dose is the first whose number is not logged. It is due as long after
 * the one before it as was ordered, so one that comes late moves those after it: two are never due at once to catch up.
 *
 * @example treatmentCourses({ ...NO_HEALTH_RECORDS, treatments: [{ id: 't', courseId: 't', on: '2026-11-01', what: 'as prescribed', dose: '0.1 ml', orderedBy: 'Dr. Lund', from: '2026-11-01', everyDays: 3, timesADay: 1, doses: 5 }], doses: [{ id: 'd', courseId: 't', on: '2026-11-02', ordinal: 1, isGiven: true }] }, '2026-11-04')[0].next // {"ordinal": 2, "dueOn": "2026-11-05", "timeOfDay": 1}
 */
export function treatmentCourses(health: HealthHistory, today: IsoDay): TreatmentCourse[] {
  return health.treatments
    .filter(({ on }) => on <= today)
    .map((treatment): TreatmentCourse => {
      const logged = health.doses.filter(
        ({ courseId, on }) => courseId === treatment.courseId && on <= today,
      );
      const end = health.ends.find(({ courseId, on }) => courseId === treatment.courseId && on <= today);
      const given = logged.filter(({ isGiven }) => isGiven).length;
      return {
        ...treatment,
        given,
        leftOut: logged.length - given,
        endedOn: end?.on ?? null,
        next: end ? null : nextDose(treatment, logged),
      };
    })
    .toReversed();
}

function nextDose(
  { from, everyDays, timesADay, doses }: TreatmentRecord,
  logged: readonly { readonly on: IsoDay; readonly ordinal: number }[],
): TreatmentCourse['next'] {
  const numbers = new Set(logged.map(({ ordinal }) => ordinal));
  let ordinal = 1;
  while (numbers.has(ordinal)) ordinal += 1;
  if (doses !== null && ordinal > doses) return null;
  const lastOn = logged.reduce<IsoDay | null>(
    (last, { on }) => (last === null || on > last ? on : last),
    null,
  );
  if (lastOn === null) return { ordinal, dueOn: from, timeOfDay: 1 };
  const thatDay = logged.filter(({ on }) => on === lastOn).length;
  return thatDay < timesADay
    ? { ordinal, dueOn: lastOn, timeOfDay: thatDay + 1 }
    : { ordinal, dueOn: addDays(lastOn, everyDays), timeOfDay: 1 };
}
