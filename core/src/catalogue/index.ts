export { CATALOGUE, createCatalogue, type Catalogue, type CatalogueAdditions } from './catalogue.ts';
export {
  isGeneRule,
  ownId,
  toAdditions,
  type AsOfEntry,
  type CatalogueChange,
  type CatalogueEntry,
  type GeneRuleEntry,
} from './entries.ts';
export { CHANCES, CARRIER_MARKER_CHANCES, markerId, type CatalogueMarker } from './gather-markers.ts';
export { CARRIER_MARKERS, TRAIT_MARKERS, WILD_TYPE_MARKERS } from './data/markers.ts';
export { agreementOn, type Agreement, type OwnMarker } from './trait-markers.ts';
export { ZONES, type TraitMarker, type Zone } from './zones.ts';
export { COMBINATION_WORDS } from './data/combinations.ts';
export { BUILT_IN_VERSION, DISPUTED_ALLELISM } from './data/main-loci.ts';
export { KNOWN_SINCE } from './data/known-since.ts';
export { FIRST_VERSION, updatesSince, type CatalogueUpdate } from './data/updates.ts';
export { foldPhrase, squeeze, wordsFor, type Alias } from './words.ts';
