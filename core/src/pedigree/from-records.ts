import { alleleById, locusById } from '../catalogue/catalogue.ts';
import {
  allGenotypes,
  appearance,
  canonical,
  type Genotype,
  type WeightedGenotype,
} from '../loci/genotype.ts';
import { WILD, type Locus } from '../loci/locus.ts';
import { parseGenes, WILD_FOR_CERTAIN, type ParsedGenes } from '../notation/parse.ts';
import { toParent } from '../odds/parent.ts';
import {
  UNRECORDED_FREQUENCY,
  type Call,
  type CandidateSire,
  type Pedigree,
  type PedigreeAnimal,
  type PedigreeLocus,
} from './document.ts';

/** How sure somebody is of what they saw. */
export type Sureness = 'certain' | 'probable' | 'possible';

/** The chance that such an identification is wrong. Common practice, no source: the words' plain meaning in numbers. */
export const CALL_ERROR: Readonly<Record<Sureness, number>> = { certain: 0, probable: 0.1, possible: 0.3 };

/** Not seen on an animal whose showing genes cover some of the tells: this likely to be there all the same. */
const COVERED_ERROR = 0.2;

/** A gene in brackets on a founder: neither seen nor excluded. An assumption, stated in docs/science.md. */
const BRACKETED = 0.25;

export interface Identification {
  readonly record: string;
  /** Trade shorthand. */
  readonly genes: string;
  readonly sure: Sureness;
}

export interface RecordedAnimal {
  readonly id: string;
  readonly sex: 'female' | 'male' | 'unknown';
  readonly dam?: string;
  readonly sires: readonly CandidateSire[];
  readonly identification?: Identification;
}

/**
 * Turns what was recorded into a pedigree with evidence.
 *
 * A founder's genes are a statement (what it was bought or imported as). An animal with a recorded parent is judged by
 * what shows on it; what it carries unseen must come from its relatives, so carried genes in its text are not evidence.
 * Loci are those that any text names, with the alleles that any text names.
 */
export function compilePedigree(animals: readonly RecordedAnimal[]): Pedigree {
  const readings = new Map(
    animals.flatMap((a) => (a.identification ? [[a.id, parseGenes(a.identification.genes)] as const] : [])),
  );
  const loci = namedLoci([...readings.values()]);
  return {
    loci,
    unrecorded: UNRECORDED_FREQUENCY,
    animals: animals.map((animal) => compileAnimal(animal, readings.get(animal.id), loci)),
  };
}

function namedLoci(readings: readonly ParsedGenes[]): PedigreeLocus[] {
  const alleles = new Map<string, Set<string>>();
  const name = (locus: string, allele: string): void => {
    if (allele !== WILD) alleles.set(locus, (alleles.get(locus) ?? new Set()).add(allele));
  };
  for (const { loci, possible } of readings) {
    for (const [id, genotypes] of loci)
      for (const { genotype } of genotypes) genotype.forEach((a) => name(id, a));
    for (const id of possible) name(alleleById(id)!.locus.id, id);
  }
  return [...alleles].map(([id, named]) => {
    const linked = locusById(id)!.sexLinked;
    return {
      id,
      alleles: [...named].toSorted(),
      ...(linked ? { sexLinked: true, recombination: linked.recombination } : {}),
    };
  });
}

function compileAnimal(
  animal: RecordedAnimal,
  reading: ParsedGenes | undefined,
  loci: readonly PedigreeLocus[],
): PedigreeAnimal {
  const { id, sex, dam, sires, identification } = animal;
  if (dam === undefined && sires.length === 0) {
    const founder = Object.fromEntries(
      loci.map((locus) => [
        locus.id,
        reading && identification
          ? statedDistribution(locus, sex, reading, CALL_ERROR[identification.sure])
          : unrecordedFounder(locus),
      ]),
    );
    return { id, sex, founder, ...(identification ? { founderRecord: identification.record } : {}) };
  }
  return {
    id,
    sex,
    ...(dam === undefined ? {} : { dam }),
    ...(sires.length > 0 ? { sires } : {}),
    calls: reading && identification ? readCalls(reading, identification, loci) : [],
  };
}

