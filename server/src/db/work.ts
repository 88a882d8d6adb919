import type { Grant, Role, TokenScope } from '@karyotome/contract';
import { dayIn, type TimeZone } from '@karyotome/core';
import type { Sequelize, Transaction, TransactionOptions } from 'sequelize';
import { nowMs } from '../clock.ts';
import { Refusal } from '../refusal.ts';
import { BeginAgain, tooManyBeginnings } from './begin-again.ts';
import { isDatabaseAway, isToBeDoneAgain } from './faults.ts';
import type { Models } from './models.ts';
import { rowsOf } from './statement.ts';
import { inTurn, sharing } from './turns.ts';

/** Whoever reads a collection: somebody with an account, or somebody who was given an address that shows a part of it. */
export interface Reader {
  readonly collectionId: string;
}

/** Somebody with an account, in one of their collections. */
export interface Actor extends Reader {
  readonly accountId: string;
  readonly name: string;
  readonly role: Role;
  /** With the role `custom`: what it allows. */
  readonly grants?: readonly Grant[] | null;
  /** Of a program that acts for this person: it may do no more than this. */
  readonly scope?: TokenScope;
  /** The token of that program. */
  readonly tokenId?: string;
  /** What the browser or program calls itself. */
  readonly device?: string | null;
}

export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
  /** Told of what went wrong by our own fault, where the request goes on all the same. */
  readonly onFault: (error: unknown) => void;
  /** How long daily work waits for what is inferred before it goes on without it, milliseconds. */
  readonly inferencePatienceMs: number;
  /** Where reads that may be a moment old go; null where there is but one database. Nothing is written to it. */
  readonly standby: Database | null;
}

/**
 * One unit of work: everything a service does runs in its transaction, on behalf of its actor. What records who did it asks
 * for `Work<Actor>`.
 */
export interface Work<Who extends Reader = Reader> extends Database {
  readonly transaction: Transaction;
  readonly actor: Who;
  /** Whether it may write: what it sees may then be its own, and be rolled back. */
  readonly isWriting: boolean;
  /** The farm's time zone: all days are its days. */
  readonly timeZone: TimeZone;
  /** Today, as the farm's calendar has it. */
  readonly today: string;
}

/** The zone of this machine: the farm's, until its keeper has said which it is. */
export const MACHINE_ZONE: TimeZone = new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Today where this machine stands. */
export function machineToday(): string {
  return dayIn(MACHINE_ZONE, nowMs());
}

const MOST_TRIES = 6;
const MOST_CONNECTIONS_TRIED = 3;
/** A read that needs something first begins again so often. */
const MOST_BEGINNINGS = 4;

/**
 * Reads: whatever it asks in however many statements, it sees one moment of the collection, and writes nothing.
 *
 * @throws Refusal `not-found` where the collection is gone
 */
export async function reading<T, Who extends Reader>(
  database: Database,
  actor: Who,
  run: (work: Work<Who>) => Promise<T>,
): Promise<T> {
  let beginnings = 1;
  for (let tries = 1; ; tries++) {
    try {
      return await database.sequelize.transaction(
        { readOnly: true } as TransactionOptions,
        async (transaction) => run(await begin(database, actor, transaction, 'read')),
      );
    } catch (error) {
      if (error instanceof BeginAgain) {
        if (beginnings === MOST_BEGINNINGS) throw tooManyBeginnings(error);
        beginnings += 1;
        await error.meanwhile();
        continue;
      }
      // After the database was away, connections that were kept are dead: another one is tried.
      if (!isDatabaseAway(error) || tries === MOST_CONNECTIONS_TRIED) throw error;
    }
  }
}

/**
 * Writes: one at a time in a collection. Whoever comes second sees what the first did, so what is checked still holds when it
 * is written; locks are never taken in opposite orders, since there is one, taken first. What the database asks to do again
 * is done again, a few times.
 *
 * @param run - may run more than once: outside the transaction it must change nothing
 * @param beside - it checks and changes a single animal, whose row it locks: others of its like may run at once, everything
 *   else waits
 */
