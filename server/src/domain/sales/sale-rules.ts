import { SALE_RULES, type SaleRules } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';

/** When the collection calls an animal ready for sale, with the defaults for what was not set. */
export async function saleRulesOf(work: Work): Promise<{ rules: SaleRules; version: number }> {
  const { saleRules, version } = await collectionOf(work);
  return { rules: { ...SALE_RULES, ...saleRules }, version };
}
