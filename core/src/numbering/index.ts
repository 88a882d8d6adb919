export {
  clutchName,
  parseSeasonNumber,
  nextNumbers,
  NUMBER_PATTERNS,
  type NumberPattern,
} from './pattern.ts';
