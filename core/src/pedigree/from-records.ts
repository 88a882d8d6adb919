import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { allGenotypes, appearance, canonical, type Genotype } from '../loci/genotype.ts';
import { hidesOf } from '../loci/hides.ts';
import { WILD } from '../loci/locus.ts';
import { parseGenes } from '../notation/parse.ts';
import type { ParsedGenes } from '../notation/reading.ts';
import { founderDistribution } from './founders.ts';
import { livingCalls, livingFounder } from './living.ts';
import { outsideShare } from './looks.ts';
import { unsaidLoci } from './unsaid.ts';
import { CALL_ERROR, type Identification, type RecordedAnimal } from './recorded-animal.ts';
import { allelesNamedBy, callsOf, type StatedEvidence } from './stated-evidence.ts';
import {
  UNRECORDED_FREQUENCY,
  type Call,
  type Pedigree,
  type PedigreeAnimal,
  type PedigreeLocus,
} from './document.ts';

/** Not seen on an animal whose showing genes cover some of the markers: this likely to be there all the same. */
const COVERED_ERROR = 0.2;

/**
 * Turns what was recorded into a pedigree with evidence.
 *
 * A founder's genes are a statement (what it was bought or imported as). An animal with a recorded parent is judged by
 * what shows on it; what it carries unseen must come from its relatives, so carried genes in its text are not evidence.
 * Loci are those that any text names, with the alleles that any text names.
 *
 * @example compilePedigree([{ id: 'F1', sex: 'female', sires: [] }]).animals.map(({ id }) => id) // ["F1"]
 */
export function compilePedigree(
  animals: readonly RecordedAnimal[],
  catalogue: Catalogue = CATALOGUE,
): Pedigree {
  return new RecordCompiler(catalogue).compile(animals);
}

/**
 * Locus id -> what shows there, for every locus a reading names but those of genes that are not proven. Carried genes show
 * nothing.
 *
 * @example shownByReading(parseGenes('Pastel het Clown')) // {"pastel": "pastel", "clown": ""}
 */
export function shownByReading(
  reading: Pick<ParsedGenes, 'loci'>,
  catalogue: Catalogue = CATALOGUE,
): Record<string, string> {
  return Object.fromEntries(
    [...reading.loci].flatMap(([id, genotypes]) => {
      const locus = catalogue.locusById(id)!;
      if (locus.isUnproven) return [];
      const likeliest = genotypes.toSorted((a, b) => b.p - a.p)[0]!;
      return [[id, appearance(locus, likeliest.genotype)]];
    }),
  );
}

/**
 * Locus id -> what shows there by a text, for the loci at which something does.
 *
 * @example shownBy('Pastel het Clown') // {"pastel":"pastel"}
 */
export function shownBy(genes: string, catalogue: Catalogue = CATALOGUE): Record<string, string> {
  const shown = shownByReading(parseGenes(genes, catalogue), catalogue);
  return Object.fromEntries(Object.entries(shown).filter(([, phenotype]) => phenotype !== ''));
}

const NOTHING: ReadonlySet<string> = new Set();

/**
 * Compiles one collection again and again: what is unchanged comes back as the same object, so that an engine sees what
 * is new. Animals keep their order, new ones are added at the end.
 */
export class RecordCompiler {
  private readonly catalogue: Catalogue;
  private loci: readonly PedigreeLocus[] = [];
  private order: readonly string[] = [];
  private readonly compiled = new Map<string, { recorded: string; animal: PedigreeAnimal }>();
  private readonly readings = new Map<string, ParsedGenes>();
  /** Sets of genotypes that look alike, shared by all calls of the same look: so that equal evidence can be told. */
  private readonly sets = new Map<string, readonly Genotype[]>();
  /** Locus id -> what it says of an animal that it lives: the same objects for all, so that they can be told as equal. */
  private readonly living = new Map<string, readonly Call[]>();

  constructor(catalogue: Catalogue) {
    this.catalogue = catalogue;
  }

  compile(animals: readonly RecordedAnimal[]): Pedigree {
    const readings = animals.map(({ identification }) => identification && this.read(identification.genes));
    const stated = animals.flatMap((animal) => animal.stated ?? []);
    const loci = this.namedLoci(
      readings.filter((reading) => reading !== undefined),
      stated,
    );
    if (JSON.stringify(loci) !== JSON.stringify(this.loci)) {
      this.loci = loci;
      this.compiled.clear();
      this.sets.clear();
      this.living.clear();
      for (const locus of loci)
        this.living.set(locus.id, livingCalls(locus, this.catalogue.locusById(locus.id)!));
    }
    const reading = new Map(animals.map((animal, i) => [animal.id, { animal, genes: readings[i] }]));
    const known = new Set(this.order);
    const added = animals.filter(({ id }) => !known.has(id)).map(({ id }) => id);
    this.order = [...this.order.filter((id) => reading.has(id)), ...added];
    const unsaid = unsaidLoci(reading, this.loci, this.catalogue);
    return {
      loci: this.loci,
      unrecorded: UNRECORDED_FREQUENCY,
      animals: this.order.map((id) => {
        const { animal, genes } = reading.get(id)!;
        const open = unsaid.get(id) ?? NOTHING;
        const recorded = `${JSON.stringify(animal)}${[...open].join()}`;
        const before = this.compiled.get(id);
        if (before?.recorded === recorded) return before.animal;
        const compiled = this.animal(animal, genes, open);
        this.compiled.set(id, { recorded, animal: compiled });
        return compiled;
      }),
    };
  }

