import { MOST_GROWTH_LINES, readId, type GrowthLine, type GrowthQuery } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** The weights of animals whose day of hatching is known and that were weighed, by number. None where nobody is asked for. */
export function growthLines(work: Work, { clutch, seasonOf, id }: GrowthQuery): Promise<GrowthLine[]> {
  const ids = (id ?? '').split(',').flatMap((one) => readId(one.trim()) ?? []);
  return select<GrowthLine>(
    work,
    `select a.id, a.number, a.sex, a.hatched_on as "hatchedOn", w.weights
       from animals a
       left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
       cross join lateral (
         select json_agg(json_build_object('on', r.on_day, 'massG', (r.body ->> 'massG')::float)
                  order by r.on_day, r.recorded_at) as weights
           from records r
          where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'weight' and r.voided_at is null) w
      where a.collection_id = :collectionId and a.hatched_on is not null and w.weights is not null
        and (a.clutch_id = :clutch or a.id in (:ids)
          or c.season = (select season from clutches where collection_id = :collectionId and id = :seasonOf))
      order by a.number limit ${MOST_GROWTH_LINES}`,
    { clutch: clutch ?? null, seasonOf: seasonOf ?? null, ids },
  );
}
