import type { Genotype, WeightedGenotype } from '../loci/genotype.ts';
import { WILD } from '../loci/locus.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { mixedBinomial, type Scenarios } from '../numeric/mixed-binomial.ts';
import { ANYBODY, INHERITANCES, LOOKS_BY_CHANCE, type Inheritance } from './inheritance.ts';

/** A pairing that would tell how a look is inherited. */
export interface TestPairing {
  /** Null: an animal from elsewhere that does not show it. */
  readonly dam: string | null;
  readonly sire: string | null;
  /** So many young are needed until it is known, in nine of ten cases. */
  readonly young: number;
  /** Ways that their young tell apart; those within one group stay open. */
  readonly apart: readonly (readonly Inheritance[])[];
}

/** Ways of inheritance by which the young of a pair look about as often are not told apart by them. */
const SAME_SHARE = 0.1;
/** It is known once one group is this likely; a pairing has to bring that about this often. Assumptions: docs/science.md. */
export const KNOWN_FROM = 0.95;
export const POWER = 0.9;
/** Nobody waits for more young than this. */
const MOST_YOUNG = 60;
/** Below this a way counts as excluded. */
const EXCLUDED_BELOW = 0.01;
const SHOWN = 6;

type Genotypes = ReadonlyMap<Inheritance, ReadonlyMap<string, readonly WeightedGenotype[]>>;

/**
 * The pairings that would tell most: first those that tell most ways apart, then those that need the fewest young.
 *
 * @param family - animals that can be paired
 * @param genotypes - under each way of inheritance, what each animal may be
 */
export function bestTests(
  family: readonly Pick<RecordedAnimal, 'id' | 'sex'>[],
  odds: Readonly<Record<Inheritance, number>>,
  genotypes: Genotypes,
): TestPairing[] {
  const ways = INHERITANCES.filter((way) => odds[way] >= EXCLUDED_BELOW);
  if (ways.length < 2) return [];
  const of = (sex: 'female' | 'male'): (string | null)[] => [
    ...family.filter((one) => one.sex === sex).map(({ id }) => id),
    null,
  ];
  const tests = of('female').flatMap((dam) =>
    of('male').flatMap((sire): TestPairing[] => {
      if (dam === null && sire === null) return [];
      const scenarios = new Map(ways.map((way) => [way, scenariosOf(genotypes.get(way)!, way, dam, sire)]));
      const apart = groupsOf(ways, scenarios);
      const young = apart.length < 2 ? null : youngNeeded(apart, scenarios, odds);
      return young === null ? [] : [{ dam, sire, young, apart }];
    }),
  );
  return tests
    .toSorted((a, b) => b.apart.length - a.apart.length || a.young - b.young || ownOf(b) - ownOf(a))
    .slice(0, SHOWN);
}

/** Of two like pairings the one that needs no animal from elsewhere comes first. */
const ownOf = ({ dam, sire }: TestPairing): number => Number(dam !== null) + Number(sire !== null);

/** What the parents may be, and how often their young then look like it. */
function scenariosOf(
  known: ReadonlyMap<string, readonly WeightedGenotype[]>,
  way: Inheritance,
  dam: string | null,
  sire: string | null,
): Scenarios {
  if (way === 'not-inherited') return [{ weight: 1, p: LOOKS_BY_CHANCE }];
  const copiesOf = (id: string | null): readonly { copies: number; p: number }[] =>
    ((id === null ? null : known.get(id)) ?? plainStranger(way)).map(({ genotype, p }) => ({
      copies: copiesIn(genotype),
      p,
    }));
  return copiesOf(dam).flatMap((mother) =>
    copiesOf(sire).map((father) => {
      const [m, f] = [mother.copies / 2, father.copies / 2];
      const shows = way === 'one-copy' ? 1 - (1 - m) * (1 - f) : m * f;
      return {
        weight: mother.p * father.p,
        p: shows * (1 - LOOKS_BY_CHANCE) + (1 - shows) * LOOKS_BY_CHANCE,
      };
    }),
  );
}

const copiesIn = (genotype: Genotype): number => genotype.filter((allele) => allele !== WILD).length;

/** What an animal from elsewhere may be that does not show it. */
function plainStranger(way: Exclude<Inheritance, 'not-inherited'>): readonly WeightedGenotype[] {
  const plain = ANYBODY.filter(({ genotype }) => copiesIn(genotype) < (way === 'one-copy' ? 1 : 2));
  const total = plain.reduce((sum, { p }) => sum + p, 0);
  return plain.map(({ genotype, p }) => ({ genotype, p: p / total }));
}

const meanOf = (scenarios: Scenarios): number =>
  scenarios.reduce((sum, { weight, p }) => sum + weight * p, 0);

/** Ways by how often the young would look like it. */
function groupsOf(
  ways: readonly Inheritance[],
  scenarios: ReadonlyMap<Inheritance, Scenarios>,
): Inheritance[][] {
  const mean = (way: Inheritance): number => meanOf(scenarios.get(way)!);
  const groups: Inheritance[][] = [];
  for (const way of ways.toSorted((a, b) => mean(a) - mean(b))) {
    const last = groups.at(-1);
    if (last && mean(way) - mean(last[0]!) < SAME_SHARE) last.push(way);
    else groups.push([way]);
  }
  return groups;
}

/** The fewest young after which one group is known often enough; null where that takes too many. */
function youngNeeded(
  groups: readonly (readonly Inheritance[])[],
  scenarios: ReadonlyMap<Inheritance, Scenarios>,
  odds: Readonly<Record<Inheritance, number>>,
): number | null {
  const total = groups.flat().reduce((sum, way) => sum + odds[way], 0);
  for (let n = 1; n <= MOST_YOUNG; n++) {
    const chances = new Map([...scenarios].map(([way, one]) => [way, mixedBinomial(one, n)]));
    let power = 0;
    for (let k = 0; k <= n; k++) {
      const joint = groups.map((ways) =>
        ways.reduce((sum, way) => sum + (odds[way] / total) * chances.get(way)![k]!, 0),
      );
      const all = joint.reduce((sum, one) => sum + one, 0);
      if (all > 0 && Math.max(...joint) / all >= KNOWN_FROM) power += all;
    }
    if (power >= POWER) return n;
  }
  return null;
}
