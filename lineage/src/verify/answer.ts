import type { Problem } from './problems.ts';

/** What is found of one document: `karyotome-verification/1`. */

export interface VerifiedClaim {
  readonly locus: string;
  readonly words: string;
  readonly p: number;
  /** What the engine gives on the document's own pedigree; null where it gives nothing. */
  readonly derived: number | null;
  readonly follows: boolean;
}

export interface VerifiedFile {
  /** Its path within the animal's folder. */
  readonly file: string;
  readonly intact: boolean;
}

export interface Verification {
  readonly format: 'karyotome-verification/1';
  readonly valid: boolean;
  readonly issuer: { readonly id: string; readonly name: string };
  readonly signature: 'valid' | 'invalid' | 'missing';
  readonly subject: {
    readonly id: string;
    readonly number: string;
    readonly statement: number;
    readonly asOf: string;
  };
  readonly claims: readonly VerifiedClaim[];
  readonly files: readonly VerifiedFile[];
  readonly problems: readonly Problem[];
}

/** What is found of a package with several animals. */
export interface VerificationList {
  readonly format: 'karyotome-verification-list/1';
  readonly valid: boolean;
  readonly documents: readonly Verification[];
  /** What is wrong with the package outside the animals' folders. */
  readonly problems: readonly Problem[];
}
