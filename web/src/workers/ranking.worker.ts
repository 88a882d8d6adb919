import {
  CostError,
  createCatalogue,
  nextObservations,
  rank,
  toAdditions,
  type Catalogue,
  type CatalogueChange,
  type IsoDay,
  type ObservationAdvice,
  type Ranking,
  type Observations,
  type Hypothesis,
} from '@karyotome/core';
import { expose } from 'comlink';

export interface RankingRequest {
  readonly hypotheses: readonly Hypothesis[];
  readonly observations: Observations;
  readonly lastShed: IsoDay | null;
}
export interface RankingAnswer {
  /** Null where there is none; `failure` says why. */
  readonly ranking: Ranking | null;
  /** What it can be has too many combinations, or something went wrong that should not. */
  readonly failure?: 'too-many' | 'fault';
  readonly advice: ObservationAdvice;
}

const NOTHING: ObservationAdvice = { markers: [], compare: [], againOn: null };
let catalogue: Catalogue = createCatalogue();

const api = {
  /** What the collection adds to the catalogue. */
  setEntries(entries: readonly CatalogueChange[]): void {
    catalogue = createCatalogue(toAdditions(entries));
  },
  rank: answer,
};
export type RankingApi = typeof api;
expose(api);

function answer({ hypotheses, observations, lastShed }: RankingRequest): RankingAnswer {
  try {
    const { ranking, space } = rank(hypotheses, observations, catalogue);
    const advice = nextObservations(space, observations, catalogue, lastShed);
    return { ranking, advice };
  } catch (error) {
    if (error instanceof CostError) return { ranking: null, advice: NOTHING, failure: 'too-many' };
    // A mistake of ours: it is told as one, and shows in the browser's console.
    reportError(error);
    return { ranking: null, advice: NOTHING, failure: 'fault' };
  }
}
