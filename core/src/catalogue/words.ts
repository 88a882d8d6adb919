import type { Locus } from '../loci/locus.ts';
import { FURTHER } from './data/main-loci.ts';
import { COMBINATION_WORDS } from './data/combinations.ts';
import { COLLECTIVE_NAMES, DOUBLE_WORDS, OTHER_NAMES, SPELLINGS } from './data/spellings.ts';

/** What a name can mean. */
export type Meaning =
  /** `name`: the trade name by which it was called, where the gene has several. */
  | { readonly kind: 'allele'; readonly allele: string; readonly name?: string }
  | { readonly kind: 'pair'; readonly locus: string; readonly alleles: readonly [string, string] }
  /** Genes in shorthand, which stand in its place. */
  | { readonly kind: 'combination'; readonly genes: string }
  /** One name for several doubles and compounds of a locus: "BEL". */
  | {
      readonly kind: 'collective';
      readonly locus: string;
      readonly pairs: readonly (readonly [string, string])[];
    }
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

/** What the catalogue knows names by: see `Catalogue.names`. */
export type Names = Map<string, Meaning[]>;

/**
 * A name as names are compared: lower case, letters and digits only, so that blanks and hyphens make no difference.
 *
 * @example squeeze('Yellow-Belly ') // "yellowbelly"
 */
export function squeeze(text: string): string {
  return text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
}

/**
 * Every name with its meanings, by its squeezed spelling; more than one meaning is an ambiguity. A word of the user's own
 * counts before what the catalogue has by that word: that is how an ambiguity is settled for a collection.
 *
 * @returns `spellings`: squeezed name -> the name as it is written
 */
export function buildNames(
  loci: readonly Locus[],
  aliases: readonly Alias[],
): { readonly names: Names; readonly spellings: Map<string, string>; readonly longest: number } {
  const names: Names = new Map();
  const spellings = new Map<string, string>();
  let longest = 1;
  const add = (name: string, meaning: Meaning, isOwn = false): void => {
    const key = squeeze(name);
    const known = isOwn ? [] : (names.get(key) ?? []);
    longest = Math.max(longest, foldPhrase(name).split(' ').length);
    if (!spellings.has(key)) spellings.set(key, name);
    if (!known.some((other) => isSame(other, meaning))) names.set(key, [...known, meaning]);
  };
  for (const locus of loci) addLocus(locus, add);
  for (const [locus, words] of Object.entries(COLLECTIVE_NAMES)) {
    const pairs = whiteOnes(loci.find(({ id }) => id === locus)!);
    for (const word of words) add(word, { kind: 'collective', locus, pairs });
  }
  for (const [name, genes] of Object.entries(COMBINATION_WORDS))
    for (const one of [genes].flat()) add(name, { kind: 'combination', genes: one });
  for (const { word, genes } of aliases) add(word, { kind: 'combination', genes }, true);
  for (const word of ['normal', 'wild type', 'wild', 'classic']) add(word, { kind: 'wild' });
  return { names, spellings, longest };
}

const FURTHER_WORDS = new Map(FURTHER.map(({ id, words }) => [id, words]));

/** Abbreviations and spelled variants of an allele. */
const spellingsOf = (allele: string): readonly string[] =>
  SPELLINGS[allele] ?? FURTHER_WORDS.get(allele) ?? [];

/** The same genes: by which of its names a gene is called makes no other meaning. */
function isSame(one: Meaning, other: Meaning): boolean {
  if (one.kind === 'allele' && other.kind === 'allele') return one.allele === other.allele;
  return JSON.stringify(one) === JSON.stringify(other);
}

function addLocus(locus: Locus, add: (name: string, meaning: Meaning) => void): void {
  for (const allele of locus.alleles) {
    for (const word of [allele.id, allele.name, ...spellingsOf(allele.id)])
      add(word, { kind: 'allele', allele: allele.id });
    for (const name of OTHER_NAMES[allele.id] ?? []) add(name, { kind: 'allele', allele: allele.id, name });
    for (const word of [...(allele.double ? [allele.double] : []), ...(DOUBLE_WORDS[allele.id] ?? [])])
      add(word, { kind: 'pair', locus: locus.id, alleles: [allele.id, allele.id] });
  }
  for (const { alleles, name } of locus.compounds) add(name, { kind: 'pair', locus: locus.id, alleles });
}

/** The doubles and compounds that a collective name can mean: those that hide everything else, doubles first. */
function whiteOnes(locus: Locus): (readonly [string, string])[] {
  const pairs = (locus.doublesThatHide ?? []).map((phenotype) => phenotype.split('/') as [string, string]);
  return pairs.toSorted((a, b) => Number(a[0] !== a[1]) - Number(b[0] !== b[1]));
}

/**
 * The other spellings of an allele that the built-in catalogue knows.
 *
 * @example wordsFor('yellow-belly')[0] // "yb"
 */
export function wordsFor(allele: string): readonly string[] {
  return [...(OTHER_NAMES[allele] ?? []), ...spellingsOf(allele)];
}
