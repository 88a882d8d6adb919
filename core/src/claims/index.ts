export { changedClaims, type ChangedClaims, type Known, type ShortClaim } from './changed-claims.ts';
export { claimsFrom, isCertain, isPossible, type Claim, type ClaimKind } from './claim.ts';
export { strengthenings, type Strengthening } from './strengthen.ts';
export { claimFromPedigree, findHinges, findSupport, type SupportingRecord } from './support.ts';
export { essentialPedigree, type Essential } from './essential-pedigree.ts';
export { surprises, type Surprise } from './surprises.ts';
export { statedClaims, type StatedClaim } from './stated-claims.ts';