export function writing<T, Who extends Reader>(
  database: Database,
  actor: Who,
  run: (work: Work<Who>) => Promise<T>,
  { beside = false }: { beside?: boolean } = {},
): Promise<T> {
  const turn = (act: () => Promise<T>): Promise<T> =>
    beside ? sharing.take(act) : inTurn(actor.collectionId, act);
  const mode = beside ? 'write-beside' : 'write';
  return turn(async () => {
    for (let tries = 1; ; tries++) {
      const progress = { isDone: false };
      try {
        return await database.sequelize.transaction(async (transaction) => {
          const answer = await run(await begin(database, actor, transaction, mode));
          progress.isDone = true;
          return answer;
        });
      } catch (error) {
        // Cut off before it was to be committed, nothing of it stands: it is done again over another connection.
        const isCutOff = isDatabaseAway(error) && !progress.isDone && tries < MOST_CONNECTIONS_TRIED;
        if (isCutOff) continue;
        if (!isToBeDoneAgain(error)) throw error;
        if (tries === MOST_TRIES)
          throw new Refusal('busy', 'Several people changed the same at once. Try again in a moment.', {
            cause: error,
          });
        await new Promise((resolve) => setTimeout(resolve, Math.random() * 20 * 2 ** tries));
      }
    }
  });
}

/** Who writes, for the history that the database keeps; nobody where it is done by itself, or by a visitor. */
const ACTOR = "set_config('karyotome.actor', :actor, true)";
/** From here on, the rows of other collections do not exist for this transaction: see the policies of the tables. */
const BOUND = "set_config('karyotome.collection', :id::uuid::text, true)";

const actorText = (actor: Reader & Partial<Pick<Actor, 'accountId' | 'tokenId' | 'device'>>): string =>
  actor.accountId === undefined
    ? ''
    : JSON.stringify({ account: actor.accountId, token: actor.tokenId, device: actor.device ?? undefined });

/** A lock of the collection's own that ends with the transaction; shared, it writes nothing, unlike that of a row. */
const LOCK = 'hashtextextended(id::text, 0)';
const BEGIN_SQL = {
  read: `select time_zone as "timeZone", ${BOUND} from collections where id = :id`,
  'write-beside': `select time_zone as "timeZone", ${BOUND}, ${ACTOR}, pg_advisory_xact_lock_shared(${LOCK}) from collections where id = :id`,
  // Rows that refer to the collection lock its key alone, so they do not wait for this.
  write: `select time_zone as "timeZone", ${BOUND}, ${ACTOR}, pg_advisory_xact_lock(${LOCK}) from collections where id = :id for no key update`,
} as const;

async function begin<Who extends Reader>(
  database: Database,
  actor: Who,
  transaction: Transaction,
  mode: keyof typeof BEGIN_SQL,
): Promise<Work<Who>> {
  const isWriting = mode !== 'read';
  const [collection] = await rowsOf<{ timeZone: string | null }>(transaction, BEGIN_SQL[mode], {
    id: actor.collectionId,
    ...(isWriting ? { actor: actorText(actor) } : {}),
  });
  if (!collection) throw new Refusal('not-found', 'This collection does not exist.');
  const timeZone = collection.timeZone ?? MACHINE_ZONE;
  return { ...database, transaction, actor, isWriting, timeZone, today: dayIn(timeZone, nowMs()) };
}

/** Makes a collection that is not there yet: there is nothing to lock, and its days are this machine's. */
export function founding<T>(
  database: Database,
  actor: Actor,
  run: (work: Work<Actor>) => Promise<T>,
): Promise<T> {
  return database.sequelize.transaction(async (transaction) => {
    await rowsOf(transaction, `select ${ACTOR}`, { actor: actorText(actor) });
    return run({
      ...database,
      transaction,
      actor,
      isWriting: true,
      timeZone: MACHINE_ZONE,
      today: machineToday(),
    });
  });
}

/** Rows of a query within the work's transaction. `:collectionId` is always known; see `toStatement` for how values are named. */
export function select<Row extends object>(
  work: Work,
  sql: string,
  values: Readonly<Record<string, unknown>> = {},
): Promise<Row[]> {
  return rowsOf<Row>(work.transaction, sql, { collectionId: work.actor.collectionId, ...values });
}

const touched = new WeakSet<Transaction>();

/** Whether this very unit of work changed what is inferred, and has not ended yet. */
export function geneticsTouched(work: Work): boolean {
  return touched.has(work.transaction);
}

/** What was recorded can change what is inferred: the next reader computes anew. */
export async function touchGenetics(work: Work): Promise<void> {
  touched.add(work.transaction);
  await work.models.collections.increment('geneticsRevision', {
    where: { id: work.actor.collectionId },
    transaction: work.transaction,
  });
}
