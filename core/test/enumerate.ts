import { canonical, genotypeKey } from '../src/loci/genotype.ts';
import type { Pedigree, PedigreeAnimal } from '../src/pedigree/document.ts';
import { indexPedigree } from '../src/pedigree/index-pedigree.ts';
import { allStates, callLikelihood, founderProbability, transmission, type State } from './states.ts';

export interface Enumerated {
  readonly likelihood: number;
  /** `animal|locus|a/b` (ordered for a male at a sex-linked locus) -> probability. */
  readonly genotypes: ReadonlyMap<string, number>;
  /** `animal|sire` -> probability. */
  readonly sires: ReadonlyMap<string, number>;
  /** Animal of unrecorded sex -> probability that it is female. */
  readonly female: ReadonlyMap<string, number>;
}

/**
 * The slow judge: adds up every joint assignment of sexes, sires and genotypes, with whole genotypes as states. Shares
 * nothing with the engine but the order of ancestors.
 */
export function enumeratePosterior(pedigree: Pedigree): Enumerated {
  const { order, sex: sexes } = indexPedigree(pedigree);
  const genotypes = new Map<string, number>();
  const sires = new Map<string, number>();
  const female = new Map<string, number>();
  let likelihood = 0;
  const chosen = new Map<string, State>();
  const sireOf = new Map<string, string>();
  const sexOf = new Map<string, 'female' | 'male'>();
  const add = (table: Map<string, number>, key: string, weight: number): void => {
    table.set(key, (table.get(key) ?? 0) + weight);
  };

  const count = (weight: number): void => {
    likelihood += weight;
    for (const [key, state] of chosen) {
      const [animal, locus] = key.split('|');
      const linked = pedigree.loci.find(({ id }) => id === locus)!.sexLinked;
      const known = sexes[pedigree.animals.findIndex(({ id }) => id === animal)!] === 2;
      const pair = linked && known ? state.pair : canonical(...state.pair);
      add(genotypes, `${key}|${genotypeKey(pair)}`, weight);
    }
    for (const [child, sire] of sireOf) add(sires, `${child}|${sire}`, weight);
    for (const [animal, sex] of sexOf) if (sex === 'female') add(female, animal, weight);
  };

  const animalAt = (at: number, weight: number): void => {
    if (weight === 0) return;
    if (at === order.length) return count(weight);
    const animal = pedigree.animals[order[at]!]!;
    const settled = sexes[order[at]!];
    const openSex = settled === 0;
    for (const sex of openSex
      ? (['female', 'male'] as const)
      : [settled === 1 ? ('female' as const) : ('male' as const)]) {
      if (openSex) sexOf.set(animal.id, sex);
      const candidates = animal.sires ?? [];
      const sum = candidates.reduce((total, sire) => total + sire.weight, 0);
      for (const sire of candidates.length > 0 ? candidates : [null]) {
        if (candidates.length > 1) sireOf.set(animal.id, sire!.id);
        const share = sire ? sire.weight / sum : 1;
        locusAt(animal, sex, sire?.id, 0, at, weight * share * (openSex ? 0.5 : 1));
      }
      sireOf.delete(animal.id);
    }
    sexOf.delete(animal.id);
  };

  const locusAt = (
    animal: PedigreeAnimal,
    sex: 'female' | 'male',
    sire: string | undefined,
    l: number,
    at: number,
    weight: number,
  ): void => {
    if (weight === 0) return;
    if (l === pedigree.loci.length) return animalAt(at + 1, weight);
    const locus = pedigree.loci[l]!;
    const calls = (animal.calls ?? []).filter((call) => call.locus === locus.id);
    const source = (id: string | undefined) =>
      id === undefined ? { unrecorded: pedigree.unrecorded } : { state: chosen.get(`${id}|${locus.id}`)! };
    const isFounder = animal.dam === undefined && sire === undefined;
    for (const state of allStates(locus, sex)) {
      const prior = isFounder
        ? founderProbability(locus, { ...animal, sex }, state)
        : transmission(locus, state, source(animal.dam), source(sire));
      chosen.set(`${animal.id}|${locus.id}`, state);
      locusAt(animal, sex, sire, l + 1, at, weight * prior * callLikelihood(calls, state));
    }
    chosen.delete(`${animal.id}|${locus.id}`);
  };

  animalAt(0, 1);
  for (const table of [genotypes, sires, female]) table.forEach((p, key) => table.set(key, p / likelihood));
  return { likelihood, genotypes, sires, female };
}