/** A founder of which nothing is known: alleles drawn independently at the unrecorded frequency. */
export function unrecordedFounder(locus: PedigreeLocus): WeightedGenotype[] {
  const frequency = (allele: string): number =>
    allele === WILD ? 1 - locus.alleles.length * UNRECORDED_FREQUENCY : UNRECORDED_FREQUENCY;
  const alleles = [WILD, ...locus.alleles];
  // Ordered pairs: right for a male's sex-linked pair, and the same distribution where order does not matter.
  return alleles.flatMap((x) =>
    alleles.map((y): WeightedGenotype => ({ genotype: [x, y], p: frequency(x) * frequency(y) })),
  );
}

function statedDistribution(
  locus: PedigreeLocus,
  sex: RecordedAnimal['sex'],
  reading: ParsedGenes,
  error: number,
): WeightedGenotype[] {
  const phaseSex = sex === 'female' ? 'female' : 'male';
  const stated = toParent(reading, phaseSex, locusById).loci.get(locus.id) ?? WILD_FOR_CERTAIN;
  const bracketed = reading.possible.filter((allele) => locus.alleles.includes(allele));
  const certain = stated.map(({ genotype, p }) => ({ genotype, p: p * (1 - error) }));
  const doubted: WeightedGenotype = { genotype: [WILD, WILD], p: error };
  return [...certain, ...(error > 0 ? [doubted] : [])].flatMap((entry) => {
    const free = entry.genotype.indexOf(WILD);
    if (bracketed.length === 0 || free < 0) return [entry];
    const share = BRACKETED / bracketed.length;
    return [
      { genotype: entry.genotype, p: entry.p * (1 - BRACKETED) },
      ...bracketed.map((allele) => ({
        genotype: entry.genotype.with(free, allele) as unknown as Genotype,
        p: entry.p * share,
      })),
    ];
  });
}

/** Locus id -> what shows there, for every locus a reading names. Carried genes show nothing. */
export function shownByReading(reading: Pick<ParsedGenes, 'loci'>): Record<string, string> {
  return Object.fromEntries(
    [...reading.loci].map(([id, genotypes]) => {
      const likeliest = genotypes.toSorted((a, b) => b.p - a.p)[0]!;
      return [id, appearance(locusById(id)!, likeliest.genotype)];
    }),
  );
}

/** How much of the tells of a gene that nobody named the showing genes cover. */
function coverOf(shown: Readonly<Record<string, string>>): 'nothing' | 'some' | 'all' {
  const hides = Object.entries(shown).flatMap(([id, looks]) => {
    const locus: Locus = locusById(id)!;
    if (looks === '') return [];
    return [looks.includes('/') ? (locus.doublesHide ?? locus.hides) : locus.hides];
  });
  if (hides.includes('everything')) return 'all';
  return hides.some((what) => what !== undefined) ? 'some' : 'nothing';
}

function readCalls(
  reading: ParsedGenes,
  identification: Identification,
  loci: readonly PedigreeLocus[],
): Call[] {
  const shown = shownByReading(reading);
  const cover = coverOf(shown);
  const error = CALL_ERROR[identification.sure];
  return loci.flatMap((pedigreeLocus): Call[] => {
    const locus = locusById(pedigreeLocus.id)!;
    const looks = shown[locus.id] ?? '';
    const named = looks !== '';
    if (!named && cover === 'all') return [];
    const open = reading.possible.filter((allele) => pedigreeLocus.alleles.includes(allele));
    const is = allGenotypes(pedigreeLocus.alleles).filter(
      (genotype) => appearance(locus, genotype) === looks || open.some((allele) => genotype.includes(allele)),
    );
    return [
      {
        locus: locus.id,
        is: is.map(([a, b]) => canonical(a, b)),
        error: !named && cover === 'some' ? Math.max(error, COVERED_ERROR) : error,
        record: identification.record,
      },
    ];
  });
}
