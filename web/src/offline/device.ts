import type { RoundRack, RoundView } from '@karyotome/contract';
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb';
import { entered, entering, unwritten } from './entering.ts';
import type { QueuedEntry } from './queued-entry.ts';

/** A round with all its racks, each as it was when it had its stamp. */
export interface WholeRound extends Omit<RoundView, 'racks'> {
  readonly racks: readonly (RoundRack & { readonly stamp?: string })[];
}

export interface KeptRound {
  readonly accountId: string;
  readonly view: WholeRound;
}

interface Device extends DBSchema {
  rounds: { key: string; value: KeptRound };
  queue: { key: number; value: QueuedEntry; indexes: { key: string } };
}

/** Counts up whenever what is kept changes its shape. */
const FORMAT = 2;

/**
 * What was kept in an earlier format: the view of the round is read anew, and what waits is kept. Before format 2 both held
 * records as text.
 */
async function bringUp(
  transaction: IDBPTransaction<Device, ('rounds' | 'queue')[], 'versionchange'>,
): Promise<void> {
  await transaction.objectStore('rounds').clear();
  for await (const cursor of transaction.objectStore('queue')) {
    const { result } = cursor.value;
    if (result?.status === 'kept') await cursor.update({ ...cursor.value, result: { ...result, alike: [] } });
  }
}

let opened: Promise<IDBPDatabase<Device>> | null = null;
function device(): Promise<IDBPDatabase<Device>> {
  opened ??= openDB<Device>('karyotome', FORMAT, {
    async upgrade(database, from, _to, transaction) {
      if (from > 0) return bringUp(transaction);
      database.createObjectStore('rounds', { keyPath: 'accountId' });
      const queue = database.createObjectStore('queue', { keyPath: 'seq', autoIncrement: true });
      queue.createIndex('key', 'key', { unique: true });
    },
  });
  return opened;
}

export async function keepRound(accountId: string, view: WholeRound): Promise<void> {
  await (await device()).put('rounds', { accountId, view });
}
export async function keptRound(accountId: string): Promise<WholeRound | null> {
  return (await (await device()).get('rounds', accountId))?.view ?? null;
}

/**
 * Written through before it counts as entered: a device that dies loses at most what was being typed. An entry that another
 * window has written already, for a page that was closed in the middle of it, is not written twice.
 *
 * @returns its place in the order of entering
 */
export async function enqueue(entry: QueuedEntry): Promise<number> {
  entering(entry);
  try {
    return await writeThrough(entry);
  } finally {
    // Where it failed, whoever entered it is told; only a page that is gone cannot tell.
    entered(entry.key);
  }
}
async function writeThrough(entry: QueuedEntry): Promise<number> {
  const transaction = (await device()).transaction('queue', 'readwrite', { durability: 'strict' });
  const there = await transaction.store.index('key').getKey(entry.key);
  const seq = there ?? (await transaction.store.add(entry));
  await transaction.done;
  return seq;
}
/** What waits on the device for an account, what a closed page had no time to write included. */
export async function queueOf(accountId: string, collectionId?: string): Promise<QueuedEntry[]> {
  for (const entry of unwritten(accountId)) await enqueue(entry);
  const isAskedFor = (entry: QueuedEntry): boolean =>
    entry.accountId === accountId &&
    (collectionId === undefined || (entry.collectionId ?? collectionId) === collectionId);
  return (await (await device()).getAll('queue')).filter(isAskedFor);
}
export async function changeQueued(entry: QueuedEntry): Promise<void> {
  await (await device()).put('queue', entry);
}
export async function dequeue(seqs: readonly number[]): Promise<void> {
  const transaction = (await device()).transaction('queue', 'readwrite');
  await Promise.all([...seqs.map((seq) => transaction.store.delete(seq)), transaction.done]);
}
/** Entries were once kept under an e-mail address, which can change hands: they become the account's. */
export async function adoptEntries(email: string, accountId: string): Promise<void> {
  const database = await device();
  for (const entry of await queueOf(email)) await database.put('queue', { ...entry, accountId });
  await database.delete('rounds', email);
}

/** Remembers that entries are leaving: before they do, so that a page that dies in between does not forget it. */
export async function markAttempted(entries: readonly QueuedEntry[]): Promise<void> {
  const transaction = (await device()).transaction('queue', 'readwrite', { durability: 'strict' });
  await Promise.all([
    ...entries.map((entry) => transaction.store.put({ ...entry, attempted: true })),
    transaction.done,
  ]);
}

/** Whoever signs out leaves nothing to be seen: neither what was read, nor what was entered and not sent. */
export async function forgetAll(accountId: string): Promise<void> {
  const database = await device();
  await database.delete('rounds', accountId);
  await dequeue((await queueOf(accountId)).flatMap(({ seq }) => seq ?? []));
}

/** The session ended by itself: what was read goes, what was entered waits for its owner. */
export async function forgetRound(accountId: string): Promise<void> {
  await (await device()).delete('rounds', accountId);
}
