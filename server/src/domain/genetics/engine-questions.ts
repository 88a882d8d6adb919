import type {
  CatalogueChange,
  Claim,
  ClutchFamily,
  CompactPosterior,
  DoubtfulRecord,
  Essential,
  ExplainedConflict,
  Hypothesis,
  Mate,
  PedigreeDocument,
  PlinkFiles,
  Proof,
  RecordedAnimal,
  StatedClaim,
  Strengthening,
  SupportingRecord,
  Surprise,
  Suspicions,
  UnprovenGene,
  WeightedGenotype,
} from '@karyotome/core';
import type { Trial } from './try-catalogue.ts';

/* What the engine's thread is asked, and what it answers. */

/** A collection's genetic records as of one revision. */
export interface Snapshot {
  readonly collection: string;
  readonly token: number;
  readonly entries: readonly CatalogueChange[];
  readonly animals: readonly RecordedAnimal[];
}

export type Question =
  | { readonly ask: 'update'; readonly snapshot: Snapshot }
  | ({
      readonly collection: string;
      readonly token: number;
      /** Sent along where the thread may hold another: taken up before the question, in the same turn. */
      readonly snapshot?: Snapshot;
    } & (
      | { readonly ask: 'support'; readonly animal: string; readonly claim: Claim }
      | {
          readonly ask: 'detail';
          readonly animal: string;
          readonly claim: Claim;
          /** As `support` answered it. */
          readonly support: readonly SupportingRecord[];
        }
      | { readonly ask: 'proofs'; readonly p: number; readonly mates: readonly (readonly [string, Mate])[] }
      | { readonly ask: 'explain' }
      | { readonly ask: 'suspects'; readonly errors: RecordErrors }
      | { readonly ask: 'doubtful'; readonly locus: string; readonly errors: RecordErrors }
      | { readonly ask: 'kinship'; readonly animal: string; readonly kin: readonly string[] }
      | { readonly ask: 'kinships'; readonly animals: readonly string[] }
      | {
          readonly ask: 'before';
          readonly parents: readonly string[];
          readonly clutchMates: readonly string[];
        }
      | { readonly ask: 'clutch'; readonly family: ClutchFamily }
      | { readonly ask: 'surprises' }
      | { readonly ask: 'unproven'; readonly mates: readonly string[] }
      | { readonly ask: 'trial'; readonly entries: readonly CatalogueChange[] }
      | { readonly ask: 'proved' }
      | { readonly ask: 'document'; readonly names: Names }
      | { readonly ask: 'plink'; readonly names: Names }
      | {
          readonly ask: 'essential';
          readonly animal: string;
          readonly claims: readonly Pick<StatedClaim, 'locus' | 'genotypes'>[];
        }
    ));

/** Animal -> how it is called. */
export type Names = readonly (readonly [string, string])[];

/** How often what a record says is wrong, where that is known: record -> locus -> chance. */
export type RecordErrors = Readonly<Record<string, Readonly<Record<string, number>>>>;

export interface Answers {
  update: CompactPosterior;
  support: SupportingRecord[] | null;
  detail: {
    hinges: SupportingRecord[];
    strengthen: Strengthening[];
    fromPedigree: Claim | null;
  };
  /** Each one's coefficients of relationship and of kinship with the animal, and of inbreeding. */
  kinship: { relationship: number; kinship: number; inbreeding: number }[];
  /** Of each pair: place i (i + 1) / 2 + j for j at most i. */
  kinships: number[];
  proofs: (readonly [string, Proof])[];
  explain: readonly ExplainedConflict[];
  /** The records to look at again so that nothing contradicts. */
  suspects: Suspicions;
  /** Records at one locus that are more likely wrong than right; none where the exact answer is out of reach. */
  doubtful: DoubtfulRecord[];
  before: (readonly [string, (readonly [string, readonly WeightedGenotype[]])[]])[];
  /** What each clutch-mate can be but for its own identification. */
  clutch: { of: (readonly [string, readonly Hypothesis[]])[]; leftOut: readonly string[] };
  /** What another catalogue would change: claims by animal, and loci at which the records would newly contradict. */
  trial: Trial;
  /** Locus -> what the records say of a gene that is not proven; null where the answer is out of reach. */
  unproven: (readonly [string, UnprovenGene | null])[];
  /** What founders carry though nobody said so. */
  surprises: Surprise[];
  /** What their own young proved of animals: locus -> phenotype, where it was open before. */
  proved: (readonly [string, Record<string, string>])[];
  /** The pedigree as a document, with animals under their names where each has its own. */
  document: PedigreeDocument;
  plink: PlinkFiles;
  /** The smallest pedigree that yields claims of an animal; null where there is no exact one. */
  essential: { found: Essential | null };
}
