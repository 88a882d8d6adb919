import { allGenotypes, canonical, genotypeKey, type Genotype } from '../src/loci/genotype.ts';
import { WILD } from '../src/loci/locus.ts';
import type { Call, PedigreeAnimal, PedigreeLocus } from '../src/pedigree/document.ts';

/** One thing an animal can be at a locus. On a sex-linked locus a male's pair is `[X, Y]` and the state tells the sex. */
export interface State {
  readonly pair: Genotype;
  readonly sex?: 'female' | 'male';
}

/** Every state of an animal at a locus, before any evidence. */
export function allStates(locus: PedigreeLocus, sex: PedigreeAnimal['sex']): State[] {
  const pairs = allGenotypes(locus.alleles);
  if (!locus.sexLinked) return pairs.map((pair) => ({ pair }));
  const alleles = [WILD, ...locus.alleles];
  const female = pairs.map((pair): State => ({ pair, sex: 'female' }));
  const male = alleles.flatMap((x) => alleles.map((y): State => ({ pair: [x, y], sex: 'male' })));
  return sex === 'female' ? female : sex === 'male' ? male : [...female, ...male];
}

/** The likelihood of an animal's calls at a locus, given its state. Calls never see phase. */
export function callLikelihood(calls: readonly Call[], state: State): number {
  const key = genotypeKey(canonical(state.pair[0], state.pair[1]));
  return calls.reduce((product, call) => {
    const error = call.error ?? 0;
    const within = call.is.some(([a, b]) => genotypeKey(canonical(a, b)) === key);
    return product * (within ? 1 - error : error);
  }, 1);
}

/** The chance that a parent in this state passes an allele on to an offspring of a given sex. */
function passes(
  locus: PedigreeLocus,
  state: State,
  parent: 'dam' | 'sire',
  child: State,
  allele: string,
): number {
  const [x, y] = state.pair;
  const fromX = x === allele ? 1 : 0;
  const fromY = y === allele ? 1 : 0;
  if (!locus.sexLinked || parent === 'dam') return (fromX + fromY) / 2;
  const r = locus.recombination ?? 0;
  return child.sex === 'female' ? (1 - r) * fromX + r * fromY : r * fromX + (1 - r) * fromY;
}

/** What a parent gives: a recorded one from its state, an unrecorded one from the population. */
export type Source = { readonly state: State } | { readonly unrecorded: number };

function gives(
  locus: PedigreeLocus,
  source: Source,
  parent: 'dam' | 'sire',
  child: State,
  allele: string,
): number {
  if ('state' in source) return passes(locus, source.state, parent, child, allele);
  return allele === WILD ? 1 - locus.alleles.length * source.unrecorded : source.unrecorded;
}

/**
 * P(child's pair | its sex, dam, sire). Over the pairs of one sex it adds up to 1.
 *
 * A son's sex-linked pair is [from dam, from sire]; everywhere else order does not matter.
 */
export function transmission(locus: PedigreeLocus, child: State, dam: Source, sire: Source): number {
  const [a, b] = child.pair;
  const ab = gives(locus, dam, 'dam', child, a) * gives(locus, sire, 'sire', child, b);
  if (a === b || child.sex === 'male') return ab;
  return ab + gives(locus, dam, 'dam', child, b) * gives(locus, sire, 'sire', child, a);
}

/** P(pair | sex) of an animal whose parents nobody recorded and of which nothing is stated. */
export function founderProbability(locus: PedigreeLocus, animal: PedigreeAnimal, state: State): number {
  const stated = animal.founder?.[locus.id];
  if (!stated) return state.pair[0] === WILD && state.pair[1] === WILD ? 1 : 0;
  const ordered = state.sex === 'male';
  return stated.reduce((sum, { genotype, p }) => {
    const same = ordered
      ? genotype[0] === state.pair[0] && genotype[1] === state.pair[1]
      : genotypeKey(canonical(...genotype)) === genotypeKey(canonical(...state.pair));
    return same ? sum + p : sum;
  }, 0);
}
