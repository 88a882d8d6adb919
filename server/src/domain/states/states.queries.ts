import type { LadderStepInput } from '@karyotome/contract';
import {
  COMPARED_AGE_SHARE,
  LEAST_COMPARED_DAYS,
  type Compared,
  type FeedingRules,
  type SaleRules,
  type SeasonRules,
} from '@karyotome/core';
import type { FeedingPlanRow } from '../../db/rows.ts';
import { select, type Work } from '../../db/work.ts';
import type { StoredState } from './compute-state.ts';
import type { AskedState } from './recent-states.ts';
import type { StoredFit } from './stored-fit.ts';

/** SQL: a row of `animal_states` of today that stands, and need not be computed first. */
export const STANDING = 'collection_id = :collectionId and day = :today and computed_for = changes';

/** Today's rows of animals; without a state where it has to be computed first. Of an animal that has gone there is none. */
export function storedStates(
  work: Work,
  ids: readonly string[],
): Promise<(AskedState & { readonly state: StoredState | null })[]> {
  if (ids.length === 0) return Promise.resolve([]);
  return select<AskedState & { readonly state: StoredState | null }>(
    work,
    `select animal_id as id, changes, case when computed_for = changes then facts end as state
       from animal_states where collection_id = :collectionId and day = :today and animal_id in (:ids)`,
    { ids, today: work.today },
  );
}

/** The states of a day that have to be computed, by animal. @param limit - so many at most */
export function staleStates(work: Work, day: string, limit: number): Promise<AskedState[]> {
  return select<AskedState>(
    work,
    `select animal_id as id, changes from animal_states
      where collection_id = :collectionId and day = :day and computed_for <> changes order by animal_id limit :limit`,
    { day, limit },
  );
}

/** How many animals have a state of a day that has to be computed. */
export async function countStale(work: Work, day: string): Promise<number> {
  const [row] = await select<{ count: number }>(
    work,
    `select count(*)::int as count from animal_states
      where collection_id = :collectionId and day = :day and computed_for <> changes`,
    { day },
  );
  return row!.count;
}

/** Which fit the collection has for a day; none where the day has not begun. */
export function fitRevision(work: Work, day: string): Promise<{ revision: number }[]> {
  return select<{ revision: number }>(
    work,
    'select fit_revision as revision from herd_days where collection_id = :collectionId and day = :day',
    { day },
  );
}

/** What was fitted for a day. */
export function storedFit(work: Work, day: string): Promise<StoredFit[]> {
  return select<StoredFit>(
    work,
    'select growth, appetite from herd_days where collection_id = :collectionId and day = :day',
    { day },
  );
}

/** The last day before one that has a fit. */
export function lastFittedDay(work: Work, before: string): Promise<{ day: string }[]> {
  return select<{ day: string }>(
    work,
    'select max(day) as day from herd_days where collection_id = :collectionId and day < :before having max(day) is not null',
    { before },
  );
}

/** The others of an animal's sex and of about its age: how many are lighter for their age, as last stored. */
export async function comparedWith(
  work: Work,
  params: { readonly animalId: string; readonly sex: string; readonly age: number; readonly off: number },
): Promise<Compared> {
  const [counts] = await select<Compared>(
    work,
    `select count(*) filter (where off_curve < :off)::int as below, count(*) filter (where off_curve = :off)::int as same,
            count(*)::int as of
       from animal_states
      where collection_id = :collectionId and day = :today and sex = :sex and animal_id <> :animalId
        and off_curve is not null
        -- The same bound for all, that the index is read by; then the bound of each.
        and age_days between :youngest and :oldest
        and abs(age_days - :age) <= ${COMPARED_AGE_SHARE} * greatest(age_days, :age, ${LEAST_COMPARED_DAYS})`,
    {
      ...params,
      today: work.today,
      youngest: params.age - COMPARED_AGE_SHARE * Math.max(params.age, LEAST_COMPARED_DAYS),
      oldest: Math.max(
        params.age / (1 - COMPARED_AGE_SHARE),
        params.age + COMPARED_AGE_SHARE * LEAST_COMPARED_DAYS,
      ),
    },
  );
  return counts!;
}

/** What the collection keeps its animals by, all in one row; its fit's revision is null where the day has not begun. */
interface Practice {
  readonly feedingRules: Partial<FeedingRules>;
  readonly saleRules: Partial<SaleRules>;
  readonly seasonRules: Partial<SeasonRules>;
  readonly plans: Pick<FeedingPlanRow, 'key' | 'body' | 'version'>[];
  readonly steps: (LadderStepInput & { readonly ladderId: string })[];
  readonly fitRevision: number | null;
}

export function practiceOf(work: Work, day: string): Promise<Practice[]> {
  return select<Practice>(
    work,
    `select c.feeding_rules as "feedingRules", c.sale_rules as "saleRules", c.season_rules as "seasonRules",
            (select coalesce(json_agg(json_build_object('key', p.key, 'body', p.body, 'version', p.version) order by p.key), '[]')
               from feeding_plans p where p.collection_id = c.id) as plans,
            (select coalesce(json_agg(json_build_object('ladderId', s.ladder_id, 'name', s.name, 'minG', s.min_g,
                      'maxG', s.max_g, 'inside', s.inside, 'mealsBefore', s.meals_before) order by s.ladder_id, s.position), '[]')
               from ladder_steps s where s.collection_id = c.id) as steps,
            (select d.fit_revision from herd_days d where d.collection_id = c.id and d.day = :day) as "fitRevision"
       from collections c where c.id = :collectionId`,
    { day },
  );
}
