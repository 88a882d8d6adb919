import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { copies, type Genotype, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import type { ParsedGenes } from '../notation/parse.ts';
import { locusOutcomes } from './locus-outcomes.ts';
import { distributionAt, type Parent } from './parent.ts';

export interface TargetOdds {
  /** The probability that one egg shows at least what the target names. */
  readonly p: number;
  /** The probability of at least one among the eggs, when a number of eggs was given. */
  readonly atLeastOne?: number;
}

/** Whether an egg has at least the copies of each allele that the target's genotype has. */
function meets(locus: Locus, wanted: Genotype, genotype: Genotype): boolean {
  return locus.alleles.every((allele) => copies(genotype, allele.id) >= copies(wanted, allele.id));
}

/**
 * The odds that an egg meets a target, and that at least one of N does.
 *
 * All eggs share the same parents: where a parent is uncertain, the chance of at least one is the average over the
 * parents' genotypes of 1-(1-p)^N, not 1-(1-average p)^N. Cost: the product of the parents' possible genotypes at the
 * target's loci.
 *
 * @param eggs - a whole number, 1 or more
 */
export function targetOdds(
  sire: Parent,
  dam: Parent,
  target: ParsedGenes,
  eggs?: number,
  catalogue: Catalogue = CATALOGUE,
): TargetOdds {
  const loci = [...target.loci].map(([id, genotypes]) => ({
    locus: catalogue.locusById(id)!,
    // One of several will do; what is named with a doubt is wanted all the same.
    wanted: target.either.has(id)
      ? genotypes.map(({ genotype }) => genotype).filter((genotype) => genotype.some((a) => a !== WILD))
      : [
          genotypes[0]!.genotype.every((a) => a === WILD)
            ? genotypes.at(-1)!.genotype
            : genotypes[0]!.genotype,
        ],
  }));
  let scenarios: { weight: number; pMale: number; pFemale: number }[] = [
    { weight: 1, pMale: 0.5, pFemale: 0.5 },
  ];
  for (const { locus, wanted } of loci) {
    const here = parentScenarios(
      locus,
      wanted,
      distributionAt(sire, locus.id),
      distributionAt(dam, locus.id),
    );
    scenarios = mergeEqual(
      scenarios.flatMap((one) =>
        here.map((other) => ({
          weight: one.weight * other.weight,
          pMale: one.pMale * other.pMale,
          pFemale: one.pFemale * other.pFemale,
        })),
      ),
    );
  }
  const perEgg = ({ pMale, pFemale }: { pMale: number; pFemale: number }): number => pMale + pFemale;
  const p = scenarios.reduce((sum, s) => sum + s.weight * perEgg(s), 0);
  if (eggs === undefined) return { p };
  const atLeastOne = scenarios.reduce(
    (sum, s) => sum + s.weight * -Math.expm1(eggs * Math.log1p(-Math.min(1, perEgg(s)))),
    0,
  );
  return { p, atLeastOne };
}

/** Each combination of parental genotypes at a locus, with its weight and the chance of the target among its young. */
function parentScenarios(
  locus: Locus,
  wanted: readonly Genotype[],
  sire: readonly WeightedGenotype[],
  dam: readonly WeightedGenotype[],
): { weight: number; pMale: number; pFemale: number }[] {
  return sire.flatMap((s) =>
    dam.map((d) => {
      const hits = locusOutcomes(locus, [{ ...s, p: 1 }], [{ ...d, p: 1 }]).filter((outcome) =>
        wanted.some((genotype) => meets(locus, genotype, outcome.genotype)),
      );
      return {
        weight: s.p * d.p,
        pMale: hits.reduce((sum, hit) => sum + hit.pMale, 0),
        pFemale: hits.reduce((sum, hit) => sum + hit.pFemale, 0),
      };
    }),
  );
}

function mergeEqual<T extends { weight: number; pMale: number; pFemale: number }>(
  scenarios: readonly T[],
): T[] {
  const merged = new Map<string, T>();
  for (const scenario of scenarios) {
    if (scenario.weight <= 0) continue;
    const key = `${scenario.pMale}|${scenario.pFemale}`;
    const known = merged.get(key);
    merged.set(key, { ...scenario, weight: scenario.weight + (known?.weight ?? 0) });
  }
  return [...merged.values()];
}
