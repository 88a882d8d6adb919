import type { IsoDay } from '../calendar/days.ts';
import type { HealthSign, QuarantineReason } from './health-records.ts';

/** What of an animal's health can be due. */
export interface HealthTasks {
  readonly 'dose-due': DoseFacts;
  /** Signs that were seen and not gone when it was last looked at; `words`: what has no name among the signs. */
  readonly 'signs-recheck-due': OpenSigns & { readonly everyDays: number };
  readonly 'visit-due': { readonly veterinarian: string; readonly on: IsoDay };
  readonly 'quarantine-check-due': { readonly until: IsoDay; readonly everyDays: number };
  readonly 'quarantine-over': {
    readonly since: IsoDay;
    readonly until: IsoDay;
    readonly reason: QuarantineReason;
  };
  /** Mites were seen in a rack: all who live there are looked through again and again until none were seen for long enough. */
  readonly 'mite-check-due': {
    readonly lastSeenOn: IsoDay;
    readonly until: IsoDay;
    readonly everyDays: number;
    /** Animals to be looked through now, of how many in the rack. */
    readonly toCheck: number;
    readonly of: number;
  };
}

/** A dose that is due, in the words of whoever ordered it. */
export interface DoseFacts {
  readonly courseId: string;
  readonly what: string;
  readonly dose: string;
  readonly orderedBy: string;
  /** Its number in the course, from 1. */
  readonly ordinal: number;
  /** Doses in all; null: until the course is ended. */
  readonly of: number | null;
  /** Which of the day's doses it is, from 1. */
  readonly timeOfDay: number;
  readonly timesADay: number;
  /** The day for which it was ordered has passed. */
  readonly isLate: boolean;
}

export interface OpenSigns {
  readonly signs: readonly HealthSign[];
  readonly words: string | null;
  /** When they were first seen without a check between that found nothing. */
  readonly since: IsoDay;
  /** When it was last looked at. */
  readonly lastOn: IsoDay;
}

/** What to know of an animal's health before touching it. */
export interface HealthFlags {
  'in-quarantine': { readonly until: IsoDay };
  'under-treatment': { readonly what: string };
  'signs-seen': OpenSigns;
}
