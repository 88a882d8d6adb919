import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { appearance, copies, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive } from '../loci/locus.ts';
import { claimsFrom, type Claim } from './claim.ts';

/** A claim with the genotypes that make it true: whoever has the pedigree can derive its probability. */
export interface StatedClaim {
  readonly locus: string;
  /** What shows with less than an even chance is stated as carried: possible. */
  readonly kind: Exclude<Claim['kind'], 'possible-visual'>;
  readonly genotypes: readonly Genotype[];
  readonly label: string;
}

/**
 * The claims of an animal, each with the genotypes, among those that the animal can have, that make it true.
 *
 * @param loci - locus id -> genotype distribution
 * @example statedClaims(parseGenes('het clown').loci).map(({ kind, genotypes }) => [kind, genotypes]) // [["sure-carrier", [["+", "clown"]]]]
 */
export function statedClaims(
  loci: ReadonlyMap<string, readonly WeightedGenotype[]>,
  catalogue: Catalogue = CATALOGUE,
): StatedClaim[] {
  return claimsFrom(loci, catalogue).map((claim) => ({
    locus: claim.locus,
    kind: claim.kind === 'possible-visual' ? 'possible-carrier' : claim.kind,
    genotypes: loci
      .get(claim.locus)!
      .map(({ genotype }) => genotype)
      .filter((genotype) => isMetBy(claim, genotype, catalogue)),
    label: claim.label,
  }));
}

function isMetBy({ kind, locus: id, allele }: Claim, genotype: Genotype, catalogue: Catalogue): boolean {
  const found = copies(genotype, allele);
  if (kind === 'double') return found === 2;
  const locus = catalogue.locusById(id)!;
  const mustShow = kind === 'visual' && isRecessive(locus, allele);
  return found > 0 && (!mustShow || appearance(locus, genotype) !== '');
}
