import type { Catalogue } from '../catalogue/catalogue.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { claimsFrom, type Claim } from './claim.ts';

/** What is claimed, in the order of a label, and how sure it is. */
export type ShortClaim = Pick<Claim, 'kind' | 'label' | 'p'>;

/** What is claimed of an animal, before and after something was changed. */
export interface ChangedClaims {
  readonly animal: string;
  readonly before: readonly ShortClaim[];
  readonly after: readonly ShortClaim[];
}

/** What is known of a collection, and by which catalogue it is put in words. */
export interface Known {
  /** Locus -> what the animal can be there. */
  genotypes(animal: string): ReadonlyMap<string, readonly WeightedGenotype[]>;
  readonly catalogue: Catalogue;
}

/** Probabilities closer than this are the same to a reader. */
const SAME = 0.005;

/**
 * The animals of which something else is claimed, in the order of the ids.
 *
 * @example changedClaims(['F1'], { genotypes: () => new Map(), catalogue: CATALOGUE }, { genotypes: () => parseGenes('het clown').loci, catalogue: CATALOGUE }).map(({ animal }) => animal) // ["F1"]
 */
export function changedClaims(ids: readonly string[], before: Known, after: Known): ChangedClaims[] {
  const claims = ({ genotypes, catalogue }: Known, id: string): ShortClaim[] =>
    claimsFrom(genotypes(id), catalogue).map(({ kind, label, p }) => ({ kind, label, p }));
  const isSame = (one: readonly ShortClaim[], other: readonly ShortClaim[]): boolean =>
    one.length === other.length &&
    one.every(({ label, p }, at) => label === other[at]!.label && Math.abs(p - other[at]!.p) < SAME);
  return ids.flatMap((animal) => {
    const change = { animal, before: claims(before, animal), after: claims(after, animal) };
    return isSame(change.before, change.after) ? [] : [change];
  });
}
