import type { IsoDay } from '../calendar/days.ts';
import type { Fact, FactOf } from '../facts.ts';
import type { ShedStage } from './history.ts';

/** One reason: a fact, the side it counts for, and the records it was read from. */
export type Reason<OneFact extends Fact> = OneFact & {
  readonly side: 'for' | 'against';
  readonly records: readonly string[];
};

/** The reasons for or against a move, with the limits that decided. Masses in grams, shares from 0 to 1. */
export interface MoveReasons {
  readonly 'pushes-at-tub': { readonly seenOn: IsoDay };
  /** Into the last enclosure, which is best entered gravid. */
  readonly 'gravid-takes-change': object;
  readonly gravid: object;
  readonly 'moved-back-recently': {
    readonly on: IsoDay;
    readonly meals: number;
    readonly gainedG: number;
    readonly mealsInARow: number;
    readonly retryMeals: number;
    readonly retryG: number;
  };
  readonly 'not-eating-since-move': {
    readonly days: number;
    readonly refused: number;
    readonly losesMass: boolean;
    readonly retryG: number;
  };
  readonly 'over-step-mass': {
    readonly massG: number;
    readonly step: string;
    readonly maxG: number;
    readonly nextStep: string;
    readonly nextMinG: number;
  };
  readonly 'bold-feeder': {
    readonly massG: number;
    readonly maxG: number;
    readonly mealsInARow: number;
    readonly neededMeals: number;
    readonly fromShare: number;
  };
  readonly 'eats-well': { readonly mealsInARow: number; readonly neededMeals: number };
  readonly 'in-shed': { readonly stage: Exclude<ShedStage, 'shed'>; readonly day: number };
  readonly digesting: { readonly daysSinceMeal: number; readonly restDays: number };
  readonly 'refuses-meals': { readonly refusedInARow: number };
  readonly 'shy-feeder': {
    readonly mealsInARow: number;
    readonly takenEver: number;
    readonly offeredEver: number;
    readonly leeway: number;
  };
  readonly 'too-few-meals': {
    readonly mealsInARow: number;
    readonly neededMeals: number;
    readonly nextStep: string;
  };
  readonly settling: { readonly days: number; readonly settlingDays: number };
  readonly 'stale-mass': { readonly days: number; readonly staleDays: number };
}

export type MoveReason = FactOf<MoveReasons>;

/** A reason that is weighed against others. */
export type WeighedReason = Reason<MoveReason> & {
  /** How much it counts, 1 to 4. */
  readonly weight: number;
  /** Not now, whatever the reasons for it. */
  readonly blocks?: boolean;
};
