/*
 * What a keeper can see, zone by zone, and how sure the trade is of each gene. Common practice of the trade, no source.
 */

export const ZONES = [
  'head top',
  'eye stripe',
  'eyes',
  'lips',
  'neck',
  'back',
  'flanks',
  'belly edge',
  'tail',
  'ground colour',
] as const;
export type Zone = (typeof ZONES)[number];

export interface TraitMarker {
  readonly zone: Zone;
  readonly text: string;
}

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

const markers = (lines: string): TraitMarker[] =>
  lines
    .trim()
    .split('\n')
    .map((line) => {
      const [zone, text] = line.trim().split(': ');
      return { zone: zone as Zone, text: text! };
    });

export const WILD_TYPE_MARKERS: readonly TraitMarker[] = markers(`
  ground colour: dark
  flanks: keyhole marks with two dots
  eye stripe: thin
  head top: plain brown
`);

/**
 * What shows -> its markers over wild type: an allele's id for one copy and more (recessive: two copies), `a/b` for the
 * compound or double alone.
 */
export const TRAIT_MARKERS: Readonly<Record<string, readonly TraitMarker[]>> = {
  pastel: markers(`
    ground colour: brighter yellow, fading with age
    head top: washed out
    lips: pale
    eyes: greenish
    back: blushed
    flanks: blushed`),
  'pastel/pastel': markers(`
    head top: small notches behind the eyes
    ground colour: strong clear yellow throughout`),
  enchi: markers(`
    back: bands instead of keyholes
    eye stripe: thick, reaching back to join at the neck
    head top: four-winged mark
    ground colour: cleaner and warmer`),
  fire: markers(`
    back: ring and bow-tie shapes
    head top: pale and bright, a straight arrow behind
    ground colour: blacks fade to brown
    flanks: flame-like fading`),
  'orange-dream': markers(`
    ground colour: orange
    back: dots inside the stripe
    flanks: marks chained and pulled tailward
    head top: mark emphasised`),
  banana: markers(`
    ground colour: yellow-orange with lilac, no true black
    back: freckles, coming with age`),
  spider: markers(`
    back: one thin unbroken line
    flanks: few marks, white reaching high
    head top: a mark of its own`),
  woma: markers(`
    back: a thin line, broken
    flanks: few marks, less white than spider`),
  clown: markers(`
    head top: dark mark over all of it
    back: dark stripe
    flanks: drops that hang from the back
    belly edge: bold spots
    eye stripe: ends in a tear below the eye`),
  pied: markers(`
    back: patches without pattern or pigment
    flanks: white, pattern broken off at its edge`),
  'yellow-belly': markers(`
    flanks: flaming
    belly edge: speckled, the belly clean and yellowish`),
  asphalt: markers(`
    flanks: flaming, a little duller
    belly edge: speckled`),
  specter: markers(`
    belly edge: less speckled`),
  gravel: markers(`
    belly edge: speckled, subtle`),
  spark: markers(`
    belly edge: speckled, subtle`),
  leopard: markers(`
    flanks: extra dots inside the marks
    back: bold black outlines`),
  pinstripe: markers(`
    back: thin unbroken lines
    flanks: browned`),
  spotnose: markers(`
    lips: two pale spots on the snout
    back: busy pattern`),
  phantom: markers(`
    ground colour: brighter, smoother
    head top: emptied`),
  'het-red-axanthic': markers(`
    ground colour: darker
    back: thick stripe
    head top: emptied`),
  blackhead: markers(`
    ground colour: darker, pixelled, very variable`),
  'black-pastel': markers('ground colour: darkened'),
  cinnamon: markers('ground colour: darkened, reddish'),
  mahogany: markers('ground colour: darkened'),
  ghi: markers('ground colour: darkened'),
  mojave: markers(`
    flanks: one dot in each mark
    ground colour: brownish`),
  vanilla: markers(`
    head top: paler
    flanks: blushed, without yellow`),
  lavender: markers('ground colour: no black, lilac and yellow'),
  albino: markers(`
    ground colour: white and yellow
    eyes: red`),
  'axanthic-a': markers('ground colour: black, silver and grey as a hatchling'),
  'axanthic-b': markers('ground colour: black, silver and grey as a hatchling'),
  'axanthic-c': markers('ground colour: black, silver and grey as a hatchling'),
  'desert-ghost': markers('ground colour: dusky, contrasts faded, brightening with age'),
  ghost: markers('ground colour: as under a haze'),
  'genetic-stripe': markers('back: clean stripe along it'),
};

/**
 * Hints that carriers of a recessive allele show at times: soft evidence, never proof. Allele id -> its markers.
 */
export const CARRIER_MARKERS: Readonly<Record<string, readonly TraitMarker[]>> = {
  pied: markers('belly edge: clean white toward the tail between dark lines'),
};

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
