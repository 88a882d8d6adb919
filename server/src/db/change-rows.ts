import { literal, type Model, type ModelStatic, type WhereOptions } from 'sequelize';
import type { MakeNullishOptional } from 'sequelize/types/utils';
import { notFound, Refusal, stale } from '../refusal.ts';
import type { Actor, Work } from './work.ts';

/** The moment of the statement, as the database has it. Sequelize's types know no SQL in the place of a value. */
export const NOW = literal('clock_timestamp()') as unknown as Date;

type Table<Row extends object> = ModelStatic<Model<Row, Partial<Row>>>;
interface Versioned {
  collectionId: string;
  id: string;
  version: number;
}
interface Voidable {
  collectionId: string;
  id: string;
  voidedAt: Date | null;
}

/**
 * Changes rows and raises their version.
 *
 * @param where - with the version that was read, where one was: then only what still is as it was read is changed
 * @returns how many rows were changed
 */
export async function raiseVersion<Row extends { version: number }>(
  work: Work,
  table: Table<Row>,
  where: Partial<Row>,
  values: Partial<Row> = {},
): Promise<number> {
  // Sequelize's types know no SQL in the place of a value.
  const raised = { ...values, version: literal('version + 1') } as unknown as Partial<Row>;
  const [changed] = await table.update(raised as Parameters<typeof table.update>[0], {
    where: where as unknown as WhereOptions<Row>,
    transaction: work.transaction,
  });
  return changed;
}

/**
 * Changes what is known to be there, where it still is as it was read.
 *
 * @param where - names it, but for the version
 * @returns its next version
 * @throws Refusal `stale`
 */
export async function changeAsRead<Row extends { version: number }>(
  work: Work,
  table: Table<Row>,
  what: string,
  where: Omit<Partial<Row>, 'version'>,
  version: number,
  values: Partial<Row> = {},
): Promise<number> {
  const changed = await raiseVersion(work, table, { ...where, version } as Partial<Row>, values);
  if (changed === 0) throw stale(what);
  return version + 1;
}

/**
 * Changes a row where it still is as it was read.
 *
 * @param what - "This rack": how a refusal calls it
 */
export async function changeRow<Row extends Versioned>(
  work: Work,
  table: Table<Row>,
  what: string,
  { id, version }: { id: string; version: number },
  values: Partial<Row>,
): Promise<{ id: string; version: number }> {
  const { collectionId } = work.actor;
  const where: Partial<Versioned> = { collectionId, id, version };
  const changed = await raiseVersion(work, table, where as Partial<Row>, values);
  if (changed > 0) return { id, version: version + 1 };
  throw (await has(work, table, id)) ? stale(what) : notFound(what);
}

/**
 * Removes a row where it still is as it was read.
 *
 * @param what - "This list": how a refusal calls it
 */
export async function removeRow<Row extends Versioned>(
  work: Work,
  table: Table<Row>,
  what: string,
  { id, version }: { id: string; version: number },
): Promise<void> {
  const { collectionId } = work.actor;
  const where = { collectionId, id, version } as unknown as WhereOptions<Row>;
  const removed = await table.destroy({ where, transaction: work.transaction });
  if (removed === 0) throw (await has(work, table, id)) ? stale(what) : notFound(what);
}

/** Removes a row that has no version. @param what - how a refusal calls it */
export async function deleteRow<Row extends { collectionId: string; id: string }>(
  work: Work,
  table: Table<Row>,
  what: string,
  id: string,
): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id } as unknown as WhereOptions<Row>;
  if ((await table.destroy({ where, transaction: work.transaction })) === 0) throw notFound(what);
}

/**
 * Makes a row that there may be one of. Writes of a collection come one by one, so nobody else makes it meanwhile.
 *
 * @param key - what there may be one row of
 * @returns false where it is there already
 */
export async function createOnce<Row extends object>(
  work: Work,
  table: Table<Row>,
  key: Partial<Row>,
  values: Partial<Row>,
): Promise<boolean> {
  const { transaction } = work;
  if ((await table.count({ where: key as unknown as WhereOptions<Row>, transaction })) > 0) return false;
  await table.create({ ...key, ...values } as MakeNullishOptional<Partial<Row>>, { transaction });
  return true;
}

/** Takes rows out of account, keeping them: who did, when and why. @returns how many were changed */
export async function voidRows<Row extends Voidable>(
  work: Work<Actor>,
  table: Table<Row>,
  where: WhereOptions,
  reason: string,
  more: Partial<Row> = {},
): Promise<number> {
  const voided = {
    ...more,
    voidedAt: NOW,
    voidedBy: work.actor.accountId,
    voidReason: reason,
  } as unknown as Parameters<typeof table.update>[0];
  const [changed] = await table.update(voided, {
    where: { ...where, collectionId: work.actor.collectionId } as WhereOptions<Row>,
    transaction: work.transaction,
  });
  return changed;
}

/** Takes a row out of account, keeping it. */
export async function voidRow<Row extends Voidable>(
  work: Work<Actor>,
  table: Table<Row>,
  what: string,
  id: string,
  reason: string,
): Promise<void> {
  const changed = await voidRows(work, table, { id, voidedAt: null }, reason);
  if (changed > 0) return;
  throw (await has(work, table, id))
    ? new Refusal('conflict', `${what} was taken back before.`)
    : notFound(what);
}

async function has<Row extends { collectionId: string; id: string }>(
  work: Work,
  table: Table<Row>,
  id: string,
): Promise<boolean> {
  const where = { collectionId: work.actor.collectionId, id } as unknown as WhereOptions<Row>;
  return (await table.count({ where, transaction: work.transaction })) > 0;
}
