import type { Catalogue } from '../catalogue/catalogue.ts';
import type { Meaning } from '../catalogue/words.ts';
import { isRecessive } from '../loci/locus.ts';
import type { Mention } from './assemble.ts';
import type { Modifiers } from './modifiers.ts';
import { nameOf } from './names.ts';
import type { PossibleAllele, UnknownWord } from './reading.ts';
import { spell } from './spell.ts';

export type Combination = Extract<Meaning, { kind: 'combination' }>;

/** A gene of a combination, with what the combination says of it. */
interface GeneOf {
  readonly meaning: Exclude<Meaning, { kind: 'combination' | 'wild' }>;
  readonly modifiers: Modifiers;
}

/** What a text says before it is put together. */
export interface Said {
  readonly mentions: readonly Mention[];
  readonly possible: readonly PossibleAllele[];
  readonly unknown: readonly UnknownWord[];
}

/** What names stand for, gene by gene. */
export abstract class Expansion {
  readonly catalogue: Catalogue;

  constructor(catalogue: Catalogue) {
    this.catalogue = catalogue;
  }

  /** Reads what a combination stands for. */
  protected abstract expand(genes: string): Said;

  /** How many genes a meaning stands for: "double het Snow" is complete. */
  protected countOf(meaning: Meaning): number {
    if (meaning.kind !== 'combination') return 1;
    const { mentions, possible, unknown } = this.expand(meaning.genes);
    return mentions.length + possible.length + unknown.length;
  }

  protected genesOf({ genes }: Combination): readonly GeneOf[] {
    const { mentions, possible } = this.expand(genes);
    return [
      ...mentions.map(({ locus, alleles, shows, p }): GeneOf => {
        const [allele] = alleles;
        const modifiers = { ...(shows ? {} : { het: true }), ...(p < 1 ? { chance: p } : {}) };
        if (alleles.length === 2) return { meaning: { kind: 'pair', locus, alleles }, modifiers };
        return { meaning: { kind: 'allele', allele }, modifiers };
      }),
      ...possible.map(({ allele, isHet }): GeneOf => ({
        meaning: { kind: 'allele', allele },
        modifiers: { possible: true, ...(isHet ? { het: true } : {}) },
      })),
    ];
  }

  /** What a combination can mean where one of its words can mean several things: "Snow", by line of axanthic. */
  protected choicesOf({ genes }: Combination, modifiers: Modifiers): string[] {
    const [open] = this.expand(genes).unknown;
    if (!open) return [];
    return open.suggestions.map((choice) => {
      const text = genes.slice(0, open.start) + choice + genes.slice(open.end);
      return this.spellGenes({ kind: 'combination', genes: text }, modifiers);
    });
  }

  protected spellGenes(meaning: Meaning, given: Modifiers): string {
    if (meaning.kind !== 'combination') return spell(given, nameOf(meaning, this.catalogue));
    return this.genesOf(meaning)
      .map((gene) => spell({ ...gene.modifiers, ...given }, nameOf(gene.meaning, this.catalogue)))
      .join(' ');
  }

  protected isRecessiveMeaning(meaning: Meaning): boolean {
    return this.everyAllele(meaning).every((allele) => this.isRecessive(allele));
  }

  private isRecessive(allele: string): boolean {
    return isRecessive(this.catalogue.alleleById(allele)!.locus, allele);
  }

  protected everyAllele(meaning: Meaning): string[] {
    if (meaning.kind !== 'combination') return allelesOf(meaning);
    return this.genesOf(meaning).flatMap((gene) => allelesOf(gene.meaning));
  }
}

function allelesOf(meaning: Meaning): string[] {
  if (meaning.kind === 'allele') return [meaning.allele];
  if (meaning.kind === 'pair') return [...meaning.alleles];
  return meaning.kind === 'collective' ? meaning.pairs.flat() : [];
}
