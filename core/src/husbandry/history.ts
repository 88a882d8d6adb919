import type { IsoDay } from '../calendar/days.ts';

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
}

/** How a hatchling is started on food: the day of the first offer, and whether with mice. */
export interface StartPlan {
  readonly firstMealOn: IsoDay;
  readonly withMice: boolean;
}

export interface History {
  readonly hatchedOn: IsoDay | null;
  readonly weights: readonly WeightRecord[];
  readonly feedings: readonly FeedingRecord[];
  readonly sheds: readonly ShedRecord[];
  readonly moves: readonly MoveRecord[];
  readonly plan?: StartPlan;
}
