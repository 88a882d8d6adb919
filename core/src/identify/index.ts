export { ClutchPriorReader, type ClutchFamily, type ClutchPriors } from './clutch-priors.ts';
export {
  linkedBySex,
  phenotypesByLocus,
  parentNews,
  sexClashes,
  type ParentNews,
  type SexClash,
} from './clutch-evidence.ts';
export { coverOn, showsMarker } from './cover.ts';
export { nextObservations, type ObservationAdvice, type NextObservation } from './next-observations.ts';
export type { Observation, Observations } from './observations.ts';
export { phenotypeLabel, type PhenotypeSpace, type Hypothesis } from './phenotype-space.ts';
export { recordsOf, settledByLater, settledCalls, type PastCall, type SettledCall } from './proved.ts';
export { rank, type Candidate, type GeneOdds, type Ranking, type MarkerWeight } from './rank.ts';
export { notExcluded, learnedError, suggestSureness, type CallRecord } from './suggest.ts';
