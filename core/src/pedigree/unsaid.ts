import type { Catalogue } from '../catalogue/catalogue.ts';
import { isRecessive, WILD } from '../loci/locus.ts';
import type { ParsedGenes } from '../notation/reading.ts';
import { toParent } from '../odds/parent.ts';
import type { PedigreeLocus } from './document.ts';
import { parentsOf } from './index-pedigree.ts';
import { withAncestors } from './kin.ts';
import type { RecordedAnimal } from './recorded-animal.ts';

/** One recorded animal, and what its own text says. */
export interface ReadAnimal {
  readonly animal: RecordedAnimal;
  readonly genes: ParsedGenes | undefined;
}

/** Loci at which a founder may carry what its statement does not name: founder id -> locus ids. */
export type UnsaidLoci = ReadonlyMap<string, ReadonlySet<string>>;

/**
 * Where founders' silence on recessive genes has to be taken for what it is: at the loci at which a young shows a gene that,
 * by what is said, one of its parents cannot have. There the founders behind that parent may carry it. Everywhere else a
 * founder's silence changes no claim by more than the frequency of the gene, and is taken as it reads: all founders open at
 * all loci would be far too wide to be exact.
 *
 * Cost: one pass over the animals, and one over the ancestors of each parent in question.
 */
export function unsaidLoci(
  all: ReadonlyMap<string, ReadAnimal>,
  loci: readonly PedigreeLocus[],
  catalogue: Catalogue,
): UnsaidLoci {
  const unsaid = new Map<string, Set<string>>();
  const isOpen = ({ identification }: RecordedAnimal): boolean =>
    identification?.completeness === 'recessives-unknown';
  const animals = [...all.values()].map(({ animal }) => animal);
  if (!animals.some(isOpen)) return unsaid;
  const carried = new Carried(all, loci, catalogue);
  for (const { animal, genes } of all.values()) {
    if (!genes || parentsOf(animal).length === 0) continue;
    for (const [locus, alleles] of carried.shownBy(genes)) {
      const sides = [animal.dam === undefined ? [] : [animal.dam], animal.sires.map(({ id }) => id)];
      for (const parents of sides) {
        const isPossible =
          parents.length === 0 ||
          parents.some((parent) => alleles.some((allele) => carried.mayHave(parent, allele)));
        if (isPossible) continue;
        for (const founder of withAncestors(animals, parents))
          if (parentsOf(founder).length === 0 && isOpen(founder))
            unsaid.set(founder.id, (unsaid.get(founder.id) ?? new Set()).add(locus));
      }
    }
  }
  return unsaid;
}

/** Which recessive alleles each animal can have by what is said of its founders. */
class Carried {
  private readonly all: ReadonlyMap<string, ReadAnimal>;
  private readonly catalogue: Catalogue;
  private readonly placeOf: ReadonlyMap<string, number>;
  /** Animal -> a bit for each recessive allele of the pedigree; null: it may have any. */
  private readonly known = new Map<string, bigint | null>();

  constructor(all: ReadonlyMap<string, ReadAnimal>, loci: readonly PedigreeLocus[], catalogue: Catalogue) {
    this.all = all;
    this.catalogue = catalogue;
    const recessive = loci.flatMap(({ id, alleles }) =>
      alleles.filter((allele) => isRecessive(catalogue.locusById(id)!, allele)),
    );
    this.placeOf = new Map(recessive.map((allele, place) => [allele, place]));
  }

  /** Locus id -> the recessive alleles that show there, by a text. */
  shownBy({ loci }: ParsedGenes): [string, string[]][] {
    return [...loci].flatMap(([id, genotypes]): [string, string[]][] => {
      const alleles = genotypes[0]!.genotype.filter((allele) => this.placeOf.has(allele));
      return genotypes.length === 1 && alleles.length === 2 ? [[id, alleles]] : [];
    });
  }

  mayHave(id: string, allele: string): boolean {
    const mask = this.maskOf(id);
    return mask === null || (mask & (1n << BigInt(this.placeOf.get(allele)!))) !== 0n;
  }

  /** Parents first, without recursion: lines may be long. */
  private maskOf(start: string): bigint | null {
    const stack = [start];
    while (stack.length > 0) {
      const id = stack.at(-1)!;
      const read = this.all.get(id);
      const parents = read ? parentsOf(read.animal) : [];
      const missing = this.known.has(id) ? [] : parents.filter((parent) => !this.known.has(parent));
      if (missing.length > 0) stack.push(...missing);
      else {
        stack.pop();
        if (!this.known.has(id)) this.known.set(id, read ? this.combine(read) : null);
      }
    }
    return this.known.get(start) ?? null;
  }

  private combine({ animal, genes }: ReadAnimal): bigint | null {
    const parents = parentsOf(animal);
    if (parents.length === 0) return this.ofFounder(animal, genes);
    if (animal.dam === undefined || animal.sires.length === 0) return null;
    return parents.reduce<bigint | null>((mask, parent) => {
      const other = this.known.get(parent) ?? null;
      return mask === null || other === null ? null : mask | other;
    }, 0n);
  }

  private ofFounder(animal: RecordedAnimal, genes: ParsedGenes | undefined): bigint | null {
    const isSilent = !genes || animal.stated || animal.identification?.completeness === 'nothing-known';
    if (isSilent) return null;
    const stated = [...toParent(genes, 'female', this.catalogue).loci.values()].flat();
    return stated
      .flatMap(({ genotype }) => genotype.filter((allele) => allele !== WILD && this.placeOf.has(allele)))
      .reduce((mask, allele) => mask | (1n << BigInt(this.placeOf.get(allele)!)), 0n);
  }
}
