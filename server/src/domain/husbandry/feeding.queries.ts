import type { FeedingNightLine } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { HOUSING, RACKS_AS_WALKED } from '../enclosures/enclosures.queries.ts';
import { STANDING } from '../states/states.queries.ts';

/** How many animals are on each feeding plan, of those whose stored state stands. */
export function animalsByPlan(work: Work): Promise<{ planId: string; animals: number }[]> {
  return select<{ planId: string; animals: number }>(
    work,
    `select plan_id as "planId", count(*)::int as animals from animal_states where ${STANDING} group by plan_id`,
    { today: work.today },
  );
}

/** Meals whose day has come, also those that are passed over, of animals whose stored state stands. */
export function storedMeals(work: Work): Promise<Pick<FeedingNightLine, 'id' | 'meal'>[]> {
  return select<Pick<FeedingNightLine, 'id' | 'meal'>>(
    work,
    `select animal_id as id, facts -> 'meal' as meal from animal_states where ${STANDING} and is_meal_day`,
    { today: work.today },
  );
}

/** Animals with where they live, in walking order; what has no place comes first. */
export function placedAnimals(work: Work, ids: readonly string[]): Promise<Omit<FeedingNightLine, 'meal'>[]> {
  return select<Omit<FeedingNightLine, 'meal'>>(
    work,
    `select a.id, a.number, case when t.id is null then null else json_build_object(
              'tubId', t.id, 'room', k.room, 'rack', k.name, 'level', t.level, 'slot', t.slot) end as place
       from animals a
       ${HOUSING}
      where a.collection_id = :collectionId and a.id in (:ids)
      order by (t.id is not null), ${RACKS_AS_WALKED}, t.level, t.slot, a.number`,
    { ids },
  );
}