  private read(genes: string): ParsedGenes {
    let reading = this.readings.get(genes);
    if (!reading) this.readings.set(genes, (reading = parseGenes(genes, this.catalogue)));
    return reading;
  }

  private namedLoci(readings: readonly ParsedGenes[], stated: readonly StatedEvidence[]): PedigreeLocus[] {
    const alleles = new Map<string, Set<string>>();
    const name = (locus: string, allele: string): void => {
      if (allele !== WILD) alleles.set(locus, (alleles.get(locus) ?? new Set()).add(allele));
    };
    for (const { loci, possible } of new Set(readings)) {
      for (const [id, genotypes] of loci)
        for (const { genotype } of genotypes) genotype.forEach((a) => name(id, a));
      for (const id of possible) name(this.catalogue.alleleById(id)!.locus.id, id);
    }
    for (const evidence of stated)
      for (const [locus, allele] of allelesNamedBy(evidence)) name(locus, allele);
    return [...alleles]
      .filter(([id]) => {
        const locus = this.catalogue.locusById(id);
        return locus !== undefined && !locus.isUnproven;
      })
      .toSorted(([a], [b]) => (a < b ? -1 : 1))
      .map(([id, named]) => {
        const linked = this.catalogue.locusById(id)!.sexLinked;
        return {
          id,
          alleles: [...named].toSorted(),
          ...(linked ? { sexLinked: true, recombination: linked.recombination } : {}),
        };
      });
  }

  private animal(
    animal: RecordedAnimal,
    reading: ParsedGenes | undefined,
    unsaid: ReadonlySet<string>,
  ): PedigreeAnimal {
    const { loci } = this;
    const { id, sex, dam, sires, identification, stated } = animal;
    const record = identification?.record ?? stated?.record;
    const theirs = stated ? callsOf(stated, loci) : [];
    if (dam === undefined && sires.length === 0) {
      const founder = Object.fromEntries(
        loci.map((locus) => [
          locus.id,
          livingFounder(
            this.catalogue.locusById(locus.id)!,
            founderDistribution(animal, reading, locus, unsaid.has(locus.id), this.catalogue),
          ),
        ]),
      );
      const calls = theirs.length > 0 ? { calls: theirs } : {};
      return {
        id,
        sex,
        founder,
        ...(record === undefined ? {} : { founderRecord: record }),
        ...(unsaid.size > 0 ? { unsaid: [...unsaid] } : {}),
        ...calls,
      };
    }
    return {
      id,
      sex,
      ...(dam === undefined ? {} : { dam }),
      ...(sires.length > 0 ? { sires } : {}),
      calls: [
        ...(reading && identification ? this.readCalls(reading, identification, loci) : []),
        ...theirs,
        ...(animal.diedInEgg ? [] : loci.flatMap((locus) => this.living.get(locus.id)!)),
      ],
    };
  }

  /** How much of the markers of a gene that nobody named the showing genes cover. */
  private coverOf(shown: Readonly<Record<string, string>>): 'nothing' | 'some' | 'all' {
    const hides = Object.entries(shown).map(([id, phenotype]) =>
      hidesOf(this.catalogue.locusById(id)!, phenotype),
    );
    if (hides.includes('everything')) return 'all';
    return hides.some((what) => what !== undefined) ? 'some' : 'nothing';
  }

  private readCalls(
    reading: ParsedGenes,
    identification: Identification,
    loci: readonly PedigreeLocus[],
  ): Call[] {
    const shown = shownByReading(reading, this.catalogue);
    const cover = this.coverOf(shown);
    const error = CALL_ERROR[identification.sure];
    return loci.flatMap((locus): Call[] => {
      const phenotype = shown[locus.id] ?? '';
      const named = phenotype !== '';
      if (!named && cover === 'all') return [];
      const open = reading.possible.filter((allele) => locus.alleles.includes(allele));
      const either = reading.either.get(locus.id) ?? [];
      const is = this.lookingLike(locus, [phenotype, ...either], open);
      const { record } = identification;
      // A gene that is covered is missed so often, whatever else might have been called.
      if (!named && cover === 'some')
        return [{ locus: locus.id, is, error: Math.max(error, COVERED_ERROR), record }];
      if (error === 0) return [{ locus: locus.id, is, error, record }];
      return [
        { locus: locus.id, is, error, outside: outsideShare(error, this.otherLooks(locus, is)), record },
      ];
    });
  }

  /** How many looks the genotypes have that are not among these. */
  private otherLooks(locus: PedigreeLocus, is: readonly Genotype[]): number {
    const rules = this.catalogue.locusById(locus.id)!;
    const called = new Set(is.map((genotype) => appearance(rules, genotype)));
    const looks = new Set(allGenotypes(locus.alleles).map((genotype) => appearance(rules, genotype)));
    return [...looks].filter((look) => !called.has(look)).length;
  }

  /** The genotypes with one of these phenotypes, and those with an allele that is possible besides. */
  private lookingLike(
    locus: PedigreeLocus,
    phenotype: readonly string[],
    open: readonly string[],
  ): readonly Genotype[] {
    const key = `${locus.id}|${phenotype.join()}|${open.join()}`;
    let set = this.sets.get(key);
    if (!set) {
      const rules = this.catalogue.locusById(locus.id)!;
      set = allGenotypes(locus.alleles)
        .filter(
          (genotype) =>
            phenotype.includes(appearance(rules, genotype)) ||
            open.some((allele) => genotype.includes(allele)),
        )
        .map(([a, b]) => canonical(a, b));
      this.sets.set(key, set);
    }
    return set;
  }
}
