import type { TubKind } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { ladderSteps, placedTubs } from './enclosures.queries.ts';
import { groupBy } from '../../group-by.ts';

/** What kind of tub each one is, in words and by its step. @param ids - of these alone */
export async function kindsOfTubs(
  work: Work,
  ids: readonly string[] | null = null,
): Promise<Map<string, TubKind>> {
  const steps = groupBy(await ladderSteps(work), ({ ladderId }) => ladderId);
  return new Map(
    (await placedTubs(work, ids)).flatMap(({ tubId, ladderId, step }) => {
      const known = steps.get(ladderId)?.[step];
      return known ? [[tubId, { name: known.name, ladderId, step, minG: known.minG }] as const] : [];
    }),
  );
}
