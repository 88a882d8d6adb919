import { SEASON_RULES, type SeasonRules } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { changeCollection } from '../collection/change-collection.ts';
import { collectionOf } from '../collection/collection-of.ts';

/** What the keeper decided about breeding, with the defaults for the rest. */
export async function rulesOf(work: Work): Promise<{ rules: SeasonRules; version: number }> {
  const row = await collectionOf(work);
  return { rules: { ...SEASON_RULES, ...row.seasonRules }, version: row.version };
}

export function changeRules(work: Work, rules: SeasonRules, version: number): Promise<{ version: number }> {
  return changeCollection(work, { seasonRules: rules }, version);
}
