import type { WeightedGenotype } from '../loci/genotype.ts';
import type { Pedigree, PedigreeAnimal, PedigreeLocus } from './document.ts';

/** A collection as PLINK 1.9 reads it (cog-genomics.org, formats `.ped`, `.map` and `.fam`). */
export interface PlinkFiles {
  readonly ped: string;
  readonly map: string;
  readonly fam: string;
}

/** What is surer than this is written as known. */
const CERTAIN = 1 - 1e-9;
const FAMILY = '1';
const NOT_KNOWN = '0';
const NO_PHENOTYPE = '-9';
const SEX = { male: '1', female: '2', unknown: NOT_KNOWN } as const;
/** Where a locus lies is not known of ball pythons. */
const UNPLACED = '0';
/** Both sexes have two haplotypes at a sex-linked locus, as in the pseudo-autosomal region of human X and Y. */
const PSEUDO_AUTOSOMAL = '25';
/** The two alleles of a variant: PLINK knows two of each, so that every mutant allele is a variant of its own. */
const OTHER = 'N';
const MUTANT = 'M';

/**
 * A pedigree with what is known of each animal as PLINK's files. Each mutant allele is a variant, `M` where it is and `N` where
 * it is not; what is not certain is missing (`0 0`), and so is a father of whom several are possible.
 *
 * @param genotypesOf - animal -> locus -> what it can be there, adding up to 1
 * @param nameOf - how an animal is called; white space becomes `_`, and what is called alike is told apart by its id
 * @example writePlink({ loci: [{ id: 'clown', alleles: ['clown'] }], unrecorded: 0.01, animals: [{ id: 'F1', sex: 'female' }] }, () => new Map([['clown', [{ genotype: ['+', 'clown'], p: 1 }]]])).ped // "1 F1 0 0 2 -9 N M\n"
 */
export function writePlink(
  { loci, animals }: Pedigree,
  genotypesOf: (id: string) => ReadonlyMap<string, readonly WeightedGenotype[]>,
  nameOf: (id: string) => string = (id) => id,
): PlinkFiles {
  const variants = loci.flatMap((locus) => locus.alleles.map((allele) => ({ locus, allele })));
  const idOf = namesOf(animals, nameOf);
  const family = animals.map((animal) => ({ animal, columns: familyColumns(animal, idOf) }));
  return {
    ped: lines(
      family.map(({ animal, columns }) => {
        const genotypes = genotypesOf(animal.id);
        const calls = variants.map(({ locus, allele }) => callOf(genotypes.get(locus.id) ?? [], allele));
        return [...columns, ...calls].join(' ');
      }),
    ),
    map: lines(
      variants.map(({ locus, allele }, at) =>
        [chromosomeOf(locus), variantName(locus, allele), '0', String(at + 1)].join(' '),
      ),
    ),
    fam: lines(family.map(({ columns }) => columns.join(' '))),
  };
}

const lines = (all: readonly string[]): string => all.map((line) => `${line}\n`).join('');

const chromosomeOf = ({ sexLinked }: PedigreeLocus): string => (sexLinked ? PSEUDO_AUTOSOMAL : UNPLACED);

/** `clown`, or `yb:asphalt` where the locus has another name. */
const variantName = ({ id }: PedigreeLocus, allele: string): string =>
  (allele === id ? id : `${id}:${allele}`).replaceAll(/\s+/g, '_');

function namesOf(animals: readonly PedigreeAnimal[], nameOf: (id: string) => string): (id: string) => string {
  const count = new Map<string, number>();
  const plain = new Map(animals.map(({ id }) => [id, nameOf(id).trim().replaceAll(/\s+/g, '_')]));
  for (const name of plain.values()) count.set(name, (count.get(name) ?? 0) + 1);
  return (id) => {
    const name = plain.get(id) ?? id;
    const isPlain = name !== '' && name !== NOT_KNOWN && count.get(name) === 1;
    return isPlain ? name : `${name}_${id}`.replaceAll(/\s+/g, '_');
  };
}

function familyColumns(
  { id, sex, dam, sires = [] }: PedigreeAnimal,
  idOf: (id: string) => string,
): readonly string[] {
  const sire = sires.length === 1 ? sires[0]!.id : undefined;
  return [
    FAMILY,
    idOf(id),
    sire === undefined ? NOT_KNOWN : idOf(sire),
    dam === undefined ? NOT_KNOWN : idOf(dam),
    SEX[sex],
    NO_PHENOTYPE,
  ];
}

/** How many copies of the allele it has, where that is certain. */
function callOf(genotypes: readonly WeightedGenotype[], allele: string): string {
  const chance = [0, 0, 0];
  for (const { genotype, p } of genotypes) chance[genotype.filter((one) => one === allele).length]! += p;
  const copies = chance.findIndex((p) => p >= CERTAIN);
  if (copies < 0) return `${NOT_KNOWN} ${NOT_KNOWN}`;
  return `${copies === 2 ? MUTANT : OTHER} ${copies === 0 ? OTHER : MUTANT}`;
}
