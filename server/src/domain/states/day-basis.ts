import { FEEDING_RULES, SALE_RULES, SEASON_RULES, type LadderStep } from '@karyotome/core';
import { createCache } from '../../cache.ts';
import { oncePerRead } from '../../db/once-per-read.ts';
import type { Work } from '../../db/work.ts';
import { ladderSteps } from '../enclosures/enclosures.queries.ts';
import { plansFrom } from '../husbandry/feeding-plans.ts';
import { dayNotBegun } from './begin-day.ts';
import type { DayBasis } from './compute-state.ts';
import { practiceOf, storedFit } from './states.queries.ts';
import { fromStoredFit, type HerdFit } from './stored-fit.ts';

/** Fits by collection, day and revision, so that the clutches of a large collection are read once. */
const fits = createCache<HerdFit>(16);

/**
 * What the states of a collection's animals are computed from on a day.
 *
 * @param day - today, or tomorrow where that is prepared
 * @throws BeginAgain where the collection has no fit for the day
 */
export const basisOf = (work: Work, day: string = work.today): Promise<DayBasis> =>
  oncePerRead(work, `basis ${day}`, async () => {
    const [practice] = await practiceOf(work, day);
    if (practice?.fitRevision == null) throw dayNotBegun(work, work.actor, day);
    const { feedingRules, saleRules, seasonRules, plans, steps, fitRevision } = practice;
    return {
      today: day,
      rules: { ...FEEDING_RULES, ...feedingRules },
      seasonRules: { ...SEASON_RULES, ...seasonRules },
      saleRules: { ...SALE_RULES, ...saleRules },
      plans: plansFrom(plans).map(({ id, name, start, steps: ladder }) => ({
        id,
        name,
        start,
        steps: ladder,
      })),
      ladders: toLadders(steps),
      ...(await fitOf(work, day, fitRevision)),
    };
  });

async function fitOf(work: Work, day: string, revision: number): Promise<HerdFit> {
  const key = `${work.actor.collectionId} ${day} ${revision}`;
  const known = fits.get(key);
  if (known) return known;
  const [stored] = await storedFit(work, day);
  const fit = fromStoredFit(stored!);
  // What this very transaction wrote may be rolled back, and its number be given again.
  if (!work.isWriting) fits.set(key, fit);
  return fit;
}

type StepRow = Awaited<ReturnType<typeof ladderSteps>>[number];

/** Ladder id -> its steps, the lowest first. */
export const stepsByLadder = async (work: Work): Promise<Map<string, LadderStep[]>> =>
  toLadders(await ladderSteps(work));

function toLadders(rows: readonly Omit<StepRow, 'ladder'>[]): Map<string, LadderStep[]> {
  const ladders = new Map<string, LadderStep[]>();
  for (const { ladderId, name, minG, maxG, inside, mealsBefore } of rows) {
    const steps = ladders.get(ladderId) ?? [];
    steps.push({ name, minG, maxG, inside, ...(mealsBefore == null ? {} : { mealsBefore }) });
    ladders.set(ladderId, steps);
  }
  return ladders;
}
