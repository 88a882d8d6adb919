import type { ClaimChangeView } from '@karyotome/contract';

/* What is published and signed. */

export interface PublicationRow {
  collectionId: string;
  id: string;
  animalId: string;
  slug: string;
  publishedAt: Date;
  withdrawnAt: Date | null;
  authorId: string;
  /** Why what the records say now is not signed, and which change that is said of. */
  withheldReason: string | null;
  withheldChanges: ClaimChangeView[] | null;
}

export interface SigningKeyRow {
  collectionId: string;
  id: string;
  did: string;
  sealedSecret: string;
  createdAt: Date;
  replacedAt: Date | null;
  /** The statement by which the key before introduced this one; null of the first. */
  succession: string | null;
}

export interface StatementRow {
  collectionId: string;
  id: string;
  animalId: string;
  statement: number;
  asOf: string;
  document: string;
  authorId: string;
  issuedAt: Date;
  /** What pages show of it. */
  shown: object | null;
}
