import type { Locus } from '../loci/locus.ts';

/*
 * Words of the trade that stand for genes. Common practice, no source. An alias never enters the arithmetic: it is
 * replaced by the genes it stands for before anything is computed.
 */

/** Other spellings and abbreviations of one allele. A word listed under two alleles is asked about, never guessed. */
const ALLELE_WORDS: Readonly<Record<string, readonly string[]>> = {
  'yellow-belly': ['yb', 'yellowbelly'],
  'orange-dream': ['od'],
  'black-pastel': ['bp', 'black pastel'],
  'desert-ghost': ['dg'],
  hgw: ['hidden gene woma', 'hidden gene'],
  'het-red-axanthic': ['hra'],
  banana: ['cg', 'coral glow'],
  leopard: ['leo'],
  spotnose: ['spot', 'spot nose'],
  mojave: ['mojo'],
  lesser: ['butter'],
  cinnamon: ['cinny'],
  pinstripe: ['pin', 'pins'],
  pied: ['piebald'],
  'genetic-stripe': ['g stripe', 'gstripe'],
  lavender: ['lav', 'lavender albino'],
  'axanthic-a': ['ax a', 'axanthic', 'ax'],
  'axanthic-b': ['ax b', 'axanthic', 'ax'],
  'axanthic-c': ['ax c', 'axanthic', 'ax'],
  ultramel: ['ultra'],
  vanilla: ['vanil'],
  champagne: ['cham'],
  ghost: ['hypo'],
  'tri-stripe': ['tristripe'],
  'scaleless-head': ['scaleless head'],
};

/** Names of combinations, spelt out gene by gene. */
export const COMBINATION_WORDS: Readonly<Record<string, string>> = {
  bumblebee: 'pastel spider',
  'killer bee': 'super pastel spider',
  firefly: 'pastel fire',
  superfly: 'super pastel fire',
  'lemon blast': 'pastel pinstripe',
  jigsaw: 'mojave pinstripe',
  spinner: 'spider pinstripe',
  'spinner blast': 'pastel spider pinstripe',
  pewter: 'pastel cinnamon',
  'queen bee': 'pastel lesser spider',
  'honey bee': 'ghost spider',
  kingpin: 'lesser pinstripe',
  snow: 'albino axanthic',
  dreamsicle: 'lavender pied',
  'stinger bee': 'enchi spider',
};

/** What a phrase can mean. */
export type Meaning =
  | { readonly kind: 'allele'; readonly allele: string }
  | { readonly kind: 'pair'; readonly locus: string; readonly alleles: readonly [string, string] }
  | { readonly kind: 'combination'; readonly words: string }
  | { readonly kind: 'wild' };

/**
 * Lower case, hyphens, dots and apostrophes folded to blanks, so that `G-Stripe` and `g stripe` are one phrase.
 *
 * @example foldPhrase('Yellow-Belly ') // "yellow belly"
 */
export function foldPhrase(text: string): string {
  return text
    .toLowerCase()
    .replace(/[-._'’]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

/** A word of the user's own, and the genes it stands for, in shorthand. */
export interface Alias {
  readonly word: string;
  readonly genes: string;
}

/** Folded phrase -> its meanings; more than one meaning is an ambiguity. */
export function buildPhrases(loci: readonly Locus[], aliases: readonly Alias[]): Map<string, Meaning[]> {
  const phrases = new Map<string, Meaning[]>();
  const add = (phrase: string, meaning: Meaning): void => {
    const key = foldPhrase(phrase);
    const known = phrases.get(key) ?? [];
    if (!known.some((other) => JSON.stringify(other) === JSON.stringify(meaning)))
      phrases.set(key, [...known, meaning]);
  };
  for (const locus of loci) {
    for (const allele of locus.alleles) {
      for (const word of [allele.id, allele.name, ...(ALLELE_WORDS[allele.id] ?? [])]) {
        add(word, { kind: 'allele', allele: allele.id });
      }
      if (allele.double)
        add(allele.double, { kind: 'pair', locus: locus.id, alleles: [allele.id, allele.id] });
    }
    for (const { alleles, name } of locus.compounds) add(name, { kind: 'pair', locus: locus.id, alleles });
  }
  for (const [name, words] of Object.entries(COMBINATION_WORDS)) add(name, { kind: 'combination', words });
  for (const { word, genes } of aliases) add(word, { kind: 'combination', words: genes });
  for (const word of ['normal', 'wild type', 'wildtype', 'wild']) add(word, { kind: 'wild' });
  return phrases;
}

/**
 * The other spellings of an allele that the built-in catalogue knows.
 *
 * @example wordsFor('yellow-belly') // ["yb","yellowbelly"]
 */
export function wordsFor(allele: string): readonly string[] {
  return ALLELE_WORDS[allele] ?? [];
}
