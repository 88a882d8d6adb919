export { PosteriorView, toCompact, type CompactPosterior } from './compact.ts';
export { explainConflict, type Explanation } from './conflict/explain.ts';
export {
  doubtfulRecords,
  suspectRecords,
  type DoubtfulRecord,
  type ExplainedConflict,
  type Suspect,
  type Suspicions,
} from './conflict/suspects.ts';
export { type ErrorOf } from './conflict/doubting.ts';
export { HOW_OFTEN, type ExplanationKind } from './conflict/hypotheses.ts';
export { PedigreeEngine, type Clash } from './engine.ts';
export { genotypesAt, infer, readPosterior, conflictsOf, type Conflict, type Posterior } from './infer.ts';
export { createEstimator } from './sample/estimate.ts';
