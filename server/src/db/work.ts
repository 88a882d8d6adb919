import { localDay } from '@karyotome/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { Models } from './models.ts';

/** Who acts, in which collection, and as what. */
export interface Actor {
  readonly accountId: string;
  readonly name: string;
  readonly collectionId: string;
  readonly role: 'owner' | 'keeper' | 'viewer';
}

export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
}

/** One unit of work: everything a service does runs in its transaction, on behalf of its actor. */
export interface Work extends Database {
  readonly transaction: Transaction;
  readonly actor: Actor;
  /** Today, as the server's calendar has it. */
  readonly today: string;
}

/** Today on this machine's calendar. */
export function localToday(): string {
  return localDay(new Date());
}

export function inTransaction<T>(
  database: Database,
  actor: Actor,
  run: (work: Work) => Promise<T>,
): Promise<T> {
  return database.sequelize.transaction((transaction) =>
    run({ ...database, transaction, actor, today: localToday() }),
  );
}

/** Rows of a query within the work's transaction. `:collectionId` is always known. */
export function select<Row extends object>(
  work: Work,
  sql: string,
  replacements: Record<string, unknown> = {},
): Promise<Row[]> {
  return work.sequelize.query<Row>(sql, {
    type: QueryTypes.SELECT,
    transaction: work.transaction,
    replacements: { collectionId: work.actor.collectionId, ...replacements },
  });
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
