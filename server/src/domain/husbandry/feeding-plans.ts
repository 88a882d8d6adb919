import type { PlanInput } from '@karyotome/contract';
import { FEEDING_PLANS, type FeedingPlan } from '@karyotome/core';
import { randomUUID } from 'node:crypto';
import type { FeedingPlanRow } from '../../db/rows.ts';
import { oncePerRead } from '../../db/once-per-read.ts';
import type { Actor, Work } from '../../db/work.ts';
import { invalidField, notFound, stale } from '../../refusal.ts';
import { raiseVersion } from '../../db/change-rows.ts';

export interface StoredPlan extends FeedingPlan {
  readonly version: number;
  readonly builtIn: boolean;
  /** A built-in one that the keeper changed. */
  readonly changed: boolean;
}

/** The built-in plans as the keeper changed them, and the keeper's own. */
export const plansOf = (work: Work): Promise<StoredPlan[]> =>
  oncePerRead(work, 'plans', () => readPlans(work));

async function readPlans(work: Work): Promise<StoredPlan[]> {
  const rows = await work.models.feedingPlans.findAll({
    where: { collectionId: work.actor.collectionId },
    order: [['key', 'asc']],
    transaction: work.transaction,
  });
  return plansFrom(rows.map((row) => row.get()));
}

/** The built-in plans, and those of the keeper's own, by their rows. */
export function plansFrom(rows: readonly Pick<FeedingPlanRow, 'key' | 'body' | 'version'>[]): StoredPlan[] {
  const stored = new Map(rows.map((row) => [row.key, row]));
  const builtIn = FEEDING_PLANS.map((plan): StoredPlan => {
    const own = stored.get(plan.id);
    return own
      ? { id: plan.id, ...own.body, version: own.version, builtIn: true, changed: true }
      : { ...plan, version: 0, builtIn: true, changed: false };
  });
  const added = [...stored.values()]
    .filter(({ key }) => !FEEDING_PLANS.some(({ id }) => id === key))
    .map(({ key, body, version }) => ({ id: key, ...body, version, builtIn: false, changed: false }));
  return [...builtIn, ...added];
}

export async function addPlan(work: Work<Actor>, input: PlanInput): Promise<{ id: string }> {
  await refuseTakenName(work, input.name, null);
  const { collectionId, accountId } = work.actor;
  // A key of a plan takes 40 characters.
  const key = `own-${randomUUID()}`.slice(0, 40);
  await work.models.feedingPlans.create(
    { collectionId, key, body: input, authorId: accountId, version: 1 },
    { transaction: work.transaction },
  );
  return { id: key };
}

/** Changes a plan. A built-in one is stored as the keeper's from its first change on. */
export async function changePlan(
  work: Work<Actor>,
  key: string,
  input: PlanInput,
  version: number,
): Promise<{ id: string; version: number }> {
  await refuseTakenName(work, input.name, key);
  const { collectionId, accountId } = work.actor;
  const isBuiltIn = FEEDING_PLANS.some(({ id }) => id === key);
  if (isBuiltIn && version === 0) {
    const [, created] = await work.models.feedingPlans.findOrCreate({
      where: { collectionId, key },
      defaults: { collectionId, key, body: input, authorId: accountId, version: 1 },
      transaction: work.transaction,
    });
    if (!created) throw stale('The plan');
    return { id: key, version: 1 };
  }
  const changed = await raiseVersion(
    work,
    work.models.feedingPlans,
    { collectionId, key, version },
    { body: input, authorId: accountId },
  );
  if (changed === 0) {
    const exists = await work.models.feedingPlans.count({
      where: { collectionId, key },
      transaction: work.transaction,
    });
    throw exists > 0 || isBuiltIn ? stale('The plan') : notFound('This plan');
  }
  return { id: key, version: version + 1 };
}

/** Takes away a plan of the keeper's own, or gives a built-in one its first form back. */
export async function removePlan(work: Work, key: string, version: number): Promise<void> {
  const removed = await work.models.feedingPlans.destroy({
    where: { collectionId: work.actor.collectionId, key, version },
    transaction: work.transaction,
  });
  if (removed === 0) throw version === 0 ? notFound('This plan') : stale('The plan');
}

async function refuseTakenName(work: Work, name: string, key: string | null): Promise<void> {
  const taken = (await plansOf(work)).some((plan) => plan.id !== key && plan.name === name);
  if (taken) throw invalidField('name', 'is the name of another plan');
}
