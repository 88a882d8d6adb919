import type { FeedingNightLine, FeedingView } from '@karyotome/contract';
import { ORDER_RULES, thawList } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { unstoredStates } from '../states/animal-states.ts';
import { isMealDay } from '../states/compute-state.ts';
import { countedTasks } from '../today/unstored-tasks.ts';
import { animalsByPlan, placedAnimals, storedMeals } from './feeding.queries.ts';
import { plansOf } from './feeding-plans.ts';
import { rulesOfFeeding } from './feeding-rules.ts';
import { freezerOf } from './freezer.service.ts';

/** What feeding goes by, and the freezer: rules, plans, what is thawed, what is left. */
export async function viewFeeding(work: Work): Promise<FeedingView> {
  const unstored = await unstoredStates(work);
  const thaw = thawList(await countedTasks(work, unstored));
  const { lines, stock } = await freezerOf(work, thaw);
  const { orderRules, version } = await collectionOf(work);
  const stored = new Map((await animalsByPlan(work)).map(({ planId, animals }) => [planId, animals]));
  const onPlan = (id: string): number =>
    (stored.get(id) ?? 0) + unstored.filter(({ state }) => state.planId === id).length;
  return {
    today: work.today,
    rules: await rulesOfFeeding(work),
    order: { ...ORDER_RULES, ...orderRules },
    rulesVersion: version,
    plans: (await plansOf(work)).map((plan) => ({ ...plan, animals: onPlan(plan.id) })),
    thaw,
    freezer: lines,
    stock,
  };
}

/** Whose day has come, in walking order: who eats tonight, and who is passed over and why. */
export async function feedingNight(work: Work): Promise<FeedingNightLine[]> {
  const fresh = (await unstoredStates(work)).filter(({ state }) => isMealDay(state, work.today));
  const meals = new Map([
    ...(await storedMeals(work)).map(({ id, meal }) => [id, meal] as const),
    ...fresh.map(({ id, state }) => [id, state.meal!] as const),
  ]);
  const animals = await placedAnimals(work, [...meals.keys()]);
  return animals.map((animal) => ({ ...animal, meal: meals.get(animal.id)! }));
}
