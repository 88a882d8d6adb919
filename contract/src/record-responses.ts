import type { Sex } from './animal-status.ts';
import type { FactOf, Impossible, Sureness } from '@karyotome/core';
import type { RecordBodies, RecordKind } from './records.ts';

export type RecordView = {
  [K in RecordKind]: {
    id: string;
    kind: K;
    on: string;
    body: RecordBodies[K] &
      (K extends 'move' ? { fromTubId: string | null; from: string | null; to: string | null } : unknown);
    note: string | null;
    author: string;
    recordedAt: string;
    /** The breeder that it came with; null of the collection's own. Such a record is read, and never changed. */
    from: string | null;
    voided: { at: string; by: string; reason: string; replacedBy: string | null } | null;
  };
}[RecordKind];

/** A record with what it holds, as words are made of it. */
export type RecordFact = {
  [K in RecordKind]: { kind: K; body: RecordBodies[K] };
}[RecordKind];

/** Whose eye it was, by role: somebody's of the collection, or another breeder's. */
export type Eye = 'own' | 'other-breeder';

/** An identification or statement that a claim rests on. `label` is canonical. */
export interface SupportView {
  recordId: string;
  animalId: string;
  animalNumber: string;
  on: string;
  label: string;
  sure: Sureness;
  by: string;
  eye: Eye;
}

/** What a genetic record is warned of, although it is taken. */
export type RecordWarning = FactOf<{ 'pair-cannot-give': Impossible; 'sex-does-not-fit': SexDoubt }>;

/** A gene that hardly ever shows in the recorded sex: the shares of this pair's young of either sex that show it. */
export interface SexDoubt {
  label: string;
  sex: Exclude<Sex, 'unknown'>;
  p: number;
  pOther: number;
}
