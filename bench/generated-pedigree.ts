import {
  allGenotypes,
  seededRandom,
  type Call,
  type Genotype,
  type Pedigree,
  type PedigreeAnimal,
  type PedigreeLocus,
} from '@karyotome/core';

/*
 * A collection as breeders build them up, for measuring: founders with two to six genes each, some of them only possible
 * ("66% het"); males used for several females of a season; a tenth of the pairs between relatives, to double up a recessive
 * gene; clutches of four to nine; a few clutches with two possible sires; one in eight held back and bred in turn. What is
 * seen is called at every locus, now and then as only probable, now and then (among alleles that look alike) as a set.
 * Everything is drawn from a seed, so that two runs measure the same collection.
 */

interface Gene extends PedigreeLocus {
  readonly recessive: boolean;
}

interface Member {
  readonly animal: PedigreeAnimal;
  readonly truth: readonly (readonly [number, number])[];
  readonly born: number;
  readonly parents: readonly number[];
}

const SEASON_MALES = 6;

export interface GeneratedOptions {
  readonly animals: number;
  readonly loci: number;
  readonly seed?: number;
  /** Share of the pairs that are between relatives. */
  readonly lineBreeding?: number;
  /** Founders for each hundred animals. */
  readonly founders?: number;
  /** Share of the clutches with two possible sires; with `thirdSire`, some of them have a third. */
  readonly twoSires?: number;
  /** Of the clutches with two possible sires, the share with a third. */
  readonly thirdSire?: number;
  /** The share of young by stored sperm of the dam's mates of the season before, who are candidates by that weight. */
  readonly storedSperm?: number;
  /** Share of hatchlings that are looked at; the rest has no call. */
  readonly identified?: number;
}

function genes(count: number): Gene[] {
  return Array.from({ length: count }, (_, i): Gene => {
    if (i % 30 === 7)
      return { id: `l${i}`, alleles: [`l${i}a`], sexLinked: true, recombination: 0.07, recessive: false };
    if (i % 10 === 3) return { id: `l${i}`, alleles: [`l${i}a`, `l${i}b`, `l${i}c`], recessive: false };
    return { id: `l${i}`, alleles: [`l${i}a`], recessive: i % 2 === 0 };
  });
}

