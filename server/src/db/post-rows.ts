import type { LetterState } from '@karyotome/contract';
import type { Letters } from '@karyotome/words';

export interface LetterRow {
  collectionId: string;
  id: string;
  kind: keyof Letters;
  /** What it is about: nobody is written to twice for the same reason. */
  sentKey: string;
  personId: string | null;
  animalId: string | null;
  /** Null once the person was erased. */
  toAddress: string | null;
  subject: string;
  paragraphs: readonly string[];
  state: LetterState;
  attempts: number;
  nextTryAt: Date;
  stateAt: Date;
  error: string | null;
  createdAt: Date;
}

/** A letter as the simulated post office took it. */
export interface SimulatedMailRow {
  id: string;
  collectionId: string;
  letterId: string;
  message: string;
  receivedAt: Date;
}
