import {
  allGenotypes,
  appearance,
  CATALOGUE,
  parseGenes,
  phenotypeLabel,
  seededRandom,
  shownBy,
  viabilityOf,
  type Completeness,
  type Genotype,
  type Locus,
  type RecordedAnimal,
  type Sureness,
} from '@karyotome/core';

/*
 * A collection whose truth is known: founders as they are stated, with what their statements leave open drawn by the rules
 * that the engine assumes; clutches by one male or two; eggs that do not live; identifications that are wrong as often as
 * their word says. If the engine is right, what it calls 70% is true in 70 of 100.
 */

const RECESSIVE = ['clown', 'ghost', 'desert-ghost', 'axanthic-a'];
const SHOWING = ['pastel', 'enchi', 'fire', 'mojave', 'lesser', 'spider'];
const ERROR: Readonly<Record<Sureness, number>> = { certain: 0, probable: 0.1, possible: 0.3 };
const COMPLETENESS: readonly Completeness[] = ['all-known', 'recessives-unknown', 'nothing-known'];

export interface Simulated {
  readonly animals: readonly RecordedAnimal[];
  /** Animal -> locus -> its true genotype, in canonical order. */
  readonly truth: ReadonlyMap<string, ReadonlyMap<string, Genotype>>;
  readonly sires: ReadonlyMap<string, string>;
}

type Genes = Map<string, Genotype>;

const lociOf = (alleles: readonly string[]): Locus[] => [
  ...new Set(alleles.map((allele) => CATALOGUE.alleleById(allele)!.locus)),
];
const LOCI = lociOf([...RECESSIVE, ...SHOWING]);
const ALLELES = new Set([...RECESSIVE, ...SHOWING]);

function hidesAll(locus: Locus, look: string): boolean {
  const isDouble = look.includes('/') && (locus.doublesThatHide?.includes(look) ?? true);
  return isDouble && locus.doublesHide === 'everything';
}

export class Simulation {
  private readonly random: () => number;
  private readonly animals: RecordedAnimal[] = [];
  private readonly truth = new Map<string, Genes>();
  private readonly fathers = new Map<string, string>();

  private readonly completeness: readonly Completeness[];
  private readonly twoSires: number;

  /**
   * @param completeness - what founders' statements leave open, each as often
   * @param twoSires - share of the clutches
   */
  constructor(seed: number, completeness: readonly Completeness[] = COMPLETENESS, twoSires = 0.3) {
    this.random = seededRandom(seed);
    this.completeness = completeness;
    this.twoSires = twoSires;
  }

  run(size: number): Simulated {
    const founders = Math.max(8, Math.round(size / 8));
    for (let i = 0; i < founders; i++) this.addFounder(i % 3 === 0 ? 'male' : 'female');
    let breeders = this.animals.map(({ id }) => id);
    while (this.animals.length < size) {
      const before = this.animals.length;
      const sexed = (sex: string): string[] =>
        breeders.filter((id) => this.animals.find((animal) => animal.id === id)!.sex === sex);
      for (const dam of sexed('female')) {
        if (this.chance(0.4)) continue;
        const sires = [...new Set([this.pick(sexed('male')), this.pick(sexed('male'))])];
        this.addClutch(dam, this.chance(this.twoSires) ? sires : [sires[0]!]);
      }
      const young = this.animals
        .slice(before)
        .filter((animal) => !animal.diedInEgg && this.chance(0.25))
        .map(({ id }) => id);
      breeders = [...breeders, ...young];
    }
    return { animals: this.animals, truth: this.truth, sires: this.fathers };
  }

  private chance = (p: number): boolean => this.random() < p;
  private pick = <T>(list: readonly T[]): T => list[Math.floor(this.random() * list.length)]!;