export function generatePedigree(options: GeneratedOptions): Pedigree {
  const { animals: wanted, lineBreeding = 0.1, founders = 4, twoSires = 0.03, identified = 0.97 } = options;
  const { thirdSire = 0, storedSperm = 0 } = options;
  const random = seededRandom(options.seed ?? 1);
  const below = (n: number): number => Math.floor(random() * n);
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!;
  const loci = genes(options.loci);
  const members: Member[] = [];
  const phenotypes = loci.map((gene) => new Phenotypes(gene));

  const addFounder = (sex: 'female' | 'male', born: number): void => {
    const truth = loci.map((): [number, number] => [0, 0]);
    const founder: Record<string, { genotype: Genotype; p: number }[]> = {};
    for (let n = 2 + below(5); n > 0; n--) {
      const l = below(loci.length);
      const gene = loci[l]!;
      const allele = 1 + below(gene.alleles.length);
      const name = gene.alleles[allele - 1]!;
      if (gene.recessive) {
        const kind = random();
        if (kind < 0.4) truth[l] = [allele, allele];
        else if (kind < 0.75 || random() < 2 / 3) truth[l] = [0, allele];
        founder[gene.id] =
          kind < 0.4
            ? [{ genotype: [name, name], p: 1 }]
            : kind < 0.75
              ? [{ genotype: ['+', name], p: 1 }]
              : [
                  { genotype: ['+', '+'], p: 1 / 3 },
                  { genotype: ['+', name], p: 2 / 3 },
                ];
      } else {
        truth[l] = gene.sexLinked && sex === 'male' && random() < 0.5 ? [allele, 0] : [0, allele];
        founder[gene.id] =
          gene.sexLinked && sex === 'male'
            ? [
                { genotype: ['+', name], p: 0.5 },
                { genotype: [name, '+'], p: 0.5 },
              ]
            : [{ genotype: ['+', name], p: 1 }];
      }
    }
    members.push({ animal: { id: `a${members.length}`, sex, founder }, truth, born, parents: [] });
  };

  const founderCount = Math.max(6, Math.round((wanted * founders) / 100));
  // Founders come in over the years: a third at the start, the rest season by season.
  for (let i = 0; i < Math.ceil(founderCount / 3); i++) addFounder(i % 3 === 0 ? 'male' : 'female', -3);
  let boughtIn = Math.ceil(founderCount / 3);
  let breeders = members.map((_, i) => i);
  const fatherOf = (of: {
    sire: number;
    second: number;
    third: number;
    stored: readonly number[];
  }): number => {
    if (of.stored.length > 0 && random() < storedSperm) return pick(of.stored);
    if (of.third !== of.sire && random() < 0.2) return of.third;
    return of.second !== of.sire && random() < 0.25 ? of.second : of.sire;
  };
  /** Dam -> her mates of this season, and of the one before. */
  let mates = new Map<number, number[]>();
  let matesBefore: typeof mates;
  for (let season = 0; members.length < wanted; season++) {
    matesBefore = mates;
    mates = new Map();
    for (let n = Math.ceil(founderCount / 8); n > 0 && boughtIn < founderCount; n--, boughtIn++) {
      addFounder(boughtIn % 3 === 0 ? 'male' : 'female', season - 3);
      breeders.push(members.length - 1);
    }
    breeders = breeders.filter((i) => members[i]!.born > season - 12);
    const ripe = breeders.filter(
      (i) => members[i]!.born <= season - (members[i]!.animal.sex === 'female' ? 3 : 1),
    );
    const females = ripe.filter((i) => members[i]!.animal.sex === 'female');
    const males = ripe.filter((i) => members[i]!.animal.sex === 'male');
    const used = males
      .toSorted(() => random() - 0.5)
      .slice(0, Math.max(2, Math.ceil(females.length / SEASON_MALES)));
    for (const dam of females) {
      if (random() < 0.35) continue;
      let sire = pick(used);
      if (random() < lineBreeding) {
        const kin = males.filter((male) => related(members, male, dam));
        if (kin.length > 0) sire = pick(kin);
      }
      const second = random() < twoSires ? pick(used) : sire;
      const third = second !== sire && thirdSire > 0 && random() < thirdSire ? pick(used) : sire;
      const present = [...new Set([sire, second, third])].map((i, k) => ({
        id: members[i]!.animal.id,
        weight: k === 0 ? 3 : 1,
      }));
      const earlier = (matesBefore.get(dam) ?? []).filter((i) => !present.some(({ id }) => id === `a${i}`));
      const weight = present.reduce((sum, one) => sum + one.weight, 0) * (storedSperm / (1 - storedSperm));
      const stored = earlier.map((i) => ({ id: members[i]!.animal.id, weight: weight / earlier.length }));
      const sires = [...present, ...stored];
      if (storedSperm > 0) mates.set(dam, [...new Set([sire, second, third])]);
      for (let eggs = 4 + below(6); eggs > 0; eggs--) {
        const father = fatherOf({ sire, second, third, stored: earlier });
        const sex = random() < 0.5 ? ('female' as const) : ('male' as const);
        const truth = loci.map((gene, l): [number, number] => [
          members[dam]!.truth[l]![below(2)]!,
          fromSire(gene, members[father]!.truth[l]!, sex, random),
        ]);
        const sure = random() < 0.9 ? 0 : 0.1;
        const calls =
          random() < identified
            ? loci.map((gene, l) => phenotypes[l]!.call(truth[l]!, sure, random))
            : ([] as Call[]);
        members.push({
          animal: { id: `a${members.length}`, sex, dam: members[dam]!.animal.id, sires, calls },
          truth,
          born: season,
          parents: [dam, father],
        });
        if (random() < 0.125) breeders.push(members.length - 1);
      }
    }
  }
  return { loci, unrecorded: 0.01, animals: members.slice(0, wanted).map(({ animal }) => animal) };
}

function fromSire(gene: Gene, [x, y]: readonly [number, number], sex: string, random: () => number): number {
  const pX = !gene.sexLinked ? 0.5 : sex === 'female' ? 1 - gene.recombination! : gene.recombination!;
  return random() < pX ? x : y;
}

function related(members: readonly Member[], a: number, b: number): boolean {
  const near = (i: number): number[] => [
    i,
    ...members[i]!.parents,
    ...members[i]!.parents.flatMap((p) => members[p]!.parents),
  ];
  const ofB = new Set(near(b));
  return near(a).some((i) => ofB.has(i));
}

/** The calls of one gene; animals that look alike share their set. */
class Phenotypes {
  private readonly sets = new Map<string, readonly Genotype[]>();
  private readonly gene: Gene;

  constructor(gene: Gene) {
    this.gene = gene;
  }

  private look(a: number, b: number): string {
    if (this.gene.recessive) return a > 0 && b > 0 ? 'visual' : '';
    return [a, b].toSorted().join();
  }

  call([a, b]: readonly [number, number], error: number, random: () => number): Call {
    const { gene } = this;
    const oneOfThese = gene.alleles.length > 1 && (a === 0) !== (b === 0) && random() < 0.3;
    const key = oneOfThese ? 'one of these' : this.look(a, b);
    let is = this.sets.get(key);
    if (!is) {
      const place = (allele: string): number => gene.alleles.indexOf(allele) + 1;
      is = allGenotypes(gene.alleles).filter(([x, y]) =>
        oneOfThese ? (place(x) === 0) !== (place(y) === 0) : this.look(place(x), place(y)) === key,
      );
      this.sets.set(key, is);
    }
    return { locus: gene.id, is, error: key === '' || key === '0,0' ? 0 : error };
  }
}
