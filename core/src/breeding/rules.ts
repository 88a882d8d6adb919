/** When to cut eggs open. Three schools; the keeper chooses. */
export type CuttingProtocol = 'after-first-pip' | 'unpipped-at-day' | 'never';

/** What a keeper decides about breeding. All defaults: common practice, no source; every number is the keeper's to change. */
export interface SeasonRules {
  /** A female breeds from this weight, grams; an older one from the lower floor. */
  readonly femaleFloorG: number;
  readonly olderFemaleFloorG: number;
  readonly olderFromYears: number;
  readonly femaleFromYears: number;
  /** Days from one laying to the next introduction. */
  readonly femaleRestDays: number;
  readonly maleFloorG: number;
  readonly maleFromYears: number;
  /** Females a male serves in a season. */
  readonly maleLoad: number;
  /** Days of rest after a lock. */
  readonly maleRestDays: number;
  /** A male that lost this share of his best weight of the year rests, percent. */
  readonly maleLossPercent: number;
  /** The bound on the expected inbreeding of the young. */
  readonly inbreedingBound: number;
  /** The share given to all mates of earlier seasons together as candidate sires; 0 leaves them out. */
  readonly storedSpermShare: number;
  /** How far back a mating can still count as stored, days. */
  readonly storedSpermDays: number;
  /** The chance that a paired female lays nothing in a season. */
  readonly missedSeason: number;
  /** A season's pairings begin in this month of the year before its eggs. */
  readonly seasonFromMonth: number;
  readonly cutting: CuttingProtocol;
  readonly cutDay: number;
}

export const SEASON_RULES: SeasonRules = {
  femaleFloorG: 1500,
  olderFemaleFloorG: 1300,
  olderFromYears: 4,
  femaleFromYears: 2.5,
  femaleRestDays: 120,
  maleFloorG: 650,
  maleFromYears: 0.9,
  maleLoad: 5,
  maleRestDays: 3,
  maleLossPercent: 15,
  inbreedingBound: 0.125,
  storedSpermShare: 0.02,
  storedSpermDays: 540,
  missedSeason: 0.25,
  seasonFromMonth: 8,
  cutting: 'unpipped-at-day',
  cutDay: 60,
};

/**
 * The season a day belongs to: named after the year in which its eggs hatch.
 *
 * @example seasonOf('2026-11-28', { seasonFromMonth: 9 }) // 2027
 */
export function seasonOf(day: string, rules: Pick<SeasonRules, 'seasonFromMonth'>): number {
  const [year, month] = day.split('-').map(Number);
  return month! >= rules.seasonFromMonth ? year! + 1 : year!;
}
