import type { FeedingNightLine, FeedingView } from '@karyotome/contract';
import { ORDER_RULES, thawList } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { unstoredStates } from '../states/animal-states.ts';
import type { ComputedState } from '../states/compute-state.ts';
import { countTasks } from '../today/today.queries.ts';
import { countsOf } from '../today/unstored-tasks.ts';
import { animalsByPlan, mealsTonight, placedAnimals } from './feeding.queries.ts';
import { plansOf } from './feeding-plans.ts';
import { rulesOfFeeding } from './feeding-rules.ts';
import { freezerOf } from './freezer.service.ts';

/** What feeding goes by, and the freezer: rules, plans, what is thawed, what is left. */
export async function viewFeeding(work: Work): Promise<FeedingView> {
  const unstored = await unstoredStates(work);
  const except = unstored.map(({ id }) => id);
  const thaw = thawList([...(await countTasks(work, except)), ...unstored.flatMap(countsOf)]);
  const { lines, stock } = await freezerOf(work, thaw);
  const { orderRules, version } = await collectionOf(work);
  const stored = new Map((await animalsByPlan(work, except)).map(({ planId, animals }) => [planId, animals]));
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
  const unstored = await unstoredStates(work);
  const except = unstored.map(({ id }) => id);
  const stored = await mealsTonight(work, except);
  const fresh = new Map(unstored.flatMap((one) => mealTonight(one, work.today)));
  if (fresh.size === 0) return stored;
  const places = await placedAnimals(work, [...stored.map(({ id }) => id), ...fresh.keys()]);
  const meals = new Map([...stored.map(({ id, meal }) => [id, meal] as const), ...fresh]);
  return places.map(({ step: _, ...animal }) => ({ ...animal, meal: meals.get(animal.id)! }));
}

function mealTonight({ id, state: { meal } }: ComputedState, today: string) {
  const isTonight = meal !== null && (meal.verdict === 'due' || meal.dueOn <= today);
  return isTonight ? [[id, meal] as const] : [];
}
