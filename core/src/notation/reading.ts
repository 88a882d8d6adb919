import type { WeightedGenotype } from '../loci/genotype.ts';
import type { Phase } from './modifiers.ts';

/** A part of the text that could not be placed, and what it may have been meant as. */
export interface UnknownWord {
  readonly word: string;
  /** Where it stands in the text: from `start` up to but not including `end`. */
  readonly start: number;
  readonly end: number;
  readonly reason:
    | 'unknown'
    /** It can mean several things: the suggestions. */
    | 'ambiguous'
    /** A gene by a line's name that nobody knows yet: "Axanthic (River)". */
    | 'unknown-line'
    /** One gene named twice: one copy or two? */
    | 'repeated'
    /** A word that needs a gene, and has none. */
    | 'dangling'
    /** It does not fit what `against` says. */
    | 'contradictory'
    /** Nothing can be so: alternatives of two loci, a male-maker that is not sex-linked. */
    | 'impossible';
  /** What may stand in its place. */
  readonly suggestions: readonly string[];
  /** Other words of the text that it contradicts. */
  readonly against: readonly string[];
  /** What a collection may settle once and for all: a word, and what it may stand for, one for each suggestion. */
  readonly settle?: { readonly word: string; readonly genes: readonly string[] };
}

export interface ParsedGenes {
  /** Locus id -> genotype distribution (adds up to 1). Loci not named are left out: they are wild type. */
  readonly loci: ReadonlyMap<string, readonly WeightedGenotype[]>;
  /** Locus id -> phase, where the text names one. */
  readonly phases: ReadonlyMap<string, Phase>;
  /** Locus id -> the alleles one of which it is, where the text says so: "yellow belly or asphalt". */
  readonly either: ReadonlyMap<string, readonly string[]>;
  /** Allele ids that are neither seen nor excluded: in brackets, or "possible". */
  readonly possible: readonly string[];
  /** Those of them that are possibly carried, and surely do not show: "possible het Clown". */
  readonly possibleHets: readonly string[];
  /** Allele id -> the trade name it was typed by, where it has several ("Butter" for Lesser). */
  readonly names: ReadonlyMap<string, string>;
  /** The text says "normal": nothing shows. */
  readonly isNormal: boolean;
  readonly unknown: readonly UnknownWord[];
}

/** An allele that is neither seen nor excluded. */
export interface PossibleAllele {
  readonly allele: string;
  readonly isHet: boolean;
}
