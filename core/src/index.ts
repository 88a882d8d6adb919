export { InputError, CostError, type Issue } from './errors.ts';
export { addDays, daysBetween, isIsoDay, localDay, type IsoDay } from './calendar/days.ts';
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
  agreementOn,
  TELLS,
  WILD_TYPE_TELLS,
  ZONES,
  type Agreement,
  type Tell,
  type Zone,
} from './catalogue/tells.ts';
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
  type Outcome,
  type VisibleOutcome,
} from './odds/pairing-odds.ts';
export { gamete } from './odds/locus-outcomes.ts';
export { targetOdds, type TargetOdds } from './odds/target.ts';
export type { Call, CandidateSire, Pedigree, PedigreeAnimal, PedigreeLocus } from './pedigree/document.ts';
export {
  CALL_ERROR,
  compilePedigree,
  RecordCompiler,
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
export { claimsFrom, isCertain, type Claim, type ClaimKind } from './claims/claim.ts';
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
export { explainNumber, nextNumbers, NUMBER_PATTERNS, type NumberPattern } from './numbering/pattern.ts';
export { LADDER_PRESETS, type LadderPreset, type LadderStep } from './husbandry/ladders.ts';
export type {
  FeedingRecord,
  History,
  MoveRecord,
  ShedRecord,
  ShedStage,
  WeightRecord,
} from './husbandry/history.ts';
export { appetite, nextMeal, PREY_SIZES, type Appetite, type MealPlan } from './husbandry/appetite.ts';
export { BAD_SHED_ADVICE, inShed, type InShed } from './husbandry/shed-state.ts';
export {
  adviseMove,
  judgeMove,
  type MoveAdvice,
  type MoveOutcome,
  type Reason,
} from './husbandry/move-advice.ts';
export { animalTasks, clutchTasks, PIP_DAYS, type Task, type TaskKind } from './husbandry/today.ts';
