export {
  DEFAULT_LOCALE,
  GRAMS_PER_OUNCE,
  MASS_UNITS,
  oddsWords,
  oneIn,
  Reader,
  type ReaderSettings,
  type Unit,
} from './reader.ts';
export { capital, say, sentences, type Phrases, type Told } from './phrases.ts';
export * from './animal-filter.ts';
export * from './luck.ts';
export * from './unproven.ts';
export * from './health.ts';
export * from './husbandry.ts';
export * from './meals.ts';
export * from './moves.ts';
export * from './season.ts';
export * from './tasks.ts';
export * from './origin.ts';
export * from './records.ts';
export * from './history.ts';
export * from './imports.ts';
export * from './trade-words.ts';
export * from './webhooks.ts';
export * from './genetics.ts';
export { completenessWords, unreadWords } from './gene-words.ts';
export * from './planning.ts';
export * from './letters.ts';
export * from './lineage.ts';
export * from './sales.ts';
