export { CATALOGUE, createCatalogue, type Catalogue, type CatalogueAdditions } from './catalogue.ts';
export { ownId, toAdditions, type CatalogueEntry } from './entries.ts';
export { CHANCES, CARRIER_MARKER_CHANCES, markerId, type CatalogueMarker } from './gather-markers.ts';
export {
  agreementOn,
  CARRIER_MARKERS,
  TRAIT_MARKERS,
  WILD_TYPE_MARKERS,
  ZONES,
  type Agreement,
  type TraitMarker,
  type Zone,
  type OwnMarker,
} from './trait-markers.ts';
export { COMBINATION_WORDS, foldPhrase, wordsFor, type Alias } from './words.ts';
