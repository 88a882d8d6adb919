import { literal, type Model, type ModelStatic, type WhereOptions } from 'sequelize';
import { notFound, Refusal } from '../refusal.ts';
import type { Actor, Work } from './work.ts';

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
  const [changed] = await table.update({ ...values, version: literal('version + 1') } as never, {
    where: { collectionId, id, version } as unknown as WhereOptions<Row>,
    transaction: work.transaction,
  });
  if (changed > 0) return { id, version: version + 1 };
  throw (await has(work, table, id))
    ? new Refusal('stale', `${what} was changed in the meantime. Reload to see it.`)
    : notFound(what);
}

/** Takes a row out of account, keeping it. */
export async function voidRow<Row extends Voidable>(
  work: Work<Actor>,
  table: Table<Row>,
  what: string,
  id: string,
  reason: string,
): Promise<void> {
  const { collectionId, accountId } = work.actor;
  const [changed] = await table.update(
    { voidedAt: literal('clock_timestamp()'), voidedBy: accountId, voidReason: reason } as never,
    {
      where: { collectionId, id, voidedAt: null } as unknown as WhereOptions<Row>,
      transaction: work.transaction,
    },
  );
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
