export { InputError, CostError, type Issue } from './errors.ts';
export { addDays, daysBetween, isIsoDay, localDay, type IsoDay } from './calendar/days.ts';
export {
  clockIn,
  dayIn,
  hoursOf,
  isTimeZone,
  latestDayOnEarth,
  momentsOf,
  offsetAt,
  startOfDay,
  type TimeZone,
} from './calendar/zones.ts';
export { WILD, type Allele, type Compound, type Expression, type Hides, type Locus } from './loci/locus.ts';
export {
  allGenotypes,
  appearance,
  canonical,
  welfareNotes,
  type Genotype,
  type WeightedGenotype,
} from './loci/genotype.ts';
export {
  CATALOGUE,
  createCatalogue,
  type Catalogue,
  type CatalogueAdditions,
} from './catalogue/catalogue.ts';
export { ownId, toAdditions, type CatalogueEntry } from './catalogue/entries.ts';
export {
  CHANCES,
  CARRIER_MARKER_CHANCES,
  markerId,
  type CatalogueMarker,
} from './catalogue/gather-markers.ts';
export { coverOn, showsMarker } from './identify/cover.ts';
export { phenotypeLabel, type PhenotypeSpace, type Hypothesis } from './identify/phenotype-space.ts';
export { rank, type Candidate, type GeneOdds, type Ranking, type MarkerWeight } from './identify/rank.ts';
export type { Observation, Observations } from './identify/observations.ts';
export { ClutchPriorReader, type ClutchFamily, type ClutchPriors } from './identify/clutch-priors.ts';
export {
  nextObservations,
  type ObservationAdvice,
  type NextObservation,
} from './identify/next-observations.ts';
export { notExcluded, suggestSureness, type CallRecord } from './identify/suggest.ts';
export {
  linkedBySex,
  phenotypesByLocus,
  parentNews,
  sexClashes,
  type ParentNews,
  type SexClash,
} from './identify/clutch-says.ts';
export {
  recordsOf,
  settledByLater,
  settledCalls,
  type PastCall,
  type SettledCall,
} from './identify/proved.ts';
export {
  agreementOn,
  CARRIER_MARKERS,
  TRAIT_MARKERS,
  WILD_TYPE_MARKERS,
  ZONES,
  type Agreement,
  type TraitMarker,
  type Zone,
  type OwnMarker,
} from './catalogue/trait-markers.ts';
export { COMBINATION_WORDS, foldPhrase, wordsFor, type Alias } from './catalogue/words.ts';
export { KinshipTable } from './kinship/kinship.ts';
export { multinomialTest, type FitTest } from './fit/multinomial-test.ts';
export { eggsUntilSettled, SETTLED_BELOW, type Mate, type Proof } from './proving/eggs-until-settled.ts';
export { parseGenes, type ParsedGenes, type UnknownWord } from './notation/parse.ts';
export { canonicalLabel, genotypeLabel, joinWords, tradePercent } from './notation/label.ts';
export { parseParent, toParent, type Parent } from './odds/parent.ts';
export {
  pairingCautions,
  pairingOutcomes,
  visibleOutcomes,
  whyImpossible,
  type Impossible,
  type Outcome,
  type VisibleOutcome,
} from './odds/pairing-odds.ts';
export { gamete } from './odds/locus-outcomes.ts';
export {
  meetsTarget,
  targetOdds,
  targetScenarios,
  toTarget,
  type Scenario,
  type Target,
  type TargetOdds,
} from './odds/target.ts';
export type { Call, CandidateSire, Pedigree, PedigreeAnimal, PedigreeLocus } from './pedigree/document.ts';
export {
  CALL_ERROR,
  compilePedigree,
  RecordCompiler,
  shownBy,
  shownByReading,
  type RecordedAnimal,
  type Sureness,
} from './pedigree/from-records.ts';
export { kinByDistance, withAncestors } from './pedigree/kin.ts';
export { infer, readPosterior, type Conflict, type Posterior } from './inference/infer.ts';
export { createEstimator } from './inference/sample/estimate.ts';
export { parsePedigree, PEDIGREE_FORMAT } from './pedigree/parse-document.ts';
export { PedigreeEngine, type Clash } from './inference/engine.ts';
export { seededRandom } from './numeric/random.ts';
export { claimsFrom, isCertain, isPossible, type Claim, type ClaimKind } from './claims/claim.ts';
export { claimFromPedigree, findHinges, findSupport, type SupportingRecord } from './claims/support.ts';
export { strengthenings, type Strengthening } from './claims/strengthen.ts';
export {
  explainConflict,
  HOW_OFTEN,
  type Explanation,
  type ExplanationKind,
} from './inference/conflict/explain.ts';
export { PosteriorView, toCompact, type CompactPosterior } from './inference/compact.ts';
export { conflictsOf } from './inference/infer.ts';
export { parseSeasonNumber, nextNumbers, NUMBER_PATTERNS, type NumberPattern } from './numbering/pattern.ts';
export { LADDER_PRESETS, type LadderPreset, type LadderStep } from './husbandry/ladders.ts';
export type {
  FeedingRecord,
  History,
  MoveRecord,
  ShedRecord,
  StartPlan,
  ShedStage,
  WeightRecord,
} from './husbandry/history.ts';
export {
  appetite,
  DIGESTING_DAYS,
  SETTLING_DAYS,
  informativeOffers,
  type Appetite,
  type FastingSeason,
} from './husbandry/appetite.ts';
export { inShed, SOAK, type InShed } from './husbandry/shed-state.ts';
export {
  adviseMove,
  judgeMove,
  type MoveAdvice,
  type MoveOutcome,
  type MoveReason,
  type MoveReasons,
  type Reason,
  type MoveCircumstances,
  type WeighedReason,
} from './husbandry/move-advice.ts';
export { animalTasks, nextWeighing } from './husbandry/today.ts';
export {
  task,
  TASK_KINDS,
  type Cutting,
  type MealFacts,
  type StockFacts,
  type Task,
  type TaskCode,
  type TaskFact,
  type TaskKind,
  type Tasks,
} from './husbandry/task.ts';
export type { Fact, FactOf } from './facts.ts';
export {
  bellOdds,
  chanceAbove,
  drawWhole,
  givenAtLeast,
  learn,
  meanOf,
  quantile,
  sumOf,
  type Learned,
  type WholeOdds,
} from './numeric/whole-odds.ts';
export { shareOf, type Share } from './numeric/interval.ts';
export { SEASON_RULES, seasonOf, type CuttingProtocol, type SeasonRules } from './breeding/rules.ts';
export { learnWaits, type PastClutch, type Waits } from './breeding/waits.ts';
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
} from './breeding/forecast.ts';
export {
  femaleReadiness,
  maleReadiness,
  type BreedingFloor,
  type MaleUse,
  type Readiness,
  type ReadinessReason,
  type ReadinessReasons,
} from './breeding/readiness.ts';
export { storedCandidates, type EarlierMate } from './breeding/stored-sperm.ts';
export { rateAt, REFERENCE_C, referenceDays, type DailyMeans } from './incubation/thermal-time.ts';
export {
  CHECK_LATE_DAYS,
  EGG_CHECK_DAYS,
  incubationClock,
  YOLK_DAYS,
  type Incubation,
  type IncubationClock,
  type Milestone,
} from './incubation/clock.ts';
export {
  EGG_EVENTS,
  EGG_SIGNS,
  EGG_VERDICTS,
  eggState,
  type EggEvent,
  type EggEventKind,
  type EggSign,
  type EggStage,
  type EggState,
  type EggVerdict,
} from './incubation/egg.ts';
export {
  climateAlarms,
  simulatedReading,
  type ClimateAlarm,
  type ClimateAlarms,
  type ClimateLimits,
  type Reading,
  type SensorPlay,
} from './incubation/climate.ts';
export { boxPlaces } from './incubation/box.ts';
export {
  hatchRates,
  type DoneClutch,
  type RateBy,
  type RateGroup,
  type RateRow,
} from './incubation/hatch-rates.ts';
export { clutchSize, hatchShare } from './planner/clutch-size.ts';
export {
  chanceWithin,
  clutchesForChance,
  expectedClutches,
  MOST_CLUTCHES,
  type Fertility,
} from './planner/chances.ts';
export { planPair, targetChances, type PairPlan, type TargetChances } from './planner/pair-plan.ts';
export {
  bestMates,
  pairOdds,
  type AgainstPair,
  type NotReady,
  type PlannerAnimal,
  type RankedPair,
} from './planner/best-mates.ts';
export { planSeason, type PlannedPair, type SeasonQuestion, type Trade } from './planner/season-plan.ts';
export { findRoutes, missingAlleles, type RouteQuestion } from './planner/routes/find-routes.ts';
export {
  ROUTE_TERMS,
  type Route,
  type RouteAnimal,
  type RouteParent,
  type RouteStep,
  type RouteTerms,
} from './planner/routes/route.ts';
export { RouteSimulation, type SimulationInput, type SimulationResult } from './planner/routes/simulate.ts';
export { climateTasks, clutchTasks, seasonTasks } from './incubation/tasks.ts';
export {
  preyFor,
  preyMass,
  PREY_SIZES,
  type PreySize,
  type PreySpecies,
  type PreyState,
} from './feeding/prey.ts';
export { FEEDING_RULES, weightClass, type FeedingRules, type WeightClass } from './feeding/rules.ts';
export { FEEDING_PLANS, REFUSAL_STEPS, type FeedingPlan, type PlanStep } from './feeding/plans.ts';
export { offeredStep, planState, type PlanState } from './feeding/plan-state.ts';
export {
  nextMeal,
  planOf,
  type FeedingCircumstances,
  type Meal,
  type MealBasis,
  type MealNote,
  type MealNotes,
  type MealVerdict,
} from './feeding/next-meal.ts';
export {
  mealIntervals,
  whatWorked,
  type Worked,
  type WorkedBy,
  type WorkedSubject,
} from './feeding/what-worked.ts';
export {
  byPreySize,
  freezer,
  ORDER_RULES,
  reorderPoint,
  stockOf,
  thawList,
  type FreezerLine,
  type OrderRules,
  type StockEntry,
  type StockUse,
} from './feeding/freezer.ts';
export { fitCollection, OUTLIER_Z, type CollectionGrowth } from './growth/collection.ts';
export {
  curveByWeek,
  Growth,
  percentile,
  type ExpectedMass,
  type Outlier,
  type Reach,
} from './growth/growth.ts';
export type { GrowthSubject } from './growth/prepare.ts';
export { kaplanMeier, medianWait, type Duration, type SurvivalStep } from './survival/kaplan-meier.ts';
export { fitHazards, type HazardFit } from './survival/proportional-hazards.ts';
export {
  appetiteBaseline,
  concerns,
  type AppetiteBaseline,
  type Concern,
  type Concerns,
  type Watched,
} from './husbandry/concern.ts';
export { shedCycle, soakPlan, type ShedCycle, type SoakPlan } from './husbandry/shed-cycle.ts';
export {
  learnFromMoves,
  moveEpisodes,
  type LearnedMoves,
  type MoveEpisode,
  type TubKind,
} from './husbandry/move-outcomes.ts';
export { CARE_ACTS, lastCare, type CareAct, type CareRecord, type OwnWay } from './husbandry/history.ts';
export {
  simulateRoom,
  type ComingClutch,
  type RoomAnimal,
  type RoomForecast,
  type RoomKind,
  type RoomKindForecast,
  type RoomQuestion,
} from './room/simulate-room.ts';
export {
  heatFaults,
  USUAL_HEAT,
  type HeatFault,
  type HeatFaults,
  type HeatZone,
  type SurfaceReading,
} from './husbandry/heat.ts';
export { heatTasks } from './husbandry/heat-tasks.ts';
export {
  parseScaleLine,
  SteadyMass,
  weightDoubt,
  type ScaleReading,
  type WeightDoubt,
  type WeightDoubts,
} from './weighing/scale.ts';
export { mendings, type Mending, type RoomChange, type RoomChanges } from './room/mend.ts';
