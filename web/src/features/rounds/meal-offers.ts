import type { RoundAnimal } from '@karyotome/contract';
import { offeredStep } from '@karyotome/core';
import { mealEntry, type Entry } from './round-acts.ts';
import type { Stop } from './useRoundPlace.ts';

/** A meal that is due, to be entered with others of its rack. */
export interface MealOffer {
  readonly animal: Pick<RoundAnimal, 'id' | 'number' | 'label'>;
  /** Level and slot; empty without a tub. */
  readonly place: string;
  readonly prey: string;
  readonly entry: (taken: boolean) => Entry;
}

/** Who of a rack is due for a meal, in walking order. */
export const mealOffers = (stops: readonly Stop[]): MealOffer[] =>
  stops.flatMap(({ animal, place }) => {
    const { meal } = animal;
    if (meal?.verdict !== 'due') return [];
    const offered = { ...meal, step: offeredStep(meal.plan) };
    return [{ animal, place, prey: meal.prey, entry: (taken: boolean) => mealEntry(offered, taken) }];
  });
