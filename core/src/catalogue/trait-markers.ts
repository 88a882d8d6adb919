import type { TraitMarker, Zone } from './zones.ts';

/** A marker of the user’s own, or other chances for a built-in one. */
export interface OwnMarker {
  /** What it is a marker of: an allele's id, or `a/b` for a compound or double alone. */
  readonly phenotype: string;
  readonly zone: Zone;
  readonly text: string;
  /** The chance that it is seen on an animal that shows the gene, and on one that does not. */
  readonly pWith: number;
  readonly pWithout: number;
}

/** Alleles that reduce the pattern: two of them on one animal hide each other's detail. */
export const PATTERN_REDUCERS: ReadonlySet<string> = new Set([
  'spider',
  'woma',
  'champagne',
  'hgw',
  'pinstripe',
  'clown',
  'genetic-stripe',
  'tri-stripe',
]);

/** What a marker is made of decides what covers it. */
export type Substance = 'black' | 'pattern' | 'colour';

const PATTERN_ZONES: ReadonlySet<Zone> = new Set([
  'head top',
  'eye stripe',
  'neck',
  'back',
  'flanks',
  'belly edge',
  'tail',
]);

/** Black where its words say so, else by where it is: pattern on the body and head, colour elsewhere. */
export function substanceOf({ zone, text }: TraitMarker): Substance {
  if (/\b(black|blacks|dark|darker|darkened)\b/.test(text) && !/no (true )?black/.test(text)) return 'black';
  return PATTERN_ZONES.has(zone) ? 'pattern' : 'colour';
}

/** How far breeders agree about a gene. */
export type Agreement = 'settled' | 'usual' | 'debated';

const DEBATED = new Set(['woma', 'hgw', 'blackhead', 'ghost', 'spark', 'gravel', 'confusion', 'sahara']);
const SETTLED = new Set([
  'pastel',
  'spider-blackhead',
  'pinstripe',
  'clown',
  'pied',
  'albino-complex',
  'blue-eyed-white',
  'yellow-belly-complex',
  'dark-complex',
  'banana',
  'enchi-complex',
  'black-eyed-white',
  'lavender',
  'genetic-stripe',
]);

/** @example agreementOn('pied') // "settled" */
export function agreementOn(locus: string): Agreement {
  return SETTLED.has(locus) ? 'settled' : DEBATED.has(locus) ? 'debated' : 'usual';
}
