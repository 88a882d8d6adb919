import { CostError, infer, WILD, type Genotype, type Pedigree, type Posterior } from '@karyotome/core';
import type { StatedClaim } from '../document/statement.ts';
import type { VerifiedClaim } from './answer.ts';
import type { Problem } from './problems.ts';

/** Documents give six decimals. */
const TOLERANCE = 1e-6;
/** The subtraction of two decimals is no exact one. */
const ROUNDING = 1e-12;

/** Derives every claim anew from the document's own pedigree. */
export function deriveClaims(
  pedigree: Pedigree,
  claims: readonly StatedClaim[],
): { claims: VerifiedClaim[]; problems: Problem[] } {
  const posterior = posteriorOf(pedigree);
  const derived = claims.map((claim): VerifiedClaim => {
    const { locus, words, p } = claim;
    const found = posterior && probabilityOf(posterior, pedigree, claim);
    const follows = found !== null && Math.abs(found - p) <= TOLERANCE + ROUNDING;
    return { locus, words, p, derived: found, follows };
  });
  return {
    claims: derived,
    problems: [
      ...(posterior ? [] : [{ code: 'too-wide-to-derive', facts: {} } as const]),
      ...(posterior?.conflicts ?? []).map(({ locus, animals }): Problem => ({
        code: 'records-contradict',
        facts: { locus, animals },
      })),
      ...claims.flatMap((claim, i) => problemsOf(claim, derived[i]!)),
    ],
  };
}

/** @returns null where no exact answer can be given */
function posteriorOf(pedigree: Pedigree): Posterior | null {
  try {
    return infer(pedigree);
  } catch (error) {
    if (!(error instanceof CostError)) throw error;
    return null;
  }
}

/** @returns null where the records of the locus contradict one another */
function probabilityOf(
  { animals }: Posterior,
  pedigree: Pedigree,
  { animal, locus, genotypes }: StatedClaim,
): number | null {
  const distribution = animals.get(animal)?.get(locus);
  if (!distribution) return null;
  const isLinked = pedigree.loci.find(({ id }) => id === locus)!.sexLinked === true;
  // A male's pair at a sex-linked locus is [X, Y]: its order says which haplotype.
  const isOrdered = isLinked && isMale(pedigree, animal);
  const keyOf = ([a, b]: Genotype): string => JSON.stringify(isOrdered || a < b ? [a, b] : [b, a]);
  const claimed = new Set(genotypes.map(keyOf));
  return distribution.reduce((sum, { genotype, p }) => (claimed.has(keyOf(genotype)) ? sum + p : sum), 0);
}

/** Recorded as male, or named as a sire. */
function isMale({ animals }: Pedigree, animal: string): boolean {
  return animals.some(
    ({ id, sex, sires }) =>
      (id === animal && sex === 'male') || sires?.some((sire) => sire.id === animal) === true,
  );
}

function problemsOf(
  { animal, locus, words, p, kind, genotypes }: StatedClaim,
  { follows, derived }: VerifiedClaim,
): Problem[] {
  const problems: Problem[] = [];
  if (!follows) problems.push({ code: 'claim-does-not-follow', facts: { animal, locus, words, p, derived } });
  const needed = COPIES_NEEDED[kind];
  const isShort = genotypes.some((pair) => pair.filter((allele) => allele !== WILD).length < needed);
  const isUnsure = kind === 'sure-carrier' && p < 1 - TOLERANCE;
  if (isShort || isUnsure) problems.push({ code: 'claim-overstated', facts: { animal, locus, words, kind } });
  return problems;
}

/** How many alleles other than the wild type each genotype of a claim has at least. */
const COPIES_NEEDED: Readonly<Record<StatedClaim['kind'], number>> = {
  double: 2,
  visual: 1,
  'sure-carrier': 1,
  'possible-carrier': 1,
  excluded: 0,
};
