import {
  CostError,
  createCatalogue,
  nextObservations,
  rank,
  toAdditions,
  type Catalogue,
  type CatalogueEntry,
  type IsoDay,
  type ObservationAdvice,
  type Ranking,
  type Observations,
  type Hypothesis,
} from '@karyotome/core';

export interface RankingRequest {
  readonly animalId: string;
  /** Counts up: an answer to an older question about an animal is dropped. */
  readonly turn: number;
  readonly hypotheses: readonly Hypothesis[];
  readonly observations: Observations;
  readonly lastShed: IsoDay | null;
}
export type RankingMessage = { readonly entries: readonly CatalogueEntry[] } | RankingRequest;
export interface RankingAnswer {
  readonly animalId: string;
  readonly turn: number;
  /** Null where there is none; `failure` says why. */
  readonly ranking: Ranking | null;
  /** What it can be has too many combinations, or something went wrong that should not. */
  readonly failure?: 'too-many' | 'fault';
  readonly advice: ObservationAdvice;
}

const NOTHING: ObservationAdvice = { markers: [], compare: [], againOn: null };
let catalogue: Catalogue = createCatalogue();

self.addEventListener('message', ({ data }: MessageEvent<RankingMessage>) => {
  if ('entries' in data) catalogue = createCatalogue(toAdditions(data.entries));
  else self.postMessage(answer(data));
});

function answer({ animalId, turn, hypotheses, observations, lastShed }: RankingRequest): RankingAnswer {
  try {
    const { ranking, space } = rank(hypotheses, observations, catalogue);
    const advice = nextObservations(space, observations, catalogue, lastShed);
    return { animalId, turn, ranking, advice };
  } catch (error) {
    if (error instanceof CostError)
      return { animalId, turn, ranking: null, advice: NOTHING, failure: 'too-many' };
    // A mistake of ours: it is told as one, and shows in the browser's console.
    reportError(error);
    return { animalId, turn, ranking: null, advice: NOTHING, failure: 'fault' };
  }
}
