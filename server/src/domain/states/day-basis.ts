import { FEEDING_RULES, SALE_RULES, SEASON_RULES, type LadderStep } from '@karyotome/core';
import { createCache } from '../../cache.ts';
import type { Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { ladderSteps } from '../enclosures/enclosures.queries.ts';
import { plansOf } from '../husbandry/feeding-plans.ts';
import { dayNotBegun } from './begin-day.ts';
import type { DayBasis } from './compute-state.ts';
import { fitRevision, storedFit } from './states.queries.ts';
import { fromStoredFit, type HerdFit, type StoredFit } from './stored-fit.ts';

/** Fits by collection, day and revision, so that the clutches of a large collection are read once. */
const fits = createCache<HerdFit>(16);

/**
 * What the states of a collection's animals are computed from on a day.
 *
 * @param day - today, or tomorrow where that is prepared
 * @throws BeginAgain where the collection has no fit for the day
 */
export async function basisOf(work: Work, day: string = work.today): Promise<DayBasis> {
  const fit = await fitOf(work, day);
  const settings = await collectionOf(work);
  return {
    today: day,
    rules: { ...FEEDING_RULES, ...settings.feedingRules },
    seasonRules: { ...SEASON_RULES, ...settings.seasonRules },
    saleRules: { ...SALE_RULES, ...settings.saleRules },
    plans: (await plansOf(work)).map(({ id, name, start, steps }) => ({ id, name, start, steps })),
    ladders: await stepsByLadder(work),
    ...fit,
  };
}

async function fitOf(work: Work, day: string): Promise<HerdFit> {
  const [current] = await fitRevision(work, day);
  if (!current) throw dayNotBegun(work, work.actor, day);
  const key = `${work.actor.collectionId} ${day} ${current.revision}`;
  const known = fits.get(key);
  if (known) return known;
  const [stored] = await storedFit(work, day);
  const fit = fromStoredFit(stored as unknown as StoredFit);
  // What this very transaction wrote may be rolled back, and its number be given again.
  if (!work.isWriting) fits.set(key, fit);
  return fit;
}

/** Ladder id -> its steps, the lowest first. */
export async function stepsByLadder(work: Work): Promise<Map<string, LadderStep[]>> {
  const ladders = new Map<string, LadderStep[]>();
  for (const { ladderId, ladder: _, mealsBefore, ...step } of await ladderSteps(work)) {
    const steps = ladders.get(ladderId) ?? [];
    steps.push(mealsBefore == null ? step : { ...step, mealsBefore });
    ladders.set(ladderId, steps);
  }
  return ladders;
}
