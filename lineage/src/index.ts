export { fingerprintWords } from './proof/fingerprint.ts';
export {
  didOfKey,
  digestMultibase,
  keyOfDid,
  methodOfDid,
  toMultibase,
  fromMultibase,
} from './proof/multibase.ts';
export {
  canonicalHash,
  keyPairOf,
  newKeyPair,
  sign,
  signatureFault,
  type KeyPair,
  type Proof,
  type SignatureFault,
} from './proof/data-integrity.ts';
export { CONTEXT, type Envelope, type Signed } from './document/envelope.ts';
export {
  readStatement,
  STATEMENT_FORMAT,
  type Statement,
  type StatementSubject,
  type ClaimChange,
  type Evidence,
  type StatedClaim,
  type StatedPicture,
} from './document/statement.ts';
export { claimChanges, type Compared, type Difference } from './document/claim-changes.ts';
export { readSuccession, SUCCESSION_FORMAT, type KeySuccession } from './document/succession.ts';
export type { Verification, VerificationList, VerifiedClaim, VerifiedFile } from './verify/answer.ts';
export type { Problem, Problems } from './verify/problems.ts';
export { bagTags, createBag, type FileSummary } from './package/create-bag.ts';
export { PAYLOAD } from './package/bag-layout.ts';
export { checkBag, isText } from './package/open-bag.ts';
export type { ArchivedFile } from './package/open-archive.ts';
export { receiveFile, verifyFile, type ReceivedAnimal } from './verify/verify-file.ts';
export { verifyStatement } from './verify/verify-statement.ts';
