import type { IsoDay } from '../calendar/days.ts';
import type { HealthHistory } from '../health/health-records.ts';
import type { LoanHistory } from '../loans/loan-records.ts';

/** The dated records that husbandry reasons from, each with the id of its record. Lists are in date order. */
export interface WeightRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly massG: number;
}

export interface FeedingRecord {
  readonly id: string;
  readonly on: IsoDay;
  /** False: offered and refused. */
  readonly taken: boolean;
  readonly species?: string;
  readonly size?: string;
  readonly state?: string;
  /** The step of the feeding plan it was offered by. */
  readonly step?: string;
  /** How bright it was. */
  readonly light?: string;
}

/** In the order in which the signs come. */
export type ShedStage = 'dull' | 'blue' | 'clear' | 'shed';

export interface ShedRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly stage: ShedStage;
  readonly complete?: boolean;
  readonly eyeCaps?: boolean;
}

export interface MoveRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly fromTub: string | null;
  readonly toTub: string | null;
  readonly substrate?: string;
}

/** What is done, or seen, at a tub besides meals, sheds and weights. */
export const CARE_ACTS = [
  'not-offered',
  'cleaned',
  'caps-checked',
  'soaked',
  'pushing',
  'regurgitated',
] as const;
export type CareAct = (typeof CARE_ACTS)[number];

export interface CareRecord {
  readonly id: string;
  readonly on: IsoDay;
  readonly act: CareAct;
}

/** How a hatchling is started on food: the day of the first offer, and the plan. */
export interface StartPlan {
  readonly firstMealOn: IsoDay;
  readonly planId: string;
}

/** What one animal has of its own instead of the collection's rules. */
export interface OwnWay {
  readonly planId?: string;
  readonly everyDays?: number;
  /** Prey as a share of body weight. */
  readonly share?: number;
  readonly species?: 'rat' | 'mouse';
  /** It stays in its tub up to this weight. */
  readonly stayUntilG?: number;
}

export interface History {
  readonly hatchedOn: IsoDay | null;
  readonly weights: readonly WeightRecord[];
  readonly feedings: readonly FeedingRecord[];
  readonly sheds: readonly ShedRecord[];
  readonly moves: readonly MoveRecord[];
  readonly care?: readonly CareRecord[];
  readonly plan?: StartPlan;
  readonly own?: OwnWay;
  readonly health?: HealthHistory;
  readonly loans?: LoanHistory;
}

/**
 * The last time that something was done or seen at the tub, on or before a day.
 *
 * @example lastCare({ care: [{ id: 'c', on: '2026-11-01', act: 'cleaned' }] }, 'cleaned', '2026-11-28').on // "2026-11-01"
 */
export function lastCare(history: History, act: CareAct, on: IsoDay): CareRecord | null {
  return history.care?.findLast((record) => record.act === act && record.on <= on) ?? null;
}
