import type { PreySpecies } from './prey.ts';

/** How animals up to a weight are fed. */
export interface WeightClass {
  /** Grams; null for the last class, which has no upper end. */
  readonly belowG: number | null;
  /** Prey as a share of body weight, 0 to 1. */
  readonly share: number;
  readonly everyDays: number;
}

/** The keeper's rules of feeding. Every default is common practice, no source, and the keeper's to change. */
export interface FeedingRules {
  /** From the lightest to the heaviest. */
  readonly classes: readonly WeightClass[];
  readonly species: PreySpecies;
  /** A hatchling lives on yolk until its first shed, and is offered its first meal so many days after it. */
  readonly firstMealAfterShedDays: number;
  /** Without food after a regurgitation; then a meal of this share of the usual one. */
  readonly restDays: number;
  readonly afterRestShare: number;
  /** Offered while in shed or gravid, or passed over. */
  readonly offerInShed: boolean;
  readonly offerGravid: boolean;
  /** From this weight on an animal may fast in these months (1 to 12) without harm, males above all. */
  readonly adultG: number;
  readonly fastMonths: readonly number[];
  /** One that fasts is offered a meal only so often. */
  readonly fastingEveryDays: number;
  /** Tubs are cleaned so often. */
  readonly cleanEveryDays: number;
}

export const FEEDING_RULES: FeedingRules = {
  classes: [
    { belowG: 300, share: 0.125, everyDays: 7 },
    { belowG: 800, share: 0.1, everyDays: 10 },
    { belowG: 1500, share: 0.07, everyDays: 14 },
    { belowG: null, share: 0.05, everyDays: 21 },
  ],
  species: 'rat',
  firstMealAfterShedDays: 7,
  restDays: 12,
  afterRestShare: 0.5,
  offerInShed: false,
  offerGravid: false,
  adultG: 700,
  fastMonths: [11, 12, 1, 2, 3, 4],
  fastingEveryDays: 28,
  cleanEveryDays: 14,
};

/** @example weightClass(FEEDING_RULES, 600).everyDays // 10 */
export function weightClass(rules: FeedingRules, massG: number): WeightClass {
  return rules.classes.find(({ belowG }) => belowG === null || massG < belowG) ?? rules.classes.at(-1)!;
}
