export { combinationLabel } from './combination-label.ts';
export { canonicalLabel, genotypeLabel, joinWords, type Labelled } from './label.ts';
export { tradePercent } from './spell.ts';
export { parseGenes } from './parse.ts';
export type { ParsedGenes, UnknownWord } from './reading.ts';
