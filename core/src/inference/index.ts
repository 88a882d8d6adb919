export { PosteriorView, toCompact, type CompactPosterior } from './compact.ts';
export { explainConflict, HOW_OFTEN, type Explanation, type ExplanationKind } from './conflict/explain.ts';
export { PedigreeEngine, type Clash } from './engine.ts';
export { genotypesAt, infer, readPosterior, conflictsOf, type Conflict, type Posterior } from './infer.ts';
export { createEstimator } from './sample/estimate.ts';
