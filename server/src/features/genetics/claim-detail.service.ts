import { isGone, type ClaimDetailView, type KinNodeView } from '@karyotome/contract';
import {
  appearance,
  gamete,
  isPossible,
  SETTLED_BELOW,
  type Claim,
  type Genotype,
  type Locus,
  type Mate,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { claimsOf, labelOf, sireOdds, supportOf } from '../../domain/genetics/inferred-of-animal.ts';
import { geneticsOf, type Genetics } from '../../domain/genetics/genetics.service.ts';
import { type Named, namedAnimals } from '../../domain/genetics/genetics.queries.ts';

const MATES_SHOWN = 5;
const NO_DETAIL = { hinges: [], strengthen: [], fromPedigree: null };

/** The records a claim depends on, what would make it surer, and which mates would prove it. */
export async function viewClaimDetail(
  work: Work,
  animalId: string,
  locus: string,
  allele: string,
): Promise<ClaimDetailView> {
  const genetics = await geneticsOf(work);
  const claim = claimsOf(genetics, animalId).find((one) => one.locus === locus && one.allele === allele);
  if (!claim) throw notFound('This claim');
  const animals = await namedAnimals(work);
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const support = await supportOf(genetics, animalId, claim);
  // A claim that rests on the whole family depends on no single record that could be named.
  const { hinges, strengthen, fromPedigree } = support
    ? await genetics.ask({ ask: 'detail', animal: animalId, claim, support })
    : NO_DETAIL;
  return {
    fromPedigree: fromPedigree && fromPedigree.label !== claim.label ? fromPedigree.label : null,
    hinges: hinges.map(({ record }) => record),
    strengthen: strengthen.map((one) => ({
      kind: one.kind,
      number: byId.get(one.animal)!.number,
      p: 'p' in one ? one.p : null,
      animalId: one.animal,
    })),
    proofs: await proofsOf(genetics, byId.get(animalId)!, claim, animals),
  };
}

/** Living mates of the other sex, by how soon their young would settle whether the gene is carried. */
async function proofsOf(
  genetics: Genetics,
  animal: Named,
  claim: Claim,
  animals: readonly Named[],
): Promise<ClaimDetailView['proofs']> {
  if (!isPossible(claim.kind) || claim.p < SETTLED_BELOW || animal.sex === 'unknown') return [];
  const locus = genetics.catalogue.locusById(claim.locus)!;
  const mates = animals.flatMap((mate): [string, Mate][] => {
    const { id, sex } = mate;
    if (sex === 'unknown' || sex === animal.sex || isGone(mate)) return [];
    return [[id, mateOf(genetics, locus, claim.allele, animal.sex as 'female' | 'male', id)]];
  });
  const proofs = await genetics.ask({ ask: 'proofs', p: claim.p, mates });
  const byId = new Map(animals.map((one) => [one.id, one]));
  return proofs.slice(0, MATES_SHOWN).map(([id, proof]) => ({
    animalId: id,
    number: byId.get(id)!.number,
    label: labelOf(genetics, id),
    ...proof,
  }));
}

/** For each thing a mate may be: the chance that an egg shows the gene, if the other parent has one copy of it. */
function mateOf(
  genetics: Genetics,
  locus: Locus,
  allele: string,
  sex: 'female' | 'male',
  mateId: string,
): Mate {
  const recessive = locus.alleles.some(({ id, expression }) => id === allele && expression === 'recessive');
  const carrier: Genotype = ['+', allele];
  const genotypes = genetics.posterior.genotypes(mateId).get(locus.id) ?? [];
  return {
    cases: genotypes.map(({ genotype, p }) => {
      const pShows = (['female', 'male'] as const).reduce((sum, young) => {
        const gives = chances(gamete(carrier, sex, young, locus));
        const mate = chances(gamete(genotype, sex === 'male' ? 'female' : 'male', young, locus));
        // A recessive gene shows beside any recessive allele of its locus; only its own can be told apart for sure.
        const own = gives.get(allele) ?? 0;
        return sum + (recessive ? own * (mate.get(allele) ?? 0) : own * (1 - (mate.get(allele) ?? 0))) / 2;
      }, 0);
      return { weight: p, pShows };
    }),
  };
}

function chances(gamete: readonly (readonly [string, number])[]): Map<string, number> {
  const sums = new Map<string, number>();
  for (const [allele, p] of gamete) sums.set(allele, (sums.get(allele) ?? 0) + p);
  return sums;
}

/** Everybody related to an animal by descent within so many generations up and down, for drawing. */
export async function viewKin(
  work: Work,
  animalId: string,
  generations: number,
  gene: { locus: string; allele: string } | null,
): Promise<KinNodeView[]> {
  const genetics = await geneticsOf(work);
  if (!genetics.recorded.has(animalId)) throw notFound('This animal');
  const animals = await namedAnimals(work);
  const shown = new Set([animalId]);
  const parentsOf = (id: string): string[] => {
    const { dam, sires } = genetics.recorded.get(id)!;
    return [...(dam ? [dam] : []), ...sires.map((sire) => sire.id)];
  };
  let edge = [animalId];
  for (let depth = 0; depth < generations; depth++) {
    edge = edge.flatMap(parentsOf);
    for (const id of edge) shown.add(id);
  }
  edge = [animalId];
  for (let depth = 0; depth < generations; depth++) {
    const from = new Set(edge);
    edge = animals.filter(({ id }) => parentsOf(id).some((parent) => from.has(parent))).map(({ id }) => id);
    for (const id of edge) {
      shown.add(id);
      // The other parent belongs into the picture, or the young would seem to have one.
      for (const parent of parentsOf(id)) shown.add(parent);
    }
  }
  const kin = animals.filter(({ id }) => shown.has(id));
  const kinship = await genetics.ask({ ask: 'kinship', animal: animalId, kin: kin.map(({ id }) => id) });
  return kin.map(({ id, number, name, sex, status }, i) => ({
    id,
    number,
    name,
    sex,
    label: labelOf(genetics, id),
    died: status === 'died',
    dam: genetics.recorded.get(id)!.dam ?? null,
    sires: [...sireOdds(genetics, id)].map(([sire, p]) => ({ id: sire, p })),
    ...kinship[i]!,
    gene: gene && geneOdds(genetics, id, gene),
  }));
}

/** How likely a gene shows on an animal, and how likely it is there at all. */
function geneOdds(
  { catalogue, posterior }: Genetics,
  id: string,
  { locus, allele }: { locus: string; allele: string },
): KinNodeView['gene'] {
  const rules = catalogue.locusById(locus);
  const genotypes = posterior.genotypes(id).get(locus);
  if (!rules || !genotypes) return null;
  const carrying = genotypes.filter(({ genotype }) => genotype.includes(allele));
  const sum = (list: typeof genotypes): number => list.reduce((total, { p }) => total + p, 0);
  return {
    pCarries: sum(carrying),
    pShows: sum(carrying.filter(({ genotype }) => appearance(rules, genotype).includes(allele))),
  };
}
