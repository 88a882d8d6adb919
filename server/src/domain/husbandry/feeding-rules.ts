import type { RulesChange } from '@karyotome/contract';
import { FEEDING_RULES, type FeedingRules } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { changeCollection } from '../collection/change-collection.ts';
import { collectionOf } from '../collection/collection-of.ts';

/** The collection's rules of feeding, with the usual ones for what was not set. */
export async function rulesOfFeeding(work: Work): Promise<FeedingRules> {
  const { feedingRules } = await collectionOf(work);
  return { ...FEEDING_RULES, ...feedingRules };
}

export function changeFeedingRules(
  work: Work,
  { feeding, order }: RulesChange,
  version: number,
): Promise<{ version: number }> {
  return changeCollection(work, { feedingRules: feeding, orderRules: order }, version);
}
