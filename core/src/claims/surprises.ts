import type { PedigreeEngine } from '../inference/engine.ts';
import { genotypesOf } from '../inference/infer.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';

/** A gene that a founder's statement did not name, and that its descendants say is there. */
export interface Surprise {
  readonly animal: string;
  readonly locus: string;
  /** The alleles that it may be. */
  readonly alleles: readonly string[];
  /** The chance that it carries one: before its descendants were looked at, and with all that is recorded. */
  readonly pBefore: number;
  readonly p: number;
}

/** What is less likely than this is not reported: several founders may be behind one young. */
const WORTH_REPORTING = 0.05;

/**
 * What the records say of founders that nobody said, the surest first. Loci that contradict are left out.
 *
 * @example surprises(new PedigreeEngine(compilePedigree([{ id: 'F1', sex: 'female', sires: [] }]))) // []
 */
export function surprises(engine: PedigreeEngine): Surprise[] {
  const { pedigree } = engine;
  const clashing = new Set(engine.clashes.flatMap(({ loci }) => loci));
  return pedigree.animals
    .flatMap(({ id, founder, unsaid = [] }, at) =>
      unsaid.flatMap((locus): Surprise[] => {
        const place = pedigree.loci.findIndex((one) => one.id === locus);
        if (clashing.has(locus)) return [];
        const before = founder![locus]!;
        const after = genotypesOf(engine, at, place);
        const alleles = [...new Set(after.flatMap(({ genotype }) => genotype.filter((a) => a !== WILD)))];
        return [{ animal: id, locus, alleles, pBefore: carried(before), p: carried(after) }];
      }),
    )
    .filter(({ p }) => p >= WORTH_REPORTING)
    .toSorted((a, b) => b.p - a.p);
}

const carried = (genotypes: readonly WeightedGenotype[]): number =>
  genotypes.reduce((sum, { genotype, p }) => (genotype.some((a) => a !== WILD) ? sum + p : sum), 0);
