import type { RoundEntry, RoundResult } from '@karyotome/contract';

/** What lies on this device of a round: what was read, and what was entered and is not yet known to be kept. */
export interface QueuedEntry {
  /** In the order of entering. */
  readonly seq?: number;
  readonly key: string;
  /** Whose it is, by the account's id: another person on this device neither sees nor sends it. */
  readonly accountId: string;
  /** The collection it was entered in; entries from before there were several have none. */
  readonly collectionId?: string | undefined;
  /** It has left this device at least once: the server may know it, though its answer was lost. */
  attempted?: boolean;
  /** What is sent: an act of the round, or a photograph of the animal. */
  readonly entry: RoundEntry | null;
  readonly photo: Blob | null;
  readonly animalId: string;
  readonly number: string;
  /** "rat pup taken" */
  readonly text: string;
  /** When it was entered. */
  readonly at: string;
  state: 'waiting' | 'refused' | 'asked';
  result?: RoundResult;
}

/** What somebody enters, before it is known whose it is. */
export type NewEntry = Omit<QueuedEntry, 'seq' | 'accountId' | 'collectionId' | 'at' | 'state'>;

export const toQueued = (entry: NewEntry, accountId: string, collectionId?: string): QueuedEntry => ({
  ...entry,
  accountId,
  collectionId,
  at: new Date().toISOString(),
  state: 'waiting',
});
