import type { WeightedGenotype } from '../loci/genotype.ts';
import { livingOutcomes, locusOutcomes } from '../odds/locus-outcomes.ts';
import { distributionAt, type Parent } from '../odds/parent.ts';
import { meetsTarget, type Target } from '../odds/target.ts';

/** What somebody waits for. */
export interface Wish {
  readonly must: Target;
  readonly mustNot: Target;
  readonly sex: 'female' | 'male' | null;
}

type Distribution = readonly WeightedGenotype[];

/** The chance that a genotype is as wanted, locus by locus; loci are taken as independent. */
function chanceOfGenes({ must, mustNot }: Wish, at: (locus: string) => Distribution): number {
  const loci = new Set([...must, ...mustNot].map(({ locus }) => locus.id));
  let chance = 1;
  for (const id of loci) {
    const wanted = must.filter(({ locus }) => locus.id === id);
    const unwanted = mustNot.filter(({ locus }) => locus.id === id);
    chance *= at(id).reduce(
      (sum, { genotype, p }) =>
        wanted.every((one) => meetsTarget(one, genotype)) &&
        !unwanted.some((one) => meetsTarget(one, genotype))
          ? sum + p
          : sum,
      0,
    );
  }
  return chance;
}

/**
 * The chance that an animal is what somebody waits for.
 *
 * @param parent - what the animal may be, locus by locus
 * @param pFemale - the probability that it is a female
 *
 * @example wishChance({ must: toTarget(parseGenes('het clown')), mustNot: [], sex: 'female' }, toParent(parseGenes('66% het clown'), 'female'), 1).toFixed(2) // "0.67"
 */
export function wishChance(wish: Wish, parent: Parent, pFemale: number): number {
  const ofSex = wish.sex === null ? 1 : wish.sex === 'female' ? pFemale : 1 - pFemale;
  return ofSex * chanceOfGenes(wish, (id) => distributionAt(parent, id));
}

/**
 * The chance that one young of a pair is what somebody waits for. The loci of each parent are independent, so that the mean
 * over the parents multiplies.
 *
 * @example wishChanceOfYoung({ must: toTarget(parseGenes('clown')), mustNot: [], sex: 'female' }, toParent(parseGenes('clown'), 'male'), toParent(parseGenes('het clown'), 'female')) // 0.25
 */
export function wishChanceOfYoung(wish: Wish, sire: Parent, dam: Parent): number {
  const loci = new Map([...wish.must, ...wish.mustNot].map(({ locus }) => [locus.id, locus]));
  const outcomes = new Map(
    [...loci].map(([id, locus]) => [
      id,
      livingOutcomes(locusOutcomes(locus, distributionAt(sire, id), distributionAt(dam, id))),
    ]),
  );
  const chanceFor = (sex: 'female' | 'male'): number =>
    chanceOfGenes(wish, (id) =>
      outcomes
        .get(id)!
        .map(({ genotype, pMale, pFemale }) => ({ genotype, p: sex === 'male' ? pMale : pFemale })),
    );
  return (
    (wish.sex === 'male' ? 0 : 0.5 * chanceFor('female')) +
    (wish.sex === 'female' ? 0 : 0.5 * chanceFor('male'))
  );
}
