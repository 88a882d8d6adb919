import type { FeedingNightLine } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

const STATES = `
  select s.animal_id, s.plan_id, s.facts from animal_states s
   where s.collection_id = :collectionId and s.day = :today and s.animal_id not in (:except)`;

const given = (work: Work, except: readonly string[]) => ({ today: work.today, except });

/** How many animals are on each feeding plan. @param except - whose stored state does not stand */
export function animalsByPlan(
  work: Work,
  except: readonly string[],
): Promise<{ planId: string; animals: number }[]> {
  return select<{ planId: string; animals: number }>(
    work,
    `select plan_id as "planId", count(*)::int as animals from (${STATES}) s group by plan_id`,
    given(work, except),
  );
}

/** Where animals live, in walking order; what has no place comes first. */
const PLACED = `
  select a.id, a.number, case when t.id is null then null else json_build_object(
           'tubId', t.id, 'room', k.room, 'rack', k.name, 'level', t.level, 'slot', t.slot) end as place,
         row_number() over (order by (t.id is not null), k.room, k.name, t.level, t.slot, a.number) as step
    from animals a
    left join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
    left join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
   where a.collection_id = :collectionId and is_kept_here(a.status)`;

/** Meals whose day has come, also those that are passed over, in walking order. @param except - as above */
export function mealsTonight(work: Work, except: readonly string[]): Promise<FeedingNightLine[]> {
  return select<FeedingNightLine>(
    work,
    `select p.id, p.number, p.place, s.facts -> 'meal' as meal from (${STATES}) s join (${PLACED}) p on p.id = s.animal_id
      where s.facts -> 'meal' ->> 'verdict' = 'due' or (s.facts -> 'meal' ->> 'dueOn')::date <= :today
      order by p.step`,
    given(work, except),
  );
}

/** The same of animals without their meals. */
export function placedAnimals(
  work: Work,
  ids: readonly string[],
): Promise<(Omit<FeedingNightLine, 'meal'> & { step: number })[]> {
  return select<Omit<FeedingNightLine, 'meal'> & { step: number }>(
    work,
    `select id, number, place, step::int from (${PLACED}) p where id in (:ids) order by step`,
    { ids },
  );
}
