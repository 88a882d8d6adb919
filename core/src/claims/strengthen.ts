import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import type { Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { isCertain, type Claim } from './claim.ts';
import { aboutLocus, claimAt, recordsOf, type SupportingRecord } from './support.ts';

/** Something that would make a claim surer, and what the claim would be then. */
export type Strengthening =
  /** The same seen again, and recorded as certain. */
  | { readonly kind: 'second-look'; readonly animal: string; readonly p: number }
  /** Knowing which of the candidates sired this animal; the odds are those with the likeliest. */
  | { readonly kind: 'sire'; readonly animal: string; readonly p: number }
  /** A parent that is not recorded. */
  | { readonly kind: 'parent'; readonly animal: string };

/** Gains smaller than this are not worth anybody's evening. */
const WORTH_IT = 0.005;

/**
 * What records would make a claim surer, the largest gain first. Breeding is told apart (`eggsUntilSettled`).
 *
 * @example strengthenings(parsePedigree({ format: 'karyotome-pedigree/1', loci: [{ id: 'clown', alleles: ['clown'] }], animals: [{ id: 'F1', sex: 'female' }] }), 'F1', { locus: 'clown', allele: 'clown', kind: 'excluded', p: 0, label: '' }, []) // []
 */
export function strengthenings(
  pedigree: Pedigree,
  proband: string,
  claim: Claim,
  support: readonly SupportingRecord[],
  catalogue: Catalogue = CATALOGUE,
): Strengthening[] {
  if (isCertain(claim.p)) return [];
  const about = aboutLocus(pedigree, claim.locus);
  const involved = new Set([proband, ...support.map(({ animal }) => animal)]);
  const found = about.animals
    .filter((animal) => involved.has(animal.id))
    .flatMap((animal): Strengthening[] => [
      ...missing(animal),
      ...better('second-look', animal, surer(animal, claim.locus)),
      ...better('sire', animal, likeliestSire(animal)),
    ]);
  return found.toSorted((a, b) => ('p' in b ? b.p : 0) - ('p' in a ? a.p : 0));

  function better(
    kind: 'second-look' | 'sire',
    animal: PedigreeAnimal,
    changed: PedigreeAnimal | null,
  ): Strengthening[] {
    if (!changed) return [];
    const animals = about.animals.map((one) => (one.id === animal.id ? changed : one));
    const then = claimAt({ ...about, animals }, proband, claim, catalogue);
    return then && then.p > claim.p + WORTH_IT ? [{ kind, animal: animal.id, p: then.p }] : [];
  }
}

function missing(animal: PedigreeAnimal): Strengthening[] {
  const dams = animal.dam === undefined ? 0 : 1;
  const sires = animal.sires?.length ?? 0;
  return (dams === 0) !== (sires === 0) ? [{ kind: 'parent', animal: animal.id }] : [];
}

function surer(animal: PedigreeAnimal, locus: string): PedigreeAnimal | null {
  if (recordsOf(animal).length === 0) return null;
  if (!animal.calls?.some((call) => call.locus === locus && (call.error ?? 0) > 0)) return null;
  return {
    ...animal,
    calls: animal.calls.map((call) => (call.locus === locus ? { ...call, error: 0 } : call)),
  };
}

function likeliestSire(animal: PedigreeAnimal): PedigreeAnimal | null {
  if ((animal.sires?.length ?? 0) < 2) return null;
  const [first] = animal.sires!.toSorted((a, b) => b.weight - a.weight);
  return { ...animal, sires: [first!] };
}
