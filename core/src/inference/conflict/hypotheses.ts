import { WILD } from '../../loci/locus.ts';
import type { Genotype, WeightedGenotype } from '../../loci/genotype.ts';
import type { Pedigree, PedigreeAnimal } from '../../pedigree/document.ts';
import { parentsOf } from '../../pedigree/index-pedigree.ts';
import { withAncestors } from '../../pedigree/kin.ts';

export type ExplanationKind =
  /** What was seen on this animal is wrong. */
  | 'identification'
  /** Another male sired these clutch-mates. */
  | 'sire'
  /** This founder carries more than was stated. */
  | 'carries-more'
  /** The sex of this animal is wrong. */
  | 'sex'
  /** The dam of these clutch-mates bred without a male. */
  | 'bred-alone';

/** How often each kind happens, before looking at the records. Assumptions, stated in docs/science.md. */
export const HOW_OFTEN: Readonly<Record<ExplanationKind, number>> = {
  identification: 0.02,
  sire: 0.01,
  'carries-more': 0.01,
  sex: 0.02,
  'bred-alone': 0.0005,
};

/** Something that may have gone wrong in the records. */
export interface Hypothesis {
  readonly kind: ExplanationKind;
  /** One animal, or clutch-mates. */
  readonly animals: readonly string[];
  /** For `carries-more`: the alleles that would have to be there. */
  readonly alleles: readonly string[];
}

/**
 * What may have gone wrong where these animals' records clash at these loci.
 *
 * @param animals - a smallest set whose calls cannot hold together
 */
export function hypothesesOf(
  pedigree: Pedigree,
  loci: readonly string[],
  animals: readonly string[],
): Hypothesis[] {
  const byId = new Map(pedigree.animals.map((animal) => [animal.id, animal]));
  const isParent = new Set(pedigree.animals.flatMap(parentsOf));
  const linked = pedigree.loci.some((locus) => loci.includes(locus.id) && locus.sexLinked);
  const clashing = animals.map((id) => byId.get(id)!);
  const suppose = (kind: ExplanationKind, whom: readonly PedigreeAnimal[]): Hypothesis => ({
    kind,
    animals: whom.map(({ id }) => id),
    alleles: [],
  });
  const found = clashing.map((animal) => suppose('identification', [animal]));
  const clutches = new Set<string>();
  for (const animal of clashing) {
    if (linked && animal.sex !== 'unknown' && !isParent.has(animal.id)) found.push(suppose('sex', [animal]));
    if (!animal.sires?.length) continue;
    const mates = pedigree.animals.filter((other) => isClutchMate(animal, other));
    const key = mates.map(({ id }) => id).join();
    if (clutches.has(key)) continue;
    clutches.add(key);
    found.push(suppose('sire', mates));
    if (animal.dam && mates.every(({ id, sex }) => !isParent.has(id) && sex !== 'male'))
      found.push(suppose('bred-alone', mates));
  }
  const founders = withAncestors(pedigree.animals, animals).filter((animal) => animal.founder);
  for (const founder of founders)
    for (const locus of pedigree.loci) {
      if (!loci.includes(locus.id)) continue;
      for (const allele of locus.alleles)
        if (carryingMore(founder, locus.id, allele))
          found.push({ kind: 'carries-more', animals: [founder.id], alleles: [allele] });
    }
  return found;
}

function isClutchMate(a: PedigreeAnimal, b: PedigreeAnimal): boolean {
  const sires = ({ sires: list }: PedigreeAnimal): string => (list ?? []).map(({ id }) => id).join();
  return a.dam === b.dam && sires(a) === sires(b) && (b.sires?.length ?? 0) > 0;
}

/**
 * The pedigree as it would be if a hypothesis held. A wrong identification says nothing at these loci; another sire is one
 * that nobody recorded.
 */
export function supposing(
  pedigree: Pedigree,
  loci: readonly string[],
  { kind, animals, alleles }: Hypothesis,
): Pedigree {
  const change = (animal: PedigreeAnimal): PedigreeAnimal => {
    switch (kind) {
      case 'identification':
        return {
          ...animal,
          calls: (animal.calls ?? []).filter((call) => call.isSurvival || !loci.includes(call.locus)),
        };
      case 'sex':
        return { ...animal, sex: animal.sex === 'male' ? 'female' : 'male' };
      case 'sire':
        return withoutSires(animal);
      case 'bred-alone':
        return { ...withoutSires(animal), bredAlone: true };
      case 'carries-more': {
        const { id } = pedigree.loci.find(
          (one) => loci.includes(one.id) && one.alleles.includes(alleles[0]!),
        )!;
        return { ...animal, founder: { ...animal.founder, [id]: carryingMore(animal, id, alleles[0]!)! } };
      }
    }
  };
  const whom = new Set(animals);
  return {
    ...pedigree,
    animals: pedigree.animals.map((animal) => (whom.has(animal.id) ? change(animal) : animal)),
  };
}

function withoutSires(animal: PedigreeAnimal): PedigreeAnimal {
  const { sires: _, ...rest } = animal;
  return rest;
}

/**
 * The same founders, of which some carry an allele more as often as that happens: so that a record is not blamed for what a
 * founder's statement left out.
 *
 * @param hypotheses - those that a founder carries more
 */
export function leavingOpen(
  pedigree: Pedigree,
  loci: readonly string[],
  hypotheses: readonly Hypothesis[],
): Pedigree {
  const alleles = new Map<string, string[]>();
  for (const {
    animals,
    alleles: [allele],
  } of hypotheses)
    alleles.set(animals[0]!, [...(alleles.get(animals[0]!) ?? []), allele!]);
  const open = pedigree.loci.filter(({ id }) => loci.includes(id));
  return {
    ...pedigree,
    animals: pedigree.animals.map((animal) => {
      const own = alleles.get(animal.id);
      if (!own) return animal;
      const founder = open.map((locus) => {
        const more = own
          .filter((allele) => locus.alleles.includes(allele))
          .flatMap((allele) => carryingMore(animal, locus.id, allele) ?? []);
        const rare = more.map(({ genotype, p }) => ({ genotype, p: p * HOW_OFTEN['carries-more'] }));
        return [locus.id, [...statedAt(animal, locus.id), ...rare]] as const;
      });
      return { ...animal, founder: { ...animal.founder, ...Object.fromEntries(founder) } };
    }),
  };
}

const statedAt = ({ founder }: PedigreeAnimal, locus: string): readonly WeightedGenotype[] =>
  founder?.[locus] ?? [{ genotype: [WILD, WILD], p: 1 }];

/** What was stated of a founder, with an allele in a place that it calls wild type; null where it calls none so. */
function carryingMore(founder: PedigreeAnimal, locus: string, allele: string): WeightedGenotype[] | null {
  const more = statedAt(founder, locus).flatMap(({ genotype, p }): WeightedGenotype[] => {
    const free = genotype.indexOf(WILD);
    return free < 0 || p === 0 ? [] : [{ genotype: genotype.with(free, allele) as unknown as Genotype, p }];
  });
  const sum = more.reduce((total, { p }) => total + p, 0);
  return sum === 0 ? null : more.map(({ genotype, p }) => ({ genotype, p: p / sum }));
}
