import type { IsoDay } from '../calendar/days.ts';
import type { OpenSigns } from './health-facts.ts';
import type { HealthCheckRecord, HealthHistory, QuarantineReason } from './health-records.ts';
import { treatmentCourses, type TreatmentCourse } from './treatment-course.ts';

export interface Quarantine {
  readonly record: string;
  /** When it began, however often it was made longer. */
  readonly since: IsoDay;
  readonly until: IsoDay;
  readonly reason: QuarantineReason;
}

/** What the records say of one animal's health on a day. */
export interface HealthState {
  readonly lastCheckOn: IsoDay | null;
  /** Signs that were there when it was last looked at. */
  readonly openSigns: (OpenSigns & { readonly record: string }) | null;
  /** Courses that are not over, the last begun first. */
  readonly courses: readonly TreatmentCourse[];
  /** Null where it is not kept apart. */
  readonly quarantine: Quarantine | null;
  /** A visit that was arranged; one after that day was it. */
  readonly nextVisit: { readonly record: string; readonly veterinarian: string; readonly on: IsoDay } | null;
}

const foundSomething = ({ signs, words }: HealthCheckRecord): boolean =>
  signs.length > 0 || words !== undefined;

/**
 * Where an animal's health stands, from its records up to a day.
 *
 * @example healthState({ ...NO_HEALTH_RECORDS, quarantines: [{ id: 'q', on: '2026-11-01', until: '2027-01-30', reason: 'new' }] }, '2026-11-28').quarantine // {"record": "q", "since": "2026-11-01", "until": "2027-01-30", "reason": "new"}
 */
export function healthState(health: HealthHistory, today: IsoDay): HealthState {
  return {
    lastCheckOn: health.checks.findLast(({ on }) => on <= today)?.on ?? null,
    openSigns: openSignsOf(health, today),
    courses: treatmentCourses(health, today).filter(({ next }) => next !== null),
    quarantine: quarantineOf(health, today),
    nextVisit: nextVisitOf(health, today),
  };
}

function openSignsOf({ checks }: HealthHistory, today: IsoDay): HealthState['openSigns'] {
  const known = checks.filter(({ on }) => on <= today);
  const last = known.at(-1);
  if (!last || !foundSomething(last)) return null;
  const clear = known.findLastIndex((check) => !foundSomething(check));
  const first = known[clear + 1]!;
  return {
    record: last.id,
    signs: last.signs,
    words: last.words ?? null,
    since: first.on,
    lastOn: last.on,
  };
}

function quarantineOf({ quarantines }: HealthHistory, today: IsoDay): Quarantine | null {
  const known = quarantines.filter(({ on }) => on <= today);
  const last = known.at(-1);
  if (!last || last.until === null) return null;
  const ended = known.findLastIndex(({ until }) => until === null);
  return { record: last.id, since: known[ended + 1]!.on, until: last.until, reason: last.reason };
}

function nextVisitOf({ visits }: HealthHistory, today: IsoDay): HealthState['nextVisit'] {
  const last = visits.findLast(({ on }) => on <= today);
  return last?.nextOn === undefined
    ? null
    : { record: last.id, veterinarian: last.veterinarian, on: last.nextOn };
}
