import type { Catalogue } from '../catalogue/catalogue.ts';
import type { PosteriorView } from '../inference/compact.ts';
import { claimsFrom, type Claim } from './claim.ts';

/** What is claimed, in the order of a label, and how sure it is. */
export type ShortClaim = Pick<Claim, 'label' | 'p'>;

/** What is claimed of an animal, before and after something was changed. */
export interface ChangedClaims {
  readonly animal: string;
  readonly before: readonly ShortClaim[];
  readonly after: readonly ShortClaim[];
}

/** What is known of a collection, and by which catalogue it is put in words. */
export interface Known {
  readonly posterior: PosteriorView;
  readonly catalogue: Catalogue;
}

/** Probabilities closer than this are the same to a reader. */
const SAME = 0.005;

/**
 * The animals of which something else is claimed, in the order of the ids.
 *
 * @example changedClaims([], { posterior: new PosteriorView(toCompact(new PedigreeEngine(compilePedigree([])))), catalogue: CATALOGUE }, { posterior: new PosteriorView(toCompact(new PedigreeEngine(compilePedigree([])))), catalogue: CATALOGUE }) // []
 */
export function changedClaims(ids: readonly string[], before: Known, after: Known): ChangedClaims[] {
  const claims = ({ posterior, catalogue }: Known, id: string): ShortClaim[] =>
    claimsFrom(posterior.genotypes(id), catalogue).map(({ label, p }) => ({ label, p }));
  const isSame = (one: readonly ShortClaim[], other: readonly ShortClaim[]): boolean =>
    one.length === other.length &&
    one.every(({ label, p }, at) => label === other[at]!.label && Math.abs(p - other[at]!.p) < SAME);
  return ids.flatMap((animal) => {
    const change = { animal, before: claims(before, animal), after: claims(after, animal) };
    return isSame(change.before, change.after) ? [] : [change];
  });
}
