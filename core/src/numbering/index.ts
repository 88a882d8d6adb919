export { parseSeasonNumber, nextNumbers, NUMBER_PATTERNS, type NumberPattern } from './pattern.ts';
