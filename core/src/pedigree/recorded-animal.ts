import type { CandidateSire } from './document.ts';
import type { StatedEvidence } from './stated-evidence.ts';

/** How sure somebody is of what they saw. */
export type Sureness = 'certain' | 'probable' | 'possible';

/** The chance that such an identification is wrong. Common practice, no source: the words' plain meaning in numbers. */
export const CALL_ERROR: Readonly<Record<Sureness, number>> = { certain: 0, probable: 0.1, possible: 0.3 };

/**
 * What a founder's statement leaves open. `all-known`: what it does not name is not there. `recessives-unknown`: recessive
 * genes that it does not name may be carried. `nothing-known`: of what it does not name nothing is known at all.
 */
export type Completeness = 'all-known' | 'recessives-unknown' | 'nothing-known';

export interface Identification {
  readonly record: string;
  /** Trade shorthand. */
  readonly genes: string;
  readonly sure: Sureness;
  /** Of a founder; left out: all is known. */
  readonly completeness?: Completeness;
}

export interface RecordedAnimal {
  readonly id: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly dam?: string;
  readonly sires: readonly CandidateSire[];
  readonly identification?: Identification;
  /** What another breeder's statement says of it. */
  readonly stated?: StatedEvidence;
  /** It died in the egg: that a genotype does not live says nothing about it. */
  readonly diedInEgg?: boolean;
}
