import { canonical, genotypeKey } from '../src/loci/genotype.ts';
import {
  allStates,
  callLikelihood,
  founderProbability,
  transmission,
  type State,
} from '../src/inference/states.ts';
import { ancestralOrder } from '../src/inference/network.ts';
import type { Pedigree, PedigreeAnimal } from '../src/pedigree/document.ts';

/**
 * The slow judge: adds up every joint assignment of genotypes and sires. Shares the transmission rule with the engine
 * (which is checked on its own), but none of the elimination, pruning or read-out.
 */
export function enumeratePosterior(pedigree: Pedigree): {
  likelihood: number;
  genotypes: Map<string, number>;
  sires: Map<string, number>;
} {
  const animals = ancestralOrder(pedigree.animals);
  const genotypes = new Map<string, number>();
  const sires = new Map<string, number>();
  let likelihood = 0;
  const chosen = new Map<string, State>();
  const sireOf = new Map<string, string | undefined>();

  const place = (index: number, weight: number): void => {
    if (weight === 0) return;
    if (index === animals.length * pedigree.loci.length) {
      likelihood += weight;
      for (const [key, state] of chosen) {
        const pair = canonical(state.pair[0], state.pair[1]);
        const name = `${key}|${genotypeKey(pair)}`;
        genotypes.set(name, (genotypes.get(name) ?? 0) + weight);
      }
      for (const [child, sire] of sireOf) {
        sires.set(`${child}|${sire}`, (sires.get(`${child}|${sire}`) ?? 0) + weight);
      }
      return;
    }
    const animal = animals[Math.floor(index / pedigree.loci.length)]!;
    const firstLocus = index % pedigree.loci.length === 0;
    const candidates = animal.sires ?? [];
    if (firstLocus && candidates.length > 1) {
      const sum = candidates.reduce((total, sire) => total + sire.weight, 0);
      for (const sire of candidates) {
        sireOf.set(animal.id, sire.id);
        placeGenotype(animal, index, (weight * sire.weight) / sum);
      }
      sireOf.delete(animal.id);
    } else placeGenotype(animal, index, weight);
  };

  const placeGenotype = (animal: PedigreeAnimal, index: number, weight: number): void => {
    const locus = pedigree.loci[index % pedigree.loci.length]!;
    const key = `${animal.id}|${locus.id}`;
    const calls = (animal.calls ?? []).filter((call) => call.locus === locus.id);
    const source = (id: string | undefined) =>
      id === undefined ? { unrecorded: pedigree.unrecorded } : { state: chosen.get(`${id}|${locus.id}`)! };
    for (const state of allStates(locus, animal.sex)) {
      const sire = sireOf.get(animal.id) ?? animal.sires?.[0]?.id;
      const isFounder = animal.dam === undefined && sire === undefined;
      const prior = isFounder
        ? founderProbability(locus, animal, state)
        : transmission(locus, state, source(animal.dam), source(sire));
      const sexes = locus.sexLinked && animal.sex === 'unknown' ? 0.5 : 1;
      chosen.set(key, state);
      place(index + 1, weight * prior * sexes * callLikelihood(calls, state));
    }
    chosen.delete(key);
  };

  place(0, 1);
  for (const table of [genotypes, sires]) table.forEach((value, key) => table.set(key, value / likelihood));
  return { likelihood, genotypes, sires };
}
