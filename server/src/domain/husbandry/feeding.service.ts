import type { FeedingView, RulesChange } from '@karyotome/contract';
import { mealIntervals, planOf, whatWorked, type Worked } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { kindOfTub } from '../enclosures/enclosure-advice.ts';
import { herdOf } from './load-herd.ts';
import { type Herd, type HerdAnimal } from './herd.ts';
import { inWalkingOrder, placeOf } from './places.ts';
import { changeCollection } from '../collection/change-collection.ts';
import { freezerOf } from './freezer.service.ts';

/** Everything about feeding: the night, the freezer, the rules, the plans, what worked. */
export async function viewFeeding(work: Work): Promise<FeedingView> {
  const herd = await herdOf(work);
  const { thaw, lines, stock } = await freezerOf(work, herd);
  const { plans } = herd;
  const animals = [...herd.animals.values()];
  const onPlan = (id: string): number =>
    animals.filter(({ history }) => planOf(history, plans).id === id).length;
  return {
    today: work.today,
    rules: herd.rules,
    order: herd.order,
    rulesVersion: herd.rulesVersion,
    plans: plans.map((plan) => ({ ...plan, animals: onPlan(plan.id) })),
    night: inWalkingOrder(herd, animals).flatMap(({ id, number, tubId }) => {
      const meal = herd.meal(id);
      const isTonight = meal !== null && (meal.verdict === 'due' || meal.dueOn <= work.today);
      return isTonight ? [{ id, number, place: placeOf(herd, tubId), meal }] : [];
    }),
    thaw,
    freezer: lines,
    stock,
    worked: workedOf(herd, animals),
    intervals: middleOf(animals.flatMap(({ history }) => mealIntervals(history))),
  };
}

export function workedOf(herd: Herd, animals: readonly HerdAnimal[]): Worked[] {
  const kind = kindOfTub(herd.enclosures);
  const kinds = new Map(
    [...herd.enclosures.tubs.keys()].flatMap((id) => {
      const known = kind(id);
      return known ? [[id, known.name] as const] : [];
    }),
  );
  return whatWorked(
    animals.map(({ history }) => ({ history, kindOfTub: kinds })),
    herd.rules,
  );
}

function middleOf(values: readonly number[]): FeedingView['intervals'] {
  if (values.length === 0) return null;
  const sorted = values.toSorted((a, b) => a - b);
  const at = (share: number): number => sorted[Math.floor(share * (sorted.length - 1))]!;
  return { low: at(0.25), mid: at(0.5), high: at(0.75), of: sorted.length };
}

export function changeFeedingRules(
  work: Work,
  { feeding, order }: RulesChange,
  version: number,
): Promise<{ version: number }> {
  return changeCollection(work, { feedingRules: feeding, orderRules: order }, version);
}
