import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { appearance, copies, type WeightedGenotype } from '../loci/genotype.ts';
import { isRecessive } from '../loci/locus.ts';
import { tradePercent } from '../notation/spell.ts';

/** What may be said of an animal and a gene, strongest first. */
export type ClaimKind =
  'double' | 'visual' | 'sure-carrier' | 'possible-carrier' | 'possible-visual' | 'excluded';

/**
 * Whether a claim says only how likely the gene is there: carried unseen, or less likely than not to show.
 *
 * @example isPossible('possible-carrier') // true
 */
export const isPossible = (kind: ClaimKind): boolean =>
  kind === 'possible-carrier' || kind === 'possible-visual';

export interface Claim {
  readonly locus: string;
  readonly allele: string;
  readonly kind: ClaimKind;
  /** The probability that the claim is true after all evidence. For a possible one, that the gene is there. */
  readonly p: number;
  /** The claim in the trade's notation: "Clown", "Ivory", "100% het Clown", "66% het Clown". */
  readonly label: string;
}

/** A probability this near to 1 is rounding, not doubt. */
const CERTAIN = 1 - 1e-9;

/** @example isCertain(0.999) // false */
export function isCertain(p: number): boolean {
  return p >= CERTAIN;
}

/**
 * The strongest claim an allele's distribution carries.
 *
 * A gene that shows is claimed as showing when that is likelier than not; its probability goes with it. A gene that does
 * not show is claimed as carried only when certain, else as a fraction.
 */
export function claimFrom(
  locusId: string,
  allele: string,
  genotypes: readonly WeightedGenotype[],
  catalogue: Catalogue = CATALOGUE,
): Claim {
  const locus = catalogue.locusById(locusId)!;
  const chance = (test: (entry: WeightedGenotype) => boolean): number =>
    genotypes.filter(test).reduce((sum, entry) => sum + entry.p, 0);
  const name = catalogue.alleleName(allele);
  const claim = (kind: ClaimKind, p: number, label: string): Claim => ({
    locus: locusId,
    allele,
    kind,
    p,
    label,
  });
  const pAny = chance(({ genotype }) => copies(genotype, allele) > 0);
  const pTwo = chance(({ genotype }) => copies(genotype, allele) === 2);
  if (pAny < 1e-9) return claim('excluded', 1 - pAny, `no ${name}`);
  if (isRecessive(locus, allele)) {
    const pShows = chance(
      ({ genotype }) => copies(genotype, allele) > 0 && appearance(locus, genotype) !== '',
    );
    if (pShows > 0.5) return claim('visual', pShows, name);
    if (isCertain(pAny)) return claim('sure-carrier', pAny, `100% het ${name}`);
    return claim('possible-carrier', pAny, `${tradePercent(pAny)} het ${name}`);
  }
  const twoName = catalogue.pairName([allele, allele]);
  if (pTwo > 0.5) return claim('double', pTwo, twoName);
  if (pAny > 0.5) return claim('visual', pAny, name);
  return claim('possible-visual', pAny, `possible ${name}`);
}

/**
 * All claims of an animal, in the order of a label; excluded genes last.
 *
 * @example claimsFrom(parseGenes('het clown').loci).map(({ kind, label }) => [kind, label]) // [["sure-carrier", "100% het Clown"]]
 */
export function claimsFrom(
  loci: ReadonlyMap<string, readonly WeightedGenotype[]>,
  catalogue: Catalogue = CATALOGUE,
): Claim[] {
  const all = [...loci].flatMap(([id, genotypes]) => {
    const alleles = new Set(genotypes.flatMap(({ genotype }) => [...genotype]));
    return [...alleles].filter((a) => a !== '+').map((allele) => claimFrom(id, allele, genotypes, catalogue));
  });
  // What shows comes first, then what is carried or possible.
  const rank = ({ kind }: Claim): number => (kind === 'double' || kind === 'visual' ? 0 : 1);
  return all
    .filter((claim) => claim.kind !== 'excluded')
    .toSorted((a, b) => rank(a) - rank(b) || catalogue.compareLoci(a.locus, b.locus));
}
