import type { FactOf } from '@karyotome/core';
import type { Verification } from '@karyotome/lineage';
import type { Sex } from './animal-status.ts';
import type { Trust } from './taken-requests.ts';

/** What speaks against what is to be taken in, in the collection's own records. */
export interface TakeInConflicts {
  /** Another sex is recorded here. */
  'other-sex': { readonly number: string; readonly here: Sex; readonly there: Sex };
  'other-hatch-date': { readonly number: string; readonly here: string; readonly there: string };
  'other-dam': { readonly number: string };
  'other-sires': { readonly number: string };
  /** Animals whose records cannot all be true at a locus, once these are among them. */
  'records-contradict': { readonly locus: string; readonly numbers: readonly string[] };
  /** Nothing is known here of this gene: it is left out. */
  'gene-unknown': { readonly locus: string };
}

/** A relative in a statement, and whether the collection knows it. */
export interface TakeInRelative {
  id: string;
  /** As the breeder names it; null where it is not named. */
  named: string | null;
  /** The number it has here; null where it is new. */
  number: string | null;
  isAncestor: boolean;
}

/** What taking in one animal would do. */
export interface TakeInPreview {
  verification: Verification;
  subject: {
    id: string;
    number: string;
    name: string | null;
    sex: Sex;
    hatchedOn: string | null;
    label: string;
  };
  breeder: { did: string; name: string; trust: Trust; isKnown: boolean };
  /** The animal is here already: of the collection's own, or taken in before. */
  here: { number: string; isOwn: boolean; statement: number | null } | null;
  relatives: TakeInRelative[];
  /** Against the statement that was taken in before: labels; null where nothing is claimed. */
  changes: { locus: string; from: string | null; to: string | null }[];
  conflicts: FactOf<TakeInConflicts>[];
  records: number;
  pictures: number;
  /** Whether it can be taken in: it holds, and is no older than what is here. */
  isNew: boolean;
}

/** A statement of another breeder that was taken in. */
export interface TakenView {
  id: string;
  animal: { id: string; number: string };
  breederId: string;
  breeder: string;
  statement: number;
  asOf: string;
  takenAt: string;
  removedAt: string | null;
}

export interface BreederView {
  id: string;
  did: string;
  name: string;
  trust: Trust;
  statements: number;
  version: number;
}
