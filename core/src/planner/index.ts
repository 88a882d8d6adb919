export {
  bestMates,
  pairOdds,
  type AgainstPair,
  type NotReady,
  type PlannerAnimal,
  type RankedPair,
} from './best-mates.ts';
export {
  chanceWithin,
  clutchesForChance,
  expectedClutches,
  MOST_CLUTCHES,
  type Fertility,
} from './chances.ts';
export { clutchSize, hatchShare } from './clutch-size.ts';
export { holdbackGains, type BestPair, type HoldbackGain, type HoldbackGains } from './holdback-gains.ts';
export { planPair, targetChances, type PairPlan, type TargetChances } from './pair-plan.ts';
export { findRoutes, missingAlleles, type RouteQuestion } from './routes/find-routes.ts';
export {
  ROUTE_TERMS,
  type Route,
  type RouteAnimal,
  type RouteParent,
  type RouteStep,
  type RouteTerms,
} from './routes/route.ts';
export { stepOdds } from './routes/step-odds.ts';
export { RouteSimulation, type SimulationInput, type SimulationResult } from './routes/simulate.ts';
export { planSeason, type PlannedPair, type SeasonQuestion, type Trade } from './season-plan.ts';