  private addFounder(sex: 'female' | 'male'): void {
    const id = `a${this.animals.length}`;
    const completeness = this.pick(this.completeness);
    const named = new Map<string, { word: string; genotype: () => Genotype }>();
    for (let n = 1 + Math.floor(this.random() * 4); n > 0; n--) {
      const allele = this.pick([...ALLELES]);
      const { locus, allele: rules } = CATALOGUE.alleleById(allele)!;
      if (named.has(locus.id)) continue;
      const possible = RECESSIVE.includes(allele) ? this.pick(['visual', 'het', '66% het']) : 'one copy';
      named.set(locus.id, {
        word: possible === 'visual' || possible === 'one copy' ? rules.name : `${possible} ${rules.name}`,
        genotype: () => {
          if (possible === 'visual') return [allele, allele];
          if (possible === '66% het' && this.chance(1 / 3)) return ['+', '+'];
          return ['+', allele];
        },
      });
    }
    const genes = LOCI.map((locus): [string, Genotype] => [
      locus.id,
      named.get(locus.id)?.genotype() ?? this.unsaid(locus, completeness),
    ]);
    this.truth.set(id, new Map(genes));
    const words = [...named.values()].map(({ word }) => word);
    // Words that carry a gene follow those that show.
    words.sort((a, b) => Number(a.includes('het')) - Number(b.includes('het')));
    const text = words.join(' ');
    if (parseGenes(text).unknown.length > 0) throw new Error(`"${text}" is not read`);
    this.animals.push({
      id,
      sex,
      sires: [],
      identification: { record: `r-${id}`, genes: text, sure: 'certain', completeness },
    });
  }

  /** What a founder has at a locus of which its statement says nothing. */
  private unsaid(locus: Locus, completeness: Completeness): Genotype {
    const alleles = locus.alleles.map(({ id }) => id).filter((id) => ALLELES.has(id));
    const draw = (): string => alleles.find((id) => this.chance(CATALOGUE.frequencyOf(id))) ?? '+';
    if (completeness === 'all-known') return ['+', '+'];
    for (;;) {
      const pair: Genotype = [draw(), draw()];
      const shows = appearance(locus, pair) !== '';
      if (completeness === 'recessives-unknown' && (shows || !RECESSIVE.includes(alleles[0]!)))
        return ['+', '+'];
      if (this.chance(viabilityOf(locus, pair))) return pair;
    }
  }

  private addClutch(dam: string, sires: readonly string[]): void {
    const candidates = sires.map((id, k) => ({ id, weight: k === 0 ? 3 : 1 }));
    for (let eggs = 4 + Math.floor(this.random() * 5); eggs > 0; eggs--) {
      const id = `a${this.animals.length}`;
      const father = sires[sires.length > 1 && this.chance(0.25) ? 1 : 0]!;
      const genes: Genes = new Map(
        LOCI.map(({ id: locus }) => [
          locus,
          [this.pick(this.truth.get(dam)!.get(locus)!), this.pick(this.truth.get(father)!.get(locus)!)],
        ]),
      );
      const lives = LOCI.every((locus) => this.chance(viabilityOf(locus, genes.get(locus.id)!)));
      if (!lives && this.chance(0.5)) continue;
      this.truth.set(id, genes);
      this.fathers.set(id, father);
      this.animals.push({
        id,
        sex: this.chance(0.5) ? 'female' : 'male',
        dam,
        sires: candidates,
        ...(lives ? {} : { diedInEgg: true }),
        ...(lives && this.chance(0.9) ? { identification: this.identified(id, genes) } : {}),
      });
    }
  }

  private identified(id: string, genes: Genes): NonNullable<RecordedAnimal['identification']> {
    const sure = this.pick<Sureness>(['certain', 'certain', 'certain', 'probable', 'possible']);
    const seen = LOCI.map((locus): [string, string] => {
      const look = appearance(locus, genes.get(locus.id)!);
      return [locus.id, this.chance(ERROR[sure]) ? this.otherLook(locus, look) : look];
    });
    // On a white double nothing else can be seen.
    const white = seen.filter(([id, look]) => hidesAll(CATALOGUE.locusById(id)!, look)).slice(0, 1);
    const shown = Object.fromEntries((white.length > 0 ? white : seen).filter(([, look]) => look !== ''));
    const text = phenotypeLabel(shown, CATALOGUE);
    const read = shownBy(text);
    if (JSON.stringify(Object.entries(read).toSorted()) !== JSON.stringify(Object.entries(shown).toSorted()))
      throw new Error(`"${text}" is not read as it was seen`);
    return { record: `r-${id}`, genes: text, sure };
  }

  /** One of the looks that the collection's alleles can have there. */
  private otherLook(locus: Locus, look: string): string {
    const alleles = locus.alleles.map(({ id }) => id).filter((id) => ALLELES.has(id));
    const looks = new Set(allGenotypes(alleles).map((genotype) => appearance(locus, genotype)));
    looks.delete(look);
    return this.pick([...looks]);
  }
}
