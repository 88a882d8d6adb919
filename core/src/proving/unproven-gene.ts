import type { Catalogue } from '../catalogue/catalogue.ts';
import { infer } from '../inference/infer.ts';
import type { WeightedGenotype } from '../loci/genotype.ts';
import { parseGenes } from '../notation/parse.ts';
import { UNRECORDED_FREQUENCY, type Pedigree, type PedigreeAnimal } from '../pedigree/document.ts';
import { kinByDistance } from '../pedigree/kin.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { ANYBODY, INHERITANCES, LOOK, LOOK_PAIRS, LOOKS_BY_CHANCE, type Inheritance } from './inheritance.ts';
import { bestTests, type TestPairing } from './test-pairings.ts';

/** What the records say of a gene that is not proven. */
export interface UnprovenGene {
  /** Animals that show it. */
  readonly shows: readonly string[];
  /** Young of those that show it, looked at: how many do, and how many do not. */
  readonly young: { readonly showing: number; readonly others: number };
  /** How likely each way of inheritance is. */
  readonly odds: Readonly<Record<Inheritance, number>>;
  /** Pairings that would tell, the most telling first. */
  readonly tests: readonly TestPairing[];
}

/** Relatives further away than this say next to nothing. */
const FURTHEST_KIN = 3;

type Looks = ReadonlyMap<string, boolean>;

/**
 * How a look may be inherited, from the pedigree of those that show it: by Bayes' rule from the likelihood of the whole
 * family's looks under each way (exact, by the engine's own sums), each as likely as the others before. That the first one
 * shows it is given, since without it nobody would ask.
 *
 * @param animals - all of the collection; those near to one that shows it are read
 * @param locus - the gene's, marked as not proven in the catalogue
 * @param mates - animals that can be paired
 * @returns null where no animal shows it
 * @example assessUnproven([], 'own-smoke', new Set(), CATALOGUE) // null
 */
export function assessUnproven(
  animals: readonly RecordedAnimal[],
  locus: string,
  mates: ReadonlySet<string>,
  catalogue: Catalogue,
): UnprovenGene | null {
  const looks = looksOf(animals, locus, catalogue);
  const shows = animals.filter(({ id }) => looks.get(id)).map(({ id }) => id);
  const [first] = shows;
  if (first === undefined) return null;
  const near = new Set(
    shows.flatMap((id) =>
      [...kinByDistance(animals, id)].flatMap(([kin, steps]) => (steps <= FURTHEST_KIN ? [kin] : [])),
    ),
  );
  for (const id of shows) near.add(id);
  const family = animals.filter(({ id }) => near.has(id));
  const known = INHERITANCES.map((way) => ({ way, ...underWay(family, looks, first, way) }));
  const most = Math.max(...known.map(({ log }) => log));
  const total = known.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
  const odds = Object.fromEntries(known.map(({ way, log }) => [way, Math.exp(log - most) / total])) as Record<
    Inheritance,
    number
  >;
  const genotypes = new Map(known.map(({ way, genotypes: found }) => [way, found]));
  return {
    shows,
    young: youngOf(family, looks),
    odds,
    tests: bestTests(
      family.filter(({ id }) => mates.has(id)),
      odds,
      genotypes,
    ),
  };
}

/** Whether each animal shows it, of those that were looked at and said. */
function looksOf(animals: readonly RecordedAnimal[], locus: string, catalogue: Catalogue): Looks {
  const alleles = new Set(catalogue.locusById(locus)?.alleles.map(({ id }) => id));
  return new Map(
    animals.flatMap(({ id, identification }): [string, boolean][] => {
      if (!identification) return [];
      const { loci, possible } = parseGenes(identification.genes, catalogue);
      if (loci.has(locus)) return [[id, true]];
      return possible.some((allele) => alleles.has(allele)) ? [] : [[id, false]];
    }),
  );
}

function youngOf(family: readonly RecordedAnimal[], looks: Looks): UnprovenGene['young'] {
  const ofShowing = family.filter(
    ({ dam, sires }) =>
      (dam !== undefined && looks.get(dam)) || (sires.length === 1 && looks.get(sires[0]!.id)),
  );
  return {
    showing: ofShowing.filter(({ id }) => looks.get(id) === true).length,
    others: ofShowing.filter(({ id }) => looks.get(id) === false).length,
  };
}

/** The logarithm of the likelihood of a family's looks, given the first one's, and what each may be. */
function underWay(
  family: readonly RecordedAnimal[],
  looks: Looks,
  first: string,
  way: Inheritance,
): { log: number; genotypes: ReadonlyMap<string, readonly WeightedGenotype[]> } {
  if (way === 'not-inherited') {
    const log = family.reduce((sum, { id }) => {
      const shows = looks.get(id);
      if (shows === undefined || id === first) return sum;
      return sum + Math.log(shows ? LOOKS_BY_CHANCE : 1 - LOOKS_BY_CHANCE);
    }, 0);
    return { log, genotypes: new Map() };
  }
  const all = infer(pedigreeOf(family, looks, first, way));
  const alone = infer(pedigreeOf(family, new Map([[first, true]]), first, way));
  return {
    log: (all.logLikelihood ?? -Infinity) - (alone.logLikelihood ?? 0),
    genotypes: new Map([...all.animals].map(([id, loci]) => [id, loci.get(LOOK) ?? []])),
  };
}

function pedigreeOf(
  family: readonly RecordedAnimal[],
  looks: Looks,
  first: string,
  way: Exclude<Inheritance, 'not-inherited'>,
): Pedigree {
  const here = new Set(family.map(({ id }) => id));
  const least = way === 'one-copy' ? 1 : 2;
  const showing = LOOK_PAIRS.filter((pair) => pair.filter((allele) => allele === LOOK).length >= least);
  const plain = LOOK_PAIRS.filter((pair) => !showing.includes(pair));
  return {
    loci: [{ id: LOOK, alleles: [LOOK] }],
    unrecorded: UNRECORDED_FREQUENCY,
    animals: family.map(({ id, sex, dam, sires }): PedigreeAnimal => {
      const shows = looks.get(id);
      const call = {
        locus: LOOK,
        is: shows ? showing : plain,
        // What the first one shows is the question: it is no slip.
        error: id === first ? 0 : LOOKS_BY_CHANCE,
      };
      const calls = shows === undefined ? {} : { calls: [call] };
      const hasDam = dam !== undefined && here.has(dam);
      const known = sires.filter((sire) => here.has(sire.id));
      // With some candidates left out the sire may be one of them: then none is named.
      const hasSires = known.length > 0 && known.length === sires.length;
      if (!hasDam && !hasSires) return { id, sex, founder: { [LOOK]: ANYBODY }, ...calls };
      return { id, sex, ...(hasDam ? { dam } : {}), ...(hasSires ? { sires: known } : {}), ...calls };
    }),
  };
}
