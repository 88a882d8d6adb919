import type { FactOf, SaleLacks, SaleRules, StatusEventKind } from '@karyotome/core';
import type { AnimalSummary } from './animal-summary.ts';
import type { AncestorShown, Reservation, Sale } from './sale-requests.ts';
import type { Status } from './animal-status.ts';

/** A buyer, or somebody who waits. One who was erased has neither name nor address any more. */
export interface PersonView {
  id: string;
  name: string | null;
  email: string | null;
  phone: string | null;
  note: string | null;
  consentOn: string | null;
  erasedAt: string | null;
  /** Animals that are reserved for them or were sold to them. */
  animals: { id: string; number: string; kind: StatusEventKind; on: string }[];
  version: number;
}

/** Everything that is kept on one person. */
export interface PersonExport {
  format: 'karyotome-person/1';
  exportedAt: string;
  person: Omit<PersonView, 'animals' | 'version'>;
  events: { animal: string; kind: StatusEventKind; on: string; note: string | null; details: object }[];
}

/** Something that happened to an animal's status. */
export interface StatusEventView {
  id: string;
  kind: StatusEventKind;
  on: string;
  note: string | null;
  details: Partial<Reservation & Sale>;
  /** The other person in it, where there is one; null for one who was erased. */
  person: { id: string; name: string | null } | null;
  /** Null where it happened by itself. */
  author: string | null;
  recordedAt: string;
  voided: { at: string; by: string; reason: string } | null;
}

export interface OfferView {
  price: number | null;
  currency: string;
  text: string | null;
  pictureIds: string[] | null;
  ancestors: Record<string, AncestorShown>;
  /** 0 where nothing was said yet. */
  version: number;
}

/** An animal on its way to a buyer. */
export interface SaleLine {
  id: string;
  animal: AnimalSummary;
  status: Status;
  /** What brought it there; null where that was never recorded. */
  event: StatusEventView | null;
  /** The year of its clutch's season, or else of its hatching. */
  season: number | null;
  clutch: string | null;
  /** Its parents by number, where it hatched here: every sire that the dam was with. */
  pairing: { dam: string; sires: string[] } | null;
  offer: OfferView;
  /** What it lacks to be ready for sale by the collection's rules. */
  lacks: FactOf<SaleLacks>[];
  slug: string | null;
}

export interface SalesSettings {
  rules: SaleRules;
  version: number;
}

/** One of a clutch, as it is decided upon. */
export interface DeskLine {
  id: string;
  animal: AnimalSummary;
  claims: { label: string; p: number; certain: boolean }[];
  weights: { on: string; massG: number }[];
  /** How it stands to the collection's curve of its sex at its age: a difference of natural logarithms; null where unknown. */
  offCurve: number | null;
  appetite: { inARow: number; takenEver: number; offeredEver: number };
  lacks: FactOf<SaleLacks>[];
}

export interface DeskView {
  clutch: { id: string; name: string; dam: string; sires: string[] };
  lines: DeskLine[];
}

/** What a visitor of a public page asked. */
export interface InquiryView {
  id: string;
  name: string;
  email: string;
  text: string;
  askedAt: string;
  answeredAt: string | null;
  animal: { id: string; number: string } | null;
  version: number;
}
