export type { Call, CandidateSire, Pedigree, PedigreeAnimal, PedigreeLocus } from './document.ts';
export { compilePedigree, RecordCompiler, shownBy, shownByReading } from './from-records.ts';
export { CALL_ERROR, type Completeness, type RecordedAnimal, type Sureness } from './recorded-animal.ts';
export { kinByDistance, withAncestors } from './kin.ts';
export { parsePedigree, PEDIGREE_FORMAT } from './parse-document.ts';
export { writePedigree, type PedigreeDocument } from './write-document.ts';
export { writePlink, type PlinkFiles } from './write-plink.ts';
export { statedOfAnimal, type StatedEvidence, type StatedOfAnimal } from './stated-evidence.ts';
