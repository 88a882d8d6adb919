import { markers, type TraitMarker } from '../zones.ts';
import { FURTHER } from './main-loci.ts';

export const WILD_TYPE_MARKERS: readonly TraitMarker[] = markers(`
  ground colour: dark
  flanks: keyhole marks with two dots
  eye stripe: thin
  head top: plain brown
`);

/** Markers of genes that are told mostly by their colour or general look. From memory, no source. */
const OTHER_MARKERS: Readonly<Record<string, readonly TraitMarker[]>> = {
  lesser: markers(`
    ground colour: lighter, creamy
    head top: pale, smudged
    flanks: marks reduced, soft edges`),
  mystic: markers(`
    flanks: thin-edged marks, single dots
    ground colour: brownish, purplish with age`),
  special: markers(`
    flanks: marks flowing upward
    head top: lighter`),
  bamboo: markers(`
    ground colour: pale, sandy
    back: bands like stalks`),
  mocha: markers(`
    ground colour: milky brown
    flanks: one dot in each mark`),
  disco: markers(`
    ground colour: brighter, yellowed
    head top: paler`),
  lemonback: markers(`
    back: yellow blush along it
    head top: paler`),
  flame: markers(`
    ground colour: brighter, reddish
    flanks: flame-like fading`),
  sulfur: markers(`
    ground colour: bright yellow
    head top: pale and bright`),
  'red-stripe': markers(`
    back: reddish stripe
    flanks: reddish edges`),
  acid: markers(`
    belly edge: dark pattern over the belly
    back: wide, smeared bands`),
  bongo: markers(`
    back: ringed bands
    ground colour: browned`),
  blade: markers(`
    back: long thin blotches
    flanks: blade-like marks`),
  confusion: markers(`
    back: tangled pattern
    flanks: crowded small marks`),
  cypress: markers(`
    ground colour: darker, warm
    flanks: marks pulled upward`),
  chocolate: markers(`
    ground colour: chocolate brown
    back: thin stripe, pale edged`),
  trick: markers(`
    back: wide joined bands
    head top: pale spots`),
  twister: markers(`
    back: twisted stripe
    flanks: swirls`),
  gobi: markers(`
    ground colour: sandy
    flanks: soft edges`),
  desert: markers(`
    ground colour: clean, sandy yellow
    back: pattern reduced, clean`),
  champagne: markers(`
    ground colour: tan to orange without dark pattern
    back: faint line or dots
    head top: pale, smudged`),
  hgw: markers(`
    back: broken, washed out
    flanks: white reaching high
    head top: broken up`),
  'scaleless-head': markers('head top: scales missing'),
  sahara: markers(`
    ground colour: paler, sandy
    head top: emptied`),
  calico: markers(`
    flanks: white splashes from the belly up
    belly edge: white, uneven`),
  candy: markers(`
    ground colour: lilac and yellow, darkening with age
    eyes: dark red`),
  toffee: markers(`
    ground colour: lilac and yellow, browning with age
    eyes: dark red`),
  ultramel: markers(`
    ground colour: tan and peach, no true black
    eyes: dark red`),
  caramel: markers(`
    ground colour: purplish brown and yellow
    eyes: dark red`),
  puzzle: markers(`
    back: interlocked marks
    flanks: interlocked marks`),
  'tri-stripe': markers('back: three lines along it'),
  monsoon: markers(`
    back: fine broken marks all over
    flanks: fine broken marks`),
  sunset: markers(`
    ground colour: deep red-orange
    head top: darkened`),
};

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
  // Last: where words are shared, the chances are those of the better known gene.
  ...OTHER_MARKERS,
  ...Object.fromEntries(FURTHER.map(({ id, markers: lines }) => [id, markers(lines.join('\n'))])),
};

/**
 * Hints that carriers of a recessive allele show at times: soft evidence, never proof. Allele id -> its markers.
 */
export const CARRIER_MARKERS: Readonly<Record<string, readonly TraitMarker[]>> = {
  pied: markers('belly edge: clean white toward the tail between dark lines'),
};
