export {
  EVENTS_WITH_MALE,
  forecastSeason,
  malesWith,
  SEASON_EVENTS,
  type Expected,
  type SeasonEvent,
  type SeasonEventKind,
  type SeasonForecast,
  type SeasonStage,
} from './forecast.ts';
export {
  femaleFloor,
  femaleReadiness,
  maleReadiness,
  type BreedingFloor,
  type MaleUse,
  type Readiness,
  type ReadinessReason,
  type ReadinessReasons,
} from './readiness.ts';
export { SEASON_RULES, seasonOf, type CuttingProtocol, type SeasonRules } from './rules.ts';
export { storedCandidates, type EarlierMate } from './stored-sperm.ts';
export { learnWaits, type PastClutch, type Waits } from './waits.ts';
