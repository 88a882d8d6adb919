import type {
  HoldbackGains,
  PairPlan,
  PlannedPair,
  RankedPair,
  Route,
  SimulationResult,
  UnknownWord,
  WholeOdds,
} from '@karyotome/core';

/* What the planner's worker is asked, and what it answers. */

/** An animal of the collection, or genes typed in. */
export type PlannedParent =
  { readonly kind: 'owned'; readonly animalId: string } | { readonly kind: 'typed'; readonly genes: string };

export interface PairQuestion {
  readonly ask: 'pair';
  readonly dam: PlannedParent;
  readonly sire: PlannedParent;
  /** Genes in shorthand; empty where nothing particular is wanted. */
  readonly target: string;
}
export interface PairAnswer extends PairPlan {
  /** Good eggs of her next clutch, and how many clutches of her own that rests on. */
  readonly size: { readonly odds: WholeOdds; readonly mean: number; readonly clutches: number };
  readonly hatch: number;
  /** The expected inbreeding of the young; null where a parent is only typed. */
  readonly inbreeding: number | null;
  readonly unknown: readonly UnknownWord[];
}

export interface MatesQuestion {
  readonly ask: 'mates';
  readonly target: string;
}
export interface RankedMate extends RankedPair {
  /** At least one of the target in her next clutch. */
  readonly inClutch: number;
  /** Females he may still serve. */
  readonly freeLoad: number;
}

export interface Bought {
  readonly sex: 'female' | 'male';
  readonly genes: string;
}
export interface RoutesQuestion {
  readonly ask: 'routes';
  readonly target: string;
  readonly bought: Bought | null;
}
export interface RoutesAnswer {
  readonly routes: readonly Route[];
  /** Names of wanted genes that nobody carries. */
  readonly missing: readonly string[];
}

export interface SimulateQuestion {
  readonly ask: 'simulate';
  readonly target: string;
  readonly bought: Bought | null;
  readonly route: Route;
  readonly holdBack: number;
  readonly years: number;
  readonly runs: number;
  readonly seed: number;
}

/** What each step of a route gives with its parents as they are known now. */
export interface RouteOddsQuestion {
  readonly ask: 'route-odds';
  readonly target: string;
  readonly bought: Bought | null;
  readonly route: Route;
}

export interface SeasonTarget {
  readonly genes: string;
  /** What one hatchling of it is worth beside the others. */
  readonly worth: number;
}
export interface SeasonPlanQuestion {
  readonly ask: 'season';
  readonly targets: readonly SeasonTarget[];
  readonly females: readonly string[];
  /** Female -> the male fixed for her, or null for none. */
  readonly fixed: readonly (readonly [female: string, male: string | null])[];
  readonly inbreedingBound: number;
}

/** What holding back each of a clutch would add for a target. */
export interface GainsQuestion {
  readonly ask: 'gains';
  readonly target: string;
  readonly candidates: readonly string[];
}

export interface PlannerAnswers {
  gains: HoldbackGains;
  /** Per egg, for each step; null where a parent is not here yet. */
  'route-odds': readonly (number | null)[];
  pair: PairAnswer;
  mates: readonly RankedMate[];
  routes: RoutesAnswer;
  simulate: SimulationResult;
  season: readonly PlannedPair[];
}
export type PlannerQuestion =
  | PairQuestion
  | MatesQuestion
  | RoutesQuestion
  | RouteOddsQuestion
  | SimulateQuestion
  | SeasonPlanQuestion
  | GainsQuestion;
export type AnswerTo<Q extends PlannerQuestion> = PlannerAnswers[Q['ask']];
