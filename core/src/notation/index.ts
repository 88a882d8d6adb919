export { canonicalLabel, genotypeLabel, joinWords, tradePercent } from './label.ts';
export { parseGenes, type ParsedGenes, type UnknownWord } from './parse.ts';
