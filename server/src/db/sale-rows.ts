import type { AncestorShown, Reservation, Sale, Status, Trust } from '@karyotome/contract';
import type { StatedOfAnimal, StatusEventKind } from '@karyotome/core';
import type { Evidence } from '@karyotome/lineage';

/* Tables of persons, of animals' status, and of what buyers are told. */

export interface PersonRow {
  collectionId: string;
  id: string;
  name: string | null;
  email: string | null;
  phone: string | null;
  note: string | null;
  consentOn: string | null;
  erasedAt: Date | null;
  version: number;
  createdAt: Date;
}

export interface StatusEventRow {
  collectionId: string;
  id: string;
  animalId: string;
  kind: StatusEventKind;
  /** The status that it met. */
  before: Status;
  details: Partial<Omit<Reservation & Sale, 'personId'>>;
  personId: string | null;
  onDay: string;
  note: string | null;
  /** Null where it happened by itself. */
  authorId: string | null;
  recordedAt: Date;
  voidedAt: Date | null;
  voidedBy: string | null;
  voidReason: string | null;
}

export interface OfferRow {
  collectionId: string;
  id: string;
  animalId: string;
  price: number | null;
  currency: string | null;
  text: string | null;
  pictureIds: string[] | null;
  ancestors: Record<string, AncestorShown>;
  version: number;
}

/** What a visitor of a page asks. */
export interface InquiryRow {
  collectionId: string;
  id: string;
  animalId: string | null;
  name: string;
  email: string;
  text: string;
  askedAt: Date;
  answeredAt: Date | null;
  version: number;
}

/** Another breeder, by the key that signs for them. */
export interface BreederRow {
  collectionId: string;
  id: string;
  did: string;
  name: string;
  trust: Trust;
  version: number;
}

/** A statement of another breeder that was taken in. */
export interface TakenStatementRow {
  collectionId: string;
  id: string;
  breederId: string;
  /** The statement's own id, a `urn:uuid:`. */
  statementId: string;
  animalId: string;
  statement: number;
  asOf: string;
  document: string;
  authorId: string;
  takenAt: Date;
  removedAt: Date | null;
}

/** What a taken statement says of one animal. */
export interface StatedEvidenceRow {
  collectionId: string;
  id: string;
  takenId: string;
  animalId: string;
  body: StatedBody;
}

export interface StatedBody extends StatedOfAnimal {
  /** What it was read from, gene by gene, in the breeder's words. */
  readonly evidence: readonly Omit<Evidence, 'animal'>[];
}

/** An address that opens a package once. */
export interface HandOverRow {
  collectionId: string;
  id: string;
  animalId: string;
  tokenDigest: string;
  authorId: string;
  madeAt: Date;
  expiresOn: string;
  openedAt: Date | null;
}
