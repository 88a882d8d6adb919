export {
  clutchName,
  parseSeasonNumber,
  followingNumber,
  nextNumbers,
  NUMBER_PATTERNS,
  type NumberPattern,
} from './pattern.ts';
