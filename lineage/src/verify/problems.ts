import type { FactOf } from '@karyotome/core';

/** Of a file in a package, by its path within the animal's folder, or within the bag for a file of the bag's own. */
interface FileProblems {
  readonly 'file-missing': { readonly file: string };
  readonly 'file-changed': { readonly file: string };
  readonly 'file-not-listed': { readonly file: string };
  /** A manifest names it twice, with two digests. */
  readonly 'file-listed-twice': { readonly file: string };
}

export type FileFault = keyof FileProblems;

/** Why a document, or a package, does not hold: what was found, and where. */
export interface Problems extends FileProblems {
  readonly 'signature-missing': object;
  /** Changed since it was signed, or never signed by this key. */
  readonly 'signature-invalid': object;
  /** Signed by another key than the issuer's. */
  readonly 'other-signer': { readonly issuer: string };
  readonly 'other-kind-of-proof': object;
  /** The pedigree gives another probability; null where it gives none. */
  readonly 'claim-does-not-follow': {
    readonly animal: string;
    readonly locus: string;
    readonly words: string;
    readonly p: number;
    readonly derived: number | null;
  };
  /** The genotypes, or the probability, allow less than this kind of claim says. */
  readonly 'claim-overstated': {
    readonly animal: string;
    readonly locus: string;
    readonly words: string;
    readonly kind: string;
  };
  /** The calls of the pedigree cannot all be true. */
  readonly 'records-contradict': { readonly locus: string; readonly animals: readonly string[] };
  /** No exact answer within the tables that this reader allows. */
  readonly 'too-wide-to-derive': object;
  /** A later statement names the one before, a first one none. */
  readonly 'previous-missing': { readonly statement: number };
  readonly 'previous-unexpected': { readonly statement: number };
  /** An earlier document is of another animal. */
  readonly 'other-animal': { readonly file: string };
  readonly 'earlier-signature-invalid': { readonly file: string };
  /** Among the earlier ones, but with a number as high as the newest's, or higher. */
  readonly 'statement-not-earlier': { readonly statement: number };
  /** A number is given by two statements, or by none. */
  readonly 'statement-twice': { readonly statement: number };
  readonly 'statement-absent': { readonly statement: number };
  /** A statement names another one than the one before it. */
  readonly 'previous-differs': { readonly statement: number };
  /** A statement claims to be made before the one that it follows. */
  readonly 'earlier-than-previous': { readonly statement: number };
  /** No signed succession leads from the key of the statement before to this one's. */
  readonly 'key-not-succeeded': { readonly statement: number };
  /** Signed by a key after the day on which another one replaced it. */
  readonly 'key-was-replaced': { readonly statement: number; readonly on: string };
  readonly 'succession-invalid': { readonly file: string };
  /** One key is replaced by two. */
  readonly 'key-replaced-twice': { readonly file: string };
}

export type Problem = FactOf<Problems>;
