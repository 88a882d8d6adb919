import type { IsoDay } from '../calendar/days.ts';

/** What a keeper can see or hear of an animal that is not well: signs, never diagnoses. */
export const HEALTH_SIGNS = [
  'mites',
  'open-mouth-breathing',
  'wheezing',
  'nasal-discharge',
  'mouth-lesion',
  'excess-saliva',
  'swelling',
  'wound',
  'burn',
  'blisters',
  'discoloured-scales',
  'cloudy-eye',
  'thin',
  'weak',
  'tremor',
  'cannot-right-itself',
  'loose-stool',
  'blood-in-stool',
  'straining',
  'prolapse',
] as const;
export type HealthSign = (typeof HEALTH_SIGNS)[number];

/** A look at one animal: the signs that it shows, or that it shows none. */
export interface HealthCheckRecord {
  readonly id: string;
  readonly on: IsoDay;
  /** Empty where nothing was found, or where what was found has no name here: see `words`. */
  readonly signs: readonly HealthSign[];
  /** What was seen, in the keeper's words. */
  readonly words?: string;
}

export interface VetVisitRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly veterinarian: string;
  /** When it is to be seen again. */
  readonly nextOn?: IsoDay;
}

/** A course of doses as a veterinarian ordered it. Nothing of it is proposed: all of it is written down. */
export interface TreatmentRecord {
  readonly id: string;
  /** Stays the same where the record is corrected. */
  readonly courseId: string;
  readonly on: IsoDay;
  readonly what: string;
  /** In the words of whoever ordered it. */
  readonly dose: string;
  readonly orderedBy: string;
  /** The day of the first dose. */
  readonly from: IsoDay;
  readonly everyDays: number;
  readonly timesADay: number;
  /** How many doses in all; null: until it is ended. */
  readonly doses: number | null;
  /** While the course runs it is weighed so often. */
  readonly weighEveryDays?: number;
}

/** One dose, by its number in the course, from 1: given, or left out. */
export interface DoseRecord {
  readonly id: string;
  readonly courseId: string;
  readonly on: IsoDay;
  readonly ordinal: number;
  readonly isGiven: boolean;
}

export interface TreatmentEndRecord {
  readonly id: string;
  readonly courseId: string;
  readonly on: IsoDay;
}

export const QUARANTINE_REASONS = ['new', 'signs', 'contact'] as const;
export type QuarantineReason = (typeof QUARANTINE_REASONS)[number];

/** Kept apart until a day, or, with no day, not any longer. The last record counts. */
export interface QuarantineRecord {
  readonly id: string;
  readonly on: IsoDay;
  /** The day on which it may end; null: it ended on the record's day. */
  readonly until: IsoDay | null;
  readonly reason: QuarantineReason;
}

/** The dated records of one animal's health, each in date order. */
export interface HealthHistory {
  readonly checks: readonly HealthCheckRecord[];
  readonly visits: readonly VetVisitRecord[];
  readonly treatments: readonly TreatmentRecord[];
  readonly doses: readonly DoseRecord[];
  readonly ends: readonly TreatmentEndRecord[];
  readonly quarantines: readonly QuarantineRecord[];
}

export const NO_HEALTH_RECORDS: HealthHistory = {
  checks: [],
  visits: [],
  treatments: [],
  doses: [],
  ends: [],
  quarantines: [],
};
