export {
  DEFAULT_LOCALE,
  GRAMS_PER_OUNCE,
  Reader,
  type MassUnit,
  type ReaderSettings,
  type TemperatureUnit,
} from './reader.ts';
export { capital, say, sentences, type Phrases, type Told } from './phrases.ts';
export * from './husbandry.ts';
export * from './meals.ts';
export * from './moves.ts';
export * from './season.ts';
export * from './tasks.ts';
export * from './records.ts';
export * from './genetics.ts';
export * from './planning.ts';
