import { SEASON_RULES, type SeasonRules } from '@karyotome/core';
import { literal } from 'sequelize';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../http/problems.ts';

/** What the keeper decided about breeding, with the defaults for the rest. */
export async function rulesOf(work: Work): Promise<{ rules: SeasonRules; version: number }> {
  const row = (await work.models.collections.findByPk(work.actor.collectionId, {
    transaction: work.transaction,
  }))!.get();
  return { rules: { ...SEASON_RULES, ...row.seasonRules }, version: row.version };
}

export async function changeRules(
  work: Work,
  rules: SeasonRules,
  version: number,
): Promise<{ version: number }> {
  const [changed] = await work.models.collections.update(
    { seasonRules: rules, version: literal('version + 1') as never },
    { where: { id: work.actor.collectionId, version }, transaction: work.transaction },
  );
  if (changed === 0)
    throw new Refusal('stale', 'The settings were changed in the meantime. Reload to see them.');
  return { version: version + 1 };
}
