export type { Call, CandidateSire, Pedigree, PedigreeAnimal, PedigreeLocus } from './document.ts';
export {
  CALL_ERROR,
  compilePedigree,
  RecordCompiler,
  shownBy,
  shownByReading,
  type RecordedAnimal,
  type Sureness,
} from './from-records.ts';
export { kinByDistance, withAncestors } from './kin.ts';
export { parsePedigree, PEDIGREE_FORMAT } from './parse-document.ts';
export { writePedigree, type PedigreeDocument } from './write-document.ts';
export { statedOfAnimal, type StatedEvidence, type StatedOfAnimal } from './stated-evidence.ts';
